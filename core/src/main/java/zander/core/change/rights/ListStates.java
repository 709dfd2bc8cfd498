package zander.core.change.rights;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import zander.core.files.RemotePath;
import zander.core.phrase.ExplainedException;
import zander.core.phrase.KeptPhrase;

/**
 * The access lists of many entries, as {@code getfacl} writes them: trees have few different ones.
 * As bytes it is what the journal keeps.
 */
final class ListStates {
  /** Tells these bytes from others, and a later form from this one. */
  private static final int FORM = 11;

  private static final int MOST_TEXTS = 1 << 16;

  private final RemotePath base;
  private final long device;
  private final List<String> texts = new ArrayList<>();
  private final Map<String, Integer> numbers = new HashMap<>();
  private final PackedPaths paths;

  /**
   * @param device the number of the file system that all are on; 0 where it is not known
   */
  ListStates(RemotePath base, long device) {
    this(base, device, new PackedPaths());
  }

  private ListStates(RemotePath base, long device, PackedPaths paths) {
    this.base = base;
    this.device = device;
    this.paths = paths;
  }

  /** Given each entry with its list. */
  interface Each {
    void take(String path, boolean folder, String text, long file) throws IOException;
  }

  /**
   * @param path from the base, in wire form
   * @param text the lines of its list
   * @param file its number in the file system; 0 where it is not known
   */
  void add(String path, boolean folder, String text, long file) throws IOException {
    String kept = (folder ? "d" : "f") + text;
    Integer number = numbers.get(kept);
    if (number == null) {
      if (texts.size() == MOST_TEXTS) {
        throw new ExplainedException(KeptPhrase.TOO_MANY_LISTS.of());
      }
      number = texts.size();
      numbers.put(kept, number);
      texts.add(kept);
    }
    paths.add(path, number, file);
  }

  long device() {
    return device;
  }

  RemotePath base() {
    return base;
  }

  long size() {
    return paths.size();
  }

  void forEach(Each each) throws IOException {
    paths.forEach(
        (path, tag, file) -> {
          String kept = texts.get(tag);
          each.take(path, kept.charAt(0) == 'd', kept.substring(1), file);
        });
  }

  byte[] toBytes() {
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    PackedPaths.put(out, FORM);
    put(out, base.wire());
    PackedPaths.put(out, device);
    PackedPaths.put(out, texts.size());
    texts.forEach(text -> put(out, text));
    paths.write(out);
    return out.toByteArray();
  }

  private static void put(ByteArrayOutputStream out, String wire) {
    byte[] bytes = wire.getBytes(StandardCharsets.ISO_8859_1);
    PackedPaths.put(out, bytes.length);
    out.writeBytes(bytes);
  }

  /**
   * @throws IOException when these are not such bytes
   */
  static ListStates ofBytes(byte[] bytes) throws IOException {
    try {
      PackedPaths.Block in = new PackedPaths.Block(bytes);
      if (in.number() != FORM) {
        throw new ExplainedException(KeptPhrase.OTHER_FORM.of());
      }
      RemotePath base = RemotePath.ofWire(wire(in));
      long device = in.number();
      List<String> texts = new ArrayList<>();
      for (long left = in.number(); left > 0 && texts.size() <= MOST_TEXTS; left--) {
        texts.add(wire(in));
      }
      ListStates states = new ListStates(base, device, PackedPaths.read(bytes, in.at()));
      states.texts.addAll(texts);
      states.forEach((path, folder, text, file) -> {});
      return states;
    } catch (IllegalArgumentException | IndexOutOfBoundsException e) {
      throw new ExplainedException(KeptPhrase.DAMAGED.of(), e);
    }
  }

  private static String wire(PackedPaths.Block in) throws IOException {
    return new String(in.bytes(in.number()), StandardCharsets.ISO_8859_1);
  }
}
