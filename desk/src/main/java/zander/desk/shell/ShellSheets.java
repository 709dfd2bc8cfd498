package zander.desk.shell;

import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.function.Supplier;
import zander.core.connect.Connection;
import zander.core.files.RemotePath;
import zander.desk.sheet.OpenDesk;
import zander.desk.words.Words;

/** Opens shells on a desk. What is typed into them goes out on one thread of the desk. */
public final class ShellSheets {
  private static final Words WORDS = Words.of(ShellSheets.class);

  /** What the names of kept shells begin with on the server. */
  private static final String NAME = "zander-";

  private final OpenDesk desk;
  private final Supplier<Connection> connection;
  private final Runnable used;
  private final ExecutorService typing =
      Executors.newSingleThreadExecutor(
          task -> {
            Thread thread = new Thread(task, "typing");
            thread.setDaemon(true);
            return thread;
          });
  private final ShellsBelow below;
  private int count;

  /**
   * @param used run when a command may have changed something
   */
  public ShellSheets(OpenDesk desk, Supplier<Connection> connection, Runnable used) {
    this.desk = desk;
    this.connection = connection;
    this.used = used;
    this.below = new ShellsBelow(this);
  }

  public void open(RemotePath at) {
    desk.openSheets().all().add(new ShellModel(this, WORDS.say("shell", ++count), at, ""));
  }

  /** Opens a shell that the server's tmux keeps, or the one it has kept from before. */
  public void openKept(RemotePath at) {
    int number = 1;
    while (isOpen(NAME + number)) {
      number++;
    }
    String keptAs = NAME + number;
    String title = WORDS.say("keptShell", number);
    desk.openSheets().all().add(new ShellModel(this, title, at, keptAs));
  }

  private boolean isOpen(String keptAs) {
    return desk.openSheets().of(ShellModel.class).stream()
        .anyMatch(shell -> shell.keptAs().equals(keptAs));
  }

  /** Those that share the space below the sheets. */
  public ShellsBelow below() {
    return below;
  }

  OpenDesk desk() {
    return desk;
  }

  Connection connection() {
    return connection.get();
  }

  void used() {
    used.run();
  }

  /** Sends something once all before it was sent; an ended desk sends nothing more. */
  void inOrder(Runnable sending) {
    if (!typing.isShutdown()) {
      typing.execute(sending);
    }
  }

  public void end() {
    typing.shutdown();
  }
}
