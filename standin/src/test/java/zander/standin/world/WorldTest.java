package zander.standin.world;

import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import java.time.Clock;
import java.util.Map;
import java.util.Set;
import org.assertj.core.api.ThrowableAssert.ThrowingCallable;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import zander.standin.world.PosixError.Errno;

/** The permission and naming rules of POSIX that the rest relies on. */
class WorldTest {
  private static final Caller WARDEN = new Caller(1004, 1004, Set.of(1004, 33));
  private static final Caller OTHER = new Caller(2000, 2000, Set.of(2000));

  private final World world = new World(Clock.systemUTC());

  @BeforeEach
  void start() throws PosixError {
    world.mkdir(Caller.ROOT, "/home", 0755);
    world.mkdir(Caller.ROOT, "/home/w", 0755);
    world.chown(Caller.ROOT, "/home/w", 1004, 1004, false);
    world.mkdir(Caller.ROOT, "/tmp", 0755);
    world.chmod(Caller.ROOT, "/tmp", 01777);
  }

  private static Errno errorOf(ThrowingCallable call) {
    PosixError error = catchThrowableOfType(PosixError.class, call);
    return error == null ? null : error.errno();
  }

  private OpenFile make(Caller caller, String path, int mode) throws PosixError {
    return world.open(caller, path, new World.Open(true, true, true, true, false, mode));
  }

  @Test
  void oneClassOfBitsDecides() throws PosixError {
    make(WARDEN, "/home/w/f", 0077);
    assertThat(errorOf(() -> world.open(WARDEN, "/home/w/f", World.Open.READ)))
        .isEqualTo(Errno.EACCES);
    assertThat(world.open(OTHER, "/home/w/f", World.Open.READ)).isNotNull();
    world.chmod(WARDEN, "/home/w/f", 0604);
    world.chown(WARDEN, "/home/w/f", -1, 33, true);
    Caller group = new Caller(5, 33, Set.of());
    assertThat(errorOf(() -> world.open(group, "/home/w/f", World.Open.READ)))
        .isEqualTo(Errno.EACCES);
  }

  /** acl(5), access check algorithm: the first class that fits decides, behind the mask. */
  @Test
  void aListDecidesForThoseInIt() throws PosixError {
    make(WARDEN, "/home/w/f", 0640);
    world.setList("/home/w/f", new AccessList(4, Map.of(2000, 6), Map.of(33, 2)));
    assertThat(world.stat(WARDEN, "/home/w/f").mode()).isEqualTo(0660);
    Caller group = new Caller(5, 33, Set.of());
    assertThat(world.open(OTHER, "/home/w/f", World.Open.READ)).isNotNull();
    assertThat(world.may(OTHER, "/home/w/f", Access.READ | Access.WRITE)).isTrue();
    assertThat(world.may(group, "/home/w/f", Access.WRITE)).isTrue();
    assertThat(world.may(group, "/home/w/f", Access.READ)).isFalse();
    assertThat(world.may(new Caller(6, 6, Set.of()), "/home/w/f", Access.READ)).isFalse();
    world.chmod(WARDEN, "/home/w/f", 0644);
    assertThat(world.may(OTHER, "/home/w/f", Access.WRITE)).isFalse();
    assertThat(world.may(OTHER, "/home/w/f", Access.READ)).isTrue();
  }

  @Test
  void everyFolderOnTheWayMustBeSearchable() throws PosixError {
    world.mkdir(WARDEN, "/home/w/a", 0700);
    make(WARDEN, "/home/w/a/f", 0644);
    assertThat(errorOf(() -> world.stat(OTHER, "/home/w/a/f"))).isEqualTo(Errno.EACCES);
    world.chmod(WARDEN, "/home/w/a", 0711);
    assertThat(world.stat(OTHER, "/home/w/a/f").isFile()).isTrue();
    assertThat(errorOf(() -> world.list(OTHER, "/home/w/a"))).isEqualTo(Errno.EACCES);
    assertThat(errorOf(() -> world.stat(OTHER, "/home/w/a/f/x"))).isEqualTo(Errno.ENOTDIR);
    assertThat(errorOf(() -> world.stat(WARDEN, "/home/w/" + "n".repeat(256))))
        .isEqualTo(Errno.ENAMETOOLONG);
  }

  @Test
  void stickyFoldersAreForOwners() throws PosixError {
    make(WARDEN, "/tmp/mine", 0666);
    assertThat(errorOf(() -> world.unlink(OTHER, "/tmp/mine"))).isEqualTo(Errno.EPERM);
    assertThat(errorOf(() -> world.rename(OTHER, "/tmp/mine", "/tmp/theirs")))
        .isEqualTo(Errno.EPERM);
    world.unlink(WARDEN, "/tmp/mine");
  }

  @Test
  void renameReplacesInOneStepAndOnlyLikeWithLike() throws PosixError {
    OpenFile open = make(WARDEN, "/home/w/new", 0600);
    open.write(0, "new".getBytes(UTF_8), 0, 3);
    make(WARDEN, "/home/w/old", 0600);
    world.rename(WARDEN, "/home/w/new", "/home/w/old");
    assertThat(world.open(WARDEN, "/home/w/old", World.Open.READ).size()).isEqualTo(3);
    world.mkdir(WARDEN, "/home/w/d", 0755);
    world.mkdir(WARDEN, "/home/w/d/in", 0755);
    assertThat(errorOf(() -> world.rename(WARDEN, "/home/w/old", "/home/w/d")))
        .isEqualTo(Errno.EISDIR);
    assertThat(errorOf(() -> world.rename(WARDEN, "/home/w/d", "/home/w/old")))
        .isEqualTo(Errno.ENOTDIR);
    assertThat(errorOf(() -> world.rename(WARDEN, "/home/w/d", "/home/w/d/in/x")))
        .isEqualTo(Errno.EINVAL);
    world.mkdir(WARDEN, "/home/w/e", 0755);
    assertThat(errorOf(() -> world.rename(WARDEN, "/home/w/e", "/home/w/d")))
        .isEqualTo(Errno.ENOTEMPTY);
  }

  @Test
  void givingAwayIsForRootAndClearsTheSetIdBits() throws PosixError {
    make(WARDEN, "/home/w/f", 0755);
    world.chmod(WARDEN, "/home/w/f", 06755);
    assertThat(errorOf(() -> world.chown(WARDEN, "/home/w/f", 0, -1, true))).isEqualTo(Errno.EPERM);
    assertThat(errorOf(() -> world.chown(WARDEN, "/home/w/f", -1, 7, true))).isEqualTo(Errno.EPERM);
    world.chown(WARDEN, "/home/w/f", -1, 33, true);
    assertThat(world.stat(WARDEN, "/home/w/f").mode()).isEqualTo(0755);
    assertThat(errorOf(() -> world.chmod(OTHER, "/home/w/f", 0777))).isEqualTo(Errno.EPERM);
    assertThat(errorOf(() -> world.setTimes(OTHER, "/home/w/f", 1, 1))).isEqualTo(Errno.EPERM);
  }

  @Test
  void linksAreFollowedFortyTimesAndCounted() throws PosixError {
    make(WARDEN, "/home/w/f", 0644);
    world.symlink(WARDEN, "f", "/home/w/l0");
    for (int i = 1; i <= 45; i++) {
      world.symlink(WARDEN, "l" + (i - 1), "/home/w/l" + i);
    }
    assertThat(world.realPath(WARDEN, "/home/w/l20")).isEqualTo("/home/w/f");
    assertThat(errorOf(() -> world.stat(WARDEN, "/home/w/l45"))).isEqualTo(Errno.ELOOP);
    world.link(WARDEN, "/home/w/f", "/home/w/g");
    assertThat(world.stat(WARDEN, "/home/w/f").links()).isEqualTo(2);
    world.unlink(WARDEN, "/home/w/f");
    assertThat(world.stat(WARDEN, "/home/w/g").links()).isEqualTo(1);
  }

  @Test
  void aFullDiskTakesNothingMoreAndIsFreedByRemoving() throws PosixError {
    OpenFile file = make(WARDEN, "/home/w/f", 0644);
    world.setFree(1000);
    file.write(0, new byte[800], 0, 800);
    assertThat(errorOf(() -> file.write(800, new byte[300], 0, 300))).isEqualTo(Errno.ENOSPC);
    assertThat(world.free()).isEqualTo(200);
    file.write(0, new byte[800], 0, 800);
    assertThat(world.free()).isEqualTo(200);
    world.unlink(WARDEN, "/home/w/f");
    assertThat(world.free()).isEqualTo(1000);
  }
}
