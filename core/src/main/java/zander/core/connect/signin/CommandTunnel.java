package zander.core.connect.signin;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;
import zander.core.phrase.Phrase;
import zander.core.phrase.SignInPhrase;
import zander.core.work.CappedOutput;
import zander.core.work.VisibleText;

/**
 * The way to a server by a command of this computer, whose input and output are the line
 * (ssh_config manual page, ProxyCommand).
 */
final class CommandTunnel implements LoopbackLine.FarEnd {
  private static final int MOST_SAID = 4096;

  /** A child of it may keep its error stream open. */
  private static final long PATIENCE_MILLIS = 1000;

  /** By SIGTERM (POSIX XCU 2.8.2). */
  private static final int ENDED_BY_US = 128 + 15;

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

  /** Tells why it ended, where it did so by itself and once it has; on a thread of its own. */
  void onLastWords(Consumer<Phrase> told) {
    process
        .onExit()
        .thenAcceptAsync(
            ended -> {
              try {
                hearing.join(PATIENCE_MILLIS);
              } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
              }
              Phrase words = lastWords();
              if (words != null) {
                told.accept(words);
              }
            });
  }

  private @Nullable Phrase lastWords() {
    String text = new String(said.toByteArray(), StandardCharsets.UTF_8).strip();
    String last = text.substring(text.lastIndexOf('\n') + 1);
    if (!last.isEmpty()) {
      return Phrase.quoted(VisibleText.of(last));
    }
    return process.exitValue() == ENDED_BY_US
        ? null
        : SignInPhrase.COMMAND_ENDED.of(process.exitValue());
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
