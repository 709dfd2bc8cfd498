package zander.standin.shell.process;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.function.UnaryOperator;
import java.util.regex.Pattern;
import zander.standin.shell.ShellParser;
import zander.standin.world.PosixError;

/**
 * Expands the words of a command (POSIX XCU 2.6): tilde, parameters, command substitution, field
 * splitting, pathnames, quote removal.
 */
public final class Words {
  /** Marks a char that was quoted, so that neither splitting nor patterns see it. */
  private static final char QUOTED = '\uE000';

  private final Call.Session session;
  private final UnaryOperator<String> substitution;
  private StringBuilder field;
  private boolean started;
  private List<String> fields;

  /**
   * @param substitution runs a command and gives its output
   */
  public Words(Call.Session session, UnaryOperator<String> substitution) {
    this.session = session;
    this.substitution = substitution;
  }

  public List<String> expandAll(List<String> words) {
    List<String> all = new ArrayList<>();
    for (String word : words) {
      for (String one : split(word)) {
        all.addAll(pathnames(one));
      }
    }
    return all;
  }

  /** Expands to exactly one word, without splitting: for a redirection or an assignment. */
  public String expandOne(String word) {
    List<String> parts = split(word);
    return unquote(String.join(" ", parts));
  }

  private List<String> split(String word) {
    fields = new ArrayList<>();
    field = new StringBuilder();
    started = false;
    int i = 0;
    if (word.equals("~") || word.startsWith("~/")) {
      quoted(session.account.home());
      i = 1;
    }
    while (i < word.length()) {
      char c = word.charAt(i);
      if (c == '\\') {
        if (i + 1 < word.length()) {
          quoted(word.substring(i + 1, i + 2));
        }
        i += 2;
      } else if (c == '\'') {
        int end = ShellParser.quoteEnd(word, i);
        quoted(word.substring(i + 1, end));
        i = end + 1;
      } else if (c == '"') {
        int end = ShellParser.quoteEnd(word, i);
        doubleQuoted(word.substring(i + 1, end));
        i = end + 1;
      } else if (c == '$') {
        Dollar dollar = dollar(word, i);
        unquotedValue(dollar.value);
        i = dollar.end;
      } else {
        field.append(c);
        started = true;
        i++;
      }
    }
    endField();
    return fields;
  }

  private void quoted(String text) {
    started = true;
    for (char c : text.toCharArray()) {
      field.append(QUOTED).append(c);
    }
  }

  private void unquotedValue(String value) {
    for (char c : value.toCharArray()) {
      if (c == ' ' || c == '\t' || c == '\n') {
        endField();
      } else {
        field.append(c);
        started = true;
      }
    }
  }

  private void endField() {
    if (started) {
      fields.add(field.toString());
    }
    field = new StringBuilder();
    started = false;
  }

  private void doubleQuoted(String inner) {
    quoted("");
    int i = 0;
    while (i < inner.length()) {
      char c = inner.charAt(i);
      if (c == '\\' && i + 1 < inner.length() && "$`\"\\\n".indexOf(inner.charAt(i + 1)) >= 0) {
        quoted(inner.substring(i + 1, i + 2));
        i += 2;
      } else if (c == '$') {
        Dollar dollar = dollar(inner, i);
        quoted(dollar.value);
        i = dollar.end;
      } else {
        quoted(String.valueOf(c));
        i++;
      }
    }
  }

  private record Dollar(String value, int end) {}

  private Dollar dollar(String word, int i) {
    if (word.startsWith("$(", i)) {
      int end = ShellParser.substitutionEnd(word, i);
      String output = substitution.apply(word.substring(i + 2, end));
      return new Dollar(output.replaceFirst("\n+$", ""), end + 1);
    }
    if (word.startsWith("${", i)) {
      int end = word.indexOf('}', i);
      if (end < 0) {
        throw new UsageError("syntax error: ${ is not closed");
      }
      return new Dollar(parameter(word.substring(i + 2, end)), end + 1);
    }
    if (i + 1 < word.length() && word.charAt(i + 1) == '?') {
      return new Dollar(String.valueOf(session.lastStatus), i + 2);
    }
    int end = i + 1;
    while (end < word.length() && String.valueOf(word.charAt(end)).matches("[A-Za-z0-9_]")) {
      end++;
    }
    String name = word.substring(i + 1, end);
    return name.isEmpty()
        ? new Dollar("$", i + 1)
        : new Dollar(session.variables.getOrDefault(name, ""), end);
  }

  private String parameter(String inside) {
    String[] parts = inside.split(":-", 2);
    if (!parts[0].matches("[A-Za-z_][A-Za-z0-9_]*|\\?")) {
      throw new UsageError("${" + inside + "} is not supported on this stand-in");
    }
    String value =
        parts[0].equals("?")
            ? String.valueOf(session.lastStatus)
            : session.variables.getOrDefault(parts[0], "");
    return value.isEmpty() && parts.length == 2 ? expandOneOf(parts[1]) : value;
  }

  private String expandOneOf(String word) {
    return new Words(session, substitution).expandOne(word);
  }

  private static String unquote(String marked) {
    return marked.replace(String.valueOf(QUOTED), "");
  }

  /** Pathname expansion; a pattern that matches nothing stays as it is. */
  private List<String> pathnames(String marked) {
    if (!hasPattern(marked)) {
      return List.of(unquote(marked));
    }
    List<String> found = new ArrayList<>();
    boolean absolute = marked.startsWith("/");
    match(absolute ? "/" : session.folder, absolute ? "/" : "", marked.split("/"), 0, found);
    Collections.sort(found);
    return found.isEmpty() ? List.of(unquote(marked)) : found;
  }

  private static boolean hasPattern(String marked) {
    for (int i = 0; i < marked.length(); i++) {
      if (marked.charAt(i) == QUOTED) {
        i++;
      } else if ("*?[".indexOf(marked.charAt(i)) >= 0) {
        return true;
      }
    }
    return false;
  }

  private void match(String folder, String prefix, String[] parts, int at, List<String> found) {
    if (at == parts.length) {
      return;
    }
    String part = parts[at];
    if (part.isEmpty()) {
      match(folder, prefix, parts, at + 1, found);
      return;
    }
    List<String> names;
    try {
      names =
          hasPattern(part)
              ? session.machine.world().list(session.caller, folder)
              : List.of(unquote(part));
    } catch (PosixError e) {
      return;
    }
    Pattern pattern = pattern(part);
    for (String name : names) {
      boolean hidden = name.startsWith(".") && !unquote(part).startsWith(".");
      if (hidden || !pattern.matcher(name).matches()) {
        continue;
      }
      String path = Call.at(folder, name);
      if (at + 1 < parts.length) {
        match(path, prefix + name + "/", parts, at + 1, found);
      } else {
        try {
          session.machine.world().lstat(session.caller, path);
          found.add(prefix + name);
        } catch (PosixError e) {
          // Not there: no match.
        }
      }
    }
  }

  /** A shell pattern (POSIX XCU 2.13) as a regular expression, on unmarked or marked text. */
  public static Pattern pattern(String glob) {
    StringBuilder regex = new StringBuilder();
    for (int i = 0; i < glob.length(); i++) {
      char c = glob.charAt(i);
      if (c == QUOTED) {
        regex.append(Pattern.quote(glob.substring(i + 1, i + 2)));
        i++;
      } else if (c == '\\' && i + 1 < glob.length()) {
        regex.append(Pattern.quote(glob.substring(i + 1, i + 2)));
        i++;
      } else if (c == '*') {
        regex.append(".*");
      } else if (c == '?') {
        regex.append('.');
      } else if (c == '[' && glob.indexOf(']', i + 2) > 0) {
        int end = glob.indexOf(']', i + 2);
        String set = glob.substring(i + 1, end).replace("\\", "\\\\");
        regex.append('[').append(set.startsWith("!") ? "^" + set.substring(1) : set).append(']');
        i = end;
      } else {
        regex.append(Pattern.quote(String.valueOf(c)));
      }
    }
    return Pattern.compile(regex.toString(), Pattern.DOTALL);
  }
}
