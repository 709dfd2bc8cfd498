package zander.core.find;

import java.nio.charset.Charset;
import java.nio.charset.CharsetEncoder;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import java.util.function.Predicate;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import zander.core.files.PosixClasses;

/**
 * What {@code grep -E} is asked for in the C locale, where each byte is a character: an expression
 * that fits every line which the one that is meant fits, whatever encoding a file has, and some
 * lines more. What comes over the line is then judged by our own engine, so that a server's locale,
 * and its idea of letters, make no difference.
 */
public final class GrepPattern {
  /** Encodings that files on servers are met in, besides UTF-8. */
  private static final List<Charset> ENCODINGS =
      List.of(
              "ISO-8859-1",
              "windows-1252",
              "ISO-8859-15",
              "ISO-8859-2",
              "windows-1250",
              "ISO-8859-9",
              "windows-1254",
              "windows-1257",
              "ISO-8859-13",
              "windows-1251",
              "KOI8-R",
              "ISO-8859-5",
              "IBM866",
              "KOI8-U",
              "ISO-8859-7",
              "windows-1253",
              "windows-1255",
              "windows-1256",
              "x-MacCyrillic",
              "x-MacRoman",
              "Shift_JIS",
              "EUC-JP",
              "EUC-KR",
              "Big5",
              "GB18030")
          .stream()
          .filter(Charset::isSupported)
          .map(Charset::forName)
          .toList();

  private static final int ASCII = 0x80;

  /** One character that is not ASCII, in any encoding. */
  private static final String HIGH = "[\u0080-\u00ff][\u0001-\u0009\u000b-\u00ff]{0,3}";

  private static final String MARK = "\u00ef\u00bb\u00bf";
  private static final int MOST_TIMES = 255;

  private final String text;
  private final boolean matchCase;
  private final StringBuilder made = new StringBuilder();
  private int at;
  private boolean possible = true;

  private GrepPattern(SearchText wanted) {
    this.text = wanted.text();
    this.matchCase = wanted.matchCase();
  }

  /**
   * In wire form.
   *
   * @return {@code null} for an expression of which it is not known what it fits
   */
  public static @Nullable String of(SearchText wanted) {
    GrepPattern pattern = new GrepPattern(wanted);
    while (pattern.possible && pattern.at < pattern.text.length()) {
      if (wanted.expression()) {
        pattern.part();
      } else {
        pattern.literal();
      }
    }
    return pattern.possible ? pattern.made.toString() : null;
  }

  private void literal() {
    int c = text.codePointAt(at);
    at += Character.charCount(c);
    literal(c);
  }

  private void literal(int c) {
    Set<String> forms = new LinkedHashSet<>();
    (matchCase ? Set.of(c) : sameLetters(c)).forEach(one -> addForms(one, forms));
    possible &= c != '\n' && c != 0;
    String all = forms.stream().map(GrepPattern::escaped).collect(Collectors.joining("|"));
    made.append(forms.size() == 1 && c < ASCII ? all : "(" + all + ")");
  }

  /** All that {@link java.util.regex.Pattern#UNICODE_CASE} takes for the same. */
  private static Set<Integer> sameLetters(int c) {
    Set<Integer> same = new LinkedHashSet<>(Set.of(c));
    if (Character.isLetter(c) || Character.toUpperCase(c) != Character.toLowerCase(c)) {
      int folded = folded(c);
      for (int other = 0; other < Character.MIN_SUPPLEMENTARY_CODE_POINT * 2; other++) {
        if (folded(other) == folded) {
          same.add(other);
        }
      }
    }
    return same;
  }

  private static int folded(int c) {
    return Character.toLowerCase(Character.toUpperCase(c));
  }

  private static void addForms(int c, Set<String> forms) {
    String one = Character.toString(c);
    if (c < ASCII) {
      forms.add(one);
      return;
    }
    forms.add(bytes(one, StandardCharsets.UTF_8));
    for (Charset charset : ENCODINGS) {
      CharsetEncoder encoder = charset.newEncoder();
      if (encoder.canEncode(one)) {
        forms.add(bytes(one, charset));
      }
    }
  }

  private static String bytes(String one, Charset charset) {
    return new String(one.getBytes(charset), StandardCharsets.ISO_8859_1);
  }

  private static String escaped(String bytes) {
    StringBuilder words = new StringBuilder();
    for (char c : bytes.toCharArray()) {
      if (c == '\\' || c == '^') {
        words.append('\\').append(c);
      } else if ("$.[]|()*+?{}".indexOf(c) >= 0) {
        words.append('[').append(c).append(']');
      } else {
        words.append(c);
      }
    }
    return words.toString();
  }

  /** One part of an expression, with what says how often. */
  private void part() {
    char c = text.charAt(at);
    switch (c) {
      case '(' -> {
        possible &= !text.startsWith("(?", at);
        made.append(c);
        at++;
      }
      case ')', '|' -> {
        made.append(c);
        at++;
      }
      case '*', '+', '?', '{' -> times();
      case '^' -> {
        // A mark of the encoding is no part of the first line.
        made.append("(^(" + MARK + ")?)");
        at++;
      }
      case '$' -> {
        // Nor is the first half of a line end.
        made.append("(\r?$)");
        at++;
      }
      case '.' -> {
        set(all(), true);
        at++;
      }
      case '[' -> brackets();
      case '\\' -> escape();
      default -> literal();
    }
  }

  private void times() {
    if (text.charAt(at) == '{') {
      int end = text.indexOf('}', at);
      String inside = end < 0 ? "" : text.substring(at + 1, end);
      possible = inside.matches("[0-9]{1,3}(,[0-9]{0,3})?");
      if (possible) {
        for (String number : inside.split(",")) {
          possible &= number.isEmpty() || Integer.parseInt(number) <= MOST_TIMES;
        }
        made.append('{').append(inside).append('}');
        at = end + 1;
      }
    } else {
      made.append(text.charAt(at++));
    }
    // How greedy it is makes no difference to whether a line fits.
    if (at < text.length() && "+?".indexOf(text.charAt(at)) >= 0) {
      at++;
    }
  }

  private void escape() {
    if (at + 1 >= text.length()) {
      possible = false;
      return;
    }
    char c = text.charAt(at + 1);
    at += 2;
    switch (c) {
      case '<', '>', 'b', 'B' -> made.append("()");
      case 'd' -> set(named("digit"), false);
      case 's' -> set(named("space"), false);
      case 'w' -> set(word(), true);
      case 'D' -> set(without(named("digit")), true);
      case 'S' -> set(without(named("space")), true);
      case 'W' -> set(without(word()), true);
      default -> {
        if (c >= ASCII || Character.isLetterOrDigit(c)) {
          possible = false;
        } else {
          literal(c);
        }
      }
    }
  }

  private static BitSet word() {
    BitSet word = named("alnum");
    word.set('_');
    return word;
  }

  private static BitSet all() {
    BitSet all = new BitSet(ASCII);
    all.set(1, ASCII);
    all.clear('\n');
    return all;
  }

  private static BitSet without(BitSet some) {
    BitSet rest = all();
    rest.andNot(some);
    return rest;
  }

  /** Of a class there is none of, nothing: what is looked for was refused as an expression. */
  private static BitSet named(String name) {
    BitSet set = new BitSet(ASCII);
    String members = PosixClasses.ascii(name);
    if (members != null) {
      Predicate<String> in = Pattern.compile("[" + members + "]").asMatchPredicate();
      all().stream().filter(c -> in.test(Character.toString(c))).forEach(set::set);
    }
    return set;
  }

  /** What is in brackets as all the ASCII that it takes, and whether it may take more. */
  private void brackets() {
    at++;
    boolean not = at < text.length() && text.charAt(at) == '^';
    at += not ? 1 : 0;
    BitSet in = new BitSet(ASCII);
    boolean high = not;
    for (boolean first = true; ; first = false) {
      if (at >= text.length()) {
        possible = false;
        return;
      }
      char c = text.charAt(at);
      if (c == ']' && !first) {
        at++;
        break;
      }
      if (c == '[' && at + 1 < text.length() && ":.=".indexOf(text.charAt(at + 1)) >= 0) {
        high |= inner(in);
        continue;
      }
      int from = text.codePointAt(at);
      at += Character.charCount(from);
      int to = from;
      if (at + 1 < text.length() && text.charAt(at) == '-' && text.charAt(at + 1) != ']') {
        to = text.codePointAt(at + 1);
        at += 1 + Character.charCount(to);
      }
      high |= to >= ASCII;
      for (int one = from; one <= to && one < ASCII; one++) {
        in.set(one);
      }
    }
    high |= withOtherCase(in);
    set(not ? without(in) : in, high || not);
  }

  /** A class or what is like one; gives whether it may take what is not ASCII. */
  private boolean inner(BitSet in) {
    char kind = text.charAt(at + 1);
    int end = text.indexOf(kind + "]", at + 2);
    if (end < 0) {
      possible = false;
      at = text.length();
      return false;
    }
    String name = text.substring(at + 2, end);
    at = end + 2;
    if (kind == ':') {
      in.or(named(name));
      return !Set.of("digit", "xdigit", "cntrl").contains(name);
    }
    name.codePoints().filter(c -> c < ASCII).forEach(in::set);
    return name.codePoints().anyMatch(c -> c >= ASCII);
  }

  private boolean withOtherCase(BitSet in) {
    boolean high = false;
    if (!matchCase) {
      for (int c : in.stream().toArray()) {
        in.set(Character.toUpperCase(c));
        in.set(Character.toLowerCase(c));
        // The long s, the sign of Kelvin, and i with and without its dot.
        high |= "kKsSiI".indexOf(c) >= 0;
      }
    }
    return high;
  }

  private void set(BitSet in, boolean high) {
    List<String> parts = new ArrayList<>();
    String ascii = inBrackets(in);
    if (!ascii.isEmpty()) {
      parts.add(ascii);
    }
    // What takes nothing cannot be said in brackets; more is not wrong.
    if (high || ascii.isEmpty()) {
      parts.add(HIGH);
    }
    made.append('(').append(String.join("|", parts)).append(')');
  }

  /** Each character in the place where it stands for itself (POSIX XBD 9.3.5). */
  private static String inBrackets(BitSet in) {
    StringBuilder first = new StringBuilder(in.get(']') ? "]" : "");
    in.stream().filter(c -> c > 0 && "\n]-^[".indexOf(c) < 0).forEach(c -> first.append((char) c));
    first.append(in.get('[') ? "[" : "");
    String last = (in.get('^') ? "^" : "") + (in.get('-') ? "-" : "");
    if (first.isEmpty() && last.startsWith("^")) {
      return last.length() == 1 ? "\\^" : "\\^|-";
    }
    return first.isEmpty() && last.isEmpty() ? "" : "[" + first + last + "]";
  }
}
