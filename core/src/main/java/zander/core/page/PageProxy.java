package zander.core.page;

import java.io.BufferedInputStream;
import java.io.Closeable;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.ProxySelector;
import java.net.ServerSocket;
import java.net.Socket;
import java.net.http.HttpClient;
import java.nio.charset.StandardCharsets;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.Semaphore;
import java.util.concurrent.locks.LockSupport;
import java.util.function.UnaryOperator;
import org.jspecify.annotations.Nullable;
import zander.core.work.Carrier;

/**
 * The one door through which the page beside a file reaches the network: a proxy on a loopback port
 * that exists for that page alone (RFC 9110, section 3.7). It leads to the page's own origin, by
 * this computer or through the server, and nowhere else; and it serves this account alone, so that
 * others on this computer do not come through it into the server's network.
 */
public final class PageProxy implements Closeable {
  /** After one that could not be taken, in nanoseconds. */
  private static final long PAUSE = 50_000_000;

  /** More connections at once than a page opens. */
  private static final int MOST = 64;

  private final ServerSocket door;
  private final PageOrigin origin;
  private final PageRoute route;
  private final UnaryOperator<String> refused;
  private final Semaphore room = new Semaphore(MOST);
  private volatile @Nullable IOException failure;
  private @Nullable HttpClient client;
  private final Set<Closeable> open = ConcurrentHashMap.newKeySet();

  /**
   * Opens the door.
   *
   * @param refused told of each host that was asked for and is not contacted; gives what is shown
   *     in the place of that. On any thread
   * @throws IOException when this computer has no port for it
   */
  public PageProxy(PageOrigin origin, PageRoute route, UnaryOperator<String> refused)
      throws IOException {
    this.origin = origin;
    this.route = route;
    this.refused = refused;
    this.door = new ServerSocket(0, 50, InetAddress.getLoopbackAddress());
    Carrier.start("page-door", this::accept);
  }

  public InetSocketAddress address() {
    return new InetSocketAddress(InetAddress.getLoopbackAddress(), door.getLocalPort());
  }

  /** Why the origin could not be reached the last time; {@code null} when it could. */
  public @Nullable IOException failure() {
    return failure;
  }

  /** Asks by way of it; made once, because each has threads of its own. */
  synchronized HttpClient client() {
    if (client == null) {
      client =
          HttpClient.newBuilder()
              .proxy(ProxySelector.of(address()))
              .version(HttpClient.Version.HTTP_1_1)
              .followRedirects(HttpClient.Redirect.NEVER)
              .connectTimeout(PageAnswer.PATIENCE)
              .build();
    }
    return client;
  }

  private void accept() {
    while (!door.isClosed()) {
      try {
        Socket taken = door.accept();
        if (!room.tryAcquire()) {
          taken.close();
          continue;
        }
        open.add(taken);
        Carrier.start("page-line", () -> serve(taken));
      } catch (IOException e) {
        // Closed, or this computer has nothing left to take one with: not asked without a pause.
        LockSupport.parkNanos(PAUSE);
      }
    }
  }

  private void serve(Socket near) {
    try (near) {
      near.setTcpNoDelay(true);
      if (LoopbackPeer.isOfThisAccount(near)) {
        answer(near);
      }
    } catch (IOException e) {
      // Either end went away.
    } finally {
      open.remove(near);
      room.release();
    }
  }

  private void answer(Socket near) throws IOException {
    InputStream in = new BufferedInputStream(near.getInputStream());
    OutputStream out = near.getOutputStream();
    ProxyRequest request = ProxyRequest.read(in);
    if (request == null) {
      return;
    }
    if (!origin.is(request.host(), request.port())) {
      say(out, "403 Forbidden", refused.apply(request.host()));
      return;
    }
    PageRoute.Line far;
    try {
      far = route.connect(request.host(), request.port());
      failure = null;
    } catch (IOException e) {
      failure = e;
      say(out, "502 Bad Gateway", "");
      return;
    }
    open.add(far);
    try {
      if (door.isClosed()) {
        return;
      }
      if (request.isTunnel()) {
        out.write("HTTP/1.1 200 OK\r\n\r\n".getBytes(StandardCharsets.ISO_8859_1));
        out.flush();
      } else {
        far.out().write(request.head());
        far.out().flush();
      }
      PageRoute.Line to = far;
      Carrier.start("page-up", () -> carryUp(in, to));
      Carrier.carry(far.in(), out);
    } finally {
      far.close();
      open.remove(far);
    }
  }

  /** Who asked does not ask any more: what was on the way to it is not waited for. */
  private static void carryUp(InputStream near, PageRoute.Line far) {
    Carrier.carry(near, far.out());
    far.close();
  }

  private static void say(OutputStream out, String status, String why) throws IOException {
    byte[] text = why.getBytes(StandardCharsets.UTF_8);
    String head =
        "HTTP/1.1 "
            + status
            + "\r\nContent-Type: text/plain; charset=utf-8\r\nContent-Length: "
            + text.length
            + "\r\nConnection: close\r\n\r\n";
    out.write(head.getBytes(StandardCharsets.ISO_8859_1));
    out.write(text);
    out.flush();
  }

  /** Ends all that goes through it. */
  @Override
  public void close() {
    try {
      door.close();
      for (Closeable one : open) {
        one.close();
      }
    } catch (IOException e) {
      // Closed is what they are to be.
    }
  }
}
