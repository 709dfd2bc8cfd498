package zander.desk.term;

import javafx.scene.paint.Color;
import zander.core.term.Palette;
import zander.desk.words.Words;

/**
 * The colours that a person may choose for shells: sixteen, text, ground, cursor, and what is
 * marked.
 */
public enum ShellColours {
  DARK(
      Words.of(ShellColours.class).say("dark"),
      new int[] {
        0x22302f, 0xd9694f, 0x7fb069, 0xe0b257, 0x6ea3cf, 0xb58ac4, 0x7fb8a4, 0xc9d1ca,
        0x5f726f, 0xef8a72, 0x9ccf86, 0xf3cf80, 0x93c0e6, 0xd0acdc, 0xa4d6c5, 0xf7faf6
      },
      new int[] {0xdfe6df, 0x13201f, 0xe0b257},
      new int[] {0x2c6a5a, 0x6b5420, 0xb0842e}),
  LIGHT(
      Words.of(ShellColours.class).say("light"),
      new int[] {
        0x22302f, 0xa83a22, 0x3d6b2a, 0x7d5a0c, 0x2a5f8f, 0x7a4a8c, 0x2b6b5a, 0xb9bfb6,
        0x5f6a67, 0x8c2412, 0x2b5419, 0x624500, 0x174a78, 0x623376, 0x175445, 0x9aa29b
      },
      new int[] {0x1d2827, 0xfbfaf5, 0x8a5a00},
      new int[] {0xbfded2, 0xf1dfb0, 0xe3b95a}),
  STRONG(
      Words.of(ShellColours.class).say("strongContrast"),
      new int[] {
        0x000000, 0xff6b55, 0x5fe05f, 0xffd84d, 0x6cb6ff, 0xf08bff, 0x5fe8d0, 0xe8e8e8,
        0x9a9a9a, 0xff9484, 0x8cff8c, 0xffe88a, 0x9fd0ff, 0xf7b5ff, 0x98fff0, 0xffffff
      },
      new int[] {0xffffff, 0x000000, 0xffd84d},
      new int[] {0x00607a, 0x7a5a00, 0xb88600});

  private final String words;
  private final int[] palette = new int[Palette.CURSOR + 1];
  private final Color selected;
  private final Color found;
  private final Color foundNow;

  /**
   * @param own of the text, the ground and the cursor
   * @param marks of what is selected, what is found, and what is found and in front
   */
  ShellColours(String words, int[] sixteen, int[] own, int[] marks) {
    this.words = words;
    System.arraycopy(sixteen, 0, palette, 0, sixteen.length);
    for (int i = sixteen.length; i < Palette.TEXT; i++) {
      palette[i] = Palette.usual(i);
    }
    System.arraycopy(own, 0, palette, Palette.TEXT, own.length);
    selected = TerminalColours.color(marks[0]);
    found = TerminalColours.color(marks[1]);
    foundNow = TerminalColours.color(marks[2]);
  }

  /** Those of a number that was kept; the first where there is none of it. */
  public static ShellColours of(long number) {
    return number >= 0 && number < values().length ? values()[(int) number] : DARK;
  }

  /** What they are called. */
  public String words() {
    return words;
  }

  /** Of the ground, as a stylesheet has colours. */
  public String ground() {
    return String.format("#%06x", palette[Palette.GROUND]);
  }

  int[] palette() {
    return palette.clone();
  }

  Color selected() {
    return selected;
  }

  Color found() {
    return found;
  }

  Color foundNow() {
    return foundNow;
  }
}
