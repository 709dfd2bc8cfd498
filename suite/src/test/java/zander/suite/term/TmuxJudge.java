package zander.suite.term;

import java.io.Closeable;
import java.io.FileInputStream;
import java.io.FileOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.concurrent.TimeUnit;

/**
 * A server of {@code tmux} of the test's own, with one pane of 80 by 24: another terminal that says
 * what is on its screen.
 */
final class TmuxJudge implements Closeable {
  static final int COLUMNS = 80;
  static final int ROWS = 24;
  private static final int MINUTE = 60;

  private final String socket;
  private final Path folder;

  /**
   * What the screen of the pane is.
   *
   * @param rows each with its styles
   * @param cursorX may be one more than the last column, where a wrap is due
   */
  record Seen(List<List<StyledChar>> rows, int cursorX, int cursorY) {}

  /**
   * Starts it.
   *
   * @param folder for its socket; of the test's own
   */
  TmuxJudge(Path folder, String command, String... environment) throws Exception {
    this.folder = folder;
    this.socket = folder.resolve("tmux").toString();
    Path rules = folder.resolve("tmux.conf");
    Files.writeString(
        rules,
        "set -g status off\nset -g default-terminal xterm-256color\nset -g escape-time 0\n"
            + "set -g history-limit 500\nset -g remain-on-exit on\n");
    List<String> words =
        new ArrayList<>(
            List.of("-f", rules.toString(), "new-session", "-d", "-x", "80", "-y", "24"));
    for (String variable : environment) {
      words.addAll(List.of("-e", variable));
    }
    words.add(command);
    run(words.toArray(String[]::new));
  }

  /** Runs a command of it. */
  String run(String... words) throws Exception {
    List<String> command = new ArrayList<>(List.of("tmux", "-S", socket));
    command.addAll(Arrays.asList(words));
    ProcessBuilder builder = new ProcessBuilder(command).redirectErrorStream(true);
    builder.environment().put("LC_ALL", "C.UTF-8");
    builder.environment().remove("TMUX");
    Process process = builder.start();
    process.getOutputStream().close();
    byte[] said = process.getInputStream().readAllBytes();
    if (!process.waitFor(MINUTE, TimeUnit.SECONDS) || process.exitValue() != 0) {
      process.destroyForcibly();
      throw new IOException("tmux: " + new String(said, StandardCharsets.UTF_8));
    }
    return new String(said, StandardCharsets.UTF_8);
  }

  /** Sends keys, by the names that {@code send-keys} has. */
  void keys(String... names) throws Exception {
    List<String> words = new ArrayList<>(List.of("send-keys"));
    words.addAll(Arrays.asList(names));
    run(words.toArray(String[]::new));
  }

  Seen look() throws Exception {
    String said =
        run(
            "display-message",
            "-p",
            "#{cursor_x} #{cursor_y}",
            ";",
            "capture-pane",
            "-p",
            "-e",
            "-N");
    String[] lines = said.split("\n", -1);
    String[] cursor = lines[0].split(" ");
    StyledChar.Reader reader = new StyledChar.Reader();
    List<List<StyledChar>> rows = new ArrayList<>();
    for (int i = 1; i <= ROWS; i++) {
      rows.add(reader.row(lines[i]));
    }
    return new Seen(rows, Integer.parseInt(cursor[0]), Integer.parseInt(cursor[1]));
  }

  @Override
  public void close() throws IOException {
    try {
      run("kill-server");
      // What ran in it ends a moment later, and may write to the folder until then.
      List<ProcessHandle> left =
          ProcessHandle.allProcesses()
              .filter(one -> one.info().commandLine().orElse("").contains(folder.toString()))
              .toList();
      for (ProcessHandle one : left) {
        one.onExit().get(MINUTE, TimeUnit.SECONDS);
      }
    } catch (Exception e) {
      throw new IOException(e);
    }
  }

  /** A pane that shows what it is given, byte by byte, and says when it has. */
  static final class Shown implements Closeable {
    private final TmuxJudge judge;
    private final OutputStream in;
    private final InputStream out;

    Shown(Path folder) throws Exception {
      Path to = folder.resolve("to");
      Path from = folder.resolve("from");
      Process made =
          new ProcessBuilder("mkfifo", to.toString(), from.toString()).inheritIO().start();
      if (made.waitFor() != 0) {
        throw new IOException("no pipes");
      }
      Path script = folder.resolve("pane.sh");
      Files.writeString(
          script,
          "stty raw -echo\nexec 3<>%s 4<>%s 5<&0\ncat <&5 >&4 &\nexec cat <&3\n"
              .formatted(to, from));
      judge = new TmuxJudge(folder, "sh " + script);
      in = new FileOutputStream(to.toFile());
      out = new FileInputStream(from.toFile());
    }

    /**
     * Shows a stream on a new screen.
     *
     * @param after what is shown once the place of the cursor was asked for
     */
    Seen show(byte[] stream, byte[] after) throws Exception {
      write("\030\033[?1049l\033c");
      in.write(stream);
      write("\030\033[6n");
      String[] place = answer('R').split("[;\\[]");
      in.write(after);
      write("\033[5n");
      answer('n');
      List<List<StyledChar>> rows = judge.look().rows();
      return new Seen(rows, Integer.parseInt(place[2]) - 1, Integer.parseInt(place[1]) - 1);
    }

    private void write(String text) throws IOException {
      in.write(text.getBytes(StandardCharsets.US_ASCII));
      in.flush();
    }

    private String answer(char end) throws IOException {
      StringBuilder text = new StringBuilder();
      for (int next = out.read(); next != end; next = out.read()) {
        if (next < 0) {
          throw new IOException("the pane is gone");
        }
        text.append((char) next);
      }
      return text.toString();
    }

    @Override
    public void close() throws IOException {
      judge.close();
      in.close();
      out.close();
    }
  }
}
