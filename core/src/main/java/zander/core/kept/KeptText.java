package zander.core.kept;

import java.util.ArrayList;
import java.util.List;

/** Writes the rights that a folder keeps so that they can be read: in columns, with a head. */
final class KeptText {
  private static final String HEAD = KeptRights.HEAD + " owner group files folders";

  private KeptText() {}

  /**
   * @param lines as they are read, in any columns, without a head
   */
  static String aligned(String lines) {
    List<String[]> rows = new ArrayList<>();
    rows.add(HEAD.replaceFirst("# ", "#\0").split(" "));
    for (String line : lines.lines().toList()) {
      rows.add(line.strip().split("(?<!\\\\) +"));
    }
    int[] widths = new int[rows.get(0).length];
    for (String[] row : rows) {
      for (int i = 0; i < row.length && i < widths.length; i++) {
        widths[i] = Math.max(widths[i], row[i].length());
      }
    }
    StringBuilder text = new StringBuilder();
    for (String[] row : rows) {
      StringBuilder line = new StringBuilder();
      for (int i = 0; i < row.length; i++) {
        line.append(row[i]).append(" ".repeat(Math.max(0, widths[i] - row[i].length()) + 2));
      }
      text.append(line.toString().replace('\0', ' ').stripTrailing()).append('\n');
    }
    return text.toString();
  }
}
