package zander.core.book;

import com.fasterxml.jackson.annotation.JsonIgnoreProperties;
import java.util.List;
import zander.core.connect.ServerAddress;

/**
 * A saved server. Never holds a secret.
 *
 * @param keyFile the private key to offer, or {@code null}
 * @param password whether a password may be asked for
 * @param landing the folder to open first; the home folder when {@code null}
 * @param local the folder on this computer to show below the waterline, or {@code null}
 */
@JsonIgnoreProperties(ignoreUnknown = true)
public record ServerEntry(
    String name,
    String account,
    String host,
    int port,
    String keyFile,
    boolean password,
    Mark mark,
    String landing,
    String local,
    String note,
    List<MarkedFolder> folders) {

  public ServerEntry {
    mark = mark == null ? Mark.NONE : mark;
    folders = folders == null ? List.of() : List.copyOf(folders);
  }

  /** An entry for an address somebody typed. */
  public static ServerEntry typed(ServerAddress address, String keyFile) {
    return new ServerEntry(
        address.host(),
        address.account(),
        address.host(),
        address.port(),
        keyFile,
        true,
        Mark.NONE,
        null,
        null,
        null,
        List.of());
  }

  public ServerAddress address() {
    return new ServerAddress(account, host, port);
  }
}
