package zander.core.change.rights.look;

import java.util.ArrayList;
import java.util.List;
import zander.core.files.RemotePath;

/**
 * What a change is about: entries of one folder, with all that is in them.
 *
 * @param base the folder they are in; for the root of the server, that itself
 * @param names theirs, in wire form; none for the base itself
 */
public record TreeRoots(RemotePath base, List<String> names) {

  /**
   * @param entries of one folder
   */
  public static TreeRoots of(List<RemotePath> entries) {
    if (entries.get(0).isRoot()) {
      return new TreeRoots(RemotePath.ROOT, List.of());
    }
    RemotePath base = entries.get(0).parent();
    List<String> names = new ArrayList<>();
    for (RemotePath entry : entries) {
      if (!entry.parent().equals(base)) {
        throw new IllegalArgumentException("entries of more than one folder");
      }
      names.add(entry.wireName());
    }
    return new TreeRoots(base, List.copyOf(names));
  }

  /** The entries themselves. */
  public List<RemotePath> entries() {
    return names.isEmpty() ? List.of(base) : names.stream().map(base::child).toList();
  }

  /** What stands for all of it: the only entry, or the folder that they are in. */
  public RemotePath about() {
    return names.size() == 1 ? entries().get(0) : base;
  }

  /** The full path of one found below. */
  public RemotePath at(String path) {
    if (path.isEmpty()) {
      return base;
    }
    return RemotePath.ofWire(wireOf(path));
  }

  /** The same in wire form, for a path that was found. */
  public String wireOf(String path) {
    return path.isEmpty() ? base.wire() : (base.isRoot() ? "" : base.wire()) + "/" + path;
  }

  /** The path from the base to one below it, in wire form. */
  public String below(RemotePath path) {
    int from = base.isRoot() ? 1 : base.wire().length() + 1;
    return from >= path.wire().length() ? "" : path.wire().substring(from);
  }
}
