package zander.suite;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.CancellationException;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.Assumptions;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import zander.core.connect.Connection;
import zander.core.connect.command.Pipe;
import zander.core.connect.command.ShellSession;
import zander.core.files.RemotePath;
import zander.core.work.Cancellation;

/** What is ended here ends on the server too: nothing goes on there that nobody waits for. */
@Timeout(value = 60, unit = TimeUnit.SECONDS)
class EndedProgramsTest {
  private static final String TALK = "echo $$; while :; do echo still here; sleep 0.05; done";

  @TempDir static Path folder;
  private static SystemSshd sshd;

  @BeforeAll
  static void start() throws Exception {
    Assumptions.assumeTrue(SystemSshd.isPossible(), "needs openssh-server, and to be root");
    sshd = new SystemSshd(folder, List.of("zndended"), List.of("MaxSessions 10"));
  }

  @AfterAll
  static void stop() throws Exception {
    if (sshd != null) {
      sshd.close();
    }
  }

  private static void awaitEnd(ProcessHandle program) throws Exception {
    program.onExit().get();
  }

  private static ProcessHandle of(String told) {
    return ProcessHandle.of(Long.parseLong(told.lines().findFirst().orElseThrow().strip()))
        .orElseThrow();
  }

  @Test
  void aStoppedScriptEnds() throws Exception {
    try (Connection connection = sshd.open("zndended")) {
      Cancellation stop = new Cancellation();
      ProcessHandle[] program = new ProcessHandle[1];
      assertThatThrownBy(
              () ->
                  connection.stream(
                      TALK,
                      part -> {
                        if (program[0] == null) {
                          program[0] = of(new String(part, StandardCharsets.US_ASCII));
                          stop.stop();
                        }
                      },
                      stop))
          .isInstanceOf(CancellationException.class);
      awaitEnd(program[0]);
    }
  }

  @Test
  void manyProgramsCanBeEndedOneAfterTheOther() throws Exception {
    try (Connection connection = sshd.open("zndended")) {
      // More than the server lets run at once (MaxSessions).
      for (int i = 0; i < 25; i++) {
        try (Pipe pipe = connection.pipe("echo $$; exec cat")) {
          byte[] told = new byte[32];
          int count = pipe.out().read(told, 0, told.length);
          ProcessHandle program = of(new String(told, 0, count, StandardCharsets.US_ASCII));
          pipe.close();
          awaitEnd(program);
        }
      }
    }
  }

  /** A packet for a channel that both have closed makes sshd end the whole connection. */
  @Test
  void aProgramThatEndsWhileItIsFedDoesNotEndTheConnection() throws Exception {
    try (Connection connection = sshd.open("zndended")) {
      byte[] some = new byte[100];
      for (int i = 0; i < 150; i++) {
        try (Pipe pipe = connection.pipe("exit 3")) {
          assertThatThrownBy(
                  () -> {
                    while (true) {
                      pipe.in().write(some);
                      pipe.in().flush();
                    }
                  })
              .isInstanceOf(IOException.class);
          assertThat(pipe.finish().exit()).isEqualTo(3);
        }
        assertThat(connection.files().look(RemotePath.of("/"))).isNotNull();
      }
    }
  }

  @Test
  void aClosedShellEnds() throws Exception {
    try (Connection connection = sshd.open("zndended")) {
      ShellSession shell =
          connection.openShell(RemotePath.of(folder.resolve("zndended").toString()), 80, 24);
      shell.type("stty -echo; echo its-number-$$-\n".getBytes(StandardCharsets.US_ASCII));
      StringBuilder seen = new StringBuilder();
      while (!seen.toString().matches("(?s).*its-number-[0-9]+-.*")) {
        seen.append((char) shell.output().read());
      }
      String number = seen.toString().replaceAll("(?s).*its-number-([0-9]+)-.*", "$1");
      ProcessHandle program = of(number);
      shell.close();
      awaitEnd(program);
      assertThat(connection.files().look(RemotePath.of("/"))).isNotNull();
    }
  }
}
