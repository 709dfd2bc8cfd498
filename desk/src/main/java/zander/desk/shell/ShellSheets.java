package zander.desk.shell;

import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.function.Supplier;
import zander.core.connect.Connection;
import zander.core.files.RemotePath;
import zander.desk.sheet.OpenDesk;

/** Opens shells on a desk. What is typed into them goes out on one thread of the desk. */
public final class ShellSheets {
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
  private int count;

  /**
   * @param used run when a command may have changed something
   */
  public ShellSheets(OpenDesk desk, Supplier<Connection> connection, Runnable used) {
    this.desk = desk;
    this.connection = connection;
    this.used = used;
  }

  /**
   * @param typed what is typed into it at once
   */
  public void open(RemotePath at, byte[] typed) {
    desk.openSheets().all().add(new ShellModel(this, "Shell " + ++count, at, typed));
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
