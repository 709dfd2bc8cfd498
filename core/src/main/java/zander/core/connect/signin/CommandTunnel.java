package zander.core.connect.signin;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.util.concurrent.TimeUnit;
import zander.core.work.CappedOutput;
import zander.core.work.VisibleText;

/**
 * The way to a server by a command of this computer, whose input and output are the line
 * (ssh_config manual page, ProxyCommand).
 */
final class CommandTunnel implements LoopbackLine.FarEnd {
  private static final int MOST_SAID = 4096;

  private final Process process;
  private final CappedOutput said = new CappedOutput(MOST_SAID);
  private final Thread hearing;

  private CommandTunnel(Process process) {
    this.process = process;
    this.hearing = new Thread(this::hear, "command-errors");
    hearing.setDaemon(true);
    hearing.start();
  }

  /**
   * Starts it.
   *
   * @param command for {@code sh}, with its tokens expanded
   * @throws IOException when there is no {@code sh}
   */
  static CommandTunnel start(String command) throws IOException {
    return new CommandTunnel(new ProcessBuilder("sh", "-c", "exec " + command).start());
  }

  private void hear() {
    try (InputStream errors = process.getErrorStream()) {
      errors.transferTo(said);
    } catch (IOException e) {
      // It has ended.
    }
  }

  /**
   * Why it ended, in its words; waits a moment for those.
   *
   * @return empty while it runs, or when it said nothing
   */
  String lastWords() {
    try {
      if (!process.waitFor(1, TimeUnit.SECONDS)) {
        return "";
      }
      hearing.join(TimeUnit.SECONDS.toMillis(1));
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      return "";
    }
    String text = new String(said.toByteArray(), StandardCharsets.UTF_8).strip();
    String last = text.substring(text.lastIndexOf('\n') + 1);
    return last.isEmpty() ? "it ended with status " + process.exitValue() : VisibleText.of(last);
  }

  @Override
  public InputStream in() {
    return process.getInputStream();
  }

  @Override
  public OutputStream out() {
    return process.getOutputStream();
  }

  @Override
  public void close() {
    process.descendants().forEach(ProcessHandle::destroy);
    process.destroy();
  }
}
