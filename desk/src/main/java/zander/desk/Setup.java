package zander.desk;

import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.file.FileVisitResult;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.SimpleFileVisitor;
import java.nio.file.attribute.BasicFileAttributes;
import java.util.List;
import zander.core.book.Mark;
import zander.core.book.MarkedFolder;
import zander.core.book.ServerBook;
import zander.core.book.ServerEntry;
import zander.core.connect.HostLookup;
import zander.standin.demo.Demo;

/**
 * Where the program finds its things, by the XDG base directory rules, or in the demo's own home.
 *
 * @param home the person's home folder
 * @param book the server book's file
 * @param state the folder for journals
 * @param lookup finds servers by name
 * @param demo the running demo, or {@code null}
 */
record Setup(Path home, Path book, Path state, HostLookup lookup, Demo demo) {

  Path knownHosts() {
    return home.resolve(".ssh").resolve("known_hosts");
  }

  static Setup usual() {
    Path home = Path.of(System.getProperty("user.home"));
    Path config = folder("XDG_CONFIG_HOME", home.resolve(".config")).resolve("zander");
    Path state = folder("XDG_STATE_HOME", home.resolve(".local/state")).resolve("zander");
    return new Setup(home, config.resolve("servers.json"), state, HostLookup.system(), null);
  }

  /** The Riverwatch demo in a folder of its own, which is emptied first. */
  static Setup demo(Path folder) throws IOException {
    empty(folder);
    Demo demo = Demo.start(folder);
    Path book = folder.resolve(".config/zander/servers.json");
    demoBook().write(book);
    HostLookup lookup =
        address -> {
          int port = demo.portOf(address.host());
          return port < 0
              ? HostLookup.system().find(address)
              : List.of(new InetSocketAddress(InetAddress.getLoopbackAddress(), port));
        };
    return new Setup(folder, book, folder.resolve(".local/state/zander"), lookup, demo);
  }

  static Path demoFolder() {
    Path home = Path.of(System.getProperty("user.home"));
    return folder("XDG_CACHE_HOME", home.resolve(".cache")).resolve("zander").resolve("demo");
  }

  private static Path folder(String variable, Path otherwise) {
    String value = System.getenv(variable);
    return value == null || !value.startsWith("/") ? otherwise : Path.of(value);
  }

  private static ServerBook demoBook() {
    return ServerBook.of(
        List.of(
            entry(
                "levels-web",
                Mark.LIVE,
                "/srv/levels/site",
                "riverwatch/site",
                "the public site, settings, feeds, logs",
                List.of(
                    new MarkedFolder("Public site", "/srv/levels/site", "riverwatch/site", null),
                    new MarkedFolder("Settings", "/etc/levels", null, null),
                    new MarkedFolder("Station feeds", "/srv/levels/feeds", null, null),
                    new MarkedFolder("Logs", "/var/log/levels", null, null))),
            entry(
                "readings-store",
                Mark.LIVE,
                "/srv/readings",
                null,
                "years of small station files",
                List.of(new MarkedFolder("Readings", "/srv/readings", null, null))),
            entry("lab-box", Mark.TRIAL, null, null, "for trying things", List.of()),
            entry("gate", Mark.NONE, null, null, "the jump host", List.of())));
  }

  private static ServerEntry entry(
      String name,
      Mark mark,
      String landing,
      String local,
      String note,
      List<MarkedFolder> folders) {
    return new ServerEntry(
        name,
        "warden",
        name + Demo.DOMAIN,
        22,
        ".ssh/warden_ed25519",
        false,
        mark,
        landing,
        local,
        note,
        folders);
  }

  private static void empty(Path folder) throws IOException {
    if (!Files.exists(folder)) {
      return;
    }
    Files.walkFileTree(
        folder,
        new SimpleFileVisitor<>() {
          @Override
          public FileVisitResult visitFile(Path file, BasicFileAttributes attributes)
              throws IOException {
            Files.delete(file);
            return FileVisitResult.CONTINUE;
          }

          @Override
          public FileVisitResult postVisitDirectory(Path visited, IOException e)
              throws IOException {
            Files.delete(visited);
            return FileVisitResult.CONTINUE;
          }
        });
  }
}
