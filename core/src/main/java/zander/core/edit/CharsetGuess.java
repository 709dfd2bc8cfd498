package zander.core.edit;

import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.UnsupportedCharsetException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.mozilla.universalchardet.UniversalDetector;

/**
 * In which encoding a text may be that is not UTF-8. Every byte is something in the old encodings,
 * so what is looked at is what would become of it: a fraction within a word, a capital behind a
 * small letter, or letters that hardly occur speak against an encoding. Where nothing speaks, the
 * languages of the west are taken, and before them that of the person. It stays a guess.
 */
final class CharsetGuess {
  /** From this part of letters that are not ASCII on, the script is not the Latin one. */
  private static final double OTHER_SCRIPT = 0.4;

  private static final int ENOUGH = 8;

  /** Bytes that are looked at, and those of them before the first that is not ASCII. */
  private static final int SAMPLE = 1 << 16;

  private static final int BEFORE = 1 << 10;

  private static final Set<String> WITH_SEVERAL_BYTES =
      Set.of(
          "SHIFT_JIS",
          "EUC-JP",
          "ISO-2022-JP",
          "BIG5",
          "GB18030",
          "EUC-KR",
          "EUC-TW",
          "HZ-GB-2312");

  private static final List<String> WESTERN = List.of("ISO-8859-1", "windows-1252", "ISO-8859-15");
  private static final List<String> CENTRAL = List.of("ISO-8859-2", "windows-1250");
  private static final List<String> TURKISH = List.of("ISO-8859-9", "windows-1254");
  private static final List<String> BALTIC = List.of("windows-1257", "ISO-8859-13");
  private static final List<String> CYRILLIC =
      List.of("windows-1251", "KOI8-R", "ISO-8859-5", "IBM866", "KOI8-U");
  private static final List<String> GREEK = List.of("ISO-8859-7", "windows-1253");

  private static final String COMMON = "оеаинтсрвлкмдпуα\u03bfιετσνηυρπκμλ";

  /** Of languages whose letters several encodings have in different places. */
  private static final Map<String, String> LETTERS =
      Map.of(
          "pl", "ąćęłńóśźż",
          "cs", "áčďéěíňóřšťúůýž",
          "sk", "áäčďéíĺľňóôŕšťúýž",
          "hu", "áéíóöőúüű");

  private CharsetGuess() {}

  static Charset of(byte[] whole, Locale locale) {
    byte[] bytes = sample(whole);
    int high = 0;
    int letters = 0;
    for (byte b : bytes) {
      high += b < 0 ? 1 : 0;
      letters += (b >= 'a' && b <= 'z') || (b >= 'A' && b <= 'Z') ? 1 : 0;
    }
    boolean latin = high < OTHER_SCRIPT * (high + letters);
    if (!latin && high >= ENOUGH) {
      Charset detected = detected(bytes);
      if (detected != null
          && WITH_SEVERAL_BYTES.contains(detected.name().toUpperCase(Locale.ROOT))) {
        return detected;
      }
    }
    String own = LETTERS.getOrDefault(locale.getLanguage(), "");
    List<String> western = latin(locale);
    return best(bytes, latin ? western : joined(western, CYRILLIC, GREEK), own);
  }

  /** Of a long text, where there is something to see. */
  private static byte[] sample(byte[] bytes) {
    int first = 0;
    while (first < bytes.length && bytes[first] >= 0) {
      first++;
    }
    int from = Math.max(0, first - BEFORE);
    return Arrays.copyOfRange(bytes, from, Math.min(bytes.length, from + SAMPLE));
  }

  private static List<String> latin(Locale locale) {
    return switch (locale.getLanguage()) {
      case "pl", "cs", "sk", "hu", "sl", "hr", "ro", "sq" -> joined(CENTRAL, WESTERN);
      case "tr", "az" -> joined(TURKISH, WESTERN, CENTRAL);
      case "lt", "lv", "et" -> joined(BALTIC, WESTERN, CENTRAL);
      default -> joined(WESTERN, CENTRAL);
    };
  }

  @SafeVarargs
  private static List<String> joined(List<String>... lists) {
    List<String> all = new ArrayList<>();
    for (List<String> list : lists) {
      all.addAll(list);
    }
    return all;
  }

  private static @Nullable Charset detected(byte[] bytes) {
    UniversalDetector detector = new UniversalDetector();
    detector.handleData(bytes, 0, bytes.length);
    detector.dataEnd();
    try {
      String name = detector.getDetectedCharset();
      return name == null ? null : Charset.forName(name);
    } catch (UnsupportedCharsetException e) {
      return null;
    }
  }

  /** The first of those that least speaks against. */
  private static Charset best(byte[] bytes, List<String> names, String own) {
    Charset best = java.nio.charset.StandardCharsets.ISO_8859_1;
    double least = Double.MAX_VALUE;
    for (String name : names) {
      if (!Charset.isSupported(name)) {
        continue;
      }
      Charset charset = Charset.forName(name);
      try {
        double against = against(charset.newDecoder().decode(ByteBuffer.wrap(bytes)), own);
        if (against < least) {
          least = against;
          best = charset;
        }
      } catch (CharacterCodingException e) {
        // Some byte is nothing in it.
      }
    }
    return best;
  }

  /**
   * How much speaks against a text.
   *
   * @param own letters of the person's language; empty where that says nothing
   */
  private static double against(CharSequence text, String own) {
    double against = 0;
    char before = ' ';
    for (int i = 0; i < text.length(); i++) {
      char c = text.charAt(i);
      char next = i + 1 < text.length() ? text.charAt(i + 1) : ' ';
      if (c >= 0x80) {
        boolean within = Character.isLetter(before) || Character.isLetter(next);
        if (c < 0xA0) {
          against += 8;
        } else if (!Character.isLetter(c)) {
          against += Character.isLetter(before) && Character.isLetter(next) ? 4 : within ? 1 : 0.3;
        } else {
          against += Character.isUpperCase(c) && Character.isLowerCase(before) ? 3 : 0;
          against += c == 'ς' && Character.isLetter(next) ? 3 : 0;
          boolean foreign = !own.isEmpty() && own.indexOf(Character.toLowerCase(c)) < 0;
          against += foreign ? 0.4 : 0;
          against += isMixed(c, before) || isMixed(c, next) ? 2 : 0;
          against -= within && COMMON.indexOf(c) >= 0 ? 0.5 : 0;
        }
      } else if (Character.isUpperCase(c) && Character.isLowerCase(before) && before >= 0x80) {
        against += 1;
      }
      before = c;
    }
    return against;
  }

  /** Whether one letter is of a script of its own and the other is ASCII. */
  private static boolean isMixed(char letter, char other) {
    return other < 0x80
        && Character.isLetter(other)
        && Character.UnicodeScript.of(letter) != Character.UnicodeScript.LATIN;
  }
}
