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
import org.jspecify.annotations.Nullable;
import zander.core.book.BookFile;
import zander.core.connect.address.HostLookup;
import zander.desk.model.DataFolders;
import zander.standin.demo.Demo;

/**
 * Where the program finds its things: by the XDG base directory rules, in a folder that it carries
 * with it, or in the demo's own home.
 *
 * @param places on this computer
 * @param lookup finds servers by name
 * @param demo the running demo, or {@code null}
 */
public record Setup(DataFolders places, HostLookup lookup, @Nullable Demo demo) {
  /** Beside the application, it makes it portable. */
  private static final String OWN_FOLDER = "zander-home";

  Path knownHosts() {
    return home().resolve(".ssh").resolve("known_hosts");
  }

  Path home() {
    return places.home();
  }

  static Setup usual() {
    Path beside = Path.of("").toAbsolutePath().resolve(OWN_FOLDER);
    if (Files.isDirectory(beside)) {
      return in(beside);
    }
    Path home = Path.of(System.getProperty("user.home"));
    Path config = folder("XDG_CONFIG_HOME", home.resolve(".config")).resolve("zander");
    Path state = folder("XDG_STATE_HOME", home.resolve(".local/state")).resolve("zander");
    DataFolders places =
        new DataFolders(home, config.resolve("servers.json"), state, config.resolve("vault"));
    return new Setup(places, HostLookup.system(), null);
  }

  /** Book, vault and journals in one folder; keys and known hosts stay the person's. */
  static Setup in(Path folder) {
    Path home = Path.of(System.getProperty("user.home"));
    DataFolders places =
        new DataFolders(
            home, folder.resolve("servers.json"), folder.resolve("state"), folder.resolve("vault"));
    return new Setup(places, HostLookup.system(), null);
  }

  /** The Riverwatch demo in a folder of its own, which is emptied first. */
  static Setup demo(Path folder) throws IOException {
    empty(folder);
    Demo demo = Demo.start(folder);
    Path config = folder.resolve(".config/zander");
    new BookFile(config.resolve("servers.json")).change(none -> DemoBook.make());
    HostLookup lookup =
        address -> {
          // The store is known behind the gate only, as such servers are.
          int port = address.host().startsWith("readings-store") ? -1 : demo.portOf(address.host());
          if (port < 0 && address.host().equals(DemoBook.SILENT)) {
            port = demo.closedPort();
          }
          return port < 0
              ? HostLookup.system().find(address)
              : List.of(new InetSocketAddress(InetAddress.getLoopbackAddress(), port));
        };
    DataFolders places =
        new DataFolders(
            folder,
            config.resolve("servers.json"),
            folder.resolve(".local/state/zander"),
            config.resolve("vault"));
    return new Setup(places, lookup, demo);
  }

  static Path demoFolder() {
    Path home = Path.of(System.getProperty("user.home"));
    return folder("XDG_CACHE_HOME", home.resolve(".cache")).resolve("zander").resolve("demo");
  }

  private static Path folder(String variable, Path otherwise) {
    String value = System.getenv(variable);
    return value == null || !value.startsWith("/") ? otherwise : Path.of(value);
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
