package zander.suite;

import static java.nio.charset.StandardCharsets.UTF_8;

import java.io.IOException;
import java.nio.file.Path;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.io.TempDir;
import zander.core.connect.Connection;
import zander.core.connect.address.ServerAddress;
import zander.core.connect.signin.SignInMethods;
import zander.core.files.RemotePath;
import zander.standin.demo.Demo;
import zander.standin.demo.DemoKeys;
import zander.standin.world.Caller;
import zander.standin.world.World;

/** The whole path against the stand-in. */
class StandinPathTest extends PathContract {
  @TempDir static Path folder;
  private static Riverside riverside;
  private static final AtomicInteger NUMBER = new AtomicInteger();

  @BeforeAll
  static void start() throws IOException {
    riverside = new Riverside(folder);
    World world = riverside.demo.server("lab-box").machine().world();
    world.mkdir(Caller.ROOT, "/root/.ssh", 0700);
    byte[] line = DemoKeys.publicLine(DemoKeys.pair("warden"), "warden@desk").getBytes(UTF_8);
    world
        .open(
            Caller.ROOT,
            "/root/.ssh/authorized_keys",
            new World.Open(false, true, true, true, false, 0600))
        .write(0, line, 0, line.length);
  }

  @AfterAll
  static void stop() {
    if (riverside != null) {
      riverside.close();
    }
  }

  @Override
  Connection asUser() throws IOException {
    return riverside.open("lab-box");
  }

  @Override
  Connection asRoot() throws IOException {
    return riverside.connector.open(
        new ServerAddress("root", "lab-box" + Demo.DOMAIN, 22),
        SignInMethods.byKey(riverside.demo.keyFile()),
        TestPrompts.accepting());
  }

  @Override
  RemotePath freshFolder() throws IOException {
    var machine = riverside.demo.server("lab-box").machine();
    Caller warden = machine.accounts().caller(machine.accounts().user("warden").orElseThrow());
    String path = "/home/warden/trial/fresh-" + NUMBER.incrementAndGet();
    machine.world().mkdir(warden, path, 0755);
    return RemotePath.of(path);
  }

  @Override
  int otherUid(Connection connection) {
    return 33_333;
  }
}
