package zander.core.connect.address;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import zander.core.connect.command.ShellWords;
import zander.core.files.RemotePath;
import zander.core.files.WireName;

class ServerAddressTest {
  @Test
  void readsWhatPeopleType() {
    assertThat(ServerAddress.parse(" warden@levels.example "))
        .isEqualTo(new ServerAddress("warden", "levels.example", 22));
    assertThat(ServerAddress.parse("warden@10.0.0.1:2222").port()).isEqualTo(2222);
    assertThat(ServerAddress.parse("sftp://warden@gate.example:22/").host())
        .isEqualTo("gate.example");
    ServerAddress six = ServerAddress.parse("warden@[2001:db8::7]:2200");
    assertThat(six.host()).isEqualTo("2001:db8::7");
    assertThat(six.toString()).isEqualTo("warden@[2001:db8::7]:2200");
  }

  @ParameterizedTest
  @ValueSource(
      strings = {"", "warden", "@host", "warden@", "a@b@c", "a@b:0", "a@b:70000", "a@b:x", "a b@c"})
  void refusesTheRest(String typed) {
    assertThatThrownBy(() -> ServerAddress.parse(typed))
        .isInstanceOf(IllegalArgumentException.class);
  }

  @Test
  void quotesAnyPathForAShell() {
    assertThat(ShellWords.quote(RemotePath.of("/a 'b' $HOME"))).isEqualTo("'/a '\\''b'\\'' $HOME'");
    assertThat(WireName.bytes(ShellWords.quote("ü"))).hasSize(4);
  }
}
