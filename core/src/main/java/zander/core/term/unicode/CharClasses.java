package zander.core.term.unicode;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.HashMap;
import java.util.Map;

/**
 * What a terminal needs to know of each character: its width in cells, and how it joins the one
 * before it. Read once from a table that was made of the Unicode Character Database (East Asian
 * Width, general category, emoji data; its version is in the table's first line). Safe for use by
 * any thread.
 */
public final class CharClasses {
  /** The width in cells: 0, 1 or 2. */
  static final int WIDTH = 3;

  /** Extended_Pictographic: what a zero width joiner joins. */
  static final int PICTOGRAPH = 4;

  /** Emoji_Modifier: the tone of skin of the pictograph before it. */
  static final int TONE = 8;

  /** A regional indicator; two of them are a flag. */
  static final int REGIONAL = 16;

  /** Takes one cell as text and two as an emoji, which a variation selector after it chooses. */
  static final int EMOJI_BY_CHOICE = 32;

  /** Formats text and shows nothing: in a grid of cells it could only hide what is there. */
  static final int LEFT_OUT = 64;

  private static final int BLOCK = 256;
  private static final byte[][] BLOCKS = read();

  private CharClasses() {}

  private static byte[][] read() {
    byte[] all = new byte[Character.MAX_CODE_POINT + 1];
    Arrays.fill(all, (byte) 1);
    try (InputStream in = CharClasses.class.getResourceAsStream("char-classes.txt");
        BufferedReader lines =
            new BufferedReader(new InputStreamReader(in, StandardCharsets.US_ASCII))) {
      for (String line = lines.readLine(); line != null; line = lines.readLine()) {
        if (!line.startsWith("#")) {
          String[] fields = line.split(" ");
          int from = Integer.parseInt(fields[0], 16);
          int to = Integer.parseInt(fields[1], 16);
          Arrays.fill(all, from, to + 1, Byte.parseByte(fields[2]));
        }
      }
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    Map<String, byte[]> same = new HashMap<>();
    byte[][] blocks = new byte[all.length / BLOCK][];
    for (int i = 0; i < blocks.length; i++) {
      byte[] block = Arrays.copyOfRange(all, i * BLOCK, (i + 1) * BLOCK);
      blocks[i] =
          same.computeIfAbsent(new String(block, StandardCharsets.ISO_8859_1), key -> block);
    }
    return blocks;
  }

  /** The bits of a character; all of what is no character are those of an ordinary one. */
  static int of(int codePoint) {
    return BLOCKS[codePoint >> 8][codePoint & 0xff];
  }

  /** How many cells it takes by itself: 0 for what joins the one before it. */
  public static int width(int codePoint) {
    return of(codePoint) & WIDTH;
  }

  /** Whether it is not to be shown, nor kept. */
  public static boolean isLeftOut(int codePoint) {
    return (of(codePoint) & LEFT_OUT) != 0;
  }
}
