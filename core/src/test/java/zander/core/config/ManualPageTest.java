package zander.core.config;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import java.util.zip.GZIPInputStream;
import org.junit.jupiter.api.Assumptions;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/**
 * Sentences of the ssh_config manual page, each as a configuration and what it must mean.
 *
 * <p>Judged: what an OpenSSH configuration means: order, {@code Match}, {@code Include}, tokens |
 * the sentences of its manual page; its list of keywords | 82, and each keyword of the installed
 * page
 */
class ManualPageTest {
  private static final Path PAGE = Path.of("/usr/share/man/man5/ssh_config.5.gz");
  private static final Map<String, String> VARIABLES =
      Map.of("RIVER", "/keys/river", "ODD", "/k/%h");
  private static final Map<String, String> HOMES = Map.of("deploy", "/home/deploy");

  @TempDir Path home;
  private Path ssh;

  @BeforeEach
  void start() throws IOException {
    ssh = Files.createDirectories(home.resolve(".ssh"));
    Files.createDirectories(ssh.resolve("conf.d/inner"));
    Files.writeString(ssh.resolve("conf.d/10-port"), "Port 2210\n");
    Files.writeString(ssh.resolve("conf.d/20-port"), "Port 2220\nUser late\n");
    Files.writeString(ssh.resolve("conf.d/.hidden"), "User hidden\n");
    Files.writeString(ssh.resolve("conf.d/inner/gates"), "Host gate\nUser inner\n");
    Files.writeString(ssh.resolve("two words"), "User spaced\n");
  }

  /**
   * @param lines with {@code |} between them
   * @param asked the host that is asked for
   */
  record Case(String lines, String asked, Function<ConfiguredHost, Object> of, Object is) {
    @Override
    public String toString() {
      return lines + " -> " + is;
    }
  }

  private static Case c(String lines, Function<ConfiguredHost, Object> of, Object is) {
    return new Case(lines, "gate", of, is);
  }

  static Stream<Case> cases() {
    Function<ConfiguredHost, Object> port = ConfiguredHost::port;
    Function<ConfiguredHost, Object> user = ConfiguredHost::user;
    Function<ConfiguredHost, Object> host = ConfiguredHost::hostName;
    Function<ConfiguredHost, Object> jump = ConfiguredHost::proxyJump;
    Function<ConfiguredHost, Object> command = ConfiguredHost::proxyCommand;
    Function<ConfiguredHost, Object> methods = ConfiguredHost::methods;
    Function<ConfiguredHost, Object> unmet = ConfiguredHost::unmet;
    Function<ConfiguredHost, Object> key =
        one -> one.identityFiles().isEmpty() ? "" : one.identityFiles().get(0).toString();
    return Stream.of(
        // For each parameter, the first obtained value will be used.
        c("Host gate|Port 1|Host *|Port 2", port, 1),
        c("Host *|Port 2|Host gate|Port 1", port, 2),
        c("Host other|Port 1|Host g?te|Port 3", port, 3),
        c("Host !gate *|Port 1", port, 22),
        c("Host !other|Port 1", port, 22),
        c("Host \"gate\" other|Port 4", port, 4),
        c("Host 'gate'|Port 4", port, 4),
        c("host=gate|pORT = 5", port, 5),
        c("Host gate # not other|Port 6 # six", port, 6),
        c("Host gate#1|Port 6", port, 22),
        c("User \"river \\\"w\\\"\"", user, "river \"w\""),
        c("User a\\ b", user, "a b"),
        // Match: all criteria, comma-separated lists, negation.
        c("Match all|Port 7", port, 7),
        c("Match host gate|Port 7", port, 7),
        c("Match host other,g*|Port 7", port, 7),
        c("Match host other|Port 7", port, 22),
        c("Match host *,!gate|Port 7", port, 22),
        c("Match !host other|Port 7", port, 7),
        c("Match host gate user warden|Port 7", port, 22),
        c("User warden|Match host gate user warden|Port 7", port, 7),
        c("Match user warden|Port 7|Match all|User warden", port, 22),
        c("Match user me|Port 8", port, 8),
        c("Match localuser me|Port 8", port, 8),
        c("Match localuser ME|Port 8", port, 22),
        c("HostName far.example|Match host far.example|Port 9", port, 9),
        c("HostName far.example|Match host gate|Port 9", port, 22),
        c("HostName far.example|Match originalhost gate|Port 9", port, 9),
        c("HostName far.example|Host far.example|Port 9", port, 22),
        c("Match exec true|Port 9", port, 22),
        c("Match host=gate|Port 9", port, 9),
        // final: parsed again, and what was obtained first stays.
        c("Match final|Port 9", port, 9),
        c("Match final|Port 9|Match all|Port 8", port, 8),
        c("Match !final|Port 9|Match final all|User late", port, 9),
        c("HostName far.example|Match final host far.example|User late", user, "late"),
        c("HostName far.example|Host far.example|User again|Match final|Port 9", user, "again"),
        c("Host far.example|User again|Match all|HostName far.example", user, null),
        c("Match canonical|Port 9", port, 22),
        c("Match canonical|Port 9|Match final|User late", port, 9),
        // Include: in its block, in lexical order, with glob(7).
        c("Include conf.d/*", port, 2210),
        c("Include conf.d/*", user, "late"),
        c("Host other|Include conf.d/*", port, 22),
        c("Host gate|Include conf.d/20-port", port, 2220),
        c("Host other|Include conf.d/inner/gates", user, null),
        c("Include conf.d/*/g?tes", user, "inner"),
        c("Include conf.d/.h*", user, "hidden"),
        c("Include \"two words\"", user, "spaced"),
        c("Include conf.d/none conf.d/1*", port, 2210),
        c("SendEnv LANG LC_*", unmet, List.of()),
        c("SendEnv LANG TOKEN", unmet, List.of("SendEnv")),
        c("Include ~/.ssh/conf.d/[2-9]*", port, 2220),
        // Tokens, variables and home folders.
        c("HostName %h.example", host, "gate.example"),
        c("HostName 100%%", host, "100%"),
        c("IdentityFile /k/%n-%h-%p-%r|HostName a.b|Port 9|User w", key, "/k/gate-a.b-9-w"),
        c("IdentityFile /k/%u-%i-%L-%l-%%", key, "/k/me-1004-desk-desk.example-%"),
        c("IdentityFile /k/%k|HostKeyAlias known", key, "/k/known"),
        c("IdentityFile /k/%k|HostName other", key, "/k/gate"),
        // printf 'desk.examplegate22me' | sha1sum
        c("IdentityFile /k/%C", key, "/k/43d87a70895626f78442318b04d459a13e9b8d6a"),
        c("IdentityFile ${RIVER}.pem", key, "/keys/river.pem"),
        c("IdentityFile ${ODD}%%", key, "/k/%h%"),
        c("IdentityFile ${MISSING}/k|IdentityFile /k/2", key, "/k/2"),
        c("IdentityFile ~deploy/k", key, "/home/deploy/k"),
        c("IdentityFile ~nobody-there/k", key, ""),
        c("IdentityFile none", key, ""),
        // Jump hosts and commands: whichever is specified first.
        c("ProxyJump warden@a:22,b", jump, List.of("warden@a:22", "b")),
        c("ProxyJump %r@%h-gate|User w|HostName x", jump, List.of("w@x-gate")),
        c("ProxyJump none|Host *|ProxyJump a", jump, List.of()),
        c("ProxyJump a|ProxyCommand nc %h %p", command, null),
        c("ProxyCommand nc %h %p|ProxyJump a", jump, List.of()),
        c("ProxyCommand nc -x \"a b\" %h %p # it|Port 9", command, "nc -x \"a b\" gate 9 # it"),
        c("ProxyCommand none|ProxyJump a", command, null),
        c("ProxyCommand none|ProxyJump a", jump, List.of()),
        // How to sign in.
        c("PubkeyAuthentication no", methods, new ConfiguredHost.Methods(false, false, true)),
        c("IdentityAgent none", methods, new ConfiguredHost.Methods(true, false, true)),
        c("PasswordAuthentication no", methods, ConfiguredHost.Methods.ALL),
        c(
            "PasswordAuthentication no|KbdInteractiveAuthentication false",
            methods,
            new ConfiguredHost.Methods(true, true, false)),
        c(
            "PreferredAuthentications password",
            methods,
            new ConfiguredHost.Methods(false, false, true)),
        c(
            "PreferredAuthentications publickey",
            methods,
            new ConfiguredHost.Methods(true, true, false)),
        // Named where it would change something.
        c(
            "HostKeyAlias a|ForwardAgent no|LocalForward 1 b:2",
            unmet,
            List.of("HostKeyAlias", "LocalForward")),
        c("Host other|HostKeyAlias a", unmet, List.of()),
        c("IdentityAgent /run/agent|UserKnownHostsFile none", unmet, List.of("IdentityAgent")));
  }

  private ClientConfig config(String lines) throws IOException {
    Path file = ssh.resolve("config");
    Files.write(file, List.of(lines.split("\\|")));
    return ClientConfig.read(
        file,
        home.resolve("none"),
        new LocalSide(home, "me", 1004, () -> "desk.example", VARIABLES::get, HOMES::get));
  }

  @ParameterizedTest
  @MethodSource("cases")
  void meansWhatThePageSays(Case one) throws IOException {
    assertThat(one.of.apply(config(one.lines).resolve(one.asked))).isEqualTo(one.is);
  }

  @Test
  void unknownKeywordsAreToldAndThoseToIgnoreAreNot() throws IOException {
    assertThat(config("Colour blue|Port 22").problems())
        .singleElement()
        .asString()
        .contains("colour");
    assertThat(config("IgnoreUnknown Col*,UseKeychain|Colour blue|UseKeychain yes").problems())
        .isEmpty();
  }

  @Test
  void aHostIsKnownByMoreThanItsName() throws IOException {
    ClientConfig config = config("Host *.inner|Port 9|Match host deep|User w|Host *|User x");
    assertThat(config.isAbout("a.inner")).isTrue();
    assertThat(config.isAbout("deep")).isTrue();
    assertThat(config.isAbout("elsewhere")).isFalse();
  }

  /** A new version of OpenSSH brings new ones. */
  @Test
  void everyKeywordOfTheInstalledPageIsKnown() throws IOException {
    Assumptions.assumeTrue(Files.exists(PAGE), "there is no manual page of ssh_config");
    Pattern keyword = Pattern.compile("\\.It Cm ([A-Z][A-Za-z0-9]+)");
    try (BufferedReader lines =
        new BufferedReader(
            new InputStreamReader(
                new GZIPInputStream(Files.newInputStream(PAGE)), StandardCharsets.UTF_8))) {
      List<String> all =
          lines
              .lines()
              .map(keyword::matcher)
              .filter(java.util.regex.Matcher::matches)
              .map(found -> found.group(1))
              .toList();
      assertThat(all).hasSizeGreaterThan(80).allMatch(name -> Keywords.of(name) != null);
    }
  }
}
