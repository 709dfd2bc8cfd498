package zander.suite.rights;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Assumptions;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import zander.core.access.EntryExtras;
import zander.core.access.NewEntries;
import zander.core.change.rights.AccessListChange;
import zander.core.change.rights.AccessListChange.Entry;
import zander.core.connect.Connection;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemotePath;
import zander.core.journal.FileJournal;
import zander.core.journal.Journal;
import zander.core.journal.JournalEntry;
import zander.core.journal.JournalRules;
import zander.core.rights.Rights;
import zander.suite.SystemSshd;

/**
 * What new entries get, as told before, against a shell that makes some; and what else a server's
 * tools tell of an entry.
 *
 * <p>Judged: what new files and folders get, by umask, set-group-ID bit and default list | the
 * kernel, by {@code sh} making some | 60 folders
 */
class NewEntriesTest {
  private static final String ACCOUNT = "zndnew" + System.getProperty("test.fork", "");
  private static final int FOLDERS = 60;

  @TempDir Path top;
  private SystemSshd sshd;
  private Connection own;

  @BeforeEach
  void start() throws Exception {
    Assumptions.assumeTrue(
        SystemSshd.isPossible() && Files.isExecutable(Path.of("/usr/bin/setfacl")),
        "needs openssh-server and acl, and to be root");
    sshd = new SystemSshd(top, List.of(ACCOUNT), List.of());
    own = sshd.open(ACCOUNT);
  }

  @AfterEach
  void stop() throws Exception {
    if (sshd != null) {
      own.close();
      sshd.close();
    }
  }

  private Path there() {
    return top.resolve(ACCOUNT);
  }

  private static String any(Random random, String... from) {
    return from[random.nextInt(from.length)];
  }

  private String asAccount(String script) throws Exception {
    var said = own.script(script);
    assertThat(said.errorText()).isEmpty();
    return new String(said.out(), StandardCharsets.UTF_8);
  }

  @Test
  void newEntriesGetWhatIsTold() throws Exception {
    Random random = new Random(1);
    StringBuilder script = new StringBuilder("cd " + there() + "\n");
    List<String> umasks = new ArrayList<>();
    for (int i = 0; i < FOLDERS; i++) {
      umasks.add(any(random, "0022", "0002", "0077", "0027", "0000"));
      script.append("mkdir d" + i + "; chgrp ").append(any(random, "games", ACCOUNT));
      script.append(" d" + i + "; chmod " + any(random, "0755", "2775", "3777", "0700") + " d" + i);
      if (random.nextBoolean()) {
        script.append("; setfacl -d -m " + any(random, "u::rwx", "u::rw-", "u::r--"));
        script.append("," + any(random, "g::r-x", "g::rwx", "g::---"));
        script.append("," + any(random, "o::---", "o::r-x", "o::rwx"));
        script.append(any(random, "", ",u:games:rwx", ",g:games:rw-,m::r--", ",u:daemon:r--"));
        script.append(" d" + i);
      }
      script.append('\n');
    }
    SystemSshd.run("sh", "-ec", script.toString());
    SystemSshd.run("sh", "-c", "chown " + ACCOUNT + " " + there() + "/d*");
    for (int i = 0; i < FOLDERS; i++) {
      RemotePath in = RemotePath.of(there() + "/d" + i);
      EntryExtras extras = EntryExtras.of(own, in);
      RemoteAttributes is = own.files().look(in);
      int umask = Integer.parseInt(umasks.get(i), 8);
      NewEntries told =
          NewEntries.of(
              new Rights(is.uid(), is.gid(), is.mode()),
              extras.defaults(),
              umask,
              own.whoAmI().uid(),
              own.whoAmI().gids().get(0));
      asAccount("umask " + umasks.get(i) + "; cd " + in + " && : > file && mkdir folder");
      assertThat(List.of(rights(in.child("file")), rights(in.child("folder"))))
          .as(in + " with umask " + umasks.get(i) + ", " + extras.defaults())
          .containsExactly(told.file(), told.folder());
    }
  }

  private Rights rights(RemotePath path) throws Exception {
    RemoteAttributes is = own.files().look(path);
    return new Rights(is.uid(), is.gid(), is.mode());
  }

  @Test
  void moreIsToldOfAnEntry() throws Exception {
    Path program = there().resolve("a program");
    Files.copy(Path.of("/bin/true"), program);
    SystemSshd.run("chown", ACCOUNT, program.toString());
    boolean given =
        new ProcessBuilder("setcap", "cap_net_raw=ep", program.toString()).start().waitFor() == 0;
    EntryExtras extras = EntryExtras.of(own, RemotePath.of(program.toString()));
    assertThat(extras.umask()).isEqualTo(Integer.parseInt(asAccount("umask").strip(), 8));
    assertThat(extras.capabilities()).isEqualTo(given ? "cap_net_raw=ep" : "");
    assertThat(extras.defaults()).isNull();
  }

  @Test
  void listsForNewEntriesAreSetAndPutBack() throws Exception {
    asAccount("mkdir " + there() + "/shared");
    RemotePath shared = RemotePath.of(there() + "/shared");
    String before = SystemSshd.run("getfacl", "-cnp", shared.text());
    try (FileJournal journal =
        new FileJournal(top.resolve("journal"), "lab-box", JournalRules.USUAL)) {
      changeAndPutBack(shared, journal);
    }
    assertThat(SystemSshd.run("getfacl", "-cnp", shared.text())).isEqualTo(before);
  }

  private void changeAndPutBack(RemotePath shared, Journal journal) throws Exception {
    AccessListChange lists = new AccessListChange(own.files(), own, journal);
    int games = own.files().names().gidOf("games").orElseThrow();
    lists.allow(shared, new Entry(true, true, games), 7);
    lists.allow(shared, new Entry(false, true, games), 5);
    assertThat(EntryExtras.of(own, shared).defaults().groups()).containsEntry(games, 7);
    assertThat(SystemSshd.run("getfacl", "-cnp", shared.text()))
        .contains("default:group:" + games + ":rwx", "\ngroup:" + games + ":r-x");
    lists.remove(shared, new Entry(false, true, games));
    for (JournalEntry made : List.copyOf(journal.entries()).subList(0, 3)) {
      lists.putBack(made);
    }
  }
}
