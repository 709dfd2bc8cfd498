package zander.core.trust;

import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Base64;
import org.junit.jupiter.api.Assumptions;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import zander.core.connect.address.ServerAddress;
import zander.core.trust.KnownHosts.Standing;

/**
 * Judged: {@code known_hosts}, plain and hashed | {@code ssh-keygen -F}, {@code -H} | one of each
 */
class KnownHostsTest {
  private static final ServerAddress LEVELS = ServerAddress.parse("warden@levels.example");
  private static final ServerAddress ODD_PORT = ServerAddress.parse("warden@levels.example:2222");

  @TempDir Path folder;
  private Path file;
  private KnownHosts hosts;

  @BeforeEach
  void start() {
    file = folder.resolve("ssh/known_hosts");
    hosts = new KnownHosts(file);
  }

  private static WireKey key(int seed) {
    byte[] blob = new byte[51];
    byte[] name = "ssh-ed25519".getBytes(UTF_8);
    blob[3] = (byte) name.length;
    System.arraycopy(name, 0, blob, 4, name.length);
    blob[18] = 32;
    blob[20] = (byte) seed;
    return new WireKey("ssh-ed25519", blob);
  }

  private Standing standing(ServerAddress address, WireKey key) throws IOException {
    return hosts.find(address.knownHostsName(), key).standing();
  }

  private void write(String... lines) throws IOException {
    Files.createDirectories(file.getParent());
    Files.write(file, java.util.List.of(lines));
  }

  /** What stands in a line is a pattern: it must vouch for this host alone. */
  @ParameterizedTest
  @ValueSource(
      strings = {"*", "*.levels.example", "levels?", "a,b", "!levels", "two words", "#x", "\u00fc"})
  void noPatternIsWritten(String host) {
    assertThatThrownBy(() -> hosts.remember(host, key(1))).isInstanceOf(IOException.class);
    assertThatThrownBy(() -> hosts.replace(host, key(1))).isInstanceOf(IOException.class);
    assertThat(file).doesNotExist();
  }

  @Test
  void lettersBeyondAsciiAreWrittenAsNamesHaveThem() throws IOException {
    ServerAddress river = ServerAddress.parse("warden@fl\u00fcsse.example");
    hosts.remember(river.knownHostsName(), key(1));
    assertThat(file).content().startsWith("xn--flsse-lva.example ssh-");
    assertThat(standing(river, key(1))).isEqualTo(Standing.KNOWN);
    assertThat(standing(ServerAddress.parse("warden@flusse.example"), key(1)))
        .isEqualTo(Standing.FIRST_CONTACT);
  }

  @Test
  void remembersByHostAndPort() throws IOException {
    assertThat(standing(LEVELS, key(1))).isEqualTo(Standing.FIRST_CONTACT);
    hosts.remember(LEVELS.knownHostsName(), key(1));
    assertThat(standing(LEVELS, key(1))).isEqualTo(Standing.KNOWN);
    assertThat(standing(LEVELS, key(2))).isEqualTo(Standing.CHANGED);
    assertThat(standing(ODD_PORT, key(1))).isEqualTo(Standing.FIRST_CONTACT);
    hosts.remember(ODD_PORT.knownHostsName(), key(2));
    assertThat(file).content().contains("[levels.example]:2222 ssh-ed25519 ");
    assertThat(hosts.typesFor(LEVELS.knownHostsName())).containsExactly("ssh-ed25519");
  }

  @Test
  void keepsWhatOthersWroteAndEndsTheirLastLine() throws IOException {
    Files.createDirectories(file.getParent());
    Files.writeString(file, "# mine\nother.example ssh-ed25519 " + key(9).base64());
    hosts.remember(LEVELS.knownHostsName(), key(1));
    assertThat(Files.readAllLines(file)).hasSize(3).first().isEqualTo("# mine");
    assertThat(standing(ServerAddress.parse("x@other.example"), key(9))).isEqualTo(Standing.KNOWN);
  }

  @Test
  void readsPatternsListsMarkersAndRubbish() throws IOException {
    String line = " ssh-ed25519 " + key(1).base64();
    write(
        "*.example,!gate.example" + line,
        "@cert-authority *" + line.replace(key(1).base64(), key(5).base64()),
        "half a line",
        "bad ssh-ed25519 !!!",
        "wrong.example ssh-rsa " + key(1).base64(),
        "",
        "@unknown x" + line);
    assertThat(standing(LEVELS, key(1))).isEqualTo(Standing.KNOWN);
    assertThat(standing(ServerAddress.parse("x@gate.example"), key(1)))
        .isEqualTo(Standing.FIRST_CONTACT);
    assertThat(standing(LEVELS, key(5))).isEqualTo(Standing.CHANGED);
  }

  @Test
  void aRevokedKeyIsRevokedOnEveryPort() throws IOException {
    write(
        "@revoked * ssh-ed25519 " + key(1).base64(),
        "[levels.example]:2222 ssh-ed25519 " + key(1).base64());
    assertThat(standing(LEVELS, key(1))).isEqualTo(Standing.REVOKED);
    assertThat(standing(ODD_PORT, key(1))).isEqualTo(Standing.REVOKED);
  }

  @Test
  void knowsWhoMayVouchForWhichHost() throws IOException {
    write("@cert-authority *.example ssh-ed25519 " + key(5).base64());
    assertThat(hosts.hasAuthority("levels.example")).isTrue();
    assertThat(hosts.hasAuthority("levels.test")).isFalse();
    assertThat(hosts.isAuthority("levels.example", key(5))).isTrue();
    assertThat(hosts.isAuthority("levels.example", key(6))).isFalse();
    write(
        "@cert-authority *.example ssh-ed25519 " + key(5).base64(),
        "@revoked * ssh-ed25519 " + key(5).base64());
    assertThat(hosts.isAuthority("levels.example", key(5))).isFalse();
  }

  @Test
  void replacesTheKeysOfOneHostAndTouchesNoOtherLine() throws IOException {
    String old = " ssh-ed25519 " + key(1).base64();
    write("# mine", "gate.example,levels.example" + old + " note", "levels.example" + old);
    Files.writeString(file, "*.test" + old, java.nio.file.StandardOpenOption.APPEND);
    hosts.replace("levels.example", key(2));
    assertThat(Files.readAllLines(file))
        .containsExactly(
            "# mine",
            "gate.example" + old + " note",
            "*.test" + old,
            "levels.example ssh-ed25519 " + key(2).base64());
    assertThat(standing(LEVELS, key(2))).isEqualTo(Standing.KNOWN);
    assertThat(standing(LEVELS, key(1))).isEqualTo(Standing.CHANGED);
    assertThat(file.resolveSibling("known_hosts.old")).content().contains("levels.example" + old);
    assertThat(file.getParent()).isDirectoryNotContaining("glob:**.part");
  }

  /** Our lines are found by the system's {@code ssh-keygen}, and its hashed ones by us. */
  @Test
  void agreesWithTheSystemsTool() throws Exception {
    Path tool = Path.of("/usr/bin/ssh-keygen");
    Assumptions.assumeTrue(Files.isExecutable(tool), "needs ssh-keygen");
    Path made = folder.resolve("host");
    run(tool.toString(), "-q", "-t", "ed25519", "-N", "", "-f", made.toString());
    String[] fields = Files.readString(folder.resolve("host.pub")).split(" ");
    WireKey real = new WireKey(fields[0], Base64.getDecoder().decode(fields[1]));
    hosts.remember(ODD_PORT.knownHostsName(), real);
    String found = run(tool.toString(), "-l", "-F", "[levels.example]:2222", "-f", file.toString());
    assertThat(found).contains(real.fingerprint());
    run(tool.toString(), "-H", "-f", file.toString());
    assertThat(file).content().startsWith("|1|");
    assertThat(standing(ODD_PORT, real)).isEqualTo(Standing.KNOWN);
    assertThat(standing(LEVELS, real)).isEqualTo(Standing.FIRST_CONTACT);
    hosts.replace(ODD_PORT.knownHostsName(), key(3));
    assertThat(Files.readString(file)).startsWith("[levels.example]:2222 ").hasLineCount(1);
  }

  private static String run(String... command) throws Exception {
    Process process = new ProcessBuilder(command).redirectErrorStream(true).start();
    String output = new String(process.getInputStream().readAllBytes(), UTF_8);
    assertThat(process.waitFor()).as(output).isZero();
    return output;
  }
}
