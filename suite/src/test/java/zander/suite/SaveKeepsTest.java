package zander.suite;

import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.Assumptions;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;
import zander.core.change.save.AtomicSave;
import zander.core.change.save.SaveFailure;
import zander.core.change.save.SaveFailure.Reason;
import zander.core.change.save.SaveFailure.ServerState;
import zander.core.connect.Connection;
import zander.core.connect.channel.Elevation;
import zander.core.connect.command.Commands;
import zander.core.files.RemotePath;
import zander.core.journal.FileJournal;
import zander.core.journal.JournalRules;

/**
 * What a file is besides its content, on a real file system, before a save and after it, as the
 * system's own tools tell it: all the same, or nothing was done and it was said.
 *
 * <p>Judged: what a save keeps besides content | {@code stat}, {@code getfacl}, {@code getfattr},
 * {@code getcap}, {@code lsattr} | 67
 */
class SaveKeepsTest {
  private static final String OWNER = "zndkeepowner";
  private static final String EDITOR = "zndkeepeditor";
  private static final byte[] OLD = "max_age 300;\n".repeat(400).getBytes(UTF_8);
  private static final byte[] LONGER = "max_age 900;  # longer\n".repeat(500).getBytes(UTF_8);
  private static final byte[] SHORTER = "max_age 9;\n".getBytes(UTF_8);

  @TempDir static Path folder;
  private static final SystemSudo SUDO = new SystemSudo("keeps");
  private static SystemSshd sshd;
  private static int number;

  /** Who saves. */
  enum Who {
    OWNER_ACCOUNT,
    /** May write by an ACL or its group, and is not the owner. */
    EDITOR_ACCOUNT,
    ROOT,
    /** The same, by the system's own sudo. */
    ROOT_BY_SUDO,
    /** Root, in a folder that others may write to. */
    ROOT_AMONG_OTHERS,
    ROOT_BY_SUDO_AMONG_OTHERS;

    boolean isBySudo() {
      return name().startsWith("ROOT_BY_SUDO");
    }

    boolean isAmongOthers() {
      return name().endsWith("OTHERS");
    }
  }

  /** What must stay. */
  enum What {
    OWNER_AND_MODE("chmod 0660 $f"),
    SET_ID_BITS("chmod 6770 $f"),
    ACL("setfacl -m u:nobody:r,u:" + EDITOR + ":rw $f"),
    ATTRIBUTES("setfattr -n user.note -v kept $f; setfattr -n user.origin -v 0x00ff0a $f"),
    FLAG("chattr +d $f"),
    CAPABILITY("setcap cap_net_raw+ep $f"),
    OTHER_NAME("ln $f $d/elsewhere"),
    MOUNTED("cp -p $f $d/under; mount --bind $d/under $f"),
    GROUP_OF_FOLDER("chgrp " + EDITOR + " $d; chmod 2775 $d"),
    CLOSED_FOLDER("chown root: $d; chmod 0755 $d");

    private final String script;

    What(String script) {
      this.script = script;
    }
  }

  /** How it ends. */
  enum End {
    NEW_FILE,
    SAME_FILE,
    REFUSED
  }

  @BeforeAll
  static void start() throws Exception {
    Assumptions.assumeTrue(SystemSudo.isPossible(), "needs openssh-server, sudo, and to be root");
    sshd = new SystemSshd(folder, List.of(OWNER, EDITOR), List.of());
    SUDO.rule(EDITOR + " ALL=(root) NOPASSWD: ALL");
  }

  @AfterAll
  static void stop() throws Exception {
    SUDO.close();
    if (sshd != null) {
      sshd.close();
    }
  }

  static Stream<Arguments> byTheServersTools() {
    List<Arguments> all = new ArrayList<>();
    for (What what : What.values()) {
      for (Who who : Who.values()) {
        all.add(Arguments.of(who, what, expected(who, what)));
      }
    }
    return all.stream();
  }

  private static End expected(Who who, What what) {
    boolean editor = who == Who.EDITOR_ACCOUNT;
    boolean owner = who == Who.OWNER_ACCOUNT;
    if (who.isAmongOthers()) {
      return switch (what) {
        // Among others, paths are not given to the server's tools, and a name may be a trap.
        case ACL, ATTRIBUTES, FLAG, MOUNTED -> End.SAME_FILE;
        case OTHER_NAME, CAPABILITY -> End.REFUSED;
        default -> End.NEW_FILE;
      };
    }
    return switch (what) {
      case OTHER_NAME, MOUNTED, FLAG -> End.SAME_FILE;
      // Only root may give a new file capabilities, and every write takes those of the old one.
      case CAPABILITY -> owner || editor ? End.REFUSED : End.NEW_FILE;
      case CLOSED_FOLDER -> owner || editor ? End.SAME_FILE : End.NEW_FILE;
      // A write by another than the owner takes the bits, and only the owner could give them back.
      case SET_ID_BITS -> editor ? End.REFUSED : End.NEW_FILE;
      default -> editor ? End.SAME_FILE : End.NEW_FILE;
    };
  }

  private static Path newFile(Who who, What what) throws Exception {
    Assumptions.assumeTrue(
        what != What.FLAG || sh("lsattr -d " + folder + " 2>&1 || true").contains("---"),
        "needs a file system with flags");
    Path place = Files.createDirectory(folder.resolve("case-" + ++number));
    Path file = Files.write(place.resolve("site.conf"), OLD);
    // The editor writes by its group; the folder is open to both.
    sh(
        "f="
            + file
            + " d="
            + place
            + "; chown -R "
            + OWNER
            + ":"
            + EDITOR
            + " $d; chmod 0775 $d; chmod 0664 $f; usermod -aG "
            + EDITOR
            + " "
            + OWNER
            + "; "
            + what.script
            + (who == Who.ROOT || who == Who.ROOT_BY_SUDO
                ? "; chown root: $d; chmod go-w $d"
                : ""));
    return file;
  }

  private static String sh(String script) throws Exception {
    return SystemSshd.run("sh", "-c", script);
  }

  /** All that is not content or time; the folder's entries too. */
  private static String describe(Path file) throws Exception {
    return sh(
        "f="
            + file
            + "; stat -c '%F %u:%g %a %h names' $f; getfacl -cpE $f; getfattr -d -m - -e hex $f"
            + " 2>/dev/null | sed 1d; lsattr $f | cut -c 1-20; getcap $f; ls -A "
            + file.getParent()
            + "; stat -c '%u:%g %a' "
            + file.getParent());
  }

  private static Connection connection(Who who) throws Exception {
    return switch (who) {
      case OWNER_ACCOUNT -> sshd.open(OWNER);
      case EDITOR_ACCOUNT, ROOT_BY_SUDO, ROOT_BY_SUDO_AMONG_OTHERS -> sshd.open(EDITOR);
      case ROOT, ROOT_AMONG_OTHERS -> sshd.open("root");
    };
  }

  @ParameterizedTest
  @MethodSource("byTheServersTools")
  void staysWhatItIs(Who who, What what, End end) throws Exception {
    Path file = newFile(who, what);
    try (Connection own = connection(who);
        Connection acting =
            who.isBySudo() ? own.actAs(new Elevation("root", wrong -> null), "/") : own) {
      saveAll(acting, acting, file, end, what);
    } finally {
      if (what == What.MOUNTED) {
        sh("umount " + file);
      }
    }
  }

  private static void saveAll(
      Connection connection, Commands commands, Path file, End end, What what) throws Exception {
    String before = describe(file);
    try (FileJournal journal =
        new FileJournal(folder.resolve("journal-" + number), "levels-web", JournalRules.USUAL)) {
      AtomicSave saver = new AtomicSave(connection.files(), commands, journal);
      AtomicSave.Opened opened = saver.open(RemotePath.of(file.toString()), 1 << 20);
      if (end == End.REFUSED) {
        SaveFailure refused =
            catchThrowableOfType(
                SaveFailure.class, () -> saver.save(opened.version(), LONGER, List.of()));
        assertThat(refused.reason()).isIn(Reason.METADATA_WOULD_CHANGE, Reason.OWNER_WOULD_CHANGE);
        assertThat(refused.state()).isEqualTo(ServerState.OLD);
        assertThat(Files.readAllBytes(file)).isEqualTo(OLD);
        assertThat(describe(file)).isEqualTo(before);
        return;
      }
      var version = opened.version();
      for (byte[] content : List.of(LONGER, SHORTER, OLD)) {
        AtomicSave.Saved saved = saver.save(version, content, List.of());
        assertThat(saved.inPlace()).isEqualTo(end == End.SAME_FILE);
        assertThat(Files.readAllBytes(file)).isEqualTo(content);
        assertThat(describe(file)).isEqualTo(before);
        if (what == What.OTHER_NAME) {
          assertThat(Files.readAllBytes(file.resolveSibling("elsewhere"))).isEqualTo(content);
        }
        version = saved.version();
      }
      assertThat(journal.entries()).hasSize(3).allMatch(entry -> entry.isDone());
      assertThat(journal.contentBefore(journal.entries().get(2))).isEqualTo(OLD);
    }
  }

  static Stream<Arguments> bySftpAlone() {
    return Stream.of(
        Arguments.of(Who.OWNER_ACCOUNT, What.OWNER_AND_MODE, End.NEW_FILE),
        Arguments.of(Who.EDITOR_ACCOUNT, What.OWNER_AND_MODE, End.SAME_FILE),
        Arguments.of(Who.OWNER_ACCOUNT, What.MOUNTED, End.SAME_FILE),
        Arguments.of(Who.ROOT, What.MOUNTED, End.SAME_FILE),
        Arguments.of(Who.OWNER_ACCOUNT, What.CLOSED_FOLDER, End.SAME_FILE),
        Arguments.of(Who.EDITOR_ACCOUNT, What.CLOSED_FOLDER, End.SAME_FILE),
        Arguments.of(Who.EDITOR_ACCOUNT, What.GROUP_OF_FOLDER, End.SAME_FILE));
  }

  /** Without a shell, as far as SFTP tells of a file. */
  @ParameterizedTest
  @MethodSource
  void bySftpAlone(Who who, What what, End end) throws Exception {
    Path file = newFile(who, what);
    try (Connection own = connection(who)) {
      String before = describe(file);
      AtomicSave saver =
          new AtomicSave(own.files(), new NoShell(), zander.core.journal.Journal.NONE);
      var version = saver.open(RemotePath.of(file.toString()), 1 << 20).version();
      for (byte[] content : List.of(LONGER, SHORTER, new byte[600_000], OLD)) {
        AtomicSave.Saved saved = saver.save(version, content, List.of());
        assertThat(saved.inPlace()).isEqualTo(end == End.SAME_FILE);
        assertThat(Files.readAllBytes(file)).isEqualTo(content);
        assertThat(describe(file)).isEqualTo(before);
        version = saved.version();
      }
    } finally {
      if (what == What.MOUNTED) {
        sh("umount " + file);
      }
    }
  }
}
