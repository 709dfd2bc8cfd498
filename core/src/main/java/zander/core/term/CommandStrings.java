package zander.core.term;

import java.net.URLDecoder;
import java.nio.charset.StandardCharsets;
import java.util.ArrayDeque;
import java.util.Base64;
import java.util.Deque;
import java.util.List;
import java.util.function.Consumer;
import zander.core.term.screen.Decoration;
import zander.core.term.screen.Screen;

/**
 * The strings that a program gives the terminal beside its text (OSC): title, colours, the folder,
 * links, the clipboard. What is not known is left out.
 */
final class CommandStrings {
  private static final int LONGEST_TITLE = 256;
  private static final int LONGEST_LINK = 2048;
  private static final int LONGEST_CLIP = 100_000;
  private static final int MOST_TITLES = 10;

  private final Screen screen;
  private final Palette palette;
  private final Reports reports;
  private final List<Consumer<TerminalListener>> told;
  private final Deque<String> titles = new ArrayDeque<>();
  private String title = "";

  /**
   * @param told takes what a listener is to be told
   */
  CommandStrings(
      Screen screen, Palette palette, Reports reports, List<Consumer<TerminalListener>> told) {
    this.screen = screen;
    this.palette = palette;
    this.reports = reports;
    this.told = told;
  }

  void take(String text) {
    int end = text.indexOf(';');
    String number = end < 0 ? text : text.substring(0, end);
    String rest = end < 0 ? "" : text.substring(end + 1);
    switch (number) {
      case "0", "2" -> title(rest);
      case "4" -> indexed(rest);
      case "7" -> folder(rest);
      case "8" -> link(rest);
      case "10", "11", "12" -> colours(Integer.parseInt(number), rest);
      case "52" -> clipboard(rest);
      case "104" -> resetIndexed(rest);
      case "110" -> reset(Palette.TEXT);
      case "111" -> reset(Palette.GROUND);
      case "112" -> reset(Palette.CURSOR);
      default -> {
        // Icons, sizes, progress, marks of shells: nothing that is shown.
      }
    }
  }

  private void title(String wanted) {
    StringBuilder kept = new StringBuilder();
    wanted
        .codePoints()
        .filter(c -> !Character.isISOControl(c) && Character.getType(c) != Character.FORMAT)
        .limit(LONGEST_TITLE)
        .forEach(kept::appendCodePoint);
    title = kept.toString();
    String now = title;
    told.add(listener -> listener.title(now));
  }

  /** Saves the title, or takes the one saved last (XTWINOPS 22 and 23). */
  void keepTitle(boolean save) {
    if (save && titles.size() < MOST_TITLES) {
      titles.push(title);
    } else if (!save && !titles.isEmpty()) {
      title(titles.pop());
    }
  }

  private void indexed(String text) {
    String[] fields = text.split(";", 2 * Palette.TEXT + 1);
    for (int i = 0; i + 1 < fields.length; i += 2) {
      int index = number(fields[i]);
      if (index < 0 || index >= Palette.TEXT) {
        continue;
      }
      if (fields[i + 1].equals("?")) {
        reports.colour("4;" + index, palette.rgb(index));
      } else {
        set(index, fields[i + 1]);
      }
    }
  }

  /** OSC 10 takes several: the text's, then the ground's, then the cursor's. */
  private void colours(int first, String text) {
    int which = first;
    for (String field : text.split(";", 4)) {
      if (which > 12) {
        return;
      }
      int place = Palette.TEXT + which - 10;
      if (field.equals("?")) {
        reports.colour(Integer.toString(which), palette.rgb(place));
      } else {
        set(place, field);
      }
      which++;
    }
  }

  private void set(int place, String text) {
    int rgb = rgb(text);
    if (rgb >= 0) {
      palette.set(place, rgb);
      screen.redraw();
    }
  }

  private void reset(int place) {
    palette.reset(place);
    screen.redraw();
  }

  private void resetIndexed(String text) {
    if (text.isEmpty()) {
      palette.resetIndexed();
    }
    for (String field : text.split(";", Palette.TEXT + 1)) {
      int index = number(field);
      if (index >= 0 && index < Palette.TEXT) {
        palette.reset(index);
      }
    }
    screen.redraw();
  }

  private static int number(String text) {
    return text.matches("[0-9]{1,3}") ? Integer.parseInt(text) : -1;
  }

  /** {@code rgb:r/g/b} with one to four hexadecimal digits each, or {@code #rrggbb}; else -1. */
  private static int rgb(String text) {
    if (text.matches("#[0-9a-fA-F]{6}")) {
      return Integer.parseInt(text.substring(1), 16);
    }
    if (!text.matches("rgb:[0-9a-fA-F]{1,4}(/[0-9a-fA-F]{1,4}){2}")) {
      return -1;
    }
    int rgb = 0;
    for (String part : text.substring(4).split("/")) {
      int most = (1 << (4 * part.length())) - 1;
      rgb = (rgb << 8) | (Integer.parseInt(part, 16) * 255 / most);
    }
    return rgb;
  }

  private void folder(String address) {
    if (!address.startsWith("file://") || address.length() > LONGEST_LINK) {
      return;
    }
    int path = address.indexOf('/', "file://".length());
    if (path < 0) {
      return;
    }
    try {
      String plain =
          URLDecoder.decode(address.substring(path).replace("+", "%2B"), StandardCharsets.UTF_8);
      if (plain.chars().noneMatch(Character::isISOControl)) {
        String host = address.substring("file://".length(), path);
        told.add(listener -> listener.folder(host, plain));
      }
    } catch (IllegalArgumentException e) {
      // Not an address.
    }
  }

  private void link(String text) {
    int end = text.indexOf(';');
    String address = end < 0 ? "" : text.substring(end + 1);
    boolean good =
        address.length() <= LONGEST_LINK && address.chars().allMatch(c -> c > ' ' && c < 0x7f);
    String id = "";
    for (String field : text.substring(0, Math.max(end, 0)).split(":")) {
      if (field.startsWith("id=") && field.length() <= LONGEST_TITLE) {
        id = field.substring(3);
      }
    }
    screen.decoration(
        Decoration.linked(
            screen.decoration(), good ? address : "", good && !address.isEmpty() ? id : ""));
  }

  /** A wish, which a person is asked about; what is on the clipboard is never told. */
  private void clipboard(String text) {
    String coded = text.substring(text.indexOf(';') + 1);
    if (coded.isEmpty() || coded.equals("?") || coded.length() > LONGEST_CLIP * 4 / 3 + 4) {
      return;
    }
    try {
      String wanted = new String(Base64.getDecoder().decode(coded), StandardCharsets.UTF_8);
      told.add(listener -> listener.clipboard(wanted));
    } catch (IllegalArgumentException e) {
      // Not in base 64.
    }
  }

  void reset() {
    titles.clear();
  }
}
