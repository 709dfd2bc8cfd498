package zander.standin.world;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Deque;
import java.util.List;
import zander.standin.world.PosixError.Errno;

/**
 * Pathname resolution (POSIX XBD 4.13): each folder on the way must be searchable, links are
 * followed up to forty times.
 */
final class PathWalk {
  private static final int MOST_LINKS = 40;
  private static final int LONGEST_NAME = 255;
  private static final int LONGEST_PATH = 4096;

  /**
   * Where a path leads.
   *
   * @param folder the folder that holds the last name
   * @param name the last name; empty for the root
   * @param node what is there, or {@code null}
   * @param real the path with all followed links resolved
   */
  record Place(Node folder, String name, Node node, String real) {}

  private final Node root;
  private final Caller caller;
  private int linksFollowed;

  PathWalk(Node root, Caller caller) {
    this.root = root;
    this.caller = caller;
  }

  /**
   * @param path absolute
   * @param followLast whether a link at the end is followed
   */
  Place walk(String path, boolean followLast) throws PosixError {
    if (path.length() > LONGEST_PATH) {
      throw new PosixError(Errno.ENAMETOOLONG);
    }
    Deque<String> left = new ArrayDeque<>(Arrays.asList(path.split("/")));
    boolean mustBeFolder = path.endsWith("/");
    Deque<Node> folders = new ArrayDeque<>();
    List<String> names = new ArrayList<>();
    folders.push(root);
    while (!left.isEmpty()) {
      String name = left.removeFirst();
      if (name.isEmpty() || name.equals(".")) {
        continue;
      }
      if (name.length() > LONGEST_NAME) {
        throw new PosixError(Errno.ENAMETOOLONG);
      }
      Node folder = folders.peek();
      if (!folder.isFolder()) {
        throw new PosixError(Errno.ENOTDIR);
      }
      Access.need(folder, caller, Access.SEARCH);
      if (name.equals("..")) {
        if (folders.size() > 1) {
          folders.pop();
          names.remove(names.size() - 1);
        }
        continue;
      }
      Node next = folder.entries.get(name);
      boolean last = left.stream().allMatch(rest -> rest.isEmpty() || rest.equals("."));
      if (next == null) {
        if (!last) {
          throw new PosixError(Errno.ENOENT);
        }
        return new Place(folder, name, null, join(names, name));
      }
      if (next.isLink() && (!last || followLast || mustBeFolder)) {
        follow(next, folders, names, left);
      } else if (last) {
        if (mustBeFolder && !next.isFolder()) {
          throw new PosixError(Errno.ENOTDIR);
        }
        return new Place(folder, name, next, join(names, name));
      } else {
        folders.push(next);
        names.add(name);
      }
    }
    Node end = folders.pop();
    if (folders.isEmpty()) {
      return new Place(root, "", root, "/");
    }
    String name = names.remove(names.size() - 1);
    return new Place(folders.peek(), name, end, join(names, name));
  }

  private void follow(Node link, Deque<Node> folders, List<String> names, Deque<String> left)
      throws PosixError {
    if (++linksFollowed > MOST_LINKS) {
      throw new PosixError(Errno.ELOOP);
    }
    if (link.target.startsWith("/")) {
      folders.clear();
      folders.push(root);
      names.clear();
    }
    List<String> parts = Arrays.asList(link.target.split("/"));
    for (int i = parts.size() - 1; i >= 0; i--) {
      left.addFirst(parts.get(i));
    }
  }

  private static String join(List<String> names, String last) {
    return (names.isEmpty() ? "" : "/" + String.join("/", names)) + "/" + last;
  }
}
