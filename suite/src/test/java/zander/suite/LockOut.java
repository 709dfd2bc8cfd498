package zander.suite;

import static java.nio.charset.StandardCharsets.UTF_8;

import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.concurrent.CountDownLatch;
import zander.core.change.effect.EffectCommand;
import zander.core.change.effect.ReturnGuard;
import zander.core.change.save.AtomicSave;
import zander.core.connect.Connection;
import zander.core.connect.Connector;
import zander.core.connect.address.ServerAddress;
import zander.core.connect.signin.SignInMethods;
import zander.core.files.RemotePath;
import zander.core.journal.Journal;
import zander.core.trust.KnownHosts;
import zander.core.work.Cancellation;

/**
 * A program that makes a change which locks it out, says so, and waits to be killed: port, known
 * hosts, key, file, new content, command.
 */
final class LockOut {
  static final String DONE = "locked out";
  private static final Duration TIME = Duration.ofSeconds(6);

  private LockOut() {}

  public static void main(String[] words) throws Exception {
    Connector connector =
        new Connector(
            new KnownHosts(Path.of(words[1])),
            address ->
                List.of(new InetSocketAddress(InetAddress.getLoopbackAddress(), address.port())),
            null,
            Duration.ofSeconds(30));
    Connection connection =
        connector.open(
            new ServerAddress("root", "localhost", Integer.parseInt(words[0])),
            SignInMethods.byKey(Path.of(words[2])),
            TestPrompts.accepting());
    RemotePath file = RemotePath.of(words[3]);
    byte[] after = words[4].getBytes(UTF_8);
    EffectCommand effect = new EffectCommand(words[5]);
    ReturnGuard.start(
        connection.files(), connection, new ReturnGuard.Wanted(file, after, effect, TIME));
    AtomicSave saver = new AtomicSave(connection.files(), connection, Journal.NONE);
    saver.save(saver.open(file, 1 << 20).version(), after, List.of());
    effect.run(connection, file, new Cancellation());
    System.out.print(DONE);
    System.out.flush();
    new CountDownLatch(1).await();
  }
}
