package zander.suite;

import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import java.io.IOException;
import java.lang.reflect.Proxy;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import zander.core.change.save.AtomicSave;
import zander.core.change.save.InPlaceWrite;
import zander.core.change.save.SaveFailure;
import zander.core.connect.Connection;
import zander.core.connect.command.Commands;
import zander.core.connect.command.ExecResult;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFailure.Reason;
import zander.core.files.RemotePath;
import zander.core.files.RemoteWriter;
import zander.core.journal.Journal;
import zander.core.rights.Mode;
import zander.standin.world.Caller;
import zander.standin.world.World;

/** Saves that cannot happen: the old file stays, nothing is left beside it, and it is said why. */
class SaveFailureTest {
  private static final RemotePath CONTACT = RemotePath.of("/srv/levels/site/contact.html");

  @TempDir Path folder;
  private Riverside riverside;
  private World world;
  private Connection connection;
  private AtomicSave saver;

  @BeforeEach
  void start() throws IOException {
    riverside = new Riverside(folder);
    world = riverside.demo.server("levels-web").machine().world();
    connection = riverside.open("levels-web");
    saver = new AtomicSave(connection.files(), connection, Journal.NONE);
  }

  @AfterEach
  void stop() {
    connection.close();
    riverside.close();
  }

  private SaveFailure failToSave(AtomicSave.Opened opened, byte[] content) throws IOException {
    String before = PathContract.read(connection.files(), opened.version().asked());
    SaveFailure failure =
        catchThrowableOfType(
            SaveFailure.class, () -> saver.save(opened.version(), content, List.of()));
    assertThat(failure.state()).isEqualTo(SaveFailure.ServerState.OLD);
    assertThat(failure.leftover()).isNull();
    assertThat(PathContract.read(connection.files(), opened.version().asked())).isEqualTo(before);
    assertThat(world.list(Caller.ROOT, "/srv/levels/site"))
        .noneMatch(name -> name.contains(".zander-"));
    return failure;
  }

  @Test
  void whereTheFolderTakesNoFilesTheFileItselfIsWritten() throws IOException {
    AtomicSave.Opened opened = saver.open(CONTACT, 1 << 20);
    world.chmod(Caller.ROOT, "/srv/levels/site", 0755);
    assertThat(saver.save(opened.version(), "new".getBytes(UTF_8), List.of()).inPlace()).isTrue();
    assertThat(PathContract.read(connection.files(), CONTACT)).isEqualTo("new");
  }

  /** Nobody knows how far a script came that was ended from outside. */
  @Test
  void aScriptThatIsKilledMayHaveWritten() throws IOException {
    Commands killed =
        (Commands)
            Proxy.newProxyInstance(
                Commands.class.getClassLoader(),
                new Class<?>[] {Commands.class},
                (proxy, method, arguments) ->
                    switch (method.getName()) {
                      case "byShellOr" -> ((Commands.Way<?>) arguments[0]).run();
                      case "script" -> new ExecResult(-1, new byte[0], new byte[0]);
                      default -> throw new AssertionError(method);
                    });
    byte[] old = PathContract.read(connection.files(), CONTACT).getBytes(UTF_8);
    RemotePath staged = CONTACT.parent().child("staged");
    try (RemoteWriter writer = connection.files().create(staged, new Mode(0600))) {
      writer.write("new".getBytes(UTF_8), 0, 3);
    }
    InPlaceWrite same = new InPlaceWrite(connection.files(), killed);
    assertThat(same.write(CONTACT, old, staged, "new".getBytes(UTF_8)))
        .isEqualTo(InPlaceWrite.Result.HALF);
  }

  @Test
  void aFolderThatTakesNoFiles() throws IOException {
    AtomicSave.Opened opened = saver.open(CONTACT, 1 << 20);
    world.chmod(Caller.ROOT, "/srv/levels/site", 0755);
    world.chmod(Caller.ROOT, CONTACT.wire(), 0444);
    SaveFailure failure = failToSave(opened, "new".getBytes(UTF_8));
    assertThat(failure.step()).isEqualTo(SaveFailure.Step.CREATE);
    assertThat(((RemoteFailure) failure.getCause()).reason()).isEqualTo(Reason.PERMISSION_DENIED);
  }

  /** Only the answer was lost: what is there is one's own, and not another person's change. */
  @Test
  void ownTextWhoseAnswerWasLostIsNoConflict() throws IOException {
    AtomicSave.Opened opened = saver.open(CONTACT, 1 << 20);
    byte[] lost = "arrived, but nobody was told".getBytes(UTF_8);
    saver.save(opened.version(), lost, List.of());
    assertThat(failToSave(opened, "later".getBytes(UTF_8)).reason())
        .isEqualTo(SaveFailure.Reason.CHANGED_MEANWHILE);
    saver.save(opened.version().orPerhaps(lost), "later".getBytes(UTF_8), List.of());
    assertThat(PathContract.read(connection.files(), CONTACT)).isEqualTo("later");
  }

  @Test
  void aFullDisk() throws IOException {
    AtomicSave.Opened opened = saver.open(CONTACT, 1 << 20);
    world.setFree(100);
    SaveFailure failure = failToSave(opened, new byte[5000]);
    assertThat(((RemoteFailure) failure.getCause()).reason()).isEqualTo(Reason.NO_SPACE);
  }

  @Test
  void aServerThatCannotRenameOverHasTheOldOneMovedAside() throws IOException {
    connection.close();
    riverside.demo.server("levels-web").faults().setPlainProtocol(true);
    connection = riverside.open("levels-web");
    saver = new AtomicSave(connection.files(), connection, Journal.NONE);
    int before = connection.files().list(CONTACT.parent(), part -> {}).size();
    saver.save(saver.open(CONTACT, 1 << 20).version(), "new".getBytes(UTF_8), List.of());
    assertThat(connection.files().readAll(CONTACT, 100)).asString().isEqualTo("new");
    assertThat(connection.files().list(CONTACT.parent(), part -> {})).hasSize(before);
  }

  @Test
  void whatCannotBeOpenedAtAll() throws IOException {
    world.symlink(Caller.ROOT, "round", "/srv/levels/site/round");
    assertThat(openFailure("/srv/levels/site/alerts.html")).isEqualTo(Reason.PERMISSION_DENIED);
    assertThat(openFailure("/srv/levels/site/old-map.html")).isEqualTo(Reason.NO_SUCH_FILE);
    assertThat(openFailure("/srv/levels/site/round")).isEqualTo(Reason.NO_SUCH_FILE);
    assertThat(openFailure("/srv/levels/site/img")).isEqualTo(Reason.NOT_SUPPORTED);
    RemoteFailure large = catchThrowableOfType(RemoteFailure.class, () -> saver.open(CONTACT, 10));
    assertThat(large.reason()).isEqualTo(Reason.TOO_LARGE);
  }

  private Reason openFailure(String path) {
    return catchThrowableOfType(RemoteFailure.class, () -> saver.open(RemotePath.of(path), 1 << 20))
        .reason();
  }

  @Test
  void aSlowServerOnlyTakesLonger() throws IOException {
    riverside.demo.server("levels-web").faults().setDelay(java.time.Duration.ofMillis(5));
    AtomicSave.Opened opened = saver.open(CONTACT, 1 << 20);
    saver.save(opened.version(), "new".getBytes(UTF_8), List.of());
    assertThat(PathContract.read(connection.files(), CONTACT)).isEqualTo("new");
  }
}
