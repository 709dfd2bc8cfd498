package zander.core.page;

import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import com.sun.net.httpserver.HttpsConfigurator;
import com.sun.net.httpserver.HttpsServer;
import java.io.IOException;
import java.io.InputStream;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.ProxySelector;
import java.net.Socket;
import java.net.URI;
import java.net.UnknownHostException;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.KeyStore;
import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.Executors;
import javax.net.ssl.KeyManagerFactory;
import javax.net.ssl.SSLContext;
import javax.net.ssl.SSLException;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import zander.core.connect.address.HostLookup;

@Timeout(60)
class PageProxyTest {
  private static final String SITE = "levels.riverwatch.example";

  private final List<String> refused = new CopyOnWriteArrayList<>();
  private final List<String> hosts = new CopyOnWriteArrayList<>();
  private HttpServer site;

  @BeforeEach
  void serve() throws IOException {
    site = HttpServer.create(loopback(0), 0);
    site.setExecutor(Executors.newCachedThreadPool());
    site.createContext("/", this::answer);
    site.start();
  }

  @AfterEach
  void stop() {
    site.stop(0);
  }

  private static InetSocketAddress loopback(int port) {
    return new InetSocketAddress(InetAddress.getLoopbackAddress(), port);
  }

  private void answer(HttpExchange exchange) throws IOException {
    hosts.add(exchange.getRequestHeaders().getFirst("Host"));
    byte[] sent = exchange.getRequestBody().readAllBytes();
    String path = exchange.getRequestURI().toString();
    int status = path.startsWith("/moved") ? 301 : path.equals("/closed") ? 403 : 200;
    if (status == 301) {
      exchange.getResponseHeaders().set("Location", "/new");
    }
    byte[] text = (exchange.getRequestMethod() + " " + path + " " + sent.length).getBytes(UTF_8);
    exchange.sendResponseHeaders(status, text.length);
    exchange.getResponseBody().write(text);
    exchange.close();
  }

  /** The site's name is known here, whatever the computer's own name service says. */
  private PageProxy proxy(PageOrigin origin, int port) throws IOException {
    HostLookup lookup =
        address -> {
          if (!address.host().equals(SITE)) {
            throw new UnknownHostException(address.host());
          }
          return List.of(loopback(port));
        };
    return new PageProxy(
        origin,
        new PageRoutes(lookup, () -> null).by(PageRoutes.Way.FROM_HERE),
        host -> {
          refused.add(host);
          return "not contacted";
        });
  }

  private static HttpResponse<String> get(PageProxy proxy, HttpRequest request) throws Exception {
    // As the browser's engine does: HTTP/2 is offered, and connections are kept.
    HttpClient client = HttpClient.newBuilder().proxy(ProxySelector.of(proxy.address())).build();
    return client.send(request, HttpResponse.BodyHandlers.ofString());
  }

  @Test
  void thePageIsAskedForByItsNameAndNothingElseIsContacted() throws Exception {
    PageOrigin origin = PageOrigin.of("http://" + SITE + "/index.html");
    try (PageProxy proxy = proxy(origin, site.getAddress().getPort())) {
      HttpRequest page =
          HttpRequest.newBuilder(URI.create("http://" + SITE + "/index.html?day=2")).build();
      assertThat(get(proxy, page).body()).isEqualTo("GET /index.html?day=2 0");
      HttpRequest form =
          HttpRequest.newBuilder(URI.create("http://" + SITE + "/send"))
              .POST(HttpRequest.BodyPublishers.ofString("x".repeat(100_000)))
              .build();
      assertThat(get(proxy, form).body()).isEqualTo("POST /send 100000");
      assertThat(hosts).containsOnly(SITE);
      URI elsewhere = URI.create("http://fonts.riverwatch.example/a.css");
      HttpResponse<String> kept = get(proxy, HttpRequest.newBuilder(elsewhere).build());
      assertThat(kept.statusCode()).isEqualTo(403);
      assertThat(kept.body()).isEqualTo("not contacted");
      URI otherPort = URI.create("http://" + SITE + ":8080/");
      assertThat(get(proxy, HttpRequest.newBuilder(otherPort).build()).statusCode()).isEqualTo(403);
      HttpRequest sealed =
          HttpRequest.newBuilder(URI.create("https://fonts.riverwatch.example/")).build();
      assertThatThrownBy(() -> get(proxy, sealed)).isInstanceOf(IOException.class);
      assertThat(refused).startsWith("fonts.riverwatch.example", SITE).hasSizeGreaterThan(2);
      assertThat(hosts).containsOnly(SITE);
    }
  }

  @Test
  void whatIsAnsweredIsToldAndWhyNothingIs() throws Exception {
    PageOrigin origin = PageOrigin.of("http://" + SITE);
    try (PageProxy proxy = proxy(origin, site.getAddress().getPort())) {
      assertThat(PageAnswer.ask(URI.create("http://" + SITE + "/a"), proxy).status())
          .isEqualTo(200);
      PageAnswer moved = PageAnswer.ask(URI.create("http://" + SITE + "/moved"), proxy);
      assertThat(moved.leadsTo()).isEqualTo("/new");
      assertThat(moved.isError()).isFalse();
      assertThat(PageAnswer.ask(URI.create("http://" + SITE + "/closed"), proxy).isError())
          .isTrue();
      assertThat(proxy.failure()).isNull();
    }
    int nobody;
    try (java.net.ServerSocket free = new java.net.ServerSocket(0)) {
      nobody = free.getLocalPort();
    }
    try (PageProxy proxy = proxy(origin, nobody)) {
      assertThat(PageAnswer.ask(URI.create("http://" + SITE + "/"), proxy).status()).isEqualTo(502);
      assertThat(proxy.failure()).isInstanceOf(java.net.ConnectException.class);
    }
    PageOrigin unknown = PageOrigin.of("http://nowhere.riverwatch.example");
    try (PageProxy proxy = proxy(unknown, nobody)) {
      PageAnswer.ask(URI.create("http://nowhere.riverwatch.example/"), proxy);
      assertThat(proxy.failure()).isInstanceOf(UnknownHostException.class);
    }
  }

  @Test
  void aCertificateOfNobodyIsAFailure(@TempDir Path folder) throws Exception {
    HttpsServer sealed = HttpsServer.create(loopback(0), 0);
    sealed.setHttpsConfigurator(new HttpsConfigurator(selfSigned(folder)));
    sealed.createContext("/", this::answer);
    sealed.start();
    try (PageProxy proxy = proxy(PageOrigin.of("https://" + SITE), sealed.getAddress().getPort())) {
      assertThatThrownBy(() -> PageAnswer.ask(URI.create("https://" + SITE + "/"), proxy))
          .isInstanceOf(SSLException.class);
      assertThat(proxy.failure()).isNull();
      assertThat(hosts).isEmpty();
    } finally {
      sealed.stop(0);
    }
  }

  private static SSLContext selfSigned(Path folder) throws Exception {
    Path store = folder.resolve("store");
    Process making =
        new ProcessBuilder(
                Path.of(System.getProperty("java.home"), "bin", "keytool").toString(),
                "-genkeypair",
                "-keystore",
                store.toString(),
                "-storepass",
                "heron-at-dusk",
                "-keyalg",
                "EC",
                "-dname",
                "CN=" + SITE)
            .inheritIO()
            .start();
    assertThat(making.waitFor()).isZero();
    KeyStore keys = KeyStore.getInstance("PKCS12");
    try (InputStream in = Files.newInputStream(store)) {
      keys.load(in, "heron-at-dusk".toCharArray());
    }
    KeyManagerFactory managers = KeyManagerFactory.getInstance("PKIX");
    managers.init(keys, "heron-at-dusk".toCharArray());
    SSLContext context = SSLContext.getInstance("TLS");
    context.init(managers.getKeyManagers(), null, null);
    return context;
  }

  @Test
  void whatIsNoRequestEndsTheConnectionAlone() throws Exception {
    try (PageProxy proxy = proxy(PageOrigin.of("http://" + SITE), site.getAddress().getPort())) {
      for (String sent :
          List.of(
              "\r\n\r\n",
              "GET / HTTP/1.1\r\n\r\n",
              "CONNECT :x HTTP/1.1\r\n\r\n",
              "GET http:// HTTP/1.1\r\n\r\n",
              "x".repeat(70_000))) {
        try (Socket socket = new Socket()) {
          socket.connect(proxy.address());
          try {
            socket.getOutputStream().write(sent.getBytes(UTF_8));
            assertThat(socket.getInputStream().read()).as(sent.strip()).isEqualTo(-1);
          } catch (java.net.SocketException e) {
            // Ended before all of it was sent.
          }
        }
      }
      assertThat(PageAnswer.ask(URI.create("http://" + SITE + "/"), proxy).status()).isEqualTo(200);
    }
  }

  @Test
  void anOriginIsASchemeAHostAndAPort() throws Exception {
    assertThat(PageOrigin.of("HTTP://Levels.Riverwatch.Example/a").text())
        .isEqualTo("http://levels.riverwatch.example");
    assertThat(PageOrigin.of("https://levels.riverwatch.example:8443/a").text())
        .isEqualTo("https://levels.riverwatch.example:8443");
    for (String none : List.of("", "levels", "ftp://levels/", "http:///a", "http://a b/")) {
      assertThatThrownBy(() -> PageOrigin.of(none))
          .as(none)
          .isInstanceOf(java.net.URISyntaxException.class);
    }
  }
}
