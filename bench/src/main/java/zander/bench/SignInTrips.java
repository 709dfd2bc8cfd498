package zander.bench;

import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.KeyPair;
import java.time.Duration;
import java.util.Arrays;
import java.util.List;
import org.apache.sshd.client.SshClient;
import org.apache.sshd.client.keyverifier.AcceptAllServerKeyVerifier;
import org.apache.sshd.client.session.ClientSession;
import org.apache.sshd.sftp.client.SftpClient;
import org.apache.sshd.sftp.client.SftpClientFactory;
import zander.core.connect.Connection;
import zander.core.connect.Connector;
import zander.core.connect.address.ServerAddress;
import zander.core.connect.signin.Hop;
import zander.core.connect.signin.SignInMethods;
import zander.core.trust.KnownHosts;
import zander.standin.demo.Demo;
import zander.standin.demo.DemoKeys;

/**
 * From the click to the listing, in seconds and in round trips: Zander beside the library's own
 * calls with its defaults, over the same delayed lines in one run. The line's delay is varied, and
 * the slope tells how many times it is waited for; opening the TCP connection is one of them.
 */
public final class SignInTrips {
  private static final long[] DELAYS = {0, 40, 80};
  private static final int TIMES = 9;

  private SignInTrips() {}

  interface Way {
    void open(int port) throws Exception;
  }

  public static void main(String[] arguments) throws Exception {
    Path folder = Files.createTempDirectory("zander-bench");
    try (Demo demo = Demo.start(folder.resolve("home"))) {
      System.out.printf(
          "%-44s %10s %10s %10s %12s%n",
          "from the click to the listing, seconds", "loopback", "40 ms", "80 ms", "round trips");
      print("Zander, landing in a folder of the book", demo, zander(demo, folder, "/home/warden"));
      print("Zander, landing at home", demo, zander(demo, folder, null));
      print("the library's own calls, its defaults", demo, library());
    }
  }

  static Way zander(Demo demo, Path folder, String landing) {
    ServerAddress address = new ServerAddress("warden", "lab-box" + Demo.DOMAIN, 22);
    int[] port = {0};
    Connector connector =
        new Connector(
            new KnownHosts(folder.resolve("known")),
            asked -> List.of(new InetSocketAddress(InetAddress.getLoopbackAddress(), port[0])),
            null,
            Duration.ofSeconds(20));
    return through -> {
      port[0] = through;
      Hop hop = new Hop(address, SignInMethods.byKey(demo.keyFile()));
      try (Connection open = connector.open(List.of(hop), landing, FirstSlice.TRUSTING)) {
        require(!open.landing().entries().isEmpty());
      }
    };
  }

  static Way library() {
    SshClient client = SshClient.setUpDefaultClient();
    client.setServerKeyVerifier(AcceptAllServerKeyVerifier.INSTANCE);
    client.start();
    KeyPair key = DemoKeys.pair("warden");
    return port -> {
      try (ClientSession session =
          client
              .connect("warden", InetAddress.getLoopbackAddress().getHostAddress(), port)
              .verify(Duration.ofSeconds(20))
              .getSession()) {
        session.addPublicKeyIdentity(key);
        session.auth().verify(Duration.ofSeconds(20));
        try (SftpClient files = SftpClientFactory.instance().createSftpClient(session)) {
          String home = files.canonicalPath(".");
          int names = 0;
          for (var entries = files.readDir(home).iterator(); entries.hasNext(); entries.next()) {
            names++;
          }
          session.executeRemoteCommand("id; getent passwd; getent group");
          require(names > 0);
        }
      }
    };
  }

  private static void require(boolean listed) {
    if (!listed) {
      throw new IllegalStateException("nothing was listed");
    }
  }

  private static void print(String name, Demo demo, Way way) throws Exception {
    double[] seconds = new double[DELAYS.length];
    for (int i = 0; i < DELAYS.length; i++) {
      try (DelayedLine line = new DelayedLine(demo.server("lab-box").port(), DELAYS[i])) {
        way.open(line.port());
        way.open(line.port());
        double[] taken = new double[TIMES];
        for (int n = 0; n < TIMES; n++) {
          long start = System.nanoTime();
          way.open(line.port());
          taken[n] = (System.nanoTime() - start) / 1e9;
        }
        Arrays.sort(taken);
        seconds[i] = taken[TIMES / 2];
      }
    }
    double trips = (seconds[2] - seconds[0]) / (DELAYS[2] / 1000.0);
    System.out.printf(
        "%-44s %10.3f %10.3f %10.3f %12.1f%n", name, seconds[0], seconds[1], seconds[2], trips);
  }
}
