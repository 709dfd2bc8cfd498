package zander.suite;

import static java.nio.charset.StandardCharsets.UTF_8;

import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.concurrent.CountDownLatch;
import zander.core.change.effect.EffectCommand;
import zander.core.change.effect.ReturnGuard;
import zander.core.change.save.AtomicSave;
import zander.core.connect.Connection;
import zander.core.files.RemotePath;
import zander.core.journal.Journal;
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
    Connection connection =
        SystemSshd.openFromOutside(
            Integer.parseInt(words[0]), Path.of(words[1]), Path.of(words[2]));
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
