package zander.core.connect.command;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.time.Duration;
import java.util.EnumSet;
import java.util.Map;
import org.apache.sshd.client.channel.ClientChannelEvent;
import zander.core.connect.channel.CommandChannel;
import zander.core.connect.channel.SessionPool;
import zander.core.files.WireName;

/** One command for the account's own shell, as it stands. */
public final class CommandRun {
  private CommandRun() {}

  /** Runs it without a terminal and waits for its end. */
  public static ExecResult run(SessionPool lines, String wireCommand, byte[] input)
      throws IOException {
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    ByteArrayOutputStream errors = new ByteArrayOutputStream();
    try (CommandChannel channel =
        lines.open(
            () -> new CommandChannel(WireName.bytes(wireCommand), null, Map.of()),
            made -> {
              made.setIn(new ByteArrayInputStream(input));
              made.setOut(out);
              made.setErr(errors);
            })) {
      channel.waitFor(EnumSet.of(ClientChannelEvent.CLOSED), Duration.ZERO);
      Integer exit = channel.getExitStatus();
      return new ExecResult(exit == null ? -1 : exit, out.toByteArray(), errors.toByteArray());
    }
  }
}
