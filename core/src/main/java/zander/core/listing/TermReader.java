package zander.core.listing;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.TreeMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import zander.core.files.AccountNames;
import zander.core.files.FileKind;
import zander.core.files.WireName;
import zander.core.phrase.Phrase;
import zander.core.phrase.TermPhrase;
import zander.core.rights.Mode;

/** Reads one word of a narrowing; see {@link Narrowing}. */
final class TermReader {
  private static final Pattern SIZE = Pattern.compile("(?i)(?:size:)?([<>])([0-9]+)([kmgt]?)b?");
  private static final Pattern AGE = Pattern.compile("(?i)changed:([<>])([0-9]+)(m|min|h|d|w|y)");
  private static final Pattern BITS = Pattern.compile("([ugoa]*)([+-])([rwxst]+)");

  /** In the order in which they are named. */
  private static final Map<Character, TermPhrase> CLASSES =
      new TreeMap<>(
          Map.of(
              'u', TermPhrase.THE_OWNER,
              'g', TermPhrase.THE_GROUP,
              'o', TermPhrase.THE_OTHERS));

  private TermReader() {}

  static Term read(String word, long now) {
    Matcher size = SIZE.matcher(word);
    if (size.matches()) {
      return size(size);
    }
    int colon = word.indexOf(':');
    String key = colon < 0 ? "" : word.substring(0, colon).toLowerCase(Locale.ROOT);
    String value = word.substring(colon + 1);
    return switch (key) {
      case "owner" -> account(value, true);
      case "group" -> account(value, false);
      case "mode" -> mode(value);
      case "type" -> type(value);
      case "changed" -> age(word, now);
      case "size" -> Term.problem(TermPhrase.SIZE_FORM);
      default -> name(word);
    };
  }

  private static Term name(String word) {
    String text = word.startsWith("\"") ? word.replace("\"", "") : word;
    if (text.isEmpty()) {
      return Term.of(null, row -> true, List.of());
    }
    boolean pattern = !word.startsWith("\"") && text.matches("(?s).*[*?\\[].*");
    // Without regard to case only where find and this program agree on what that means.
    boolean plain = text.chars().allMatch(c -> c < 0x80);
    int flags = Pattern.CASE_INSENSITIVE | (plain ? 0 : Pattern.UNICODE_CASE);
    if (pattern) {
      Glob glob = Glob.read(text);
      if (glob == null) {
        return Term.problem(TermPhrase.BRACKET_OPEN);
      }
      Pattern compiled = Pattern.compile(glob.expression(), flags | Pattern.DOTALL);
      return Term.of(
          TermPhrase.NAME_LIKE.of(text),
          row -> compiled.matcher(row.name()).matches(),
          plain ? List.of("-iname", glob.wider()) : List.of());
    }
    Pattern wanted = Pattern.compile(text, flags | Pattern.LITERAL);
    return Term.of(
        TermPhrase.NAME_HAS.of(text),
        row -> wanted.matcher(row.name()).find(),
        plain ? List.of("-iname", "*" + escaped(text) + "*") : List.of());
  }

  private static String escaped(String text) {
    return text.replaceAll("[\\\\*?\\[\\]]", "\\\\$0");
  }

  private static Term account(String value, boolean owner) {
    if (value.isEmpty()) {
      return Term.problem(owner ? TermPhrase.NEEDS_OWNER : TermPhrase.NEEDS_GROUP);
    }
    String primary = owner ? "-user" : "-group";
    return new Term(
        (owner ? TermPhrase.OWNED_BY : TermPhrase.GROUP_IS).of(value),
        row -> (owner ? row.owner() : row.group()).is(value),
        names ->
            known(names, value, owner) ? List.of(primary, WireName.fromText(value)) : List.of(),
        null);
  }

  private static boolean known(AccountNames names, String value, boolean owner) {
    return (owner ? names.uidOf(value) : names.gidOf(value)).isPresent();
  }

  private static Term mode(String value) {
    if (value.matches("[0-7]{3,4}")) {
      Mode mode = Mode.ofOctal(value);
      return Term.of(
          TermPhrase.MODE_IS.of(mode.octal()),
          row -> row.mode().equals(mode),
          List.of("-perm", Integer.toOctalString(mode.bits())));
    }
    Matcher bits = BITS.matcher(value);
    if (!bits.matches()) {
      return Term.problem(TermPhrase.MODE_FORM);
    }
    int wanted = bitsOf(bits.group(1), bits.group(3));
    boolean set = bits.group(2).equals("+");
    if (wanted == 0) {
      return Term.problem(TermPhrase.SET_ID_FORM);
    }
    return Term.of(
        meaning(bits.group(1), bits.group(3), set),
        row -> set ? (row.mode().bits() & wanted) == wanted : (row.mode().bits() & wanted) == 0,
        set ? List.of("-perm", "-" + Integer.toOctalString(wanted)) : List.of());
  }

  private static Phrase meaning(String classes, String letters, boolean set) {
    if (classes.isEmpty() || classes.contains("a")) {
      return (set ? TermPhrase.EVERYONE_HAS : TermPhrase.NOBODY_HAS).of(letters);
    }
    List<Phrase> who = new ArrayList<>();
    CLASSES.forEach(
        (letter, named) -> {
          if (classes.indexOf(letter) >= 0) {
            who.add(named.of());
          }
        });
    boolean several = who.size() > 1 || classes.contains("o");
    TermPhrase verb =
        set
            ? (several ? TermPhrase.HAVE : TermPhrase.HAS)
            : several ? TermPhrase.LACK : TermPhrase.LACKS;
    return verb.of(
        who.stream().reduce((one, next) -> TermPhrase.BOTH.of(one, next)).orElseThrow(), letters);
  }

  private static int bitsOf(String classes, String letters) {
    String who = classes.isEmpty() || classes.contains("a") ? "ugo" : classes;
    int bits = 0;
    for (char letter : letters.toCharArray()) {
      for (char one : who.toCharArray()) {
        int shift = one == 'u' ? 6 : one == 'g' ? 3 : 0;
        bits |=
            switch (letter) {
              case 'r' -> 4 << shift;
              case 'w' -> 2 << shift;
              case 'x' -> 1 << shift;
              case 's' -> one == 'u' ? Mode.SET_UID : one == 'g' ? Mode.SET_GID : 0;
              default -> one == 'o' ? Mode.STICKY : 0;
            };
      }
    }
    return bits;
  }

  private static Term type(String value) {
    FileKind kind =
        switch (value.toLowerCase(Locale.ROOT)) {
          case "file", "f" -> FileKind.FILE;
          case "folder", "d" -> FileKind.FOLDER;
          case "link", "l" -> FileKind.LINK;
          default -> null;
        };
    if (kind == null) {
      return Term.problem(TermPhrase.TYPE_FORM);
    }
    String letter = kind == FileKind.FILE ? "f" : kind == FileKind.FOLDER ? "d" : "l";
    TermPhrase only =
        kind == FileKind.FILE
            ? TermPhrase.FILES_ONLY
            : kind == FileKind.FOLDER ? TermPhrase.FOLDERS_ONLY : TermPhrase.LINKS_ONLY;
    return Term.of(only.of(), row -> row.kind() == kind, List.of("-type", letter));
  }

  private static Term size(Matcher size) {
    boolean more = size.group(1).equals(">");
    String unit = size.group(3).toUpperCase(Locale.ROOT);
    long bytes;
    try {
      bytes = Math.multiplyExact(Long.parseLong(size.group(2)), factor(unit));
    } catch (ArithmeticException | NumberFormatException e) {
      return Term.problem(TermPhrase.SIZE_TOO_LARGE);
    }
    Phrase named =
        unit.isEmpty()
            ? TermPhrase.BYTES.of(size.group(2))
            : Phrase.quoted(size.group(2) + " " + unit + "B");
    return Term.of(
        (more ? TermPhrase.LARGER_THAN : TermPhrase.SMALLER_THAN).of(named),
        row -> row.kind() == FileKind.FILE && (more ? row.size() > bytes : row.size() < bytes),
        List.of("-size", (more ? "+" : "-") + bytes + "c"));
  }

  private static long factor(String unit) {
    return switch (unit) {
      case "K" -> 1000;
      case "M" -> 1_000_000;
      case "G" -> 1_000_000_000;
      case "T" -> 1_000_000_000_000L;
      default -> 1;
    };
  }

  private static Term age(String word, long now) {
    Matcher age = AGE.matcher(word);
    if (!age.matches() || age.group(2).length() > 6) {
      return Term.problem(TermPhrase.TIME_FORM);
    }
    boolean younger = age.group(1).equals("<");
    long number = Long.parseLong(age.group(2));
    String unit = age.group(3).toLowerCase(Locale.ROOT);
    long minutes =
        number
            * switch (unit) {
              case "h" -> 60;
              case "d" -> 1440;
              case "w" -> 10_080;
              case "y" -> 525_960;
              default -> 1;
            };
    boolean one = number == 1;
    TermPhrase named =
        switch (unit) {
          case "h" -> one ? TermPhrase.ONE_HOUR : TermPhrase.HOURS;
          case "d" -> one ? TermPhrase.ONE_DAY : TermPhrase.DAYS;
          case "w" -> one ? TermPhrase.ONE_WEEK : TermPhrase.WEEKS;
          case "y" -> one ? TermPhrase.ONE_YEAR : TermPhrase.YEARS;
          default -> one ? TermPhrase.ONE_MINUTE : TermPhrase.MINUTES;
        };
    Phrase time = one ? named.of() : named.of(number);
    long limit = now - minutes * 60;
    // One minute of slack either way: find rounds, and its clock is the server's.
    return Term.of(
        (younger ? TermPhrase.CHANGED_WITHIN : TermPhrase.NOT_CHANGED_FOR).of(time),
        row -> younger ? row.modified() > limit : row.modified() < limit,
        List.of("-mmin", younger ? "-" + (minutes + 2) : "+" + Math.max(0, minutes - 2)));
  }
}
