package zander.core.reading;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import zander.core.connect.command.Commands;
import zander.core.connect.command.ExecResult;
import zander.core.connect.command.ShellWords;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFailure.Reason;
import zander.core.files.RemoteFiles;
import zander.core.phrase.FilePhrase;
import zander.core.phrase.FileStep;
import zander.core.work.Cancellation;

/**
 * Has the server's own tools go through a file, where they may: not where another account could put
 * another file at its path, nor where the open file is not at its path any more.
 */
final class ServerScan {
  /** Of a number and its line end, with room for white space. */
  private static final int DIGITS = 32;

  /**
   * A line is held whole by {@code grep}, and a file may be one line: it ends rather than take the
   * server's memory (POSIX, {@code ulimit}; KiB). Where there is no such limit, it has none.
   */
  private static final String MEMORY = "ulimit -v 1048576 2>/dev/null; ";

  private final PagedFile file;
  private final RemoteFiles files;
  private final Commands commands;

  ServerScan(PagedFile file, RemoteFiles files, Commands commands) {
    this.file = file;
    this.files = files;
    this.commands = commands;
  }

  boolean isPossible() throws IOException {
    return commands.hasShell() && !files.othersMayTurn(file.path()) && file.look().isAtPath();
  }

  /**
   * The places in the file that a script writes, one a line.
   *
   * @param script in which {@code FILE} stands for the file
   * @param most no more than these are taken
   * @return {@code null} when it complained, or wrote what is no place, so that none of it is to be
   *     trusted
   */
  @Nullable List<Long> places(String script, int most, Cancellation stop) throws IOException {
    StringBuilder written = new StringBuilder();
    ExecResult result =
        commands.stream(
            MEMORY + script.replace("FILE", ShellWords.quote(file.path())),
            part -> {
              if (written.length() + part.length > most * DIGITS) {
                throw new RemoteFailure(
                    Reason.BAD_ANSWER,
                    FileStep.SEARCH,
                    file.path(),
                    FilePhrase.TOO_MUCH_WRITTEN.of(),
                    null);
              }
              written.append(new String(part, StandardCharsets.US_ASCII));
            },
            stop);
    // What ends before it has read all breaks the pipe behind it, which is no failure.
    boolean complained = result.errorText().lines().anyMatch(line -> !line.contains("roken pipe"));
    if (result.exit() != 0 || complained) {
      return null;
    }
    List<Long> places = new ArrayList<>();
    for (String line : written.toString().split("\n")) {
      String number = line.strip();
      if (!number.isEmpty()) {
        if (!number.matches("[0-9]{1,18}")) {
          return null;
        }
        places.add(Long.parseLong(number));
      }
    }
    return places;
  }
}
