package zander.core.files.sftp.channel;

import java.io.IOException;
import java.util.function.LongConsumer;
import org.apache.sshd.common.util.buffer.ByteArrayBuffer;
import org.jspecify.annotations.Nullable;

/**
 * Cuts what arrives into messages: four bytes of length, then as many
 * (draft-ietf-secsh-filexfer-02, section 3). For one thread.
 */
final class MessageCutter {
  /** Larger answers than any request of ours asks for are no answers. */
  private static final int LARGEST = 4 << 20;

  /** A type and a number, at least. */
  private static final int SMALLEST = 5;

  /** Takes a message, which it may keep. */
  interface Whole {
    void take(byte[] message, int length) throws IOException;
  }

  private final ResponseBuffers memory;
  private final Whole whole;
  private final LongConsumer refused;

  private final byte[] lengthBytes = new byte[4];
  private int lengthHave;
  private byte @Nullable [] message;
  private int messageLength;
  private int have;

  /**
   * @param refused told the length that none may have; what comes after it goes nowhere
   */
  MessageCutter(ResponseBuffers memory, Whole whole, LongConsumer refused) {
    this.memory = memory;
    this.whole = whole;
    this.refused = refused;
  }

  void take(byte[] data, int offset, int length) throws IOException {
    int at = offset;
    int end = offset + length;
    while (at < end) {
      if (message == null) {
        lengthBytes[lengthHave++] = data[at++];
        if (lengthHave == lengthBytes.length) {
          lengthHave = 0;
          begin(new ByteArrayBuffer(lengthBytes).getUInt());
        }
      } else {
        int count = Math.min(end - at, messageLength - have);
        System.arraycopy(data, at, message, have, count);
        have += count;
        at += count;
        if (have == messageLength) {
          byte[] complete = message;
          message = null;
          whole.take(complete, messageLength);
        }
      }
    }
  }

  private void begin(long length) {
    have = 0;
    if (length < SMALLEST || length > LARGEST) {
      refused.accept(length);
      message = new byte[1 << 16];
      messageLength = message.length;
      return;
    }
    messageLength = (int) length;
    message = memory.take(messageLength);
  }
}
