package zander.suite.window;

import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.concurrent.Callable;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import java.util.function.BooleanSupplier;
import javafx.application.Platform;
import javafx.scene.Node;
import javafx.scene.Scene;
import javafx.scene.control.Button;
import javafx.scene.control.PasswordField;
import javafx.stage.Stage;
import zander.core.book.ServerEntry;
import zander.core.book.SignIn;
import zander.core.files.RemotePath;
import zander.desk.Setup;
import zander.desk.ZanderApp;
import zander.desk.file.FileModel;
import zander.desk.model.AppModel;
import zander.desk.model.DataFolders;
import zander.desk.model.DeskModel;
import zander.desk.sheet.Question;
import zander.desk.work.StallProbe;
import zander.suite.SystemSshd;

/** The real window without a display, with a desk on the system's own server. */
public final class OffscreenWindow implements AutoCloseable {
  private static final long PATIENCE = 90;
  private static boolean started;

  public final AppModel model;
  public final StallProbe probe;
  private final SystemSshd server;
  private final Stage stage;
  private final Setup setup;

  public OffscreenWindow(Path folder, SystemSshd server) throws Exception {
    this.server = server;
    startToolkit();
    Path home = Files.createDirectories(folder.resolve("home"));
    setup =
        new Setup(
            new DataFolders(
                home,
                folder.resolve("servers.json"),
                folder.resolve("state"),
                folder.resolve("vault")),
            address ->
                List.of(new InetSocketAddress(InetAddress.getLoopbackAddress(), address.port())),
            null);
    Stage[] made = new Stage[1];
    model =
        on(
            () -> {
              made[0] = new Stage();
              return ZanderApp.open(made[0], setup);
            });
    stage = made[0];
    probe = new StallProbe(Platform::runLater, Duration.ofMillis(200), stall -> {});
  }

  private static synchronized void startToolkit() throws InterruptedException {
    if (!started) {
      started = true;
      CountDownLatch up = new CountDownLatch(1);
      Platform.startup(up::countDown);
      up.await();
      Platform.setImplicitExit(false);
      // All is told by then; a process was aborted while the toolkit's libraries took themselves
      // down.
      Runtime.getRuntime().addShutdownHook(new Thread(() -> Runtime.getRuntime().halt(0)));
    }
  }

  public Scene scene() {
    return stage.getScene();
  }

  /** The person's home on this computer. */
  public Path home() {
    return setup.places().home();
  }

  public <T> T on(Callable<T> work) throws Exception {
    CompletableFuture<T> done = new CompletableFuture<>();
    Platform.runLater(
        () -> {
          try {
            done.complete(work.call());
          } catch (Throwable e) {
            done.completeExceptionally(e);
          }
        });
    return done.get(PATIENCE, TimeUnit.SECONDS);
  }

  public void run(Runnable work) throws Exception {
    on(
        () -> {
          work.run();
          return null;
        });
  }

  /** Waits for a condition, looked at on the interface thread. */
  public void until(String what, BooleanSupplier condition) throws Exception {
    long deadline = System.nanoTime() + TimeUnit.SECONDS.toNanos(PATIENCE);
    while (!on(condition::getAsBoolean)) {
      if (System.nanoTime() > deadline) {
        throw new AssertionError("waited in vain until " + what);
      }
      TimeUnit.MILLISECONDS.sleep(5);
    }
  }

  public Node shown(String selector) throws Exception {
    return on(() -> stage.getScene().lookup(selector));
  }

  /**
   * Opens a desk and trusts its host key.
   *
   * @param port of the server, or of what stands before it
   */
  public DeskModel open(String name, String account, int port, Path there, Path here)
      throws Exception {
    ServerEntry entry =
        ServerEntry.of(
                name,
                new zander.core.connect.address.ServerAddress(account, "127.0.0.1", port),
                SignIn.byKey(server.keyFile().toString()))
            .withPlaces(there.toString(), here.toString(), null);
    return open(entry);
  }

  /** The same of an entry of one's own. */
  public DeskModel open(ServerEntry entry) throws Exception {
    int before = on(() -> model.desks().size());
    run(() -> model.openAnother(entry));
    until(
        "the desk " + entry.name() + " is open",
        () -> {
          Node yes = stage.getScene().lookup("#prompt-yes");
          if (yes instanceof Button button && isSeen(button)) {
            button.fire();
          }
          return model.desks().size() > before && model.currentProperty().get() != null;
        });
    return on(() -> model.currentProperty().get());
  }

  /** On the interface thread: a part of any window if it can be seen, else {@code null}. */
  public static Node seen(String selector) {
    return javafx.stage.Window.getWindows().stream()
        .map(one -> one.getScene().lookup(selector))
        .filter(java.util.Objects::nonNull)
        .findFirst()
        .filter(OffscreenWindow::isSeen)
        .orElse(null);
  }

  /** Gives a password to the question for one. */
  public void giveThePassword(String password) throws Exception {
    until(
        "it is asked for",
        () -> seen("#secret") instanceof PasswordField field && field.getText().isEmpty());
    run(
        () -> {
          ((PasswordField) seen("#secret")).setText(password);
          ((Button) seen("#prompt-yes")).fire();
        });
  }

  /** Acts as root by one's own password and opens a file there. */
  public FileModel openAsRoot(DeskModel desk, RemotePath file, String password) throws Exception {
    run(() -> desk.actAsRoot(file.parent().parent(), root -> {}));
    giveThePassword(password);
    until(
        "it is done as root",
        () -> {
          DeskModel now = model.currentProperty().get();
          return now != null && now.actsAs() != null && now.folder().path() != null;
        });
    DeskModel root = on(() -> model.currentProperty().get());
    run(() -> root.openFile(file));
    until("it is open", () -> root.currentProperty().get() instanceof FileModel);
    return (FileModel) on(() -> root.currentProperty().get());
  }

  /** Waits until a file asks something that has this answer. */
  public Question asked(FileModel file, String choice) throws Exception {
    until(
        choice,
        () -> {
          Question now = file.questionProperty().get();
          return now != null && now.choices().stream().anyMatch(one -> one.words().equals(choice));
        });
    return on(() -> file.questionProperty().get());
  }

  /** Gives this answer once it is asked for. */
  public void choose(FileModel file, String words) throws Exception {
    choose(asked(file, words), words);
  }

  public void choose(Question question, String words) throws Exception {
    run(
        () ->
            question.choices().stream()
                .filter(choice -> choice.words().equals(words))
                .findFirst()
                .orElseThrow()
                .chosen()
                .accept(false));
  }

  private static boolean isSeen(Node node) {
    for (Node at = node; at != null; at = at.getParent()) {
      if (!at.isVisible()) {
        return false;
      }
    }
    return true;
  }

  @Override
  public void close() throws Exception {
    probe.close();
    run(
        () -> {
          stage.hide();
          model.stop();
        });
  }
}
