package zander.core.work;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import zander.core.files.WireName;

class VisibleTextTest {
  /** What the library of regular expressions holds for unseen, as another judge. */
  private static final Pattern UNSEEN =
      Pattern.compile("[\\p{Cc}\\p{Cf}\\p{Zl}\\p{Zp}\\p{Cs}\\p{Co}\\p{Cn}]|[\\p{Zs}&&[^ ]]");

  @Test
  void everyCharacterIsSeenOrMarked() {
    int marked = 0;
    for (int c = 1; c <= Character.MAX_CODE_POINT; c++) {
      if (Character.getType(c) == Character.SURROGATE) {
        continue;
      }
      String text = Character.toString(c);
      String shown = WireName.toText(WireName.fromText("a" + text + "z"));
      if (UNSEEN.matcher(text).matches()) {
        assertThat(shown).doesNotContain(text).startsWith("a\\").endsWith("z");
        marked++;
      } else if (!shown.contains(text)) {
        // Fillers and selectors, which count as letters and marks.
        assertThat(VisibleText.isHidden(c)).isTrue();
      }
    }
    assertThat(marked).isGreaterThan(200);
  }

  @Test
  void marksTellWhichCharacterItIs() {
    assertThat(VisibleText.of("gpj.\u202eexe")).isEqualTo("gpj.\\u202eexe");
    assertThat(VisibleText.of("one\ntwo\u001b[2J")).isEqualTo("one\ntwo\\x1b[2J");
    assertThat(VisibleText.of("a\u3164b\udb40\udd00")).isEqualTo("a\\u3164b\\U000e0100");
    assertThat(VisibleText.of("Wasserstände, \u6c34\u4f4d, \u0645\u0627\u0621"))
        .isEqualTo("Wasserstände, \u6c34\u4f4d, \u0645\u0627\u0621");
  }
}
