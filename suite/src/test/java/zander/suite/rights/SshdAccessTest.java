package zander.suite.rights;

import static java.nio.charset.StandardCharsets.ISO_8859_1;
import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.TreeSet;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Assumptions;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import zander.core.access.AccessChain;
import zander.core.access.AccessReader;
import zander.core.access.Cure;
import zander.core.access.CureChange;
import zander.core.access.Cures;
import zander.core.access.Deed;
import zander.core.access.PathFacts;
import zander.core.change.PutBack;
import zander.core.change.RightsChange;
import zander.core.change.rights.AccessListChange;
import zander.core.connect.Connection;
import zander.core.connect.command.ShellWords;
import zander.core.files.RemotePath;
import zander.core.files.WireName;
import zander.core.journal.FileJournal;
import zander.core.journal.JournalRules;
import zander.core.rights.AccessList.Answer;
import zander.core.rights.AccessList.Asker;
import zander.suite.SystemSshd;

/**
 * Who can read, write, run and remove what, as the kernel answers it to a process of that account
 * that tries.
 *
 * <p>Judged: who can read, write, run and remove an entry, with lists, sticky folders, links and
 * mounts; what would let them, and whom else | the kernel, to a process of that account that tries
 * | 3,552 and 40 cures ({@code access.entries}, {@code access.cured})
 */
@Timeout(value = 900, unit = TimeUnit.SECONDS)
class SshdAccessTest {
  private static final int ENTRIES = Integer.getInteger("access.entries", 220);
  private static final int CURED = Integer.getInteger("access.cured", 40);
  private static final String FORK = System.getProperty("test.fork", "");
  private static final String OWNER = "zndholder" + FORK;
  private static final String MEMBER = "zndmate" + FORK;
  private static final String STRANGER = "zndguest" + FORK;
  private static final List<String> ACCOUNTS = List.of("root", OWNER, MEMBER, STRANGER);

  /** Tries all, and says in letters what could be done. */
  private static final String TRY =
      """
      use filetest 'access';
      while (my $p = <STDIN>) {
        chomp $p; $p =~ s/%(..)/chr hex $1/ge;
        my $d = -d $p;
        my $w = $d ? (mkdir("$p/.try") && rmdir("$p/.try")) : -w $p;
        my $x = -x $p;
        my $m = rename($p, "$p.moved") && rename("$p.moved", $p);
        print((-r $p ? 'r' : '-'), ($w ? 'w' : '-'), ($x ? 'x' : '-'), ($m ? 'd' : '-'), "\\n");
      }
      """;

  @TempDir Path top;
  private SystemSshd sshd;
  private Connection root;

  @BeforeEach
  void start() throws Exception {
    Assumptions.assumeTrue(
        SystemSshd.isPossible()
            && Files.isExecutable(Path.of("/usr/bin/setfacl"))
            && Files.isExecutable(Path.of("/usr/bin/perl")),
        "needs openssh-server, acl and perl, and to be root");
    Path still = Files.createDirectories(top.resolve("tree/still"));
    Path runs = Files.createDirectories(top.resolve("tree/runs"));
    sshd =
        new SystemSshd(
            top,
            ACCOUNTS.subList(1, 4),
            List.of(),
            "mount -t tmpfs none " + still + "; mount -t tmpfs -o noexec none " + runs);
    SystemSshd.run("usermod", "-a", "-G", STRANGER, MEMBER);
    root = sshd.open("root");
  }

  @AfterEach
  void stop() throws Exception {
    if (sshd != null) {
      root.close();
      SystemSshd.run("gpasswd", "-d", MEMBER, STRANGER);
      sshd.close();
    }
  }

  private static String any(Random random, String... from) {
    return from[random.nextInt(from.length)];
  }

  private void script(String script) throws Exception {
    assertThat(root.script(WireName.fromText("set -e\n" + script)).errorText()).isEmpty();
  }

  /** Makes entries of all kinds of rights, in the tree and on what is mounted in it. */
  private List<RemotePath> make(Random random) throws Exception {
    Path tree = top.resolve("tree");
    List<String> folders = new ArrayList<>(List.of("", "/still", "/runs"));
    List<String> all = new ArrayList<>(List.of("/still", "/runs"));
    StringBuilder script = new StringBuilder("cd " + tree + "\n");
    StringBuilder rights = new StringBuilder();
    for (int i = 0; i < ENTRIES; i++) {
      String path =
          folders.get(random.nextInt(folders.size())) + "/" + any(random, "a b", "n", "é") + i;
      String quoted = "'." + path + "'";
      String existing = all.get(random.nextInt(all.size()));
      all.add(path);
      switch (random.nextInt(6)) {
        case 0, 1 -> {
          folders.add(path);
          script.append("mkdir ").append(quoted).append('\n');
          rights.insert(0, rights(random, quoted));
        }
        case 2 -> {
          String to = tree + existing;
          script.append("ln -s '").append(to).append("' ").append(quoted).append('\n');
          script.append("chown -h ").append(any(random, OWNER, MEMBER, "root"));
          script.append(' ').append(quoted).append('\n');
        }
        default -> {
          script.append(": > ").append(quoted).append('\n');
          rights.insert(0, rights(random, quoted));
        }
      }
    }
    script(script.toString() + rights + "chmod 755 .; mount -o remount,ro " + tree + "/still\n");
    return all.stream().map(path -> RemotePath.of(tree + path)).toList();
  }

  private static String rights(Random random, String name) {
    String owner = any(random, "root", OWNER, MEMBER) + ":" + any(random, "root", OWNER, STRANGER);
    int mode = random.nextInt(3) == 0 ? random.nextInt(01000) : random.nextInt(01000) | 0551;
    int sticky = random.nextInt(3) == 0 ? 01002 : 0;
    String rights = String.format("chown %s %s\nchmod %05o %s\n", owner, name, mode | sticky, name);
    if (random.nextInt(4) != 0) {
      return rights;
    }
    String entry = any(random, "u:" + STRANGER, "g:" + STRANGER, "u:" + MEMBER, "g:" + OWNER);
    String mask = random.nextBoolean() ? ",m::" + any(random, "r--", "rwx", "--x", "---") : "";
    return rights
        + "setfacl -m "
        + entry
        + ":"
        + any(random, "r--", "rwx", "--x", "rw-", "-wx")
        + mask
        + " "
        + name
        + "\n";
  }

  private Map<RemotePath, String> tried(String account, List<RemotePath> paths) throws Exception {
    StringBuilder list = new StringBuilder();
    for (RemotePath path : paths) {
      for (byte b : path.wire().getBytes(ISO_8859_1)) {
        list.append(String.format("%%%02x", b));
      }
      list.append('\n');
    }
    Path asked = Files.writeString(top.resolve("asked"), list);
    Path program = Files.writeString(top.resolve("try.pl"), TRY);
    String as = account.equals("root") ? "" : "runuser -u " + account + " -- ";
    String said =
        new String(
            root.script("cd /; " + as + "perl " + program + " < " + asked).out(), ISO_8859_1);
    Map<RemotePath, String> could = new HashMap<>();
    List<String> lines = said.lines().toList();
    assertThat(lines).hasSize(paths.size());
    for (int i = 0; i < paths.size(); i++) {
      could.put(paths.get(i), lines.get(i));
    }
    return could;
  }

  private Asker asker(String account) {
    var names = root.files().names();
    return new Asker(
        names.uidOf(account).orElseThrow(),
        account.equals("root") ? Set.of(0) : names.groupsOf(account));
  }

  private static String told(PathFacts facts, Asker asker) {
    StringBuilder told = new StringBuilder();
    Map<Deed, String> letters = new EnumMap<>(Deed.class);
    letters.put(Deed.READ, "r");
    letters.put(Deed.WRITE, "w");
    letters.put(Deed.RUN, "x");
    letters.put(Deed.DELETE, "d");
    for (Deed deed : Deed.values()) {
      Answer answer = AccessChain.of(facts, asker, deed).answer();
      told.append(answer == Answer.YES ? letters.get(deed) : answer == Answer.NO ? "-" : "?");
    }
    return told.toString();
  }

  @Test
  void itIsWhatTheKernelLetsThemDo() throws Exception {
    List<RemotePath> paths = make(new Random(77));
    AccessReader reader = new AccessReader(root.files(), root);
    Map<String, Map<RemotePath, String>> kernel = new HashMap<>();
    for (String account : ACCOUNTS) {
      kernel.put(account, tried(account, paths));
    }
    Map<String, Integer> seen = new HashMap<>();
    for (RemotePath path : paths) {
      PathFacts facts = reader.read(path);
      assertThat(facts.seesLists() && facts.seesMounts()).isTrue();
      for (String account : ACCOUNTS) {
        String told = told(facts, asker(account));
        assertThat(told).as(account + " " + path).isEqualTo(kernel.get(account).get(path));
        seen.merge(told, 1, Integer::sum);
      }
    }
    assertThat(seen.size()).as("all kinds of answers").isGreaterThan(8);
  }

  /** Each cure does what it says, to whom it says, and can be put back. */
  @Test
  void whatWouldOpenItDoesAndNoMore() throws Exception {
    List<RemotePath> paths = make(new Random(78));
    AccessReader reader = new AccessReader(root.files(), root);
    Map<String, Asker> askers = new HashMap<>();
    ACCOUNTS.forEach(account -> askers.put(account, asker(account)));
    int cured = 0;
    try (FileJournal journal =
        new FileJournal(top.resolve("journal"), "lab-box", JournalRules.USUAL)) {
      for (RemotePath path : paths) {
        Deed deed = Deed.values()[cured % 4];
        PathFacts facts = reader.read(path);
        List<Cure> cures =
            Cures.of(
                facts,
                askers.get(STRANGER),
                deed,
                root.files().names().gidOf(STRANGER).orElseThrow());
        for (Cure cure : cures) {
          String was = rightsOf(cure);
          Cure.Effect effect = cure.effect(facts, deed, askers);
          Set<String> could = who(path, deed);
          int before = journal.entries().size();
          carryOut(cure, journal);
          Set<String> can = who(path, deed);
          Set<String> gain = new TreeSet<>(can);
          gain.removeAll(could);
          Set<String> lose = new TreeSet<>(could);
          lose.removeAll(can);
          String label = deed + " " + path + " " + cure.changes();
          assertThat(gain).as(label).isEqualTo(effect.gain()).contains(STRANGER);
          assertThat(lose).as(label).isEqualTo(effect.lose());
          PutBack back = new PutBack(root.files(), root, journal, root.whoAmI().home());
          int made = journal.entries().size() - before;
          for (var entry : List.copyOf(journal.entries().subList(0, made))) {
            assertThat(back.run(entry, false)).as(label).isEqualTo(PutBack.Verdict.READY);
          }
          assertThat(rightsOf(cure)).as(label).isEqualTo(was);
          cured++;
        }
        if (cured >= CURED) {
          break;
        }
      }
    }
    assertThat(cured).isGreaterThanOrEqualTo(CURED);
  }

  private String rightsOf(Cure cure) throws Exception {
    List<RemotePath> paths = cure.changes().stream().map(CureChange::path).distinct().toList();
    return new String(
        root.script("getfacl -pn -- " + ShellWords.quoteAll(paths)).out(), ISO_8859_1);
  }

  private Set<String> who(RemotePath path, Deed deed) throws Exception {
    Set<String> who = new HashSet<>();
    for (String account : ACCOUNTS) {
      if (tried(account, List.of(path)).get(path).charAt(deed.ordinal()) != '-') {
        who.add(account);
      }
    }
    return who;
  }

  private void carryOut(Cure cure, FileJournal journal) throws Exception {
    for (CureChange change : cure.changes()) {
      if (change.isEntry()) {
        new AccessListChange(root.files(), root, journal)
            .allow(change.path(), change.entryUid(), change.entryBits());
      } else {
        var after = change.rights().after();
        var result =
            new RightsChange(root.files(), journal)
                .apply(
                    List.of(change.path()),
                    java.util.OptionalInt.of(after.uid()),
                    java.util.OptionalInt.of(after.gid()),
                    (mode, folder) -> after.mode())
                .get(0);
        assertThat(result.failure()).isNull();
      }
    }
  }
}
