package zander.core.book;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import zander.core.connect.ServerAddress;

class ServerBookTest {
  @TempDir Path folder;

  @Test
  void comesBackAsItWasWritten() throws IOException {
    Path file = folder.resolve("config/servers.json");
    assertThat(ServerBook.read(file).servers()).isEmpty();
    ServerEntry entry = ServerEntry.typed(ServerAddress.parse("warden@gate.example:2222"), "key");
    ServerBook.of(List.of(entry)).write(file);
    assertThat(ServerBook.read(file).named("gate.example")).contains(entry);
  }

  @Test
  void leavesADamagedOrNewerFileAlone() throws IOException {
    Path file = folder.resolve("servers.json");
    for (String content :
        new String[] {"{\"version\":1,\"serv", "{\"version\":99,\"servers\":[]}"}) {
      Files.writeString(file, content);
      assertThatThrownBy(() -> ServerBook.read(file)).isInstanceOf(IOException.class);
      assertThat(file).hasContent(content);
    }
  }
}
