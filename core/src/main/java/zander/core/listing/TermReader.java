package zander.core.listing;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import zander.core.files.AccountNames;
import zander.core.files.FileKind;
import zander.core.files.WireName;
import zander.core.rights.Mode;

/** Reads one word of a narrowing; see {@link Narrowing}. */
final class TermReader {
  private static final Pattern SIZE = Pattern.compile("(?i)(?:size:)?([<>])([0-9]+)([kmgt]?)b?");
  private static final Pattern AGE = Pattern.compile("(?i)changed:([<>])([0-9]+)(m|min|h|d|w|y)");
  private static final Pattern BITS = Pattern.compile("([ugoa]*)([+-])([rwxst]+)");

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
      case "size" -> Term.problem("a size is written like >10M or <500K");
      default -> name(word);
    };
  }

  private static Term name(String word) {
    String text = word.startsWith("\"") ? word.replace("\"", "") : word;
    if (text.isEmpty()) {
      return Term.of("", row -> true, List.of());
    }
    boolean pattern = !word.startsWith("\"") && text.matches("(?s).*[*?\\[].*");
    // Without regard to case only where find and this program agree on what that means.
    boolean plain = text.chars().allMatch(c -> c < 0x80);
    int flags = Pattern.CASE_INSENSITIVE | (plain ? 0 : Pattern.UNICODE_CASE);
    if (pattern) {
      Glob glob = Glob.read(text);
      if (glob == null) {
        return Term.problem("a [ is not closed, or a \\ stands for nothing");
      }
      Pattern compiled = Pattern.compile(glob.expression(), flags | Pattern.DOTALL);
      return Term.of(
          "name is like " + text,
          row -> compiled.matcher(row.name()).matches(),
          plain ? List.of("-iname", glob.wider()) : List.of());
    }
    Pattern wanted = Pattern.compile(text, flags | Pattern.LITERAL);
    return Term.of(
        "name has " + text,
        row -> wanted.matcher(row.name()).find(),
        plain ? List.of("-iname", "*" + escaped(text) + "*") : List.of());
  }

  private static String escaped(String text) {
    return text.replaceAll("[\\\\*?\\[\\]]", "\\\\$0");
  }

  private static Term account(String value, boolean owner) {
    if (value.isEmpty()) {
      return Term.problem((owner ? "owner" : "group") + ": needs a name or a number");
    }
    String primary = owner ? "-user" : "-group";
    return new Term(
        (owner ? "owned by " : "group ") + value,
        row -> (owner ? row.owner() : row.group()).is(value),
        names ->
            known(names, value, owner) ? List.of(primary, WireName.fromText(value)) : List.of(),
        "");
  }

  private static boolean known(AccountNames names, String value, boolean owner) {
    return (owner ? names.uidOf(value) : names.gidOf(value)).isPresent();
  }

  private static Term mode(String value) {
    if (value.matches("[0-7]{3,4}")) {
      Mode mode = Mode.ofOctal(value);
      return Term.of(
          "mode is " + mode.octal(),
          row -> row.mode().equals(mode),
          List.of("-perm", Integer.toOctalString(mode.bits())));
    }
    Matcher bits = BITS.matcher(value);
    if (!bits.matches()) {
      return Term.problem("a mode is written like o+w, g-r, u+s or 644");
    }
    int wanted = bitsOf(bits.group(1), bits.group(3));
    boolean set = bits.group(2).equals("+");
    if (wanted == 0) {
      return Term.problem("s is written u+s or g+s, and t o+t");
    }
    return Term.of(
        words(bits.group(1), bits.group(3), set),
        row -> set ? (row.mode().bits() & wanted) == wanted : (row.mode().bits() & wanted) == 0,
        set ? List.of("-perm", "-" + Integer.toOctalString(wanted)) : List.of());
  }

  private static String words(String classes, String letters, boolean set) {
    if (classes.isEmpty() || classes.contains("a")) {
      return (set ? "everyone has " : "nobody has ") + letters;
    }
    List<String> who = new ArrayList<>();
    for (String one : List.of("u owner", "g group", "o others")) {
      if (classes.indexOf(one.charAt(0)) >= 0) {
        who.add(one.substring(2));
      }
    }
    boolean several = who.size() > 1 || who.contains("others");
    String verb = set ? (several ? " have " : " has ") : several ? " lack " : " lacks ";
    return String.join(" and ", who) + verb + letters;
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
      return Term.problem("a type is file, folder or link");
    }
    String letter = kind == FileKind.FILE ? "f" : kind == FileKind.FOLDER ? "d" : "l";
    return Term.of(
        kind.name().toLowerCase(Locale.ROOT) + "s only",
        row -> row.kind() == kind,
        List.of("-type", letter));
  }

  private static Term size(Matcher size) {
    boolean more = size.group(1).equals(">");
    String unit = size.group(3).toUpperCase(Locale.ROOT);
    long bytes;
    try {
      bytes = Math.multiplyExact(Long.parseLong(size.group(2)), factor(unit));
    } catch (ArithmeticException | NumberFormatException e) {
      return Term.problem("no file is so large");
    }
    String words = size.group(2) + (unit.isEmpty() ? " bytes" : " " + unit + "B");
    return Term.of(
        (more ? "larger than " : "smaller than ") + words,
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
      return Term.problem("a time is written like changed:<2d or changed:>1y");
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
    String name =
        switch (unit) {
          case "h" -> "hour";
          case "d" -> "day";
          case "w" -> "week";
          case "y" -> "year";
          default -> "minute";
        };
    String words = number + " " + name + (number == 1 ? "" : "s");
    long limit = now - minutes * 60;
    // One minute of slack either way: find rounds, and its clock is the server's.
    return Term.of(
        younger ? "changed in the last " + words : "not changed for " + words,
        row -> younger ? row.modified() > limit : row.modified() < limit,
        List.of("-mmin", younger ? "-" + (minutes + 2) : "+" + Math.max(0, minutes - 2)));
  }
}
