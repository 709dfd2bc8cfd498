package zander.desk.model;

import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;
import java.util.function.BooleanSupplier;
import zander.core.book.ServerEntry;
import zander.core.book.SignIn;
import zander.core.change.DeleteTask;
import zander.core.change.RemoteChanges;
import zander.core.connect.Connector;
import zander.core.connect.address.ServerAddress;
import zander.core.files.RemotePath;
import zander.core.trust.KnownHosts;
import zander.core.work.Cancellation;
import zander.desk.file.FileModel;
import zander.desk.work.Background;
import zander.standin.demo.Demo;

/** A program of its own that works without end until {@link KillTest} kills it. */
final class KilledWorker {
  private static final String TRIAL = "/home/warden/trial";
  private static final ExecutorService INTERFACE = Executors.newSingleThreadExecutor();

  /** Higher with each start, so that what an earlier one has left is not taken for this one's. */
  private static final int FIRST = (int) (System.currentTimeMillis() / 1000 % 1_000_000) * 1000;

  private KilledWorker() {}

  private static <T> T on(Callable<T> work) throws Exception {
    return INTERFACE.submit(work).get();
  }

  private static void until(BooleanSupplier condition) throws Exception {
    while (!on(condition::getAsBoolean)) {
      TimeUnit.MILLISECONDS.sleep(5);
    }
  }

  /** Arguments: the folder with everything in it, the server's port, the key's file. */
  public static void main(String[] arguments) throws Exception {
    Path folder = Path.of(arguments[0]);
    int port = Integer.parseInt(arguments[1]);
    Connector connector =
        new Connector(
            new KnownHosts(folder.resolve("known_hosts")),
            address -> List.of(new InetSocketAddress(InetAddress.getLoopbackAddress(), port)),
            null,
            Duration.ofSeconds(20));
    DataFolders places =
        new DataFolders(
            folder.resolve("home"),
            folder.resolve("servers.json"),
            folder.resolve("state"),
            folder.resolve("vault"));
    AppModel app =
        on(() -> new AppModel(new Background(INTERFACE), connector, ModelDesk.prompts(), places));
    ServerEntry entry =
        ServerEntry.of(
                "lab-box",
                new ServerAddress("warden", "lab-box" + Demo.DOMAIN, 22),
                SignIn.byKey(arguments[2]))
            .withPlaces(TRIAL, null, null);
    on(
        () -> {
          app.open(entry);
          return null;
        });
    until(() -> !app.desks().isEmpty());
    DeskModel desk = on(() -> app.desks().get(0));
    on(
        () -> {
          desk.openFile(RemotePath.of(TRIAL + "/index.html"));
          return null;
        });
    until(() -> desk.currentProperty().get() instanceof FileModel);
    Thread watching = new Thread(() -> tellKept(folder), "kept");
    watching.setDaemon(true);
    watching.start();
    work(desk, (FileModel) on(() -> desk.currentProperty().get()));
  }

  private static void work(DeskModel desk, FileModel file) throws Exception {
    RemoteChanges changes = new RemoteChanges(desk.files(), desk.commands(), desk.journal());
    DeleteTask deleting =
        new DeleteTask(desk.files(), desk.commands(), desk.journal(), desk.home());
    String run = Long.toHexString(System.nanoTime());
    for (int round = FIRST; ; round++) {
      String text = "typed " + round + "\n" + "level 2.48\n".repeat(300);
      on(
          () -> {
            file.edited(text);
            return null;
          });
      say("typed " + round);
      RemotePath made = RemotePath.of(TRIAL + "/" + run + "-" + round);
      changes.makeFolders(made, ".");
      changes.makeFile(made.child("a"));
      changes.rename(made.child("a"), made.child("b"));
      changes.copy(
          List.of(RemotePath.of(TRIAL + "/index.html")), made, bytes -> {}, new Cancellation());
      say("did " + desk.journal().entries().size());
      deleting.hold(List.of(made));
      say("did " + desk.journal().entries().size());
      if (round % 7 == 6) {
        on(
            () -> {
              file.save();
              return null;
            });
      }
    }
  }

  /** Says which of the texts that were typed is in a draft by now. */
  private static void tellKept(Path folder) {
    int told = FIRST - 1;
    while (true) {
      try {
        for (String text : KillTest.drafts(folder)) {
          int number = KillTest.numberOf(text);
          if (number > told) {
            told = number;
            say("kept " + number);
          }
        }
      } catch (IOException e) {
        // Just then exchanged for another; the next look reads that.
      }
      LockSupport.parkNanos(TimeUnit.MILLISECONDS.toNanos(50));
    }
  }

  private static void say(String words) {
    System.out.println(words + " " + System.currentTimeMillis());
    System.out.flush();
  }
}
