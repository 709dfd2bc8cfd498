package zander.desk.term;

import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import zander.core.term.screen.Decoration;
import zander.core.term.screen.Row;

/**
 * Something in a terminal that can be gone to.
 *
 * @param target an address, or the path of a file as it is written
 * @param line of the file; 0 where none is named
 * @param from the first column of it
 * @param to the column after it
 */
public record TextLink(Kind kind, String target, int line, int from, int to) {
  /** What it leads to. */
  public enum Kind {
    ADDRESS,
    FILE
  }

  private static final Pattern ADDRESS = Pattern.compile("https?://[^\\s<>\"'`|\\\\^{}]+");
  private static final Pattern FILE =
      Pattern.compile(
          "(?<path>(~|\\.{1,2})?/?[\\w.@%+=~-]+(/[\\w.@%+=~-]+)*/?)(:(?<line>\\d{1,9}))?");
  private static final String ENDS = ".,;:!?)]}";

  /** What is at a column of a row; null for nothing. */
  static @Nullable TextLink at(Row row, int column) {
    if (column >= row.columns()) {
      return null;
    }
    Decoration decoration = row.decoration(column);
    if (decoration != null && !decoration.link().isEmpty()) {
      return marked(row, column, decoration);
    }
    // One character for each column, so that places in the text are columns.
    StringBuilder text = new StringBuilder();
    for (int i = 0; i < row.columns(); i++) {
      int code = row.code(i);
      text.append(code > 0 && Character.isBmpCodePoint(code) ? (char) code : ' ');
    }
    TextLink address = find(ADDRESS.matcher(text), Kind.ADDRESS, column);
    return address != null ? address : find(FILE.matcher(text), Kind.FILE, column);
  }

  private static TextLink marked(Row row, int column, Decoration decoration) {
    int from = column;
    while (from > 0 && decoration.equals(row.decoration(from - 1))) {
      from--;
    }
    int to = column + 1;
    while (to < row.columns() && decoration.equals(row.decoration(to))) {
      to++;
    }
    return new TextLink(Kind.ADDRESS, decoration.link(), 0, from, to);
  }

  private static @Nullable TextLink find(Matcher matcher, Kind kind, int column) {
    while (matcher.find()) {
      if (matcher.start() <= column && column < matcher.end()) {
        return of(matcher, kind);
      }
    }
    return null;
  }

  private static @Nullable TextLink of(Matcher matcher, Kind kind) {
    if (kind == Kind.ADDRESS) {
      String target = matcher.group();
      while (!target.isEmpty() && ENDS.indexOf(target.charAt(target.length() - 1)) >= 0) {
        target = target.substring(0, target.length() - 1);
      }
      int from = matcher.start();
      return new TextLink(kind, target, 0, from, from + target.length());
    }
    String path = matcher.group("path");
    String line = matcher.group("line");
    // A word is a path when it has a folder, an end as files have, or a line; a time is none.
    if (!path.contains("/") && path.chars().noneMatch(Character::isLetter)) {
      return null;
    }
    if (line == null && !path.contains("/") && !path.matches(".+\\.\\w{1,8}")) {
      return null;
    }
    return new TextLink(
        kind, path, line == null ? 0 : Integer.parseInt(line), matcher.start(), matcher.end());
  }
}
