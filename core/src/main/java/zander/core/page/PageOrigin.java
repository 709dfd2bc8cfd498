package zander.core.page;

import java.net.URI;
import java.net.URISyntaxException;
import java.util.Locale;

/**
 * Where pages come from (RFC 6454): the one place that is reached for a page.
 *
 * @param scheme {@code http} or {@code https}
 * @param host in small letters
 * @param port always given
 */
public record PageOrigin(String scheme, String host, int port) {
  /**
   * @throws URISyntaxException when it is not the address of a page
   */
  public static PageOrigin of(String address) throws URISyntaxException {
    URI uri = new URI(address);
    String scheme = uri.getScheme() == null ? "" : uri.getScheme().toLowerCase(Locale.ROOT);
    boolean sealed = scheme.equals("https");
    if (uri.getHost() == null || !(sealed || scheme.equals("http"))) {
      throw new URISyntaxException(address, "not the address of a page");
    }
    int port = uri.getPort() > 0 ? uri.getPort() : sealed ? 443 : 80;
    return new PageOrigin(scheme, uri.getHost().toLowerCase(Locale.ROOT), port);
  }

  /** Whether a request goes there. */
  boolean is(String toHost, int toPort) {
    return host.equals(toHost.toLowerCase(Locale.ROOT)) && port == toPort;
  }

  /** As it begins an address: {@code http://levels.riverwatch.example}. */
  public String text() {
    boolean usual = port == (scheme.equals("https") ? 443 : 80);
    return scheme + "://" + host + (usual ? "" : ":" + port);
  }
}
