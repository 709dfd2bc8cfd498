package zander.core.config;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import zander.core.phrase.ConfigPhrase;

/** Cases for the rules of the ssh_config manual page. */
class ClientConfigTest {
  @TempDir Path home;
  private Path ssh;

  @BeforeEach
  void start() throws IOException {
    ssh = Files.createDirectories(home.resolve(".ssh"));
  }

  private ClientConfig read() {
    return ClientConfig.read(ssh.resolve("config"), home.resolve("none"), LocalSide.of(home));
  }

  private ClientConfig config(String... lines) throws IOException {
    Files.write(ssh.resolve("config"), List.of(lines));
    return read();
  }

  @Test
  void theFirstValueCounts() throws IOException {
    ClientConfig config =
        config(
            "Host gate",
            "  Port 2200",
            "  Port 2201",
            "Host *",
            "  Port 22",
            "  User warden",
            "Host gate",
            "  User late");
    ConfiguredHost gate = config.resolve("gate");
    assertThat(gate.port()).isEqualTo(2200);
    assertThat(gate.user()).isEqualTo("warden");
    assertThat(gate.hostName()).isEqualTo("gate");
    assertThat(config.resolve("other").port()).isEqualTo(22);
    assertThat(config.hosts()).containsExactly("gate");
    assertThat(config.problems()).isEmpty();
  }

  @Test
  void whatStandsBeforeAnyHostIsForAll() throws IOException {
    assertThat(config("User warden", "Host a", "User b").resolve("a").user()).isEqualTo("warden");
  }

  @Test
  void readsEveryFormOfALine() throws IOException {
    ClientConfig config =
        config(
            "# a comment",
            "",
            "\tHOST = \"gate\"   lab-box # not a host",
            "hostname=%h.riverwatch.example",
            "Port  =  2200",
            "IdentityFile \"~/my keys/warden\"",
            "IdentityFile ~/.ssh/%r_%n",
            "IdentityFile none",
            "CertificateFile /certs/%%d",
            "User warden",
            "IdentitiesOnly YES",
            "ServerAliveInterval 15",
            "ForwardX11 no");
    ConfiguredHost gate = config.resolve("gate");
    assertThat(gate.hostName()).isEqualTo("gate.riverwatch.example");
    assertThat(gate.port()).isEqualTo(2200);
    assertThat(gate.identityFiles())
        .containsExactly(home.resolve("my keys/warden"), home.resolve(".ssh/warden_gate"));
    assertThat(gate.certificateFiles()).containsExactly(Path.of("/certs/%d"));
    assertThat(gate.identitiesOnly()).isTrue();
    assertThat(gate.keepAliveSeconds()).isEqualTo(15);
    assertThat(config.hosts()).containsExactly("gate", "lab-box");
  }

  @Test
  void patternsAndNegations() throws IOException {
    ClientConfig config =
        config("Host *.example !gate.example", "User warden", "Host lab-?", "User trial");
    assertThat(config.resolve("levels.example").user()).isEqualTo("warden");
    assertThat(config.resolve("GATE.example").user()).isNull();
    assertThat(config.resolve("lab-1").user()).isEqualTo("trial");
    assertThat(config.resolve("lab-12").user()).isNull();
    assertThat(config.resolve("x").user()).isNull();
    assertThat(config.hosts()).isEmpty();
  }

  @Test
  void everyKeyFileCountsInOrder() throws IOException {
    ClientConfig config = config("Host g", "IdentityFile a", "Host *", "IdentityFile b");
    assertThat(config.resolve("g").identityFiles())
        .containsExactly(home.resolve("a"), home.resolve("b"));
  }

  @Test
  void followsIncludesWithWildcardsInTheirBlock() throws IOException {
    Files.createDirectories(ssh.resolve("conf.d"));
    Files.writeString(ssh.resolve("conf.d/10-levels"), "Host levels\n  Port 2200\n");
    Files.writeString(ssh.resolve("conf.d/20-all"), "User fallback\n");
    Files.writeString(ssh.resolve("inner"), "Port 2222\nHost other\nPort 3333\n");
    ClientConfig config =
        config("Include conf.d/*", "Include missing", "Host gate", "Include inner", "User warden");
    assertThat(config.resolve("levels").port()).isEqualTo(2200);
    assertThat(config.resolve("levels").user()).isEqualTo("fallback");
    assertThat(config.resolve("gate").port()).isEqualTo(2222);
    // The block of the file that includes holds for what is included.
    assertThat(config.resolve("other").port()).isEqualTo(22);
    assertThat(config.problems()).isEmpty();
  }

  @Test
  void circlesErrorsAndMatchBlocksAreToldAndTheRestCounts() throws IOException {
    Files.writeString(ssh.resolve("round"), "Include round\nUser warden\n");
    ClientConfig config =
        config(
            "Include round",
            "Port",
            "Host \"open",
            "Match exec \"test -e /nowhere\" host gate",
            "  Port 9",
            "Match all",
            "  ServerAliveInterval 30",
            "Host gate",
            "  Port notanumber",
            "  ProxyJump warden@a.example:2200,b");
    assertThat(config.problems()).hasSize(4);
    assertThat(config.problems().get(0).values()).contains(ConfigPhrase.TOO_DEEP.of());
    assertThat(config.problems().get(1).values()).contains("2");
    assertThat(config.problems().get(2).values())
        .contains("3", ConfigPhrase.QUOTE_OPEN.of("\"open"));
    assertThat(config.problems().get(3).values())
        .contains("4", ConfigPhrase.MATCH_RUNS_A_COMMAND.of());
    ConfiguredHost gate = config.resolve("gate");
    assertThat(gate.user()).isEqualTo("warden");
    assertThat(gate.port()).isEqualTo(22);
    assertThat(gate.keepAliveSeconds()).isEqualTo(30);
    assertThat(gate.proxyJump()).containsExactly("warden@a.example:2200", "b");
  }

  @Test
  void aJumpOfNoneEndsTheSearch() throws IOException {
    ClientConfig config = config("Host gate", "ProxyJump none", "Host *", "ProxyJump gate");
    assertThat(config.resolve("gate").proxyJump()).isEmpty();
    assertThat(config.resolve("store").proxyJump()).containsExactly("gate");
  }

  /** The person's own comes first; what the other includes is beside it. */
  @Test
  void theComputersOwnHoldsAfterThePersons() throws IOException {
    config("Host gate", "Port 2200", "Include more");
    Path system = Files.createDirectories(home.resolve("etc"));
    Files.writeString(ssh.resolve("more"), "User warden\n");
    Files.writeString(system.resolve("more"), "Host inner\nUser deploy\n");
    Files.writeString(
        system.resolve("ssh_config"),
        "Include more\nHost *\nPort 22\nProxyJump relay\nSendEnv LANG LC_*\nSendEnv SECRET\n");
    ClientConfig both =
        ClientConfig.read(ssh.resolve("config"), system.resolve("ssh_config"), LocalSide.of(home));
    assertThat(both.hosts()).containsExactly("gate", "inner");
    assertThat(both.resolve("gate").port()).isEqualTo(2200);
    assertThat(both.resolve("gate").user()).isEqualTo("warden");
    assertThat(both.resolve("gate").proxyJump()).containsExactly("relay");
    assertThat(both.resolve("gate").unmet()).containsExactly("SendEnv");
    assertThat(both.resolve("inner").user()).isEqualTo("deploy");
  }

  @Test
  void noFileNamesNoHosts() {
    assertThat(read().hosts()).isEmpty();
  }

  @Test
  void whatIsWrittenIsReadTheSame() throws IOException {
    List<ConfiguredHost> hosts =
        List.of(
            new ConfiguredHost(
                "levels-web",
                "levels.example",
                2222,
                "warden",
                List.of(Path.of("/home/my \"own\" keys/a%b")),
                List.of(Path.of("/certs/c-cert.pub")),
                true,
                List.of("gate", "deploy@inner.example:2200"),
                15,
                ConfiguredHost.Methods.ALL,
                null,
                List.of()),
            new ConfiguredHost(
                "gate",
                "gate.example",
                22,
                "warden",
                List.of(),
                List.of(),
                false,
                List.of(),
                0,
                ConfiguredHost.Methods.ALL,
                null,
                List.of()));
    ClientConfig config = config(ConfigWriter.write(hosts));
    assertThat(config.problems()).isEmpty();
    assertThat(config.hosts()).containsExactly("levels-web", "gate");
    assertThat(config.hosts().stream().map(config::resolve)).isEqualTo(hosts);
    assertThat(ConfigWriter.alias("levels web (old) *")).isEqualTo("levels-web-(old)-");
  }
}
