package zander.standin.shell.command;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import zander.standin.shell.process.Call;
import zander.standin.shell.process.Command;
import zander.standin.shell.process.Options;
import zander.standin.shell.process.UsageError;
import zander.standin.world.OpenFile;
import zander.standin.world.World;

/** Commands that print text: cat, head, tail, wc, echo, printf, sha256sum, tee. */
public final class TextCommands {
  private TextCommands() {}

  public static void addTo(Map<String, Command> all) {
    all.put("cat", TextCommands::cat);
    all.put("head", call -> part(call, true));
    all.put("tail", call -> part(call, false));
    all.put("wc", TextCommands::wc);
    all.put("echo", TextCommands::echo);
    all.put("printf", TextCommands::printf);
    all.put("sha256sum", TextCommands::sha256sum);
    all.put("tee", TextCommands::tee);
  }

  /** The content of an operand; {@code -} is the standard input. */
  static byte[] content(Call call, String operand) throws IOException {
    return operand.equals("-") ? call.in().readAllBytes() : call.readFile(call.path(operand));
  }

  static List<String> orInput(List<String> operands) {
    return operands.isEmpty() ? List.of("-") : operands;
  }

  private static int cat(Call call) throws IOException {
    List<String> operands = orInput(call.options("", "").operands());
    return FileCommands.each(
        call,
        operands,
        "cannot read",
        operand -> {
          if (!operand.equals("-")) {
            call.out().write(call.readFile(call.path(operand)));
            return;
          }
          byte[] buffer = new byte[8192];
          InputStream in = call.in();
          for (int count; (count = in.read(buffer)) >= 0; ) {
            call.out().write(buffer, 0, count);
            call.out().flush();
          }
        });
  }

  static List<String> lines(byte[] content) {
    String text = new String(content, StandardCharsets.ISO_8859_1);
    List<String> lines = new ArrayList<>();
    int start = 0;
    for (int end; (end = text.indexOf('\n', start)) >= 0; start = end + 1) {
      lines.add(text.substring(start, end + 1));
    }
    if (start < text.length()) {
      lines.add(text.substring(start));
    }
    return lines;
  }

  private static int part(Call call, boolean head) throws IOException {
    Options options = call.options(head ? "" : "f", "nc");
    if (options.has('f')) {
      return follow(call, options.operands(1).get(0));
    }
    String wanted = options.value(options.has('c') ? 'c' : 'n');
    if (wanted != null && !wanted.matches("[0-9]{1,9}")) {
      throw new UsageError("only a plain count is supported on this stand-in");
    }
    int count = wanted == null ? 10 : Integer.parseInt(wanted);
    List<String> operands = orInput(options.operands());
    if (operands.size() > 1) {
      throw new UsageError("more than one file is not supported on this stand-in");
    }
    return FileCommands.each(
        call,
        operands,
        "cannot open",
        operand -> {
          byte[] content = content(call, operand);
          if (options.has('c')) {
            int length = Math.min(count, content.length);
            call.out().write(content, head ? 0 : content.length - length, length);
            return;
          }
          List<String> lines = lines(content);
          int from = head ? 0 : Math.max(0, lines.size() - count);
          int to = head ? Math.min(count, lines.size()) : lines.size();
          call.out().print(String.join("", lines.subList(from, to)));
        });
  }

  /** Prints what is appended until it is interrupted. */
  private static int follow(Call call, String operand) throws IOException {
    if (call.terminal() == null) {
      throw new UsageError("-f needs a terminal on this stand-in");
    }
    OpenFile file = call.world().open(call.caller(), call.path(operand), World.Open.READ);
    long at = Math.max(0, file.size() - 2000);
    while (!call.isInterrupted()) {
      byte[] more = file.read(at, 8192);
      at += more.length;
      call.out().write(more);
      call.out().flush();
      if (more.length == 0) {
        try {
          Thread.sleep(100);
        } catch (InterruptedException e) {
          Thread.currentThread().interrupt();
        }
      }
    }
    return 130;
  }

  private static int wc(Call call) throws IOException {
    Options options = call.options("lc", "");
    if (!options.has('l') && !options.has('c')) {
      throw new UsageError("only -l and -c are supported on this stand-in");
    }
    return FileCommands.each(
        call,
        orInput(options.operands()),
        "cannot open",
        operand -> {
          byte[] content = content(call, operand);
          long newLines =
              new String(content, StandardCharsets.ISO_8859_1)
                  .chars()
                  .filter(c -> c == '\n')
                  .count();
          long count = options.has('l') ? newLines : content.length;
          call.out().print(count + (operand.equals("-") ? "" : " " + operand) + "\n");
        });
  }

  private static int echo(Call call) {
    List<String> words = call.arguments().subList(1, call.arguments().size());
    boolean noEnd = !words.isEmpty() && words.get(0).equals("-n");
    call.out().print(String.join(" ", noEnd ? words.subList(1, words.size()) : words));
    call.out().print(noEnd ? "" : "\n");
    return 0;
  }

  /** {@code printf} with {@code %s}, {@code %d}, {@code %b} and the escapes of POSIX. */
  private static int printf(Call call) {
    List<String> words = call.arguments().subList(1, call.arguments().size());
    if (words.isEmpty()) {
      throw new UsageError("missing operand");
    }
    List<String> left = new ArrayList<>(words.subList(1, words.size()));
    do {
      call.out().print(formatOnce(words.get(0), left));
    } while (!left.isEmpty() && words.get(0).matches("(?s).*%[sdb].*"));
    return 0;
  }

  private static String formatOnce(String format, List<String> left) {
    StringBuilder text = new StringBuilder();
    String escaped = escapes(format, false);
    for (int i = 0; i < escaped.length(); i++) {
      char c = escaped.charAt(i);
      if (c != '%') {
        text.append(c);
        continue;
      }
      char kind = i + 1 < escaped.length() ? escaped.charAt(++i) : ' ';
      String value = kind == '%' || left.isEmpty() ? "" : left.remove(0);
      switch (kind) {
        case '%' -> text.append('%');
        case 's' -> text.append(value);
        case 'b' -> text.append(escapes(value, true));
        case 'd' -> text.append(value.isEmpty() ? "0" : Long.toString(Long.parseLong(value)));
        default -> throw new UsageError("%" + kind + " is not supported on this stand-in");
      }
    }
    return text.toString();
  }

  private static String escapes(String text, boolean argument) {
    StringBuilder out = new StringBuilder();
    for (int i = 0; i < text.length(); i++) {
      char c = text.charAt(i);
      if (c != '\\' || i + 1 == text.length()) {
        out.append(c);
        continue;
      }
      char kind = text.charAt(++i);
      switch (kind) {
        case 'n' -> out.append('\n');
        case 't' -> out.append('\t');
        case 'r' -> out.append('\r');
        case '\\' -> out.append('\\');
        case 'e' -> out.append('\033');
        case '0', '1', '2', '3' -> {
          // Up to three digits; after %b a zero may come before them.
          int most = i + (argument && kind == '0' ? 4 : 3);
          int end = i;
          while (end < text.length() && end < most && "01234567".indexOf(text.charAt(end)) >= 0) {
            end++;
          }
          out.append((char) Integer.parseInt(text.substring(i, end), 8));
          i = end - 1;
        }
        default -> throw new UsageError("\\" + kind + " is not supported on this stand-in");
      }
    }
    return out.toString();
  }

  private static int sha256sum(Call call) throws IOException {
    List<String> operands = orInput(call.options("b", "").operands());
    return FileCommands.each(
        call,
        operands,
        "cannot read",
        operand -> call.out().print(sha256(content(call, operand)) + "  " + operand + "\n"));
  }

  private static String sha256(byte[] content) {
    try {
      return HexFormat.of().formatHex(MessageDigest.getInstance("SHA-256").digest(content));
    } catch (NoSuchAlgorithmException e) {
      throw new IllegalStateException(e);
    }
  }

  private static int tee(Call call) throws IOException {
    Options options = call.options("a", "");
    byte[] content = call.in().readAllBytes();
    call.out().write(content);
    return FileCommands.each(
        call,
        options.operands(),
        "cannot write",
        operand -> {
          int mode = 0666 & ~call.session().umask;
          OpenFile file =
              call.world()
                  .open(
                      call.caller(),
                      call.path(operand),
                      new World.Open(false, true, true, false, !options.has('a'), mode));
          file.write(file.size(), content, 0, content.length);
        });
  }
}
