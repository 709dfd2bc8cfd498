package zander.suite;

import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.io.TempDir;
import zander.core.change.place.HoldingFolder;
import zander.core.connect.Connection;
import zander.core.files.RemotePath;
import zander.core.journal.Journal;
import zander.core.transfer.Transfer;
import zander.core.transfer.local.LocalEndpoint;
import zander.core.transfer.remote.RemoteEndpoint;
import zander.core.transfer.rules.ConflictPrompt;
import zander.core.transfer.rules.ConflictRule;
import zander.core.transfer.server.ServerChannels;
import zander.core.work.Cancellation;
import zander.standin.world.Caller;
import zander.standin.world.OpenFile;
import zander.standin.world.World;

/** A folder here, one of the stand-in, and transfers between them. */
abstract class TransferFixture {
  static final String TRIAL = "/home/warden/trial";

  @TempDir Path folder;
  Riverside riverside;
  World world;
  Path local;
  Connection connection;

  @BeforeEach
  void start() throws IOException {
    riverside = new Riverside(folder);
    world = riverside.demo.server("lab-box").machine().world();
    local = Files.createDirectory(folder.resolve("local"));
    connection = riverside.open("lab-box");
  }

  @AfterEach
  void stop() {
    connection.close();
    riverside.close();
  }

  RemoteEndpoint remote() {
    return new RemoteEndpoint(connection.files(), RemotePath.of(TRIAL), Journal.NONE);
  }

  RemoteEndpoint remote(Journal journal) {
    return new RemoteEndpoint(
        ServerChannels.of(connection.files()),
        RemotePath.of(TRIAL),
        journal,
        connection.whoAmI().home());
  }

  Transfer up(ConflictRule rule, ConflictPrompt talk) {
    return new Transfer(new LocalEndpoint(local), remote(), rule, talk, new Cancellation());
  }

  Transfer down(ConflictRule rule, ConflictPrompt talk) {
    return new Transfer(remote(), new LocalEndpoint(local), rule, talk, new Cancellation());
  }

  String there(String path) throws IOException {
    OpenFile file = world.open(Caller.ROOT, TRIAL + "/" + path, World.Open.READ);
    return new String(file.read(0, (int) file.size()), UTF_8);
  }

  void makeThere(String path, String content) throws IOException {
    world
        .open(Caller.ROOT, TRIAL + "/" + path, new World.Open(false, true, true, false, true, 0644))
        .write(0, content.getBytes(UTF_8), 0, content.length());
    world.chown(Caller.ROOT, TRIAL + "/" + path, 1004, 1004, false);
  }

  void assertNoParts() throws IOException {
    assertThat(world.list(Caller.ROOT, TRIAL)).noneMatch(name -> name.contains(".zander-"));
    try (var files = Files.walk(local)) {
      assertThat(files.map(Path::toString)).noneMatch(name -> name.contains(".zander-"));
    }
  }

  int held() throws IOException {
    int held = 0;
    String holding = "/home/warden/" + HoldingFolder.NAME;
    for (String place : world.list(Caller.ROOT, holding)) {
      held += world.list(Caller.ROOT, holding + "/" + place).size();
    }
    return held;
  }
}
