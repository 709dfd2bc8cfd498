package zander.core.edit;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class HiddenCharactersTest {
  private static List<String> names(String text) {
    return HiddenCharacters.in(text).stream().map(HiddenCharacters.Hidden::name).toList();
  }

  @Test
  void whatLooksLikeNothingOrLikeASpaceIsNamed() {
    assertThat(names("listen\u00a080;\u200b\n"))
        .containsExactly("no-break space", "zero width space");
    assertThat(names("a\u202eb\u001b\u00ad\ufeff"))
        .containsExactly(
            "right-to-left override", "escape", "soft hyphen", "zero width no-break space");
    HiddenCharacters.Hidden tag = HiddenCharacters.next("ab\udb40\udc41", 0);
    assertThat(tag.start()).isEqualTo(2);
    assertThat(tag.end()).isEqualTo(4);
    assertThat(HiddenCharacters.next("\u00a0a", 1)).isNull();
  }

  /** A tab, all letters, a heart in colour, a family, a key, and joiners of Persian and Hindi. */
  @ParameterizedTest
  @ValueSource(
      strings = {
        "a\tb\n",
        "P\u00e4gel \u0395\u0396 \u0416",
        "\u2764\ufe0f",
        "\ud83d\udc68\u200d\ud83d\udc69\u200d\ud83d\udc67",
        "1\ufe0f\u20e3",
        "\u0645\u06cc\u200c\u062e\u0648\u0627\u0647\u0645",
        "\u0915\u094d\u200d\u0937"
      })
  void whatIsWrittenSoIsNot(String text) {
    assertThat(HiddenCharacters.in(text)).isEmpty();
  }

  @Test
  void betweenOtherLettersJoinersAreHidden() {
    assertThat(names("ro\u200dot\u200c")).hasSize(2);
  }
}
