package zander.suite;

import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Stream;
import org.apache.commons.compress.archivers.tar.TarArchiveEntry;
import org.apache.commons.compress.archivers.tar.TarArchiveOutputStream;
import org.apache.commons.compress.archivers.tar.TarConstants;

/** What a source may send in the place of the files it was asked for. */
final class HostileTar {
  private static final byte[] CONTENT = "placed".getBytes(StandardCharsets.UTF_8);

  private HostileTar() {}

  /**
   * Writes an archive in which each file of a tree is one of the lies in turn, and more besides.
   *
   * @param added names that nobody asked for
   */
  static void write(Path archive, Path tree, List<String> added) throws IOException {
    try (OutputStream file = Files.newOutputStream(archive);
        TarArchiveOutputStream tar = new TarArchiveOutputStream(file)) {
      tar.setLongFileMode(TarArchiveOutputStream.LONGFILE_GNU);
      for (String name : added) {
        file(tar, "./" + name, 0644);
      }
      file(tar, "./tree/precious", 0644);
      // A folder that the rest would go through.
      link(tar, "./tree/way", TarConstants.LF_SYMLINK, "/");
      file(tar, "./tree/way/tmp/zander-hostile-tar", 0644);
      List<Path> files;
      try (Stream<Path> all = Files.walk(tree)) {
        files = all.filter(Files::isRegularFile).sorted().toList();
      }
      int turn = 0;
      for (Path one : files) {
        String name = "./tree/" + tree.relativize(one);
        switch (turn++ % 6) {
          case 0 -> link(tar, name, TarConstants.LF_LINK, "./tree/precious");
          case 1 -> link(tar, name, TarConstants.LF_SYMLINK, "precious");
          case 2 -> link(tar, name, TarConstants.LF_FIFO, "");
          case 3 -> file(tar, name, 06755);
          case 4 -> file(tar, name + "/below", 0644);
          default -> file(tar, name + "/../../../above", 0644);
        }
      }
    }
  }

  private static void file(TarArchiveOutputStream tar, String name, int mode) throws IOException {
    TarArchiveEntry entry = new TarArchiveEntry(name, true);
    entry.setSize(CONTENT.length);
    entry.setMode(0100000 | mode);
    tar.putArchiveEntry(entry);
    tar.write(CONTENT);
    tar.closeArchiveEntry();
  }

  private static void link(TarArchiveOutputStream tar, String name, byte type, String to)
      throws IOException {
    TarArchiveEntry entry = new TarArchiveEntry(name, type);
    entry.setLinkName(to);
    tar.putArchiveEntry(entry);
    tar.closeArchiveEntry();
  }
}
