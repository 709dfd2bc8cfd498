package zander.standin.demo;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.Closeable;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.Locale;
import java.util.Map;
import zander.standin.world.Account;
import zander.standin.world.Caller;
import zander.standin.world.Machine;
import zander.standin.world.OpenFile;
import zander.standin.world.PosixError;
import zander.standin.world.World;

/**
 * The public site of a made-up server: its files over HTTP on a port of the loopback, read as the
 * account that serves them, with what that account may not read written into a log.
 */
final class DemoSite implements Closeable {
  private static final String LOG = "/var/log/levels/error.log";
  private static final int LARGEST = 16 << 20;
  private static final DateTimeFormatter TIME =
      DateTimeFormatter.ofPattern("yyyy/MM/dd HH:mm:ss", Locale.ROOT)
          .withZone(ZoneId.systemDefault());
  private static final Map<String, String> TYPES =
      Map.of(
          "html", "text/html; charset=utf-8",
          "css", "text/css; charset=utf-8",
          "js", "text/javascript; charset=utf-8",
          "svg", "image/svg+xml",
          "xml", "application/xml");

  private final Machine machine;
  private final String folder;
  private final Account account;
  private final HttpServer server;

  private DemoSite(Machine machine, String folder, Account account, HttpServer server) {
    this.machine = machine;
    this.folder = folder;
    this.account = account;
    this.server = server;
  }

  /** Begins to serve a folder as an account of its machine. */
  static DemoSite start(Machine machine, String folder, String account) throws IOException {
    HttpServer server =
        HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
    DemoSite site =
        new DemoSite(machine, folder, machine.accounts().user(account).orElseThrow(), server);
    server.createContext("/", site::answer);
    server.start();
    return site;
  }

  int port() {
    return server.getAddress().getPort();
  }

  private void answer(HttpExchange exchange) throws IOException {
    try (exchange) {
      String path = exchange.getRequestURI().normalize().getPath();
      String file = folder + (path.endsWith("/") ? path + "index.html" : path);
      try {
        byte[] content = read(file);
        String end = file.substring(file.lastIndexOf('.') + 1);
        exchange
            .getResponseHeaders()
            .set("Content-Type", TYPES.getOrDefault(end, "application/octet-stream"));
        exchange.getResponseHeaders().set("Cache-Control", "no-cache");
        send(exchange, 200, content);
      } catch (PosixError e) {
        boolean denied = e.errno() == PosixError.Errno.EACCES;
        log(file, e);
        send(exchange, denied ? 403 : 404, text(denied ? "403 Forbidden" : "404 Not Found"));
      }
    }
  }

  private byte[] read(String file) throws PosixError {
    Caller caller = machine.accounts().caller(account);
    OpenFile open = machine.world().open(caller, file, World.Open.READ);
    return open.read(0, (int) Math.min(LARGEST, open.size()));
  }

  private static byte[] text(String what) {
    return ("<!doctype html><title>" + what + "</title><h1>" + what + "</h1>")
        .getBytes(StandardCharsets.UTF_8);
  }

  private static void send(HttpExchange exchange, int status, byte[] content) throws IOException {
    if (status != 200) {
      exchange.getResponseHeaders().set("Content-Type", "text/html; charset=utf-8");
    }
    boolean head = exchange.getRequestMethod().equals("HEAD");
    exchange.sendResponseHeaders(status, head || content.length == 0 ? -1 : content.length);
    if (!head) {
      exchange.getResponseBody().write(content);
    }
  }

  private synchronized void log(String file, PosixError why) throws PosixError {
    String line =
        TIME.format(Instant.now())
            + " [error] open() \""
            + file
            + "\" failed ("
            + why.errno().text()
            + ")\n";
    OpenFile log =
        machine
            .world()
            .open(Caller.ROOT, LOG, new World.Open(false, true, true, false, false, 0640));
    byte[] bytes = line.getBytes(StandardCharsets.UTF_8);
    log.write(log.size(), bytes, 0, bytes.length);
  }

  @Override
  public void close() {
    server.stop(0);
  }
}
