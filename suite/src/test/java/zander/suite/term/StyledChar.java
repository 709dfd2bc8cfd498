package zander.suite.term;

import java.util.ArrayList;
import java.util.List;
import java.util.TreeSet;
import zander.core.term.screen.CellStyle;
import zander.core.term.screen.Decoration;
import zander.core.term.screen.Row;

/**
 * A character and how it looks, in words that two terminals can be compared in.
 *
 * @param look attributes in the order of their names, and colours
 */
record StyledChar(int codePoint, String look) {
  private static final StyledChar PLAIN_SPACE = new StyledChar(' ', "");

  @Override
  public String toString() {
    return Character.toString(codePoint) + (look.isEmpty() ? "" : "{" + look + "}");
  }

  private static List<StyledChar> trimmed(List<StyledChar> row) {
    int end = row.size();
    while (end > 0 && row.get(end - 1).equals(PLAIN_SPACE)) {
      end--;
    }
    return row.subList(0, end);
  }

  /** Of a row of ours. */
  static List<StyledChar> of(Row row) {
    List<StyledChar> all = new ArrayList<>();
    for (int x = 0; x < row.columns(); x++) {
      if (row.code(x) == Row.TAIL) {
        continue;
      }
      String text = row.code(x) == Row.BLANK ? " " : row.text(x);
      String look = look(row.style(x), row.decoration(x));
      text.codePoints().forEach(c -> all.add(new StyledChar(c, look)));
    }
    return trimmed(all);
  }

  private static final long[] ATTRIBUTES = {
    CellStyle.BOLD,
    CellStyle.FAINT,
    CellStyle.ITALIC,
    CellStyle.BLINK,
    CellStyle.REVERSE,
    CellStyle.HIDDEN,
    CellStyle.STRIKE,
    CellStyle.OVERLINE
  };
  private static final int[] CODES = {1, 2, 3, 5, 7, 8, 9, 53};

  private static String look(long style, Decoration decoration) {
    TreeSet<String> look = new TreeSet<>();
    for (int i = 0; i < CODES.length; i++) {
      if (CellStyle.has(style, ATTRIBUTES[i])) {
        look.add("a" + CODES[i]);
      }
    }
    if (CellStyle.underline(style) != 0) {
      look.add("u" + CellStyle.underline(style));
    }
    colour(look, "f", CellStyle.foreground(style));
    colour(look, "g", CellStyle.background(style));
    colour(look, "l", decoration == null ? 0 : decoration.underline());
    return String.join(" ", look);
  }

  private static void colour(TreeSet<String> look, String which, int colour) {
    if (CellStyle.isIndexed(colour)) {
      look.add(which + CellStyle.value(colour));
    } else if (CellStyle.isRgb(colour)) {
      look.add(which + String.format("#%06x", CellStyle.value(colour)));
    }
  }

  /** Reads the rows of a capture: text, SGR, and the shifts around characters that draw lines. */
  static final class Reader {
    private static final String DRAWING = "◆▒␉␌␍␊°±␤␋┘┐┌└┼⎺⎻─⎼⎽├┤┴┬│≤≥π≠£·";

    private final TreeSet<String> look = new TreeSet<>();
    private boolean drawing;

    List<StyledChar> row(String text) {
      List<StyledChar> row = new ArrayList<>();
      for (int i = 0; i < text.length(); ) {
        int c = text.codePointAt(i);
        if (c == 0x1b) {
          int end = text.indexOf('m', i);
          for (String code : text.substring(i + 2, end).split(";")) {
            codes.add(code);
          }
          apply();
          i = end + 1;
        } else if (c == 0x0e || c == 0x0f) {
          drawing = c == 0x0e;
          i++;
        } else {
          int shown = drawing && c >= 0x60 && c <= 0x7e ? DRAWING.charAt(c - 0x60) : c;
          row.add(new StyledChar(shown, String.join(" ", look)));
          i += Character.charCount(c);
        }
      }
      return trimmed(row);
    }

    private final List<String> codes = new ArrayList<>();

    private void apply() {
      while (!codes.isEmpty()) {
        String code = codes.remove(0);
        switch (code) {
          case "", "0" -> look.clear();
          case "38", "48", "58" -> colour(code.equals("38") ? "f" : code.equals("48") ? "g" : "l");
          case "4" -> underline("1");
          case "22" -> look.removeAll(List.of("a1", "a2"));
          case "39" -> look.removeIf(one -> one.startsWith("f"));
          case "49" -> look.removeIf(one -> one.startsWith("g"));
          case "59" -> look.removeIf(one -> one.startsWith("l"));
          case "21" -> underline("2");
          default -> other(code);
        }
      }
    }

    private void underline(String way) {
      look.removeIf(one -> one.startsWith("u"));
      if (!way.equals("0")) {
        look.add("u" + way);
      }
    }

    private void colour(String which) {
      look.removeIf(one -> one.startsWith(which));
      if (codes.remove(0).equals("5")) {
        look.add(which + codes.remove(0));
      } else {
        int red = Integer.parseInt(codes.remove(0));
        int green = Integer.parseInt(codes.remove(0));
        int blue = Integer.parseInt(codes.remove(0));
        look.add(which + String.format("#%06x", (red << 16) | (green << 8) | blue));
      }
    }

    private void other(String code) {
      if (code.equals("5:3")) {
        // As tmux 3.3 writes 53, which it takes for a way of underlining.
        look.add("a53");
        return;
      }
      if (code.startsWith("4:")) {
        underline(code.substring(2));
        return;
      }
      int number = Integer.parseInt(code);
      int base = number >= 90 ? number >= 100 ? 100 - 8 : 90 - 8 : number >= 40 ? 40 : 30;
      if (number < 30 || number == 53) {
        look.add("a" + number);
      } else {
        String which = number >= 100 || (number >= 40 && number < 50) ? "g" : "f";
        look.removeIf(one -> one.startsWith(which));
        look.add(which + (number - base));
      }
    }
  }
}
