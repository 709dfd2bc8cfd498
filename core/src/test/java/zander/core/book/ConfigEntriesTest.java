package zander.core.book;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import zander.core.config.ClientConfig;
import zander.core.connect.signin.Hop;

/** What a configuration says of jump hosts, on the way to a host of it. */
class ConfigEntriesTest {
  @TempDir Path home;
  private ClientConfig config;

  @BeforeEach
  void read() throws IOException {
    Files.createDirectories(home.resolve(".ssh"));
    Files.write(
        home.resolve(".ssh/config"),
        List.of(
            "Host store",
            "HostName 10.0.0.9",
            "ProxyJump deploy@gate:2200,far.inner",
            "Host gate",
            "HostName gate.example",
            "Port 2222",
            "User warden",
            "IdentityFile ~/.ssh/gate",
            "IdentitiesOnly yes",
            "Host *.inner",
            "Port 2244",
            "PasswordAuthentication no",
            "KbdInteractiveAuthentication no",
            "Host lone",
            "ProxyCommand nc %h %p"));
    config = ClientConfig.read(home);
  }

  private ServerEntry entry(String name) {
    return ConfigEntries.entry(config.resolve(name), "me");
  }

  @Test
  void eachJumpHostHasItsOwnBlock() {
    List<Hop> way =
        new JumpRoutes(name -> ConfigEntries.jump(config, name, "me"), home).to(entry("store"));
    assertThat(way)
        .extracting(hop -> hop.address().toString())
        .containsExactly("deploy@gate.example:2200", "me@far.inner:2244", "me@10.0.0.9");
    assertThat(way.get(0).ways().keyFile()).isEqualTo(home.resolve(".ssh/gate"));
    assertThat(way.get(0).ways().agent()).isFalse();
    assertThat(way.get(1).ways().password()).isFalse();
  }

  @Test
  void whatItSaysNothingOfIsNoEntry() {
    assertThat(ConfigEntries.jump(config, "elsewhere", "me")).isNull();
    assertThat(ConfigEntries.jump(config, "[::1]:22", "me")).isNull();
    assertThat(ConfigEntries.jump(config, "ssh://w@gate", "me").address().account()).isEqualTo("w");
  }

  /** Behind another host, the command of this computer would not find it. */
  @Test
  void aCommandIsForTheFirstOnTheWay() {
    JumpRoutes routes = new JumpRoutes(name -> ConfigEntries.jump(config, name, "me"), home);
    assertThat(routes.to(entry("lone")))
        .singleElement()
        .extracting(Hop::command)
        .isEqualTo("nc lone 22");
    assertThat(routes.to(entry("store").withJump(List.of("gate", "lone"))))
        .extracting(Hop::command)
        .containsOnlyNulls();
  }
}
