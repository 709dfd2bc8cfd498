package zander.core.files;

import java.nio.charset.StandardCharsets;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Deque;
import java.util.List;
import org.jspecify.annotations.Nullable;
import zander.core.phrase.InputPhrase;
import zander.core.phrase.InvalidInput;

/**
 * An absolute path on a server: a list of names, each a run of bytes (see {@link WireName}).
 *
 * <p>Immutable. {@code .} and empty names are dropped and {@code ..} is taken lexically, as a
 * shell's {@code cd} does; {@link RemoteFiles#realPath} follows links.
 */
public final class RemotePath implements Comparable<RemotePath> {
  public static final RemotePath ROOT = new RemotePath("/");

  private final String wire;

  private RemotePath(String wire) {
    this.wire = wire;
  }

  /**
   * The path a person typed or a program wrote as text, in UTF-8.
   *
   * @throws InvalidInput when it does not begin with {@code /} or holds a NUL
   */
  public static RemotePath of(String text) {
    return ofWire(WireName.fromText(text));
  }

  /**
   * The path from its bytes, one char a byte.
   *
   * @throws InvalidInput when it does not begin with {@code /} or holds a NUL
   */
  public static RemotePath ofWire(String wire) {
    if (!wire.startsWith("/")) {
      throw new InvalidInput(InputPhrase.PATH_NOT_ABSOLUTE.of(WireName.toText(wire)));
    }
    if (wire.indexOf('\0') >= 0) {
      throw new InvalidInput(InputPhrase.PATH_WITH_ZERO.of());
    }
    Deque<String> names = new ArrayDeque<>();
    for (String name : wire.split("/")) {
      if (name.equals("..")) {
        names.pollLast();
      } else if (!name.isEmpty() && !name.equals(".")) {
        names.addLast(name);
      }
    }
    return names.isEmpty() ? ROOT : new RemotePath("/" + String.join("/", names));
  }

  /** The bytes of the path, one char a byte, as sent to the server. */
  public String wire() {
    return wire;
  }

  /** The path for people; see {@link WireName#toText}. */
  public String text() {
    return WireName.toText(wire);
  }

  public boolean isRoot() {
    return wire.length() == 1;
  }

  /** The last name in wire form; empty for the root. */
  public String wireName() {
    return wire.substring(wire.lastIndexOf('/') + 1);
  }

  /** The last name for people; {@code /} for the root. */
  public String name() {
    return isRoot() ? "/" : WireName.toText(wireName());
  }

  /** The folder that holds this; the root for the root. */
  public RemotePath parent() {
    int slash = wire.lastIndexOf('/');
    return slash <= 0 ? ROOT : new RemotePath(wire.substring(0, slash));
  }

  /**
   * The entry of this folder with the given wire name.
   *
   * @throws InvalidInput when the name is not a single safe name
   */
  public RemotePath child(String wireName) {
    if (!WireName.isSafe(wireName)) {
      throw new InvalidInput(InputPhrase.NO_FILE_NAME.of(WireName.toText(wireName)));
    }
    return new RemotePath(isRoot() ? "/" + wireName : wire + "/" + wireName);
  }

  /** What a person typed, taken from this folder: absolute, or relative to it. */
  public RemotePath resolve(String text) {
    return text.startsWith("/") ? of(text) : ofWire(wire + "/" + WireName.fromText(text));
  }

  /** The folders from the root to this path, both included. */
  public List<RemotePath> chain() {
    List<RemotePath> chain = new ArrayList<>();
    for (RemotePath at = this; !at.isRoot(); at = at.parent()) {
      chain.add(at);
    }
    chain.add(ROOT);
    Collections.reverse(chain);
    return chain;
  }

  /**
   * This path as it is from a folder, for people: {@code ../img/a.svg}; {@code .} for the folder
   * itself.
   */
  public String relativeTo(RemotePath folder) {
    List<RemotePath> from = folder.chain();
    List<RemotePath> to = chain();
    int same = 0;
    while (same < from.size() && same < to.size() && from.get(same).equals(to.get(same))) {
      same++;
    }
    String up = "../".repeat(from.size() - same);
    String rest = wire.substring(to.get(same - 1).wire.length()).replaceFirst("^/", "");
    String text = new String(WireName.bytes(up + rest), StandardCharsets.UTF_8);
    return text.isEmpty() ? "." : text;
  }

  @Override
  public int compareTo(RemotePath other) {
    return wire.compareTo(other.wire);
  }

  @Override
  public boolean equals(@Nullable Object other) {
    return other instanceof RemotePath path && path.wire.equals(wire);
  }

  @Override
  public int hashCode() {
    return wire.hashCode();
  }

  @Override
  public String toString() {
    return text();
  }
}
