package zander.core.page;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * The head of a request to a proxy (RFC 9112, section 3.2.2 and 3.2.3; RFC 9110, section 9.3.6).
 *
 * @param isTunnel whether it asks for a way to a port, through which it goes on by itself
 * @param head what is sent on to the page's server; empty for a tunnel
 */
record ProxyRequest(boolean isTunnel, String host, int port, byte[] head) {
  /** More than any browser sends, in bytes. */
  private static final int LONGEST = 64 * 1024;

  /** Of one connection, or an invitation to another protocol (RFC 9110, section 7.6.1). */
  private static final Set<String> NOT_PASSED_ON =
      Set.of(
          "connection",
          // Said anew: the address decides (RFC 9112, section 3.2.2).
          "host",
          "proxy-connection",
          "proxy-authorization",
          "keep-alive",
          "te",
          "upgrade",
          "http2-settings");

  /**
   * Reads it.
   *
   * @return {@code null} when the stream ended before it began
   * @throws IOException when it is no such request, or too long
   */
  static @Nullable ProxyRequest read(InputStream in) throws IOException {
    ByteArrayOutputStream read = new ByteArrayOutputStream();
    int ends = 0;
    while (ends < 4) {
      int next = in.read();
      if (next < 0) {
        if (read.size() == 0) {
          return null;
        }
        throw new IOException("the request breaks off");
      }
      read.write(next);
      ends = next == (ends % 2 == 0 ? '\r' : '\n') ? ends + 1 : next == '\r' ? 1 : 0;
      if (read.size() > LONGEST) {
        throw new IOException("the request is too long");
      }
    }
    return of(List.of(read.toString(StandardCharsets.ISO_8859_1).split("\r\n")));
  }

  private static ProxyRequest of(List<String> lines) throws IOException {
    String[] first = lines.isEmpty() ? new String[0] : lines.get(0).split(" ");
    if (first.length != 3) {
      throw new IOException("this is not a request");
    }
    try {
      if (first[0].equals("CONNECT")) {
        URI target = new URI("https://" + first[1]);
        return new ProxyRequest(true, bare(target.getHost()), target.getPort(), new byte[0]);
      }
      URI target = new URI(first[1]);
      if (target.getHost() == null || !"http".equalsIgnoreCase(target.getScheme())) {
        throw new IOException("this is not a request to a proxy");
      }
      String path = target.getRawPath().isEmpty() ? "/" : target.getRawPath();
      String query = target.getRawQuery() == null ? "" : "?" + target.getRawQuery();
      StringBuilder head = new StringBuilder(first[0]).append(' ').append(path).append(query);
      head.append(" HTTP/1.1\r\nHost: ").append(target.getRawAuthority()).append("\r\n");
      for (String line : lines.subList(1, lines.size())) {
        int colon = line.indexOf(':');
        String name = colon < 0 ? line : line.substring(0, colon);
        if (!NOT_PASSED_ON.contains(name.toLowerCase(Locale.ROOT))) {
          head.append(line).append("\r\n");
        }
      }
      // One answer a connection: its end is where the server closes.
      head.append("Connection: close\r\n\r\n");
      int port = target.getPort() > 0 ? target.getPort() : 80;
      return new ProxyRequest(
          false,
          bare(target.getHost()),
          port,
          head.toString().getBytes(StandardCharsets.ISO_8859_1));
    } catch (java.net.URISyntaxException e) {
      throw new IOException("the request names no place", e);
    }
  }

  /** Without the brackets of an IPv6 address. */
  private static String bare(String host) throws IOException {
    if (host == null) {
      throw new IOException("the request names no place");
    }
    return host.startsWith("[") ? host.substring(1, host.length() - 1) : host;
  }
}
