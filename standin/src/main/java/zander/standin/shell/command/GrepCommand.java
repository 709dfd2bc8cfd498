package zander.standin.shell.command;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Pattern;
import java.util.regex.PatternSyntaxException;
import zander.standin.shell.process.Call;
import zander.standin.shell.process.Options;
import zander.standin.shell.process.Trees;
import zander.standin.shell.process.UsageError;
import zander.standin.world.PosixError;

/** {@code grep}: fixed strings, or extended expressions that mean the same in both notations. */
public final class GrepCommand {
  private final Call call;
  private final Options options;
  private final List<Pattern> patterns;
  private final String nameEnd;
  private boolean found;
  private boolean failed;

  private GrepCommand(Call call, Options options, List<Pattern> patterns, boolean zeroEndsNames) {
    this.call = call;
    this.options = options;
    this.patterns = patterns;
    this.nameEnd = zeroEndsNames ? "\0" : ":";
  }

  public static int run(Call call) throws IOException {
    List<String> words = new ArrayList<>(call.arguments().subList(1, call.arguments().size()));
    int end = words.indexOf("--");
    int zero = words.indexOf("--null");
    boolean zeroEnds = zero >= 0 && (end < 0 || zero < end);
    if (zeroEnds) {
      words.remove(zero);
    }
    Options options = Options.parse(words, "EFivnlcqrRHhI", "e");
    List<String> operands = new ArrayList<>(options.operands(options.has('e') ? 0 : 1));
    List<String> texts = options.has('e') ? options.values('e') : List.of(operands.remove(0));
    List<Pattern> patterns = texts.stream().map(text -> pattern(options, text)).toList();
    return new GrepCommand(call, options, patterns, zeroEnds).search(operands);
  }

  private static Pattern pattern(Options options, String text) {
    int flags = options.has('i') ? Pattern.CASE_INSENSITIVE : 0;
    if (options.has('F')) {
      return Pattern.compile(text, flags | Pattern.LITERAL);
    }
    // In basic expressions + ? | ( ) { } are plain and their escaped forms are not: refuse what
    // would mean something else, rather than find the wrong lines.
    if (!options.has('E') && text.matches("(?s).*(\\\\[+?|(){}]).*")) {
      throw new UsageError("this basic expression is not supported on this stand-in; use -E");
    }
    String regex = options.has('E') ? text : text.replaceAll("[+?|(){}]", "\\\\$0");
    if (regex.contains("[[:") || regex.matches("(?s).*\\\\[a-zA-Z<>].*")) {
      throw new UsageError("character classes are not supported on this stand-in");
    }
    try {
      return Pattern.compile(regex, flags);
    } catch (PatternSyntaxException e) {
      throw new UsageError("invalid expression: " + e.getDescription());
    }
  }

  private int search(List<String> operands) throws IOException {
    boolean tree = options.has('r') || options.has('R');
    boolean many = (tree || operands.size() > 1 || options.has('H')) && !options.has('h');
    if (operands.isEmpty()) {
      file("(standard input)", TextCommands.content(call, "-"), false);
    }
    for (String operand : operands) {
      try {
        if (tree) {
          Trees.walk(
              call,
              operand,
              (shown, path, stat) -> {
                if (stat.isFile()) {
                  file(shown, call.readFile(path), many);
                }
              });
        } else {
          file(operand, TextCommands.content(call, operand), many);
        }
      } catch (PosixError e) {
        failed = true;
        call.complain(operand, e);
      }
    }
    return failed ? 2 : found ? 0 : 1;
  }

  private void file(String name, byte[] content, boolean named) {
    if (options.has('I')
        && new String(content, java.nio.charset.StandardCharsets.ISO_8859_1).indexOf(0) >= 0) {
      return;
    }
    int number = 0;
    int count = 0;
    for (String line : TextCommands.lines(content)) {
      number++;
      String text = line.endsWith("\n") ? line.substring(0, line.length() - 1) : line;
      boolean fits = patterns.stream().anyMatch(pattern -> pattern.matcher(text).find());
      if (fits == options.has('v')) {
        continue;
      }
      count++;
      found = true;
      if (!options.has('q') && !options.has('c') && !options.has('l')) {
        call.out()
            .print(
                (named ? name + nameEnd : "")
                    + (options.has('n') ? number + ":" : "")
                    + text
                    + "\n");
      }
    }
    if (options.has('c')) {
      call.out().print((named ? name + nameEnd : "") + count + "\n");
    } else if (options.has('l') && count > 0) {
      call.out().print(name + "\n");
    }
  }
}
