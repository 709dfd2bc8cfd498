package zander.standin.shell;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import zander.standin.shell.process.UsageError;

/**
 * Takes a command line apart (POSIX XCU 2.3): lists, and-or chains, pipelines, redirections, quotes
 * kept for the expansion. Compound commands, here-documents and background jobs are refused.
 */
public final class ShellParser {
  private static final Set<String> RESERVED =
      Set.of(
          "if",
          "then",
          "else",
          "elif",
          "fi",
          "for",
          "while",
          "until",
          "do",
          "done",
          "case",
          "esac",
          "function",
          "{",
          "}",
          "[[");

  /** A word as written, quotes and all, with what may join it to the next command. */
  private record Token(String text, boolean operator) {}

  record Redirect(String operator, String word) {}

  record Simple(List<String> words, List<Redirect> redirects) {}

  record Pipeline(boolean negated, List<Simple> commands) {}

  /**
   * @param joinedBy {@code ;}, {@code &&} or {@code ||} before it
   */
  record Step(String joinedBy, Pipeline pipeline) {}

  private final List<Token> tokens;
  private int at;

  private ShellParser(List<Token> tokens) {
    this.tokens = tokens;
  }

  static List<Step> parse(String line) {
    return new ShellParser(tokens(line)).list();
  }

  private List<Step> list() {
    List<Step> steps = new ArrayList<>();
    String joinedBy = ";";
    while (at < tokens.size()) {
      if (isOperator(";")) {
        at++;
        joinedBy = ";";
        continue;
      }
      steps.add(new Step(joinedBy, pipeline()));
      if (at < tokens.size()) {
        joinedBy = tokens.get(at).text;
        if (!Set.of(";", "&&", "||").contains(joinedBy)) {
          throw new UsageError("'" + joinedBy + "' is not supported on this stand-in");
        }
        at++;
      }
    }
    return steps;
  }

  private boolean isOperator(String text) {
    return at < tokens.size() && tokens.get(at).operator && tokens.get(at).text.equals(text);
  }

  private Pipeline pipeline() {
    boolean negated = false;
    if (at < tokens.size() && !tokens.get(at).operator && tokens.get(at).text.equals("!")) {
      negated = true;
      at++;
    }
    List<Simple> commands = new ArrayList<>();
    commands.add(simple());
    while (isOperator("|")) {
      at++;
      commands.add(simple());
    }
    return new Pipeline(negated, commands);
  }

  private Simple simple() {
    List<String> words = new ArrayList<>();
    List<Redirect> redirects = new ArrayList<>();
    while (at < tokens.size()) {
      Token token = tokens.get(at);
      if (token.operator && token.text.matches("[012]?(>|>>|<|>&[12])")) {
        at++;
        if (token.text.contains("&")) {
          redirects.add(new Redirect(token.text, ""));
        } else {
          if (at == tokens.size() || tokens.get(at).operator) {
            throw new UsageError("syntax error: a file name is missing");
          }
          redirects.add(new Redirect(token.text, tokens.get(at++).text));
        }
      } else if (token.operator) {
        break;
      } else {
        if (words.isEmpty() && RESERVED.contains(token.text)) {
          throw new UsageError("'" + token.text + "' is not supported on this stand-in");
        }
        words.add(token.text);
        at++;
      }
    }
    if (words.isEmpty() && redirects.isEmpty()) {
      throw new UsageError("syntax error: a command is missing");
    }
    return new Simple(words, redirects);
  }

  private static List<Token> tokens(String line) {
    List<Token> tokens = new ArrayList<>();
    int i = 0;
    while (i < line.length()) {
      char c = line.charAt(i);
      if (c == ' ' || c == '\t') {
        i++;
      } else if (c == '\n') {
        tokens.add(new Token(";", true));
        i++;
      } else if (c == '#') {
        int end = line.indexOf('\n', i);
        i = end < 0 ? line.length() : end;
      } else if (operatorAt(line, i) > 0) {
        int length = operatorAt(line, i);
        tokens.add(new Token(line.substring(i, i + length), true));
        i += length;
      } else {
        int end = wordEnd(line, i);
        tokens.add(new Token(line.substring(i, end), false));
        i = end;
      }
    }
    return tokens;
  }

  /** The length of the operator that begins here, or 0. */
  private static int operatorAt(String line, int i) {
    for (String operator :
        List.of("2>&1", "1>&2", ">&2", ">&1", "2>>", "2>", "1>", "&&", "||", ">>", "<<")) {
      if (line.startsWith(operator, i)) {
        if (operator.equals("<<")) {
          throw new UsageError("here-documents are not supported on this stand-in");
        }
        return operator.length();
      }
    }
    return "|;<>&()`".indexOf(line.charAt(i)) >= 0 ? 1 : 0;
  }

  private static int wordEnd(String line, int start) {
    int i = start;
    while (i < line.length()) {
      char c = line.charAt(i);
      if (c == '\\') {
        i += 2;
      } else if (c == '\'' || c == '"') {
        i = quoteEnd(line, i) + 1;
      } else if (line.startsWith("$(", i)) {
        i = substitutionEnd(line, i) + 1;
      } else if (" \t\n|;<>&()`".indexOf(c) >= 0) {
        break;
      } else {
        i++;
      }
    }
    return Math.min(i, line.length());
  }

  public static int quoteEnd(String line, int start) {
    char quote = line.charAt(start);
    for (int i = start + 1; i < line.length(); i++) {
      char c = line.charAt(i);
      if (c == quote) {
        return i;
      }
      if (quote == '"' && c == '\\') {
        i++;
      } else if (quote == '"' && line.startsWith("$(", i)) {
        i = substitutionEnd(line, i);
      }
    }
    throw new UsageError("syntax error: a quote is not closed");
  }

  public static int substitutionEnd(String line, int start) {
    int depth = 0;
    for (int i = start + 1; i < line.length(); i++) {
      char c = line.charAt(i);
      if (c == '\'' || c == '"') {
        i = quoteEnd(line, i);
      } else if (c == '\\') {
        i++;
      } else if (c == '(') {
        depth++;
      } else if (c == ')' && --depth == 0) {
        return i;
      }
    }
    throw new UsageError("syntax error: $( is not closed");
  }
}
