package zander.core.config;

import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * One host as a configuration has it (ssh_config manual page).
 *
 * @param name the name it goes by there
 * @param hostName what to connect to
 * @param port 1 to 65535
 * @param user the account; {@code null} when none is named
 * @param identityFiles private keys, in order, absolute
 * @param certificateFiles certificates, in order, absolute
 * @param identitiesOnly whether the agent's other keys must not be offered
 * @param proxyJump jump hosts in their order, as written; empty for none
 * @param keepAliveSeconds 0 when not set
 * @param methods how one may sign in
 * @param proxyCommand the command by which alone it is reached; {@code null} for none
 * @param unmet keywords that would change something, and are not honoured
 */
public record ConfiguredHost(
    String name,
    String hostName,
    int port,
    @Nullable String user,
    List<Path> identityFiles,
    List<Path> certificateFiles,
    boolean identitiesOnly,
    List<String> proxyJump,
    int keepAliveSeconds,
    Methods methods,
    @Nullable String proxyCommand,
    List<String> unmet) {

  private static final int USUAL_PORT = 22;
  private static final int LAST_PORT = 65535;

  /**
   * How one may sign in.
   *
   * @param publicKey by a key
   * @param agent by keys that the agent has
   * @param questions by a password, or answers to questions
   */
  public record Methods(boolean publicKey, boolean agent, boolean questions) {
    public static final Methods ALL = new Methods(true, true, true);
  }

  static ConfiguredHost of(Resolution found) {
    List<ConfigLine> lines = found.lines();
    String name = found.original();
    String hostName = found.target();
    int asked = number(ConfigLine.first(lines, "port", "22"), USUAL_PORT);
    int port = asked < 1 || asked > LAST_PORT ? USUAL_PORT : asked;
    String user = ConfigLine.first(lines, "user").orElse(null);
    Tokens tokens =
        new Tokens(
            found.local(),
            name,
            hostName,
            port,
            found.user(),
            ConfigLine.first(lines, "hostkeyalias", name));
    ConfigLine proxy = firstProxy(lines);
    return new ConfiguredHost(
        name,
        hostName,
        port,
        user,
        files(lines, "identityfile", tokens),
        files(lines, "certificatefile", tokens),
        isOn(ConfigLine.first(lines, "identitiesonly", "no")),
        jumps(proxy, tokens),
        number(ConfigLine.first(lines, "serveraliveinterval", "0"), 0),
        methods(lines),
        command(proxy, tokens),
        Keywords.unmet(lines));
  }

  /** Whichever of both comes first counts, and the other one not at all. */
  private static @Nullable ConfigLine firstProxy(List<ConfigLine> lines) {
    return lines.stream()
        .filter(line -> line.keyword().equals("proxyjump") || line.keyword().equals("proxycommand"))
        .findFirst()
        .filter(line -> !line.first().equalsIgnoreCase("none"))
        .orElse(null);
  }

  private static List<String> jumps(@Nullable ConfigLine proxy, Tokens tokens) {
    return proxy == null || !proxy.keyword().equals("proxyjump")
        ? List.of()
        : Arrays.asList(tokens.proxy(proxy.first()).split(","));
  }

  private static @Nullable String command(@Nullable ConfigLine proxy, Tokens tokens) {
    return proxy == null || !proxy.keyword().equals("proxycommand")
        ? null
        : tokens.proxy(String.join(" ", proxy.arguments()));
  }

  private static Methods methods(List<ConfigLine> lines) {
    List<String> preferred =
        Arrays.asList(
            ConfigLine.first(
                    lines, "preferredauthentications", "publickey,keyboard-interactive,password")
                .split(","));
    boolean publicKey =
        preferred.contains("publickey")
            && !isOff(ConfigLine.first(lines, "pubkeyauthentication", "yes"));
    boolean password =
        preferred.contains("password")
            && isOn(ConfigLine.first(lines, "passwordauthentication", "yes"));
    boolean others =
        preferred.contains("keyboard-interactive")
            && isOn(ConfigLine.first(lines, "kbdinteractiveauthentication", "yes"));
    boolean agent = !ConfigLine.first(lines, "identityagent", "").equalsIgnoreCase("none");
    return new Methods(publicKey, publicKey && agent, password || others);
  }

  private static boolean isOn(String word) {
    String small = word.toLowerCase(Locale.ROOT);
    return small.equals("yes") || small.equals("true");
  }

  private static boolean isOff(String word) {
    String small = word.toLowerCase(Locale.ROOT);
    return small.equals("no") || small.equals("false");
  }

  private static int number(String text, int otherwise) {
    return text.matches("[0-9]{1,6}") ? Integer.parseInt(text) : otherwise;
  }

  private static List<Path> files(List<ConfigLine> lines, String keyword, Tokens tokens) {
    return lines.stream()
        .filter(line -> line.keyword().equals(keyword))
        .map(ConfigLine::first)
        .filter(text -> !text.equalsIgnoreCase("none"))
        .map(tokens::file)
        .flatMap(Optional::stream)
        .distinct()
        .toList();
  }
}
