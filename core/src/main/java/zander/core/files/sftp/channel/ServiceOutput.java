package zander.core.files.sftp.channel;

import java.io.IOException;
import org.jspecify.annotations.Nullable;

/**
 * What a service writes: what is printed before it speaks, then messages; or what a translator
 * makes them of. For one thread.
 */
final class ServiceOutput {
  /** {@code null} where a file service speaks for itself. */
  private final @Nullable ServiceTranslator translator;

  private final MessageCutter messages;

  /** Until the service begins to speak; {@code null} from then on. */
  private volatile @Nullable SftpVersionScanner search = new SftpVersionScanner();

  ServiceOutput(@Nullable ServiceTranslator translator, MessageCutter messages) {
    this.translator = translator;
    this.messages = messages;
  }

  /** What was printed in the place of a service's first words; empty once they came. */
  String printed() {
    SftpVersionScanner searched = search;
    return searched == null ? "" : searched.printed();
  }

  /**
   * @throws IOException when it is no service, or not one any more
   */
  void take(byte[] data, int offset, int length) throws IOException {
    if (translator != null) {
      translator.heard(data, offset, length);
    } else if (search == null) {
      messages.take(data, offset, length);
    } else {
      byte[] begun = search.take(data, offset, length);
      if (begun != null) {
        search = null;
        messages.take(begun, 0, begun.length);
      } else if (search.isTooMuch()) {
        throw new IOException("the account's start files print without end");
      }
    }
  }
}
