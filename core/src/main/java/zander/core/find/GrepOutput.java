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
import org.jspecify.annotations.Nullable;
import zander.core.files.RemotePath;
import zander.core.files.WireName;

/**
 * Reads {@code grep -nH --null}: a name, NUL, a number, a colon, the line; however it is cut. Of
 * the lines, those are told that fit what is looked for.
 */
final class GrepOutput {
  private static final int PORTION = 100;

  private final Pattern wanted;
  private final Consumer<List<SearchMatch>> found;
  private final ByteArrayOutputStream part = new ByteArrayOutputStream();
  private final List<SearchMatch> waiting = new ArrayList<>();
  private final List<SearchMatch> ofFile = new ArrayList<>();
  private final List<RemotePath> others = new ArrayList<>();
  private @Nullable RemotePath file;

  /** The one that the lines of just now are of; its matches wait for its end. */
  private @Nullable RemotePath current;

  private boolean isOther;
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
        line(file, part.toByteArray());
        part.reset();
        file = null;
      } else {
        part.write(b);
      }
    }
    tell(1);
  }

  private void line(RemotePath file, byte[] bytes) {
    seen = true;
    String wire = WireName.fromBytes(bytes);
    int colon = wire.indexOf(':');
    if (colon <= 0 || !wire.substring(0, colon).matches("[0-9]{1,9}")) {
      return;
    }
    if (current == null || !file.equals(current)) {
      endFile();
      current = file;
    }
    int number = Integer.parseInt(wire.substring(0, colon));
    String text = text(java.util.Arrays.copyOfRange(bytes, colon + 1, bytes.length));
    if (text == null) {
      isOther = true;
    } else {
      String shown = number == 1 && text.startsWith("\ufeff") ? text.substring(1) : text;
      Matcher matcher = wanted.matcher(shown);
      if (matcher.find()) {
        ofFile.add(SearchMatch.of(file, number, shown, matcher.start(), matcher.end()));
      }
      if (ofFile.size() >= PORTION && !isOther) {
        // So many lines in UTF-8 are no accident.
        waiting.addAll(ofFile);
        ofFile.clear();
        tell(PORTION);
      }
    }
  }

  private void endFile() {
    if (isOther) {
      others.add(current);
    } else {
      waiting.addAll(ofFile);
    }
    isOther = false;
    ofFile.clear();
    tell(PORTION);
  }

  /** {@code null} for what is not in UTF-8, or has line ends of its own. */
  private static @Nullable String text(byte[] line) {
    int length = line.length > 0 && line[line.length - 1] == '\r' ? line.length - 1 : line.length;
    try {
      String text =
          StandardCharsets.UTF_8.newDecoder().decode(ByteBuffer.wrap(line, 0, length)).toString();
      return text.indexOf('\r') < 0 ? text : null;
    } catch (CharacterCodingException e) {
      return null;
    }
  }

  /**
   * To be called when there is no more.
   *
   * @return files whose lines only the whole of them can tell, because they are not in UTF-8
   */
  List<RemotePath> end() {
    endFile();
    tell(1);
    return others;
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
