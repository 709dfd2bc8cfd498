package zander.desk.page;

import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.Proxy;
import java.net.ProxySelector;
import java.net.SocketAddress;
import java.net.URI;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import org.jspecify.annotations.Nullable;
import zander.core.page.PageOrigin;
import zander.core.page.PageProxy;

/**
 * Leads what pages ask for through the proxies of their sheets, and everything else to one of them,
 * which refuses it: nothing but the page's own address is contacted. Nothing else in this program
 * speaks HTTP by Java's own means. Safe for several threads.
 */
final class PageProxies extends ProxySelector {
  /** Nobody listens there. */
  private static final InetSocketAddress NOBODY =
      new InetSocketAddress(InetAddress.getLoopbackAddress(), 1);

  private static final PageProxies ALL = new PageProxies();

  private final Map<String, PageProxy> byOrigin = new ConcurrentHashMap<>();
  private volatile @Nullable PageProxy last;

  private PageProxies() {}

  /** From now on what is asked of an origin goes by this proxy; before any page is shown. */
  static void lead(PageOrigin origin, PageProxy by) {
    if (ProxySelector.getDefault() != ALL) {
      ProxySelector.setDefault(ALL);
    }
    ALL.byOrigin.put(origin.text(), by);
    ALL.last = by;
  }

  static void end(PageOrigin origin, PageProxy by) {
    ALL.byOrigin.remove(origin.text(), by);
    if (ALL.last == by) {
      // It holds the desk that it belongs to.
      ALL.last = null;
    }
  }

  @Override
  public List<Proxy> select(URI uri) {
    PageProxy by = null;
    try {
      by = byOrigin.get(PageOrigin.of(uri.toString()).text());
    } catch (java.net.URISyntaxException e) {
      // No page: it is led to whoever refuses it.
    }
    by = by == null ? last : by;
    return List.of(new Proxy(Proxy.Type.HTTP, by == null ? NOBODY : by.address()));
  }

  @Override
  public void connectFailed(URI uri, SocketAddress address, IOException failure) {
    // The page says that it did not come.
  }
}
