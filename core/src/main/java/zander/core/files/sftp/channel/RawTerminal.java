package zander.core.files.sftp.channel;

import java.util.LinkedHashMap;
import java.util.Map;
import org.apache.sshd.common.SshConstants;
import org.apache.sshd.common.channel.Channel;
import org.apache.sshd.common.channel.PtyMode;
import org.apache.sshd.common.util.buffer.Buffer;
import org.apache.sshd.common.util.buffer.ByteArrayBuffer;

/**
 * A terminal that changes nothing of what goes through it, for programs that ask for a password in
 * one and nowhere else (RFC 4254, sections 6.2 and 8).
 */
final class RawTerminal {
  private static final String REQUEST = "pty-req";

  /** Knows of no colours, and no program is tempted. */
  private static final String TYPE = "dumb";

  private static final int COLUMNS = 80;
  private static final int ROWS = 24;

  private RawTerminal() {}

  /** Asks for no answer: a program that was given none says so. */
  static Buffer request(Channel channel) {
    Buffer request = channel.getSession().createBuffer(SshConstants.SSH_MSG_CHANNEL_REQUEST);
    request.putUInt(channel.getRecipient());
    request.putString(REQUEST);
    request.putBoolean(false);
    request.putString(TYPE);
    request.putUInt(COLUMNS);
    request.putUInt(ROWS);
    request.putUInt(0);
    request.putUInt(0);
    request.putBytes(modes());
    return request;
  }

  private static byte[] modes() {
    Map<PtyMode, Integer> modes = new LinkedHashMap<>();
    for (PtyMode off :
        new PtyMode[] {
          PtyMode.PARMRK,
          PtyMode.INPCK,
          PtyMode.ISTRIP,
          PtyMode.INLCR,
          PtyMode.IGNCR,
          PtyMode.ICRNL,
          PtyMode.IXON,
          PtyMode.IXANY,
          PtyMode.IXOFF,
          PtyMode.ISIG,
          PtyMode.ICANON,
          PtyMode.ECHO,
          PtyMode.ECHONL,
          PtyMode.IEXTEN,
          PtyMode.OPOST,
          PtyMode.PARENB
        }) {
      modes.put(off, 0);
    }
    modes.put(PtyMode.CS8, 1);
    Buffer encoded = new ByteArrayBuffer();
    modes.forEach(
        (mode, value) -> {
          encoded.putByte((byte) mode.toInt());
          encoded.putUInt(value);
        });
    encoded.putByte(PtyMode.TTY_OP_END);
    return encoded.getCompactData();
  }
}
