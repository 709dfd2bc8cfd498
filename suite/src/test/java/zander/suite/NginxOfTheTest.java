package zander.suite;

import java.io.IOException;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.concurrent.TimeUnit;

/** The system's own nginx on a free loopback port, with one page. */
public final class NginxOfTheTest implements AutoCloseable {
  private static final Path BINARY = Path.of("/usr/sbin/nginx");

  private final Path main;
  private final Path site;
  private final int port;
  private final Process process;

  public NginxOfTheTest(Path folder) throws Exception {
    try (ServerSocket free = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
      port = free.getLocalPort();
    }
    Path on = Files.createDirectories(folder.resolve("nginx/on"));
    site =
        Files.writeString(
            on.resolve("site.conf"),
            "server {\n  listen 127.0.0.1:"
                + port
                + ";\n  location / {\n    return 200 'level 3';\n"
                + "  }\n}\n");
    main =
        Files.writeString(
            on.resolveSibling("nginx.conf"),
            "daemon off;\npid "
                + folder
                + "/nginx/pid;\nerror_log stderr;\nevents {}\nhttp {\n"
                + "  access_log off;\n"
                + temporary(folder)
                + "  include "
                + on
                + "/*.conf;\n}\n");
    process =
        new ProcessBuilder(BINARY.toString(), "-c", main.toString())
            .redirectErrorStream(true)
            .redirectOutput(folder.resolve("nginx/log").toFile())
            .start();
    long deadline = System.nanoTime() + TimeUnit.SECONDS.toNanos(20);
    while (!answers()) {
      if (!process.isAlive() || System.nanoTime() > deadline) {
        throw new IOException(Files.readString(folder.resolve("nginx/log")));
      }
      process.waitFor(20, TimeUnit.MILLISECONDS);
    }
  }

  private static String temporary(Path folder) {
    StringBuilder lines = new StringBuilder();
    for (String what : new String[] {"client_body", "proxy", "fastcgi", "uwsgi", "scgi"}) {
      lines.append("  ").append(what).append("_temp_path ").append(folder).append("/nginx/t;\n");
    }
    return lines.toString();
  }

  public static boolean isPossible() {
    return Files.isExecutable(BINARY);
  }

  /** The file that says what is served. */
  public Path site() {
    return site;
  }

  /** Looks at all of its settings. */
  public String check() {
    return BINARY + " -t -c " + main;
  }

  public String reload() {
    return BINARY + " -s reload -c " + main;
  }

  /**
   * Serves a folder under a name, and under no other on the same port; waits until it does.
   *
   * @return the port
   */
  public int serve(String name, Path files, Path errors) throws Exception {
    Files.writeString(
        site,
        "server {\n  listen 127.0.0.1:"
            + port
            + " default_server;\n  return 404;\n}\nserver {\n  listen 127.0.0.1:"
            + port
            + ";\n  server_name "
            + name
            + ";\n  root "
            + files
            + ";\n  error_log "
            + errors
            + ";\n}\n");
    Process reload = new ProcessBuilder("sh", "-c", reload()).inheritIO().start();
    reload.waitFor();
    while (page().equals("level 3")) {
      process.waitFor(20, TimeUnit.MILLISECONDS);
    }
    return port;
  }

  private boolean answers() {
    try {
      return !page().isEmpty();
    } catch (IOException e) {
      return false;
    }
  }

  /** What it serves now. */
  public String page() throws IOException {
    try {
      URI at = URI.create("http://127.0.0.1:" + port + "/");
      return HttpClient.newHttpClient()
          .send(HttpRequest.newBuilder(at).build(), HttpResponse.BodyHandlers.ofString())
          .body();
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new IOException(e);
    }
  }

  @Override
  public void close() throws Exception {
    process.destroy();
    process.waitFor(10, TimeUnit.SECONDS);
  }
}
