package zander.core.connect.keys;

import com.nulabinc.zxcvbn.Zxcvbn;
import java.nio.CharBuffer;

/** How long a passphrase would hold against guessing. A hint, never a rule. */
public enum KeyStrength {
  NONE,
  WEAK,
  FAIR,
  GOOD,
  STRONG;

  private static final int LONGEST_LOOKED_AT = 64;

  /** Rates letters, which are left as they are. Takes some milliseconds. */
  public static KeyStrength of(char[] letters) {
    if (letters.length == 0) {
      return NONE;
    }
    CharBuffer begin = CharBuffer.wrap(letters, 0, Math.min(LONGEST_LOOKED_AT, letters.length));
    return switch (new Zxcvbn().measure(begin).getScore()) {
      case 0, 1 -> WEAK;
      case 2 -> FAIR;
      case 3 -> GOOD;
      default -> STRONG;
    };
  }
}
