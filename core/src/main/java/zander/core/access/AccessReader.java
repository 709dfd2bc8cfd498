package zander.core.access;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import zander.core.access.PathFacts.Place;
import zander.core.connect.command.Commands;
import zander.core.connect.command.ExecResult;
import zander.core.connect.command.ShellWords;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.rights.AccessList;

/**
 * Asks a server for all that decides who can do what with one entry: owners, groups and modes by
 * the file service; access control lists, flags and mounts by its own tools, where there is a
 * shell.
 */
public final class AccessReader {
  private static final String PART = "zander-part";

  private final RemoteFiles files;
  private final Commands commands;

  public AccessReader(RemoteFiles files, Commands commands) {
    this.files = files;
    this.commands = commands;
  }

  /** Waits. What cannot be looked at is in the way without attributes. */
  public PathFacts read(RemotePath path) throws IOException {
    Way way = Way.to(files, path);
    Told told = commands.byShellOr(() -> ask(way), () -> Told.NOTHING);
    List<Place> full = way.steps().stream().map(told::complete).toList();
    return new PathFacts(
        full,
        find(full, way.entry()),
        find(full, way.named()),
        told.lists != null,
        told.mounts != null);
  }

  private static Place find(List<Place> way, RemotePath path) {
    return way.stream().filter(one -> one.path().equals(path)).findFirst().orElseThrow();
  }

  /**
   * What the server's tools told.
   *
   * @param lists {@code null} where they are not seen
   * @param mounts {@code null} where they are not seen
   */
  private record Told(
      @Nullable Map<RemotePath, AccessList> lists,
      @Nullable List<MountedAs> mounts,
      Map<RemotePath, String> flags,
      boolean guardsLinks) {
    static final Told NOTHING = new Told(null, null, Map.of(), false);

    Place complete(Way.Step step) {
      return new Place(
          step.path(),
          step.is(),
          lists == null ? null : lists.get(step.path()),
          mounts == null ? null : Mounts.of(mounts, step.path()),
          flags.getOrDefault(step.path(), ""),
          step.target(),
          step.last() && guardsLinks);
    }
  }

  private Told ask(Way way) throws IOException {
    List<RemotePath> seen =
        way.steps().stream()
            .filter(step -> step.is() != null && step.target() == null)
            .map(Way.Step::path)
            .toList();
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
    // Names cannot begin a line before the second: getfacl and the kernel write line ends as
    // numbers.
    String[] parts = text.split("(?m)^" + PART, 3);
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
