package zander.suite;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.TreeMap;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Assumptions;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.io.TempDir;
import zander.core.change.save.SaveFailure;
import zander.core.connect.Connection;
import zander.core.files.RemoteFailure;
import zander.core.files.RemotePath;
import zander.suite.HoldingContract.Way;

/**
 * A folder of an account that swaps names and links in it as fast as it can, what must stay as it
 * is outside, and root, who works there meanwhile. {@code -Dhostile.rounds=2000} swaps, or more.
 */
abstract class HostileGround {
  static final int ROUNDS = Integer.getInteger("hostile.rounds", 2000);
  static final String ACCOUNT = "zndmallory";
  static final List<String> NAMES = List.of("a.conf", "b.conf", "c.conf", "large.bin");

  @TempDir Path folder;
  SystemSshd sshd;
  Path victim;
  Path spool;
  Path local;
  WorkBench on;
  int uid;

  @BeforeEach
  void start() throws Exception {
    Assumptions.assumeTrue(SystemSshd.isPossible(), "needs openssh-server, and to be root");
    sshd = new SystemSshd(folder, accounts(), List.of());
    spool = Files.createDirectories(folder.resolve(ACCOUNT).resolve("spool"));
    Path work = Files.createDirectories(spool.resolve("work"));
    victim = Files.createDirectory(folder.resolve("victim"));
    local = Files.createDirectory(folder.resolve("local"));
    fill(work, "theirs ");
    fill(victim, "outside ");
    Files.writeString(victim.resolve("secret"), "for root alone");
    SystemSshd.run("chmod", "-R", "go-rwx", victim.toString());
    SystemSshd.run("chmod", "755", victim.toString(), victim.resolve("tree").toString());
    SystemSshd.run("chown", "-R", ACCOUNT + ":", spool.toString());
    uid = Integer.parseInt(SystemSshd.run("id", "-u", ACCOUNT).strip());
    on = new WorkBench(Way.SHELL, root(), RemotePath.of(work.toString()), folder);
  }

  List<String> accounts() {
    return List.of(ACCOUNT);
  }

  /** A connection as root. */
  Connection root() throws Exception {
    return sshd.open("root");
  }

  static void fill(Path into, String whose) throws IOException {
    Path tree = Files.createDirectories(into.resolve("tree/deep"));
    for (String name : NAMES) {
      Files.writeString(into.resolve(name), whose + name);
      Files.writeString(tree.getParent().resolve(name), whose + name);
      Files.writeString(tree.resolve(name), whose + name);
    }
  }

  @AfterEach
  void stop() throws Exception {
    if (on != null) {
      on.close();
    }
    if (sshd != null) {
      sshd.close();
    }
  }

  /** All that is outside: kind, owner, mode, size, time, target and content. */
  String outside() throws Exception {
    return SystemSshd.run(
        "sh",
        "-c",
        "cd '"
            + victim
            + "' && find . -printf '%p %y %u:%g %m %s %T@ %l\\n' | sort"
            + " && find . -type f -exec sha256sum {} + | sort");
  }

  interface Work {
    /** False when it was refused. */
    boolean run(int round) throws Exception;
  }

  void holdsWhile(Work work) throws Exception {
    assertThat(work.run(0)).as("in peace").isTrue();
    String before = outside();
    TreeMap<String, Integer> refused = new TreeMap<>();
    int done = 0;
    try (SwappingAccount swapping = new SwappingAccount(ACCOUNT, spool, victim, ROUNDS)) {
      for (int round = 1; !swapping.isOver(); round++) {
        try {
          done += work.run(round) ? 1 : 0;
        } catch (RemoteFailure e) {
          refused.merge(e.reason() + " " + e.step(), 1, Integer::sum);
        } catch (SaveFailure e) {
          refused.merge(e.reason() + " " + e.step(), 1, Integer::sum);
        }
      }
    }
    assertThat(outside()).as("done %d times, refused %s", done, refused).isEqualTo(before);
    System.out.printf("hostile account: done %d times, refused %s%n", done, refused);
  }
}
