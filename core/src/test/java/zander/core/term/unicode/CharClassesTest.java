package zander.core.term.unicode;

import static org.assertj.core.api.Assertions.assertThat;

import com.ibm.icu.lang.UCharacter;
import com.ibm.icu.lang.UProperty;
import com.ibm.icu.util.VersionInfo;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;

/**
 * The table of characters. It is made anew by {@code -Dunicode.write=true}.
 *
 * <p>Judged: the width of each character and what it joins | the Unicode Character Database, by ICU
 * | all 1,114,112 code points
 */
class CharClassesTest {
  private static final Path TABLE =
      Path.of("src/main/resources/zander/core/term/unicode/char-classes.txt");

  @Test
  void theTableIsThatOfTheDatabase() throws Exception {
    String made = made();
    if (Boolean.getBoolean("unicode.write")) {
      Files.writeString(TABLE, made);
    }
    assertThat(Files.readString(TABLE, StandardCharsets.US_ASCII)).isEqualTo(made);
  }

  @Test
  void eachCharacterHasItsClass() {
    for (int c = 0; c <= Character.MAX_CODE_POINT; c++) {
      assertThat(CharClasses.of(c)).as("U+%04X", c).isEqualTo(classes(c));
    }
    assertThat(CharClasses.width('x')).isEqualTo(1);
    assertThat(CharClasses.width(0x7530)).as("a field, in Han").isEqualTo(2);
    assertThat(CharClasses.width(0x1f9a6)).as("an otter").isEqualTo(2);
    assertThat(CharClasses.width(0x301)).as("an accent").isZero();
    assertThat(CharClasses.isLeftOut(0x202e)).as("turns text round").isTrue();
  }

  private static String made() {
    StringBuilder text = new StringBuilder();
    VersionInfo version = UCharacter.getUnicodeVersion();
    text.append("# Unicode ").append(version.getMajor()).append('.').append(version.getMinor());
    text.append(": from, to, bits of CharClasses; what is not listed has 1\n");
    int from = 0;
    for (int c = 1; c <= Character.MAX_CODE_POINT + 1; c++) {
      if (c > Character.MAX_CODE_POINT || classes(c) != classes(from)) {
        if (classes(from) != 1) {
          text.append(String.format("%04X %04X %d%n", from, c - 1, classes(from)));
        }
        from = c;
      }
    }
    return text.toString();
  }

  private static boolean has(int c, int property) {
    return UCharacter.hasBinaryProperty(c, property);
  }

  private static int classes(int c) {
    int width = width(c);
    int classes = width;
    boolean regional = has(c, UProperty.REGIONAL_INDICATOR);
    if (has(c, UProperty.EXTENDED_PICTOGRAPHIC)) {
      classes |= CharClasses.PICTOGRAPH;
    }
    if (has(c, UProperty.EMOJI_MODIFIER)) {
      classes |= CharClasses.TONE;
    }
    if (regional) {
      classes |= CharClasses.REGIONAL;
    }
    if (has(c, UProperty.EMOJI) && width == 1 && !regional) {
      classes |= CharClasses.EMOJI_BY_CHOICE;
    }
    return isLeftOut(c) ? classes | CharClasses.LEFT_OUT : classes;
  }

  /** Formats: but the joiners, and the tags that flags of regions are made of. */
  private static boolean isLeftOut(int c) {
    boolean wanted = c == 0x200c || c == 0x200d || c == 0xad || (c >= 0xe0020 && c <= 0xe007f);
    return UCharacter.getType(c) == UCharacter.FORMAT
        && !has(c, UProperty.PREPENDED_CONCATENATION_MARK)
        && !wanted;
  }

  private static int width(int c) {
    int type = UCharacter.getType(c);
    boolean marks =
        type == UCharacter.NON_SPACING_MARK
            || type == UCharacter.ENCLOSING_MARK
            || (type == UCharacter.FORMAT && c != 0xad && !prepended(c));
    int syllable = UCharacter.getIntPropertyValue(c, UProperty.HANGUL_SYLLABLE_TYPE);
    if (marks
        || syllable == UCharacter.HangulSyllableType.VOWEL_JAMO
        || syllable == UCharacter.HangulSyllableType.TRAILING_JAMO) {
      return 0;
    }
    int wide = UCharacter.getIntPropertyValue(c, UProperty.EAST_ASIAN_WIDTH);
    return wide == UCharacter.EastAsianWidth.WIDE || wide == UCharacter.EastAsianWidth.FULLWIDTH
        ? 2
        : 1;
  }

  private static boolean prepended(int c) {
    return has(c, UProperty.PREPENDED_CONCATENATION_MARK);
  }
}
