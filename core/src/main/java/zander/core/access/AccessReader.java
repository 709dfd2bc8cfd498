package zander.core.access;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import zander.core.access.PathFacts.Place;
import zander.core.connect.command.Commands;
import zander.core.connect.command.ExecResult;
import zander.core.connect.command.ShellWords;
import zander.core.files.FileKind;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFailure.Reason;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.rights.AccessList;

/**
 * Asks a server for all that decides who can do what with one entry: owners, groups and modes by
 * the file service; access control lists, flags and mounts by its own tools, where there is a
 * shell.
 */
public final class AccessReader {
  /** As many as Linux follows on a way (path_resolution(7)). */
  private static final int MOST_LINKS = 40;

  private static final String PART = "zander-part";

  private final RemoteFiles files;
  private final Commands commands;

  public AccessReader(RemoteFiles files, Commands commands) {
    this.files = files;
    this.commands = commands;
  }

  /** Waits. What cannot be looked at is in the way without attributes. */
  public PathFacts read(RemotePath path) throws IOException {
    List<Place> way = new ArrayList<>();
    Ends ends = walk(path, way);
    Told told = commands.byShellOr(() -> ask(way), () -> Told.NOTHING);
    List<Place> full = way.stream().map(told::complete).toList();
    return new PathFacts(
        full,
        find(full, ends.entry),
        find(full, ends.named),
        told.lists != null,
        told.mounts != null);
  }

  private static Place find(List<Place> way, RemotePath path) {
    return way.stream().filter(one -> one.path().equals(path)).findFirst().orElseThrow();
  }

  /**
   * @param named where the entry's own name is
   * @param entry where it leads
   */
  private record Ends(RemotePath named, RemotePath entry) {}

  /** Puts all on the way into a list, with links followed as the kernel does it. */
  private Ends walk(RemotePath path, List<Place> way) throws IOException {
    RemotePath named = null;
    RemotePath at = path;
    for (int links = 0; links <= MOST_LINKS; links++) {
      List<RemotePath> chain = at.chain();
      List<RemoteAttributes> found = files.lookAll(chain);
      int link = firstLink(found);
      int until = link < 0 ? chain.size() : link + 1;
      for (int i = 0; i < until; i++) {
        add(way, chain.get(i), found.get(i), i == link && link == chain.size() - 1);
      }
      if (link < 0 || link == chain.size() - 1) {
        // The name that was asked for is where the last part of it is found.
        named = named == null ? chain.get(chain.size() - 1) : named;
      }
      if (link < 0) {
        return new Ends(named, chain.get(chain.size() - 1));
      }
      at = behind(files, chain, link);
    }
    throw new RemoteFailure(Reason.FAILED, "look at", path, "too many links", null);
  }

  private static int firstLink(List<RemoteAttributes> found) {
    for (int i = 0; i < found.size(); i++) {
      if (found.get(i) != null && found.get(i).kind() == FileKind.LINK) {
        return i;
      }
    }
    return -1;
  }

  private void add(List<Place> way, RemotePath path, RemoteAttributes is, boolean lastLink)
      throws IOException {
    if (way.stream().noneMatch(one -> one.path().equals(path))) {
      boolean link = is != null && is.kind() == FileKind.LINK;
      way.add(new Place(path, is, null, null, "", link ? files.readLink(path) : null, lastLink));
    }
  }

  /**
   * Where a path leads once the first link in it is followed. What is above a link is no link, so
   * that what leads up from there leads up by name.
   */
  static RemotePath behind(RemoteFiles files, List<RemotePath> chain, int link) throws IOException {
    List<String> rest = new ArrayList<>();
    chain.subList(link + 1, chain.size()).forEach(one -> rest.add(one.wireName()));
    String target = files.readLink(chain.get(link));
    String from = target.startsWith("/") ? "" : chain.get(link - 1).wire();
    return RemotePath.ofWire(from + "/" + target + "/" + String.join("/", rest));
  }

  /**
   * What the server's tools told.
   *
   * @param lists {@code null} where they are not seen
   * @param mounts {@code null} where they are not seen
   */
  private record Told(
      Map<RemotePath, AccessList> lists,
      List<MountedAs> mounts,
      Map<RemotePath, String> flags,
      boolean guardsLinks) {
    static final Told NOTHING = new Told(null, null, Map.of(), false);

    Place complete(Place place) {
      return new Place(
          place.path(),
          place.is(),
          lists == null ? null : lists.get(place.path()),
          mounts == null ? null : Mounts.of(mounts, place.path()),
          flags.getOrDefault(place.path(), ""),
          place.target(),
          place.guarded() && guardsLinks);
    }
  }

  private Told ask(List<Place> way) throws IOException {
    List<RemotePath> seen =
        way.stream().filter(one -> one.is() != null && !one.isLink()).map(Place::path).toList();
    String paths = ShellWords.quoteAll(seen);
    ExecResult said =
        commands.script(
            AccessLists.GET
                + paths
                + " 2>/dev/null; s=$?; echo; echo "
                + PART
                + " $s; cat /proc/self/mountinfo 2>/dev/null; echo "
                + PART
                + " $(cat /proc/sys/fs/protected_symlinks 2>/dev/null); lsattr -d -- "
                + paths
                + " 2>/dev/null; exit 0");
    String text = new String(said.out(), StandardCharsets.ISO_8859_1);
    String[] parts = text.split(PART, -1);
    if (parts.length != 3) {
      return Told.NOTHING;
    }
    boolean lists = status(parts[1]) < 126;
    boolean mounts = parts[1].contains("/");
    return new Told(
        lists
            ? AccessLists.parse(parts[0].getBytes(StandardCharsets.ISO_8859_1), RemotePath.ROOT)
            : null,
        mounts ? Mounts.parse(rest(parts[1])) : null,
        flags(rest(parts[2]), seen),
        status(parts[2]) == 1);
  }

  private static int status(String part) {
    String first = part.lines().findFirst().orElse("").strip();
    return first.matches("[0-9]{1,3}") ? Integer.parseInt(first) : 255;
  }

  private static String rest(String part) {
    int end = part.indexOf('\n');
    return end < 0 ? "" : part.substring(end + 1);
  }

  /** A path that has a line end is not told apart in lsattr's lines: nothing is known of it. */
  private static Map<RemotePath, String> flags(String lines, List<RemotePath> asked) {
    Map<RemotePath, String> flags = new HashMap<>();
    Set<String> wires = Set.copyOf(asked.stream().map(RemotePath::wire).toList());
    for (String line : lines.split("\n")) {
      int space = line.indexOf(' ');
      if (space > 0 && wires.contains(line.substring(space + 1))) {
        flags.put(
            RemotePath.ofWire(line.substring(space + 1)),
            line.substring(0, space).replace("-", ""));
      }
    }
    return flags;
  }
}
