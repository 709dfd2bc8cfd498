package zander.suite;

import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.time.Duration;
import java.util.List;
import java.util.concurrent.Callable;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Assumptions;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import zander.core.change.effect.EffectCommand;
import zander.core.change.effect.GuardRefused;
import zander.core.change.effect.ReturnGuard;
import zander.core.change.save.AtomicSave;
import zander.core.change.save.CheckRefused;
import zander.core.change.save.JointSave;
import zander.core.change.save.NotPutBack;
import zander.core.change.save.SaveFailure;
import zander.core.change.save.StagedCheck;
import zander.core.connect.Connection;
import zander.core.files.RemotePath;
import zander.core.journal.Journal;
import zander.core.work.Cancellation;

/**
 * Changes that could take a service down, or lock out whoever makes them, on the system's own sshd,
 * sudo and nginx.
 */
@Timeout(120)
class SafeChangeTest {
  private static final String ACCOUNT = "zndsafe";
  private static final EffectCommand NOTHING = new EffectCommand("true");

  @TempDir Path folder;
  private SystemSshd sshd;

  @BeforeEach
  void start() throws Exception {
    Assumptions.assumeTrue(SystemSshd.isPossible(), "needs openssh-server, and to be root");
    // Where the tests put what the system does not have.
    String path = "SetEnv PATH=" + folder.resolve("bin") + ":" + System.getenv("PATH");
    sshd = new SystemSshd(folder, List.of(ACCOUNT), List.of(path));
  }

  @AfterEach
  void stop() throws Exception {
    if (sshd != null) {
      sshd.close();
    }
  }

  private static AtomicSave saver(Connection connection) {
    return new AtomicSave(connection.files(), connection, Journal.NONE);
  }

  private static RemotePath at(Path file) {
    return RemotePath.of(file.toString());
  }

  private static AtomicSave.Saved save(AtomicSave saver, Path file, String content)
      throws IOException {
    return saver.save(saver.open(at(file), 1 << 20).version(), content.getBytes(UTF_8), List.of());
  }

  private static ReturnGuard guard(
      Connection connection, Path file, String after, EffectCommand effect, int seconds)
      throws IOException {
    return ReturnGuard.start(
        connection.files(),
        connection,
        new ReturnGuard.Wanted(
            at(file), after.getBytes(UTF_8), effect, Duration.ofSeconds(seconds)));
  }

  private static List<String> held(Path home) throws IOException {
    Path held = home.resolve(".zander-held");
    if (!Files.exists(held)) {
      return List.of();
    }
    try (Stream<Path> all = Files.list(held)) {
      return all.map(path -> path.getFileName().toString()).toList();
    }
  }

  private Path rootHome() {
    return folder.resolve("root-home");
  }

  private static void until(Callable<Boolean> holds) throws Exception {
    long deadline = System.nanoTime() + TimeUnit.SECONDS.toNanos(60);
    while (!holds.call()) {
      assertThat(System.nanoTime()).as("in time").isLessThan(deadline);
      LockSupport.parkNanos(TimeUnit.MILLISECONDS.toNanos(20));
    }
  }

  private static void untilGone(Path home) throws Exception {
    until(() -> held(home).isEmpty());
  }

  /** All of it that a save and its putting back are to leave as it was. */
  private static String facts(Path file) throws Exception {
    return SystemSshd.run("stat", "-c", "%a %u %g %h %s", file.toString())
        + SystemSshd.run("getfacl", "-cn", "--absolute-names", file.toString());
  }

  @Test
  void severalFilesAreSavedAsOneChangeOrNone() throws Exception {
    Assumptions.assumeTrue(NginxOfTheTest.isPossible(), "needs nginx-light");
    try (NginxOfTheTest nginx = new NginxOfTheTest(folder);
        Connection connection = sshd.open("root")) {
      Path site = nginx.site();
      Path names = Files.writeString(site.resolveSibling("names.conf"), "map_hash_max_size 64;\n");
      String siteBefore = Files.readString(site);
      JointSave joint = new JointSave(connection.files(), connection, Journal.NONE);
      List<StagedCheck> whole = List.of(new StagedCheck(nginx.check(), new Cancellation()));
      JointSave.Failure failure =
          catchThrowableOfType(
              JointSave.Failure.class,
              () ->
                  joint.save(
                      List.of(
                          part(connection, site, siteBefore.replace("level 3", "level 5"), ""),
                          part(connection, names, "map_hash_max_sise 64;\n", "")),
                      whole));
      assertThat(failure.part()).as("the file that nginx names").isEqualTo(1);
      assertThat(failure.standing()).isEmpty();
      assertThat(((CheckRefused) failure.getCause().getCause()).line()).hasValue(1);
      assertThat(site).hasContent(siteBefore);
      assertThat(names).hasContent("map_hash_max_size 64;");
      JointSave.Part stale = part(connection, names, "map_hash_max_size 128;\n", "");
      Files.writeString(names, "map_hash_max_size 256;\n");
      failure =
          catchThrowableOfType(
              JointSave.Failure.class,
              () ->
                  joint.save(
                      List.of(
                          part(connection, site, siteBefore.replace("level 3", "level 5"), ""),
                          stale),
                      whole));
      assertThat(failure.part()).isEqualTo(1);
      assertThat(((SaveFailure) failure.getCause()).reason())
          .isEqualTo(SaveFailure.Reason.CHANGED_MEANWHILE);
      assertThat(site).hasContent(siteBefore);
      assertThat(names).hasContent("map_hash_max_size 256;");
      assertThat(
              joint.save(
                  List.of(
                      part(connection, site, siteBefore.replace("level 3", "level 5"), ""),
                      part(connection, names, "map_hash_max_size 512;\n", "grep -q 512 {file}")),
                  whole))
          .hasSize(2);
      assertThat(site).content().contains("level 5");
      assertThat(names).hasContent("map_hash_max_size 512;");
    }
  }

  private static JointSave.Part part(Connection connection, Path file, String content, String check)
      throws IOException {
    return new JointSave.Part(
        saver(connection).open(at(file), 1 << 20).version(),
        content.getBytes(UTF_8),
        new StagedCheck(check, new Cancellation()));
  }

  @Test
  void whatTheWholeDoesNotStandIsPutBackAndWhatItStandsIsServed() throws Exception {
    Assumptions.assumeTrue(NginxOfTheTest.isPossible(), "needs nginx-light");
    try (NginxOfTheTest nginx = new NginxOfTheTest(folder);
        Connection connection = sshd.open("root")) {
      Path site = nginx.site();
      SystemSshd.run("setfacl", "-m", "u:" + ACCOUNT + ":r", site.toString());
      String before = Files.readString(site);
      String facts = facts(site);
      AtomicSave saver =
          saver(connection).tryingAfter(new StagedCheck(nginx.check(), new Cancellation()));
      SaveFailure failure =
          catchThrowableOfType(
              SaveFailure.class, () -> save(saver, site, before.replace("return", "retrun")));
      assertThat(failure.reason()).isEqualTo(SaveFailure.Reason.CHECK_REFUSED);
      assertThat(failure.state()).isEqualTo(SaveFailure.ServerState.OLD);
      CheckRefused refused = (CheckRefused) failure.getCause();
      assertThat(refused.said()).contains("unknown directive \"retrun\"");
      assertThat(refused.line()).hasValue(4);
      assertThat(site).hasContent(before);
      assertThat(facts(site)).isEqualTo(facts);
      assertThat(nginx.page()).isEqualTo("level 3");
      save(saver, site, before.replace("level 3", "level 4"));
      assertThat(nginx.page()).isEqualTo("level 3");
      EffectCommand.Effect effect =
          new EffectCommand(nginx.reload()).run(connection, at(site), new Cancellation());
      assertThat(effect.worked()).as(effect.said()).isTrue();
      until(() -> nginx.page().equals("level 4"));
      assertThat(facts(site)).isEqualTo(facts);
    }
  }

  /** The check is not there, or is stopped: what was not tried does not count either. */
  @Test
  void whatCannotBeTriedIsPutBackToo() throws Exception {
    Path file = Files.writeString(folder.resolve("site.conf"), "level 3\n");
    try (Connection connection = sshd.open("root")) {
      AtomicSave saver =
          saver(connection).tryingAfter(new StagedCheck("no-such-program -t", new Cancellation()));
      SaveFailure failure =
          catchThrowableOfType(SaveFailure.class, () -> save(saver, file, "level 4\n"));
      assertThat(((CheckRefused) failure.getCause()).isMissing()).isTrue();
      assertThat(file).hasContent("level 3\n");
    }
  }

  /** Also where the save itself was allowed to replace what another had written. */
  @Test
  void whatAnotherWroteMeanwhileIsNotPutBackOver() throws Exception {
    Path file = Files.writeString(folder.resolve("site.conf"), "level 3\n");
    try (Connection connection = sshd.open("root")) {
      AtomicSave saver =
          saver(connection)
              .tryingAfter(new StagedCheck("echo theirs > {file}; exit 1", new Cancellation()));
      var opened = saver.open(at(file), 1 << 20).version();
      Files.writeString(file, "others\n");
      NotPutBack stands =
          catchThrowableOfType(
              NotPutBack.class,
              () ->
                  saver.save(
                      opened,
                      "level 4\n".getBytes(UTF_8),
                      List.of(AtomicSave.Allow.REPLACE_OTHERS_CHANGE)));
      assertThat(((SaveFailure) stands.getCause()).reason())
          .isEqualTo(SaveFailure.Reason.CHANGED_MEANWHILE);
      assertThat(stands.refused()).isInstanceOf(CheckRefused.class);
      assertThat(new String(stands.saved().replaced(), UTF_8)).isEqualTo("others\n");
      assertThat(file).hasContent("theirs\n");
    }
  }

  @Test
  void aServiceThatDoesNotStandItIsSeenAfterItWasRead() throws Exception {
    Path bin = Files.createDirectory(folder.resolve("bin"));
    Path state = Files.writeString(folder.resolve("state"), "active\n");
    // systemd cannot run here; what it answers is in a file.
    Path systemctl =
        Files.writeString(
            bin.resolve("systemctl"),
            "#!/bin/sh\ncase $1 in reload) echo failed > '"
                + state
                + "';; is-active) cat '"
                + state
                + "';; status) echo 'levelsd: no level';; esac\n");
    Files.setPosixFilePermissions(systemctl, PosixFilePermissions.fromString("rwxr-xr-x"));
    Path file = Files.writeString(folder.resolve("site.conf"), "level 3\n");
    try (Connection connection = sshd.open("root")) {
      EffectCommand.Effect effect =
          new EffectCommand("systemctl reload levelsd")
              .run(connection, at(file), new Cancellation());
      assertThat(effect)
          .isEqualTo(new EffectCommand.Effect(false, "levelsd: no level", "levelsd", "failed"));
      Files.writeString(state, "active\n");
      effect =
          new EffectCommand("service levelsd start || systemctl start levelsd")
              .run(connection, at(file), new Cancellation());
      assertThat(effect.worked()).isTrue();
      assertThat(effect.state()).isEqualTo("active");
    }
  }

  /** The account is locked out, and its client killed: the server alone brings it back. */
  @Test
  void aLockOutIsOverByItselfInTheTimeThatWasSet() throws Exception {
    Path config = folder.resolve("sshd_config");
    String before = Files.readString(config);
    String after = "DenyUsers root\n" + before;
    EffectCommand reload = new EffectCommand("kill -HUP " + sshd.processId());
    String facts = facts(config);
    Process client =
        new ProcessBuilder(
                Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                "-cp",
                System.getProperty("java.class.path"),
                LockOut.class.getName(),
                String.valueOf(sshd.port()),
                folder.resolve("known_hosts").toString(),
                sshd.keyFile().toString(),
                config.toString(),
                after,
                reload.command())
            .redirectErrorStream(true)
            .start();
    assertThat(new String(client.getInputStream().readNBytes(LockOut.DONE.length()), UTF_8))
        .isEqualTo(LockOut.DONE);
    assertThat(config).hasContent(after);
    client.destroyForcibly();
    client.waitFor();
    until(() -> !letsIn());
    until(this::letsIn);
    assertThat(config).hasContent(before);
    assertThat(facts(config)).isEqualTo(facts);
    untilGone(rootHome());
  }

  private boolean letsIn() {
    try (Connection connection = sshd.open("root")) {
      return connection.isOpen();
    } catch (IOException e) {
      return false;
    }
  }

  @Test
  void whatIsKeptByANewSignInStaysAndNothingIsLeft() throws Exception {
    Path file = Files.writeString(folder.resolve("site.conf"), "level 3\n");
    try (Connection connection = sshd.open("root")) {
      ReturnGuard guard = guard(connection, file, "level 4\n", NOTHING, 60);
      save(saver(connection), file, "level 4\n");
      try (Connection fresh = sshd.open("root")) {
        assertThat(guard.keep(fresh.files())).isTrue();
        assertThat(guard.awaitEnd(fresh.files())).isTrue();
        assertThat(guard.keep(fresh.files())).isFalse();
      }
      assertThat(file).hasContent("level 4\n");
      assertThat(held(rootHome())).isEmpty();
    }
  }

  @Test
  void itReturnsAtOnceWhenItIsToldAndNotOverWhatAnotherWrote() throws Exception {
    Path file = Files.writeString(folder.resolve("it's\nsite.conf"), "level 3\n");
    Files.createLink(folder.resolve("other name"), file);
    Path ran = folder.resolve("ran");
    EffectCommand effect = new EffectCommand("cat {file} >> '" + ran + "'");
    try (Connection connection = sshd.open("root")) {
      ReturnGuard guard = guard(connection, file, "level 40000\n", effect, 60);
      save(saver(connection), file, "level 40000\n");
      Object key = Files.getAttribute(file, "unix:ino");
      assertThat(guard.takeBack(connection.files())).isTrue();
      assertThat(file).hasContent("level 3\n");
      assertThat(Files.getAttribute(file, "unix:ino")).isEqualTo(key);
      assertThat(ran).hasContent("level 3\n");
      ReturnGuard later = guard(connection, file, "level 5\n", effect, 1);
      save(saver(connection), file, "level 5\n");
      Files.writeString(file, "another's\n");
      assertThat(later.awaitEnd(connection.files())).isTrue();
      assertThat(file).hasContent("another's\n");
      assertThat(ran).hasContent("level 3\n");
      assertThat(held(rootHome())).isEmpty();
    }
  }

  /** By an account that may write the file, but could not give it its owner back. */
  @Test
  void theOwnerStaysWhereTheAccountCouldNotGiveItBack() throws Exception {
    Path home = folder.resolve(ACCOUNT);
    Path file = Files.writeString(home.resolve("site.conf"), "level 3\n");
    SystemSshd.run("chown", "root:" + ACCOUNT, file.toString());
    Files.setPosixFilePermissions(file, PosixFilePermissions.fromString("rw-rw-r--"));
    String facts = facts(file);
    try (Connection connection = sshd.open(ACCOUNT)) {
      ReturnGuard guard = guard(connection, file, "level 4\n", NOTHING, 60);
      save(saver(connection), file, "level 4\n");
      assertThat(facts(file)).isEqualTo(facts);
      assertThat(guard.takeBack(connection.files())).isTrue();
    }
    assertThat(file).hasContent("level 3\n");
    assertThat(facts(file)).isEqualTo(facts);
    assertThat(held(home)).isEmpty();
  }

  @Test
  void whereOthersCouldTurnThePathItIsRefused() throws Exception {
    Path open = Files.createDirectory(folder.resolve("open"));
    Files.setPosixFilePermissions(open, PosixFilePermissions.fromString("rwxrwxrwx"));
    Path file = Files.writeString(open.resolve("site.conf"), "level 3\n");
    try (Connection connection = sshd.open("root")) {
      assertThatThrownBy(() -> guard(connection, file, "level 4\n", NOTHING, 60))
          .isInstanceOf(GuardRefused.class);
    }
    assertThat(held(rootHome())).isEmpty();
  }
}
