package zander.desk.model;

import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.concurrent.Callable;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.BooleanSupplier;
import zander.core.book.ServerEntry;
import zander.core.book.SignIn;
import zander.core.connect.Connector;
import zander.core.connect.address.ServerAddress;
import zander.core.connect.signin.SignInPrompt;
import zander.core.trust.KnownHosts;
import zander.core.trust.WireKey;
import zander.desk.file.FileModel;
import zander.desk.reach.KeepSecret;
import zander.desk.reach.Prompts;
import zander.desk.sheet.Question;
import zander.desk.sheet.Sheet;
import zander.desk.work.Background;
import zander.standin.demo.Demo;
import zander.standin.server.Relay;

/**
 * The program without its window, over a line to lab-box that a test can cut: the models on a
 * thread of their own in the place of the interface's.
 */
final class ModelDesk implements AutoCloseable {
  private static final long PATIENCE = 60;

  final Demo demo;
  final Relay relay;
  final AppModel app;
  final AcceptingPrompts prompts = new AcceptingPrompts();
  private final Connector connector;
  private final ExecutorService interfaceThread = Executors.newSingleThreadExecutor();

  ModelDesk(Path folder) throws Exception {
    demo = Demo.start(folder.resolve("home"));
    relay = new Relay(demo.server("lab-box").port());
    connector =
        new Connector(
            new KnownHosts(folder.resolve("known_hosts")),
            address ->
                List.of(new InetSocketAddress(InetAddress.getLoopbackAddress(), relay.port())),
            null,
            Duration.ofSeconds(20));
    DataFolders places =
        new DataFolders(
            folder.resolve("home"),
            folder.resolve("servers.json"),
            folder.resolve("state"),
            folder.resolve("vault"));
    app = on(() -> new AppModel(new Background(interfaceThread), connector, prompts, places));
  }

  interface Work<T> extends Callable<T> {}

  /** Somebody who trusts the host key, and has at most one secret to give. */
  static final class AcceptingPrompts implements Prompts {
    volatile String secret;
    final AtomicInteger asked = new AtomicInteger();

    @Override
    public void hostKey(ServerAddress address, WireKey shown, CompletableFuture<Boolean> answer) {
      answer.complete(true);
    }

    @Override
    public void command(ServerAddress address, String command, CompletableFuture<Boolean> answer) {
      answer.complete(false);
    }

    @Override
    public void secret(Ask ask, CompletableFuture<Given> answer) {
      asked.incrementAndGet();
      String given = secret;
      answer.complete(given == null ? null : new Given(given.toCharArray(), KeepSecret.NOW));
    }

    @Override
    public void questions(
        SignInPrompt.Challenge challenge, String detail, CompletableFuture<List<char[]>> answer) {
      answer.complete(null);
    }
  }

  static Prompts prompts() {
    return new AcceptingPrompts();
  }

  /** A connection of its own to lab-box, for looking at it. */
  zander.core.connect.Connection connect() throws java.io.IOException {
    return connector.open(
        new ServerAddress("warden", "lab-box" + Demo.DOMAIN, 22),
        zander.core.connect.signin.SignInMethods.byKey(demo.keyFile()),
        new SignInPrompt() {
          @Override
          public boolean isHostKeyRight(ServerAddress address, WireKey shown) {
            return true;
          }

          @Override
          public char[] passphrase(Path keyFile, int wrong) {
            return null;
          }

          @Override
          public char[] password(ServerAddress address, int wrong) {
            return null;
          }
        });
  }

  <T> T on(Work<T> work) throws Exception {
    return interfaceThread.submit(work).get(PATIENCE, TimeUnit.SECONDS);
  }

  void until(String what, BooleanSupplier condition) throws Exception {
    long deadline = System.nanoTime() + TimeUnit.SECONDS.toNanos(PATIENCE);
    while (!on(condition::getAsBoolean)) {
      if (System.nanoTime() > deadline) {
        throw new AssertionError("waited in vain until " + what + "; " + on(this::where));
      }
      TimeUnit.MILLISECONDS.sleep(10);
    }
  }

  /** Where things stand, for a failure's words. */
  private String where() {
    StringBuilder text = new StringBuilder();
    Question ofKept = app.kept().questionProperty().get();
    text.append(ofKept == null ? "" : "kept: " + ofKept.said() + "; ");
    for (DeskModel desk : app.desks()) {
      text.append("line: ").append(desk.line().wordsProperty().get());
      for (Sheet sheet : desk.sheets()) {
        text.append("; ").append(sheet.titleProperty().get());
        text.append(sheet instanceof FileModel file && file.busyProperty().get() ? " busy" : "");
        Question asked = sheet.questionProperty().get();
        text.append(asked == null ? "" : ": " + asked.said());
      }
    }
    return text.toString();
  }

  DeskModel openLabBox(String landing, Path local) throws Exception {
    ServerEntry entry =
        ServerEntry.of(
                "lab-box",
                new ServerAddress("warden", "lab-box" + Demo.DOMAIN, 22),
                SignIn.byKey(demo.keyFile().toString()))
            .withPlaces(landing, local == null ? null : local.toString(), null);
    on(
        () -> {
          app.open(entry);
          return null;
        });
    until("the desk is open", () -> !app.desks().isEmpty());
    return on(() -> app.desks().get(0));
  }

  @Override
  public void close() throws Exception {
    on(
        () -> {
          app.stop();
          return null;
        });
    interfaceThread.shutdownNow();
    relay.close();
    demo.close();
  }
}
