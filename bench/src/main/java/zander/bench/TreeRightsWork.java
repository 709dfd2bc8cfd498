package zander.bench;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashSet;
import java.util.List;
import java.util.OptionalInt;
import java.util.Set;
import zander.core.change.RightsChange;
import zander.core.change.rights.TreeOutcome;
import zander.core.change.rights.TreePlan;
import zander.core.change.rights.TreePlanner;
import zander.core.change.rights.TreeRightsTask;
import zander.core.change.rights.look.TreeRoots;
import zander.core.connect.Connection;
import zander.core.connect.command.Commands;
import zander.core.connect.command.ShellWords;
import zander.core.files.RemotePath;
import zander.core.journal.FileJournal;
import zander.core.journal.JournalRules;
import zander.core.rights.AccessList.Asker;
import zander.core.rights.Mode;
import zander.core.rights.ModeRule;
import zander.core.rights.TreeRights;
import zander.core.work.Cancellation;

/**
 * Rights of a tree of 100,000 files set, read back and in the journal, over a line with 40 ms round
 * trip: against the server's own {@code chmod -R} and two {@code find}s over it; by the file
 * service alone against one file after the other. And what a preview holds. Needs root.
 *
 * <p>{@code -Drights.files=1000000} with {@code -Xmx256m} for a large one.
 */
public final class TreeRightsWork {
  private static final int FILES = Integer.getInteger("rights.files", 100_000);
  private static final int FOLDERS = 500;
  private static final int ALONE = 60;
  private static final long ROUND_TRIP = 40;

  private TreeRightsWork() {}

  public static void main(String[] arguments) throws Exception {
    if (!LoopbackSshd.isPossible()) {
      System.out.println("TreeRightsWork: needs openssh-server, and to be root");
      return;
    }
    Path folder = Files.createTempDirectory("zander-bench");
    try (LoopbackSshd sshd = new LoopbackSshd(folder);
        FarSession far = new FarSession(sshd, ROUND_TRIP, folder.resolve("known"));
        FileJournal journal =
            new FileJournal(folder.resolve("journal"), "bench", JournalRules.USUAL)) {
      Connection connection = far.connection();
      Path top = folder.resolve("tree");
      fill(top);
      RemotePath tree = RemotePath.of(top.toString());
      preview(connection, tree);
      for (int run = 0; run < 3; run++) {
        double own = own(connection, tree);
        byShell(connection, journal, tree, new Mode(0604), own);
      }
      byService(connection, journal, tree);
    }
  }

  private static void fill(Path top) throws Exception {
    for (int i = 0; i < FOLDERS; i++) {
      Path folder = Files.createDirectories(top.resolve("station-" + i));
      for (int file = 0; file < FILES / FOLDERS; file++) {
        Files.createFile(folder.resolve("reading-" + file + ".csv"));
      }
    }
  }

  private static double since(long start) {
    return (System.nanoTime() - start) / 1e9;
  }

  /** The server's own tools: what is done is read before and after, as a careful person does. */
  private static double own(Connection connection, RemotePath tree) throws Exception {
    String at = ShellWords.quote(tree);
    String find = "find " + at + " -printf '%m %u %g %p\\n' > /dev/null\n";
    long start = System.nanoTime();
    connection.script(find + "chmod -R u=rwX,g=rX,o= " + at + "\n" + find);
    return since(start);
  }

  private static TreePlan plan(Connection connection, Commands commands, RemotePath tree, Mode mode)
      throws Exception {
    TreeRights wanted =
        new TreeRights(
            OptionalInt.empty(), OptionalInt.empty(), new ModeRule.Exact(mode, false), null);
    return new TreePlanner(connection.files(), commands)
        .plan(
            TreeRoots.of(List.of(tree)),
            wanted,
            new Asker(0, Set.of(0)),
            false,
            seen -> {},
            new Cancellation());
  }

  private static long used() {
    System.gc();
    return Runtime.getRuntime().totalMemory() - Runtime.getRuntime().freeMemory();
  }

  private static void preview(Connection connection, RemotePath tree) throws Exception {
    long before = used();
    long start = System.nanoTime();
    TreePlan plan = plan(connection, connection, tree, new Mode(0604));
    double seconds = since(start);
    System.out.printf(
        "preview of %d entries: %.2f s, %.1f MB kept%n",
        plan.looked(), seconds, (used() - before) / 1e6);
    if (plan.groups().isEmpty()) {
      throw new IllegalStateException("nothing was planned");
    }
  }

  private static void byShell(
      Connection connection, FileJournal journal, RemotePath tree, Mode mode, double own)
      throws Exception {
    TreePlan plan = plan(connection, connection, tree, mode);
    long start = System.nanoTime();
    TreeOutcome outcome =
        new TreeRightsTask(connection.files(), connection, journal)
            .run(
                plan.choose(new HashSet<>(plan.groups()), Set.of()),
                TreeRightsTask.Progress.NONE,
                new Cancellation());
    double seconds = since(start);
    System.out.printf(
        "%d entries set, read back, in the journal: %.2f s; the server's own chmod -R with a find"
            + " before and after: %.2f s; ratio %.1f%n",
        outcome.set(), seconds, own, seconds / own);
  }

  private static void byService(Connection connection, FileJournal journal, RemotePath tree)
      throws Exception {
    RightsChange one = new RightsChange(connection.files(), journal);
    long start = System.nanoTime();
    for (int i = 0; i < ALONE; i++) {
      one.apply(
          List.of(tree.child("station-0").child("reading-" + i + ".csv")),
          OptionalInt.empty(),
          OptionalInt.empty(),
          (before, folder) -> new Mode(0640));
    }
    double each = since(start) / ALONE;
    TreePlan plan = plan(connection, Commands.NONE, tree, new Mode(0600));
    start = System.nanoTime();
    TreeOutcome outcome =
        new TreeRightsTask(connection.files(), Commands.NONE, journal)
            .run(
                plan.choose(new HashSet<>(plan.groups()), Set.of()),
                TreeRightsTask.Progress.NONE,
                new Cancellation());
    double seconds = since(start) / outcome.set();
    System.out.printf(
        "by the file service alone: %.2f ms an entry; one after the other %.1f ms: %.0f times%n",
        seconds * 1e3, each * 1e3, each / seconds);
  }
}
