package zander.core.connect.command;

import java.nio.charset.StandardCharsets;

/**
 * What a command on the server gave back.
 *
 * @param exit the exit status, 0 to 255; -1 when the server told none
 */
public record ExecResult(int exit, byte[] out, byte[] errors) {
  public String outText() {
    return new String(out, StandardCharsets.UTF_8);
  }

  public String errorText() {
    return new String(errors, StandardCharsets.UTF_8);
  }
}
