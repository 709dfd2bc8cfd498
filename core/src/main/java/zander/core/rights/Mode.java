package zander.core.rights;

import zander.core.phrase.InputPhrase;
import zander.core.phrase.InvalidInput;

/**
 * The twelve mode bits of a file: set-user-id, set-group-id, sticky, and read, write and run for
 * owner, group and others (POSIX {@code <sys/stat.h>}).
 *
 * @param bits 0 to 07777
 */
public record Mode(int bits) {
  public static final int SET_UID = 04000;
  public static final int SET_GID = 02000;
  public static final int STICKY = 01000;

  /** For whom three of the bits are. */
  public enum Who {
    OWNER(6, SET_UID, "u"),
    GROUP(3, SET_GID, "g"),
    OTHERS(0, 0, "o");

    private final int shift;
    private final int setId;
    private final String letter;

    Who(int shift, int setId, String letter) {
      this.shift = shift;
      this.setId = setId;
      this.letter = letter;
    }

    int shift() {
      return shift;
    }

    int setId() {
      return setId;
    }

    public String letter() {
      return letter;
    }
  }

  /** What one of the bits allows. Its weight is its part of the octal digit. */
  public enum May {
    READ(4, 'r'),
    WRITE(2, 'w'),
    RUN(1, 'x');

    private final int weight;
    private final char letter;

    May(int weight, char letter) {
      this.weight = weight;
      this.letter = letter;
    }

    public int weight() {
      return weight;
    }

    public char letter() {
      return letter;
    }
  }

  public Mode {
    if (bits < 0 || bits > 07777) {
      throw new IllegalArgumentException("not twelve mode bits: " + Integer.toOctalString(bits));
    }
  }

  /** The lower twelve bits of a {@code st_mode}. */
  public static Mode ofStat(int statMode) {
    return new Mode(statMode & 07777);
  }

  /**
   * Reads one to four octal digits, or five with a leading 0.
   *
   * @throws IllegalArgumentException when the text is anything else
   */
  public static Mode ofOctal(String text) {
    String digits = text.strip();
    if (!digits.matches("0?[0-7]{1,4}")) {
      throw new InvalidInput(
          (digits.matches("[0-9]+") && !digits.matches("[0-7]+")
                  ? InputPhrase.MODE_DIGITS
                  : InputPhrase.MODE_LENGTH)
              .of());
    }
    return new Mode(Integer.parseInt(digits, 8));
  }

  public boolean allows(Who who, May may) {
    return (bits & (may.weight << who.shift)) != 0;
  }

  public Mode with(Who who, May may, boolean allowed) {
    return withBit(may.weight << who.shift, allowed);
  }

  public boolean has(int bit) {
    return (bits & bit) != 0;
  }

  public Mode withBit(int bit, boolean on) {
    return new Mode(on ? bits | bit : bits & ~bit);
  }

  /** The octal digit for one of the three, 0 to 7. */
  public int digit(Who who) {
    return (bits >> who.shift) & 7;
  }

  /** Four octal digits, {@code 0644}. */
  public String octal() {
    return String.format("%04o", bits);
  }

  /** Three octal digits, or four when one of the upper three bits is set. */
  public String shortOctal() {
    return String.format("%03o", bits);
  }

  /** Nine letters as POSIX {@code ls -l} writes them, {@code rwxr-sr-t}. */
  public String letters() {
    StringBuilder text = new StringBuilder(9);
    for (Who who : Who.values()) {
      text.append(allows(who, May.READ) ? 'r' : '-').append(allows(who, May.WRITE) ? 'w' : '-');
      boolean run = allows(who, May.RUN);
      boolean special = who == Who.OTHERS ? has(STICKY) : has(who.setId);
      char letter = who == Who.OTHERS ? 't' : 's';
      text.append(special ? (run ? letter : Character.toUpperCase(letter)) : run ? 'x' : '-');
    }
    return text.toString();
  }

  /**
   * The digit as a sum, {@code 4+2 = 6}; {@code 0} for nothing and {@code 4 = 4} for a single bit.
   */
  public String sum(Who who) {
    StringBuilder text = new StringBuilder();
    for (May may : May.values()) {
      if (allows(who, may)) {
        text.append(text.length() > 0 ? "+" : "").append(may.weight);
      }
    }
    return text.length() == 0 ? "0" : text + " = " + digit(who);
  }

  @Override
  public String toString() {
    return octal();
  }
}
