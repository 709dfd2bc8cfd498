package zander.standin.shell;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import zander.standin.shell.process.LineEditor;
import zander.standin.shell.process.Terminal;

/** What a person types at a command that reads its standard input: lines, until Ctrl+D. */
final class TypedLines extends InputStream {
  private final Terminal terminal;
  private byte[] line = new byte[0];
  private int taken;

  TypedLines(Terminal terminal) {
    this.terminal = terminal;
  }

  @Override
  public int read() throws IOException {
    if (taken == line.length) {
      String text = new LineEditor(terminal).read("");
      if (text == null) {
        return -1;
      }
      line = (text + "\n").getBytes(StandardCharsets.ISO_8859_1);
      taken = 0;
    }
    return line[taken++] & 0xff;
  }

  @Override
  public int read(byte[] into, int offset, int length) throws IOException {
    int first = read();
    if (first < 0) {
      return -1;
    }
    into[offset] = (byte) first;
    return 1;
  }
}
