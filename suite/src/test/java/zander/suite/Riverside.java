package zander.suite;

import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import zander.core.connect.Connection;
import zander.core.connect.Connector;
import zander.core.connect.address.HostLookup;
import zander.core.connect.address.ServerAddress;
import zander.core.connect.signin.SignInMethods;
import zander.core.trust.KnownHosts;
import zander.standin.demo.Demo;

/** The demo's servers for one test, and a connector that finds them by their made-up names. */
final class Riverside implements AutoCloseable {
  final Demo demo;
  final KnownHosts knownHosts;
  final Connector connector;
  private int redirect = -1;

  Riverside(Path folder) throws IOException {
    demo = Demo.start(folder.resolve("home"));
    knownHosts = new KnownHosts(folder.resolve("home/.ssh/known_hosts"));
    // An agent of the person who runs the tests must not take part.
    connector = new Connector(knownHosts, this::find, null, Duration.ofSeconds(20));
  }

  private List<InetSocketAddress> find(ServerAddress address) throws IOException {
    int port = demo.portOf(address.host());
    if (port < 0) {
      return HostLookup.system().find(address);
    }
    return List.of(
        new InetSocketAddress(InetAddress.getLoopbackAddress(), redirect > 0 ? redirect : port));
  }

  /** Leads every made-up name to one port from now on. */
  void redirectTo(int port) {
    redirect = port;
  }

  static ServerAddress warden(String server) {
    return new ServerAddress("warden", server + Demo.DOMAIN, 22);
  }

  Connection open(String server) throws IOException {
    return connector.open(
        warden(server), SignInMethods.byKey(demo.keyFile()), TestPrompts.accepting());
  }

  @Override
  public void close() {
    connector.close();
    demo.close();
  }
}
