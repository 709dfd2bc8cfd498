package zander.core.change;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.function.LongConsumer;
import zander.core.connect.command.Commands;
import zander.core.connect.command.ExecResult;
import zander.core.connect.command.ShellWords;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.files.ToolErrors;
import zander.core.phrase.FilePhrase;
import zander.core.phrase.FileStep;
import zander.core.work.Cancellation;

/**
 * Copies a file, a link or a tree from one place of a server to another, with modes, times, and
 * owners where the account may give them. By the server's {@code cp -a}, by its copy extension, or
 * through this computer; {@link #way} says which.
 */
final class CopyTask {
  /** How the data goes. */
  enum Way {
    BY_SHELL,
    BY_EXTENSION,
    THROUGH_HERE
  }

  private final RemoteFiles files;
  private final Commands commands;
  private final LongConsumer progress;
  private final Cancellation stop;

  /**
   * @param progress told how many bytes went through this computer
   */
  CopyTask(RemoteFiles files, Commands commands, LongConsumer progress, Cancellation stop) {
    this.files = files;
    this.commands = commands;
    this.progress = progress;
    this.stop = stop;
  }

  /** As far as is known by now; does not wait. */
  static Way way(RemoteFiles files, Commands commands) {
    return commands.mayHaveShell()
        ? Way.BY_SHELL
        : files.copiesByItself() ? Way.BY_EXTENSION : Way.THROUGH_HERE;
  }

  /** Makes {@code to}, which must be free, a copy of {@code from}. */
  void copy(RemotePath from, RemotePath to) throws IOException {
    if (files.othersMayTurn(from) || files.othersMayTurn(to)) {
      byFiles(from, to);
      return;
    }
    commands.byShellOr(
        () -> {
          byShell(from, to);
          return true;
        },
        () -> {
          byFiles(from, to);
          return true;
        });
  }

  private void byFiles(RemotePath from, RemotePath to) throws IOException {
    new TreeCopy(files, progress, stop).copy(from, to);
  }

  private void byShell(RemotePath from, RemotePath to) throws IOException {
    ExecResult result =
        commands.stream(
            "cp -a -- " + ShellWords.quote(from) + " " + ShellWords.quote(to), out -> {}, stop);
    if (result.exit() != 0) {
      String said = new String(result.errors(), StandardCharsets.UTF_8).strip();
      throw ToolErrors.failure(
          FileStep.COPY, from, said, FilePhrase.ENDED_WITH.of("cp", result.exit()));
    }
  }
}
