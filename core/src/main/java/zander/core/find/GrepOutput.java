package zander.core.find;

import java.io.ByteArrayOutputStream;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import zander.core.files.RemotePath;
import zander.core.files.WireName;

/** Reads {@code grep -nH --null}: a name, NUL, a number, a colon, the line; however it is cut. */
final class GrepOutput {
  private static final int PORTION = 100;

  private final Pattern wanted;
  private final Consumer<List<SearchMatch>> found;
  private final ByteArrayOutputStream part = new ByteArrayOutputStream();
  private final List<SearchMatch> waiting = new ArrayList<>();
  private RemotePath file;
  private boolean seen;

  GrepOutput(Pattern wanted, Consumer<List<SearchMatch>> found) {
    this.wanted = wanted;
    this.found = found;
  }

  void add(byte[] bytes) {
    for (byte b : bytes) {
      if (b == 0 && file == null) {
        file = RemotePath.ofWire(WireName.fromBytes(part.toByteArray()));
        part.reset();
      } else if (b == '\n' && file != null) {
        line(part.toByteArray());
        part.reset();
        file = null;
      } else {
        part.write(b);
      }
    }
    tell(1);
  }

  private void line(byte[] bytes) {
    seen = true;
    String wire = WireName.fromBytes(bytes);
    int colon = wire.indexOf(':');
    if (colon <= 0 || !wire.substring(0, colon).matches("[0-9]{1,9}")) {
      return;
    }
    String text = text(java.util.Arrays.copyOfRange(bytes, colon + 1, bytes.length));
    Matcher matcher = wanted.matcher(text);
    boolean again = matcher.find();
    waiting.add(
        SearchMatch.of(
            file,
            Integer.parseInt(wire.substring(0, colon)),
            text,
            again ? matcher.start() : 0,
            again ? matcher.end() : 0));
    tell(PORTION);
  }

  private static String text(byte[] line) {
    int length = line.length > 0 && line[line.length - 1] == '\r' ? line.length - 1 : line.length;
    try {
      return StandardCharsets.UTF_8
          .newDecoder()
          .decode(ByteBuffer.wrap(line, 0, length))
          .toString();
    } catch (CharacterCodingException e) {
      return new String(line, 0, length, StandardCharsets.ISO_8859_1);
    }
  }

  private void tell(int least) {
    if (waiting.size() >= least) {
      found.accept(List.copyOf(waiting));
      waiting.clear();
    }
  }

  boolean hasSeen() {
    return seen;
  }
}
