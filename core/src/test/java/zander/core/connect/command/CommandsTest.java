package zander.core.connect.command;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import java.io.IOException;
import org.junit.jupiter.api.Test;
import zander.core.files.AnswerBounds;
import zander.core.files.RemoteFailure;
import zander.core.work.Cancellation;

class CommandsTest {
  /** A server on which every script writes so many parts of a megabyte. */
  private record Writing(int parts) implements Commands {
    @Override
    public boolean hasShell() {
      return true;
    }

    @Override
    public ExecResult stream(String script, Output output, Cancellation stop) throws IOException {
      for (int i = 0; i < parts; i++) {
        output.take(new byte[1 << 20]);
      }
      return new ExecResult(0, new byte[0], new byte[0]);
    }

    @Override
    public Pipe pipe(String script) {
      throw new AssertionError(script);
    }

    @Override
    public ServerTools tools() {
      return ServerTools.NONE;
    }
  }

  @Test
  void aScriptThatWritesWithoutEndIsGivenUp() throws IOException {
    int most = AnswerBounds.SCRIPT >> 20;
    assertThat(new Writing(most).script("true").out()).hasSize(AnswerBounds.SCRIPT);
    RemoteFailure failure =
        catchThrowableOfType(
            RemoteFailure.class, () -> new Writing(Integer.MAX_VALUE).script("yes"));
    assertThat(failure.reason()).isEqualTo(RemoteFailure.Reason.BAD_ANSWER);
  }
}
