package zander.core.connect.address;

import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.util.Arrays;
import java.util.List;

/** Finds the addresses behind a server's name. Waits for the network. */
@FunctionalInterface
public interface HostLookup {
  /**
   * @return at least one address, in the order to try them
   * @throws java.net.UnknownHostException when the name has none
   */
  List<InetSocketAddress> find(ServerAddress address) throws IOException;

  /** The computer's own name service. */
  static HostLookup system() {
    return address ->
        Arrays.stream(InetAddress.getAllByName(address.host()))
            .map(ip -> new InetSocketAddress(ip, address.port()))
            .toList();
  }
}
