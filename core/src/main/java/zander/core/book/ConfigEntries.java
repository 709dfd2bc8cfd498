package zander.core.book;

import java.nio.file.Path;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import zander.core.config.ClientConfig;
import zander.core.config.ConfiguredHost;
import zander.core.connect.address.ServerAddress;

/** Entries of the book as hosts of an OpenSSH configuration, and the other way round. */
public final class ConfigEntries {
  private static final Pattern JUMP =
      Pattern.compile(
          "(?:ssh://)?(?:(?<user>[^@]+)@)?(?<host>[^@:\\[\\]]+)(?::(?<port>[0-9]{1,5}))?");

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
    ConfiguredHost.Methods methods = host.methods();
    boolean byKey = methods.publicKey();
    SignIn signIn =
        new SignIn(
            key == null || !byKey ? null : key.toString(),
            certificates.isEmpty() || !byKey ? null : certificates.get(0).toString(),
            !host.identitiesOnly() && methods.agent(),
            methods.questions());
    return ServerEntry.of(
            host.name(), new ServerAddress(user, host.hostName(), host.port()), signIn)
        .withJump(host.proxyJump().stream().map(jump -> withAccount(jump, user)).toList())
        .withProxyCommand(host.proxyCommand());
  }

  /**
   * A jump host as {@code ProxyJump} writes it: what the configuration says of it holds, but for
   * the account and the port that are written there.
   *
   * @param account for hosts that name none: the person's own
   * @return {@code null} where the configuration says nothing of it, or it is none
   */
  public static @Nullable ServerEntry jump(ClientConfig config, String written, String account) {
    Matcher parts = JUMP.matcher(written);
    if (!parts.matches() || !config.isAbout(parts.group("host"))) {
      return null;
    }
    ServerEntry entry = entry(config.resolve(parts.group("host")), account);
    String user = parts.group("user");
    String port = parts.group("port");
    ServerAddress address =
        new ServerAddress(
            user == null ? entry.account() : user,
            entry.host(),
            port == null ? entry.port() : Integer.parseInt(port));
    return ServerEntry.of(written, address, entry.signIn())
        .withJump(entry.jump())
        .withProxyCommand(entry.proxyCommand());
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
        0,
        ConfiguredHost.Methods.ALL,
        entry.proxyCommand(),
        List.of());
  }
}
