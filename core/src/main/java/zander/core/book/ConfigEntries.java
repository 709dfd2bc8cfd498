package zander.core.book;

import java.nio.file.Path;
import java.util.List;
import zander.core.config.ConfiguredHost;
import zander.core.connect.address.ServerAddress;

/** Entries of the book as hosts of an OpenSSH configuration, and the other way round. */
public final class ConfigEntries {
  private ConfigEntries() {}

  /**
   * @param account for hosts that name none: the person's own
   */
  public static ServerEntry entry(ConfiguredHost host, String account) {
    String user = host.user() == null ? account : host.user();
    List<Path> keys = host.identityFiles();
    // The first that is there: names of keys that were never made are common in such files.
    Path key =
        keys.stream()
            .filter(java.nio.file.Files::exists)
            .findFirst()
            .orElse(keys.isEmpty() ? null : keys.get(0));
    List<Path> certificates = host.certificateFiles();
    SignIn signIn =
        new SignIn(
            key == null ? null : key.toString(),
            certificates.isEmpty() ? null : certificates.get(0).toString(),
            !host.identitiesOnly(),
            true);
    return ServerEntry.of(
            host.name(), new ServerAddress(user, host.hostName(), host.port()), signIn)
        .withJump(host.proxyJump().stream().map(jump -> withAccount(jump, user)).toList());
  }

  /** {@code ProxyJump} may leave the account out, or name another host of the configuration. */
  private static String withAccount(String jump, String user) {
    boolean alias = !jump.contains("@") && !jump.contains(":") && !jump.contains(".");
    return jump.contains("@") || alias ? jump.replaceFirst("^ssh://", "") : user + "@" + jump;
  }

  /**
   * @param home what relative key files begin at
   */
  public static ConfiguredHost host(ServerEntry entry, Path home) {
    var ways = entry.signIn().ways(home);
    return new ConfiguredHost(
        entry.name(),
        entry.host(),
        entry.port(),
        entry.account(),
        ways.keyFile() == null ? List.of() : List.of(ways.keyFile()),
        ways.certificate() == null ? List.of() : List.of(ways.certificate()),
        ways.keyFile() != null && !ways.agent(),
        entry.jump().stream()
            .map(
                jump ->
                    ServerAddress.looksLikeOne(jump)
                        ? jump
                        : zander.core.config.ConfigWriter.alias(jump))
            .toList(),
        0);
  }
}
