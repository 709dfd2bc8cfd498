package zander.core.term.parse;

/**
 * UTF-8 byte by byte. What is not well formed becomes U+FFFD once for each maximal subpart (The
 * Unicode Standard, section 3.9, table 3-7 and the practice for replacement).
 */
final class Utf8Decoder {
  /** More bytes are wanted. */
  static final int MORE = -1;

  /** The bytes so far are none; the last byte is to be given again. */
  static final int BAD_BEFORE = -2;

  /** The byte begins no character. */
  static final int BAD = -3;

  private int wanted;
  private int value;
  private int lowest = 0x80;
  private int highest = 0xbf;

  /** Whether a character has begun and is not yet whole. */
  boolean isInside() {
    return wanted > 0;
  }

  void reset() {
    wanted = 0;
  }

  /**
   * Takes one byte of 0x80 to 0xff, or any byte while {@link #isInside}.
   *
   * @return the character, or one of the marks above
   */
  int take(int next) {
    if (wanted == 0) {
      return begin(next);
    }
    if (next < lowest || next > highest) {
      wanted = 0;
      return BAD_BEFORE;
    }
    lowest = 0x80;
    highest = 0xbf;
    value = (value << 6) | (next & 0x3f);
    return --wanted == 0 ? value : MORE;
  }

  private int begin(int next) {
    lowest = 0x80;
    highest = 0xbf;
    if (next >= 0xc2 && next <= 0xdf) {
      wanted = 1;
      value = next & 0x1f;
    } else if (next >= 0xe0 && next <= 0xef) {
      wanted = 2;
      value = next & 0x0f;
      lowest = next == 0xe0 ? 0xa0 : 0x80;
      highest = next == 0xed ? 0x9f : 0xbf;
    } else if (next >= 0xf0 && next <= 0xf4) {
      wanted = 3;
      value = next & 0x07;
      lowest = next == 0xf0 ? 0x90 : 0x80;
      highest = next == 0xf4 ? 0x8f : 0xbf;
    } else {
      return BAD;
    }
    return MORE;
  }
}
