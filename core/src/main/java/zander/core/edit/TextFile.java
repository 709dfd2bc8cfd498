package zander.core.edit;

import java.io.ByteArrayOutputStream;
import java.nio.ByteBuffer;
import java.nio.CharBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.CoderResult;
import java.nio.charset.CodingErrorAction;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.EnumMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import zander.core.phrase.ContentPhrase;

/**
 * A file's content as text, with what must survive editing: the encoding, the byte order mark, how
 * each line ends, and whether the last line ends at all.
 *
 * <p>The text has {@code \n} between lines. Encoding unchanged text gives the very bytes that were
 * read; that is checked when decoding. Immutable.
 */
public final class TextFile {
  /** What an editor takes, in bytes; larger files are read by parts. */
  public static final long LARGEST = 16L << 20;

  private final String text;
  private final Charset charset;
  private final byte[] mark;
  private final List<LineEnd> ends;

  /** Counted once: a view asks again and again, on a thread that must not wait. */
  private final LineEnd usual;

  private final boolean mixed;

  /** Set before it is given to anybody. */
  private boolean guessed;

  private TextFile(String text, Charset charset, byte[] mark, List<LineEnd> ends) {
    this.text = text;
    this.charset = charset;
    this.mark = mark;
    this.ends = ends;
    Map<LineEnd, Integer> counts = new EnumMap<>(LineEnd.class);
    ends.forEach(end -> counts.merge(end, 1, Integer::sum));
    mixed = counts.size() > 1;
    // Of two that are as frequent, the first of the enum.
    usual =
        counts.entrySet().stream()
            .reduce((one, other) -> other.getValue() > one.getValue() ? other : one)
            .map(Map.Entry::getKey)
            .orElse(LineEnd.LF);
  }

  public String text() {
    return text;
  }

  public Charset charset() {
    return charset;
  }

  /** Whether the encoding is only likely. */
  public boolean isGuessed() {
    return guessed;
  }

  public boolean hasMark() {
    return mark.length > 0;
  }

  /** How most lines end. {@code LF} for a text of one line. */
  public LineEnd lineEnd() {
    return usual;
  }

  public boolean hasMixedLineEnds() {
    return mixed;
  }

  /** Decodes with the encoding found from the content: a mark, valid UTF-8, or the best guess. */
  public static TextFile decode(byte[] bytes) throws NotTextException {
    return decode(bytes, Locale.getDefault());
  }

  /**
   * Decodes with an encoding that the person knows.
   *
   * @throws NotTextException when the bytes are not in it, or would not come back the same
   */
  public static TextFile decode(byte[] bytes, Charset known) throws NotTextException {
    TextFile text = tryDecode(bytes, known, new byte[0]);
    if (text == null) {
      throw new NotTextException(ContentPhrase.NOT_IN.of(known.name()), 0);
    }
    return text;
  }

  /** The same for a person of that language. */
  static TextFile decode(byte[] bytes, Locale locale) throws NotTextException {
    for (Charset marked :
        List.of(StandardCharsets.UTF_8, StandardCharsets.UTF_16LE, StandardCharsets.UTF_16BE)) {
      byte[] mark = "\uFEFF".getBytes(marked);
      if (startsWith(bytes, mark)) {
        TextFile text = tryDecode(bytes, marked, mark);
        if (text != null) {
          return text;
        }
      }
    }
    for (int i = 0; i < bytes.length; i++) {
      if (bytes[i] == 0) {
        throw new NotTextException(ContentPhrase.ZERO_BYTE.of(), i);
      }
    }
    TextFile text = tryDecode(bytes, StandardCharsets.UTF_8, new byte[0]);
    if (text != null) {
      return text;
    }
    text = tryDecode(bytes, CharsetGuess.of(bytes, locale), new byte[0]);
    // Every byte is a character in Latin-1, so this never fails and never loses one.
    text = text != null ? text : tryDecode(bytes, StandardCharsets.ISO_8859_1, new byte[0]);
    Objects.requireNonNull(text).guessed = true;
    return text;
  }

  private static boolean startsWith(byte[] bytes, byte[] start) {
    return bytes.length >= start.length
        && Arrays.equals(bytes, 0, start.length, start, 0, start.length);
  }

  /** {@code null} when the bytes are not in that encoding, or would not come back the same. */
  private static @Nullable TextFile tryDecode(byte[] bytes, Charset charset, byte[] mark) {
    try {
      String raw =
          charset
              .newDecoder()
              .decode(ByteBuffer.wrap(bytes, mark.length, bytes.length - mark.length))
              .toString();
      TextFile text = split(raw, charset, mark);
      return Arrays.equals(text.encode(text.text), bytes) ? text : null;
    } catch (CharacterCodingException | UnencodableTextException e) {
      return null;
    }
  }

  private static TextFile split(String raw, Charset charset, byte[] mark) {
    StringBuilder text = new StringBuilder(raw.length());
    List<LineEnd> ends = new ArrayList<>();
    for (int i = 0; i < raw.length(); i++) {
      char c = raw.charAt(i);
      if (c == '\r' && i + 1 < raw.length() && raw.charAt(i + 1) == '\n') {
        ends.add(LineEnd.CRLF);
        text.append('\n');
        i++;
      } else if (c == '\r' || c == '\n') {
        ends.add(c == '\r' ? LineEnd.CR : LineEnd.LF);
        text.append('\n');
      } else {
        text.append(c);
      }
    }
    return new TextFile(text.toString(), charset, mark, ends);
  }

  /** How its lines end, to be told of each edit. */
  public LineEnds lineEnds() {
    return new LineEnds(ends, usual);
  }

  /** The same text, to be encoded in UTF-8 from now on, without a mark. */
  public TextFile inUtf8() {
    return new TextFile(text, StandardCharsets.UTF_8, new byte[0], ends);
  }

  /** The same text, in which each line ends so. */
  public TextFile withLineEnd(LineEnd end) {
    TextFile other = new TextFile(text, charset, mark, Collections.nCopies(ends.size(), end));
    other.guessed = guessed;
    return other;
  }

  /**
   * The bytes for an edited text: lines that were there keep their ends, changed ones too, and a
   * new one takes that of the line beside it.
   *
   * @throws UnencodableTextException when the encoding has no bytes for a character of it
   */
  public byte[] encode(String edited) throws UnencodableTextException {
    return encode(edited, endsFor(edited));
  }

  /**
   * The same where it is known how each line ends.
   *
   * @param newEnds of all lines of the edited text but the last
   */
  public byte[] encode(String edited, List<LineEnd> newEnds) throws UnencodableTextException {
    StringBuilder raw = new StringBuilder(edited.length());
    int line = 0;
    for (int i = 0; i < edited.length(); i++) {
      char c = edited.charAt(i);
      if (c == '\n') {
        raw.append(newEnds.get(line++).text());
      } else {
        raw.append(c);
      }
    }
    return bytes(raw.toString());
  }

  private byte[] bytes(String raw) throws UnencodableTextException {
    CharBuffer in = CharBuffer.wrap(raw);
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    out.writeBytes(mark);
    java.nio.charset.CharsetEncoder encoder =
        charset
            .newEncoder()
            .onMalformedInput(CodingErrorAction.REPORT)
            .onUnmappableCharacter(CodingErrorAction.REPORT);
    ByteBuffer buffer = ByteBuffer.allocate(8192);
    boolean flushing = false;
    while (true) {
      CoderResult result = flushing ? encoder.flush(buffer) : encoder.encode(in, buffer, true);
      if (result.isError()) {
        throw new UnencodableTextException(
            charset,
            Character.toString(raw.codePointAt(in.position())),
            split(raw.substring(0, in.position()), charset, mark).ends.size() + 1);
      }
      out.write(buffer.array(), 0, buffer.position());
      buffer.clear();
      if (result.isUnderflow()) {
        if (flushing) {
          return out.toByteArray();
        }
        flushing = true;
      }
    }
  }

  private List<LineEnd> endsFor(String edited) {
    if (edited.equals(text)) {
      return ends;
    }
    List<String> after = LineChanges.lines(edited);
    return mixed
        ? LineEnds.carried(LineChanges.lines(text), ends, after, usual)
        : Collections.nCopies(after.size() - 1, usual);
  }
}
