package zander.core.transfer.local;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.util.Map;
import java.util.Objects;
import java.util.concurrent.ConcurrentHashMap;
import zander.core.files.FileKind;
import zander.core.files.WireName;
import zander.core.rights.Mode;
import zander.core.transfer.endpoint.TreeEntry;

/** What is at a path on this computer. For several threads. */
final class LocalLookup {
  /** The names of owners by number: the system looks through its account file for each. */
  private final Map<Integer, String> users = new ConcurrentHashMap<>();

  private final Map<Integer, String> groups = new ConcurrentHashMap<>();

  TreeEntry node(Path path, boolean noFollow) throws IOException {
    LinkOption[] options =
        noFollow ? new LinkOption[] {LinkOption.NOFOLLOW_LINKS} : new LinkOption[0];
    Map<String, Object> unix =
        Files.readAttributes(path, "unix:mode,size,lastModifiedTime,uid,gid", options);
    int mode = (Integer) known(unix, "mode");
    FileKind kind = FileKind.ofMode(mode);
    return new TreeEntry(
        WireName.fromText(path.getFileName() == null ? "" : path.getFileName().toString()),
        kind,
        kind == FileKind.FILE ? (Long) known(unix, "size") : 0,
        ((FileTime) known(unix, "lastModifiedTime")).toInstant().getEpochSecond(),
        Mode.ofStat(mode),
        kind == FileKind.LINK ? WireName.fromText(Files.readSymbolicLink(path).toString()) : null,
        name(users, path, (Integer) known(unix, "uid"), "unix:owner", options)
            + ":"
            + name(groups, path, (Integer) known(unix, "gid"), "unix:group", options));
  }

  private static Object known(Map<String, Object> attributes, String name) {
    return Objects.requireNonNull(attributes.get(name), name);
  }

  private static String name(
      Map<Integer, String> known, Path path, int id, String attribute, LinkOption[] options)
      throws IOException {
    String name = known.get(id);
    if (name == null) {
      name = String.valueOf(Files.getAttribute(path, attribute, options));
      known.put(id, name);
    }
    return name;
  }
}
