package zander.suite;

import static java.nio.charset.StandardCharsets.UTF_8;

import java.io.IOException;
import java.util.Arrays;
import java.util.Map;
import java.util.TreeMap;
import zander.core.files.FileKind;
import zander.core.files.RemoteEntry;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.files.TreeWalk;
import zander.core.rights.Mode;
import zander.core.work.Cancellation;

/** Trees on a server for tests: made with old times, and told with all that must come back. */
final class RemoteTree {
  /** A time long ago, so that anything touched shows. */
  static final long LONG_AGO = 1_000_000_000;

  private RemoteTree() {}

  /** Kind, mode, owner, time, link target and content of everything below, by path. */
  static Map<String, String> describe(RemoteFiles files, RemotePath root) throws IOException {
    Map<String, String> tree = new TreeMap<>();
    tree.put(".", line(files, files.entry(root)));
    new TreeWalk(files, new Cancellation())
        .below(
            root,
            new TreeWalk.Visitor() {
              @Override
              public void entry(RemoteEntry entry) throws IOException {
                tree.put(entry.path().wire().substring(root.wire().length()), line(files, entry));
              }
            });
    return tree;
  }

  private static String line(RemoteFiles files, RemoteEntry entry) throws IOException {
    var attributes = entry.attributes();
    String rest =
        switch (entry.kind()) {
          case LINK -> "-> " + entry.target();
          case FILE ->
              attributes.size() + " " + Arrays.hashCode(files.readAll(entry.path(), 1 << 24));
          default -> "";
        };
    boolean timed = entry.kind() != FileKind.LINK;
    return String.format(
        "%s %s %d:%d %s %s",
        entry.kind(),
        attributes.mode().octal(),
        attributes.uid(),
        attributes.gid(),
        timed ? attributes.modified() : "",
        rest);
  }

  static void file(RemoteFiles files, RemotePath path, byte[] content, int mode)
      throws IOException {
    try (var writer = files.create(path, new Mode(0600))) {
      writer.write(content, 0, content.length);
      writer.setMode(new Mode(mode));
    }
  }

  static void file(RemoteFiles files, RemotePath path, String content) throws IOException {
    file(files, path, content.getBytes(java.nio.charset.StandardCharsets.UTF_8), 0644);
  }

  /** A small site with all kinds of entries and odd names in it. */
  static void makeSite(RemoteFiles files, RemotePath root) throws IOException {
    RemotePath stations = root.child("stations");
    RemotePath deep = stations.child("old").child("\u00fe'odd\n\u00ff");
    files.makeFolder(stations, new Mode(0755));
    files.makeFolder(stations.child("old"), new Mode(0750));
    files.makeFolder(deep, new Mode(01755));
    for (int i = 0; i < 12; i++) {
      file(files, stations.child("station-" + i + ".html"), "Long Reach " + i + "\n");
    }
    file(files, deep.child("-rf"), "level 2.48\n".getBytes(UTF_8), 0640);
    file(files, root.child("index.html"), "<h1>Riverwatch</h1>\nlevel\n".getBytes(UTF_8), 0664);
    file(files, root.child("gauge run"), "#!/bin/sh\n".getBytes(UTF_8), 0755);
    files.makeLink(root.child("latest"), "stations/station-1.html");
    files.makeLink(root.child("gone"), "nowhere");
    files.makeFolder(root.child("empty"), new Mode(0700));
    makeOld(files, root);
  }

  /** Gives everything an old time, deepest first. */
  static void makeOld(RemoteFiles files, RemotePath root) throws IOException {
    var paths = new java.util.ArrayList<RemotePath>();
    for (var entry : describe(files, root).entrySet()) {
      if (!entry.getValue().startsWith("LINK")) {
        paths.add(
            entry.getKey().equals(".") ? root : RemotePath.ofWire(root.wire() + entry.getKey()));
      }
    }
    paths.sort(java.util.Comparator.comparing((RemotePath path) -> path.chain().size()).reversed());
    for (RemotePath path : paths) {
      files.setTimes(path, LONG_AGO, LONG_AGO);
    }
  }
}
