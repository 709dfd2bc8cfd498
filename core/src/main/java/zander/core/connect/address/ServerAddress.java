package zander.core.connect.address;

import java.net.IDN;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import zander.core.phrase.InputPhrase;
import zander.core.phrase.InvalidInput;

/**
 * Where to sign in and as whom.
 *
 * @param account the account's name on the server
 * @param host a name or an address, without brackets
 * @param port 1 to 65535
 */
public record ServerAddress(String account, String host, int port) {
  public static final int USUAL_PORT = 22;

  private static final Pattern TYPED =
      Pattern.compile(
          "(?:ssh://|sftp://)?(?<account>[^@/\\s]+)@"
              + "(?:\\[(?<six>[0-9A-Fa-f:.%a-z]+)]|(?<host>[^:/@\\s\\[\\]]+))"
              + "(?::(?<port>[0-9]{1,5}))?/?");

  public ServerAddress {
    if (account.isBlank() || host.isBlank()) {
      throw new InvalidInput(InputPhrase.ADDRESS_WITHOUT_ACCOUNT.of());
    }
    if (port < 1 || port > 65535) {
      throw new InvalidInput(InputPhrase.PORT_RANGE.of(port));
    }
  }

  /**
   * Reads {@code account@host}, {@code account@host:port} or {@code account@[v6 address]:port}.
   *
   * @throws InvalidInput when it is anything else
   */
  public static ServerAddress parse(String typed) {
    Matcher match = TYPED.matcher(typed.strip());
    if (!match.matches()) {
      throw new InvalidInput(InputPhrase.ADDRESS_FORM.of());
    }
    String host = match.group("six") != null ? match.group("six") : match.group("host");
    String port = match.group("port");
    return new ServerAddress(
        match.group("account"), host, port == null ? USUAL_PORT : Integer.parseInt(port));
  }

  public static boolean looksLikeOne(String typed) {
    return TYPED.matcher(typed.strip()).matches();
  }

  /**
   * The host as {@code known_hosts} writes it: {@code [host]:port} on an unusual port, and letters
   * that are not ASCII as the domain name system has them (RFC 5890).
   */
  public String knownHostsName() {
    String lower = inDns(host).toLowerCase(java.util.Locale.ROOT);
    return port == USUAL_PORT ? lower : "[" + lower + "]:" + port;
  }

  private static String inDns(String host) {
    try {
      return host.chars().allMatch(c -> c < 128) ? host : IDN.toASCII(host, IDN.ALLOW_UNASSIGNED);
    } catch (IllegalArgumentException e) {
      // No name that could be looked up.
      return host;
    }
  }

  @Override
  public String toString() {
    String shown = host.indexOf(':') >= 0 ? "[" + host + "]" : host;
    return account + "@" + shown + (port == USUAL_PORT ? "" : ":" + port);
  }
}
