package zander.core.files.sftp.channel;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.OutputStream;

/** Messages that go out as a translator says them. For one thread at a time. */
final class TranslatedRequests {
  private final ServiceTranslator translator;
  private final ByteArrayOutputStream said = new ByteArrayOutputStream();
  private final MessageCutter messages;

  TranslatedRequests(ServiceTranslator translator) {
    this.translator = translator;
    this.messages = new MessageCutter(new ResponseBuffers(), this::translate, length -> {});
  }

  private void translate(byte[] message, int length) throws IOException {
    said.writeBytes(translator.ask(message, length));
  }

  /**
   * @param message with {@code data} after it; may be several, each whole
   */
  void write(
      OutputStream out, byte[] message, int from, int count, byte[] data, int offset, int length)
      throws IOException {
    messages.take(message, from, count);
    messages.take(data, offset, length);
    said.writeTo(out);
    said.reset();
  }
}
