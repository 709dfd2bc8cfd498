package zander.core.change.rights.look;

import java.io.IOException;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.LongConsumer;
import zander.core.access.AccessChain;
import zander.core.access.AccessReader;
import zander.core.access.Deed;
import zander.core.access.PathFacts;
import zander.core.connect.command.Commands;
import zander.core.files.AccountNames;
import zander.core.files.FileKind;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.rights.AccessList;
import zander.core.rights.AccessList.Answer;
import zander.core.rights.AccessList.Asker;
import zander.core.rights.Mode;
import zander.core.rights.Rights;
import zander.core.rights.SecretNames;
import zander.core.work.Cancellation;

/**
 * Looks through a tree for rights that are wider than they should be, and for what an account can
 * write: by owner, group and mode, with each folder on the way. Lists of what is inside are not
 * asked for: they may let more in.
 */
public final class TreeFindings {
  private static final int PACE = 2048;

  /** Of each kind so many are kept; the others are counted. */
  private static final int MOST_KEPT = 2000;

  /** So many numbers are asked about. */
  private static final int MOST_ASKED = 500;

  private static final int WRITE = 2;
  private static final int CHANGE = 3;
  private static final int ENTER = 1;
  private static final int READ = 4;

  /** Somebody without any right of their own: no account has this number, no group either. */
  private static final Asker ANYONE = new Asker(-2, Set.of(-2));

  private final RemoteFiles files;
  private final Commands commands;

  public TreeFindings(RemoteFiles files, Commands commands) {
    this.files = files;
    this.commands = commands;
  }

  /** One entry that was found. */
  public record Finding(RemotePath path, boolean folder, Rights rights) {}

  /** What was found of one kind; only the first are kept. */
  public record Found(long count, List<Finding> first) {}

  /**
   * @param looked how many entries were looked at
   * @param unreadable how many folders could not be looked into
   */
  public record Report(Map<FindingKind, Found> found, long looked, long unreadable) {}

  /**
   * @param account whose writing is asked about
   * @param progress told how many entries were seen, now and then
   * @throws java.util.concurrent.CancellationException when it was stopped
   */
  public Report look(RemotePath folder, Asker account, LongConsumer progress, Cancellation stop)
      throws IOException {
    PathFacts way = new AccessReader(files, commands).read(folder);
    TreeRoots roots = TreeRoots.of(List.of(way.entry().path()));
    Looking looking = new Looking(roots, way, account, progress);
    new TreeLook(files, commands, stop).run(roots, false, looking);
    return looking.report();
  }

  private record Owner(int uid, int gid) {}

  private final class Looking implements TreeLook.Visitor {
    private final TreeRoots roots;
    private final Asker account;
    private final LongConsumer progress;
    private final AccountNames names = files.names();
    private final Map<FindingKind, List<Finding>> first = new EnumMap<>(FindingKind.class);
    private final Map<FindingKind, Long> counts = new EnumMap<>(FindingKind.class);

    /** Whether the two can enter a folder, by its path. */
    private final Map<String, boolean[]> entered = new HashMap<>();

    private final Map<Owner, Long> byOwner = new HashMap<>();
    private final boolean[] above;
    private long looked;
    private long unreadable;

    Looking(TreeRoots roots, PathFacts way, Asker account, LongConsumer progress) {
      this.roots = roots;
      this.account = account;
      this.progress = progress;
      above = new boolean[] {reaches(way, ANYONE), reaches(way, account)};
    }

    /** Whether somebody comes to where the tree begins. */
    private static boolean reaches(PathFacts way, Asker asker) {
      AccessChain chain = AccessChain.of(way, asker, Deed.RUN);
      return chain.steps().subList(0, chain.steps().size() - 1).stream()
          .allMatch(step -> step.answer() == Answer.YES);
    }

    @Override
    public void entry(ScannedEntry entry) {
      if (++looked % PACE == 0) {
        progress.accept(looked);
      }
      boolean folder = entry.kind() == FileKind.FOLDER;
      if (entry.kind() == FileKind.LINK || entry.elsewhere()) {
        return;
      }
      boolean[] reached = reached(entry);
      if (folder) {
        entered.put(
            entry.path(),
            new boolean[] {
              reached[0] && may(ANYONE, entry, ENTER), reached[1] && may(account, entry, ENTER)
            });
      }
      judge(entry, folder, reached);
    }

    private boolean[] reached(ScannedEntry entry) {
      boolean root = roots.at(entry.path()).equals(roots.entries().get(0));
      boolean[] parent = root || entry.folder() == null ? null : entered.get(entry.folder());
      return root ? above : parent == null ? new boolean[2] : parent;
    }

    private void judge(ScannedEntry entry, boolean folder, boolean[] reached) {
      Mode mode = entry.rights().mode();
      int write = folder ? CHANGE : WRITE;
      boolean kept = folder && mode.has(Mode.STICKY);
      if (reached[0] && !kept && may(ANYONE, entry, write)) {
        add(FindingKind.ANYONE_WRITES, entry, folder);
      }
      String path = roots.at(entry.path()).wire();
      if (!folder && reached[0] && may(ANYONE, entry, READ) && SecretNames.isSecret(path)) {
        add(FindingKind.SECRET_READABLE, entry, folder);
      }
      add(FindingKind.OWNED_BY_NOBODY, entry, folder);
      boolean runs = mode.has(Mode.SET_UID) || (mode.has(Mode.SET_GID) && mode.has(010));
      if (!folder && runs && mode.has(0111)) {
        add(FindingKind.RUNS_AS_OWNER, entry, folder);
      }
      if (reached[1] && may(account, entry, write)) {
        add(FindingKind.ACCOUNT_WRITES, entry, folder);
      }
    }

    private static boolean may(Asker asker, ScannedEntry entry, int want) {
      return AccessList.may(asker, entry.rights(), null, want) == Answer.YES;
    }

    private void add(FindingKind kind, ScannedEntry entry, boolean folder) {
      Rights rights = entry.rights();
      if (kind == FindingKind.OWNED_BY_NOBODY) {
        // Whether a number that is not known is somebody's is asked once, at the end.
        if (isSomebody(rights)) {
          return;
        }
        byOwner.merge(new Owner(rights.uid(), rights.gid()), 1L, Long::sum);
      }
      counts.merge(kind, 1L, Long::sum);
      List<Finding> kept = first.computeIfAbsent(kind, one -> new ArrayList<>());
      if (kept.size() < MOST_KEPT) {
        kept.add(new Finding(roots.at(entry.path()), folder, rights));
      }
    }

    private boolean isSomebody(Rights rights) {
      return isNamed(names.user(rights.uid())) && isNamed(names.group(rights.gid()));
    }

    private static boolean isNamed(String name) {
      return !name.matches("[0-9]+");
    }

    /** Asks for the names of numbers that are not known; leaves out what is somebody's. */
    private void leaveOutSomebodys() throws IOException {
      List<Finding> kept = first.remove(FindingKind.OWNED_BY_NOBODY);
      counts.remove(FindingKind.OWNED_BY_NOBODY);
      if (kept == null || !askNames()) {
        return;
      }
      long count = 0;
      for (Map.Entry<Owner, Long> one : byOwner.entrySet()) {
        Rights rights = new Rights(one.getKey().uid, one.getKey().gid, new Mode(0));
        count += isSomebody(rights) ? 0 : one.getValue();
      }
      if (count > 0) {
        counts.put(FindingKind.OWNED_BY_NOBODY, count);
        first.put(
            FindingKind.OWNED_BY_NOBODY,
            kept.stream().filter(one -> !isSomebody(one.rights())).toList());
      }
    }

    /** False where the server cannot be asked. */
    private boolean askNames() throws IOException {
      StringBuilder users = new StringBuilder("getent passwd");
      StringBuilder groups = new StringBuilder("getent group");
      for (Owner owner : byOwner.keySet().stream().limit(MOST_ASKED).toList()) {
        users.append(' ').append(Integer.toUnsignedString(owner.uid));
        groups.append(' ').append(Integer.toUnsignedString(owner.gid));
      }
      return commands.byShellOr(
          () -> {
            String script = users + "; echo; echo zander-groups; " + groups + "; exit 0";
            String[] said = commands.script(script).outText().split("(?m)^zander-groups\n", 2);
            names.learnPasswd(said[0]);
            names.learnGroupFile(said.length > 1 ? said[1] : "");
            return said.length > 1;
          },
          () -> false);
    }

    @Override
    public void unreadable(String path) {
      unreadable++;
    }

    Report report() throws IOException {
      leaveOutSomebodys();
      Map<FindingKind, Found> found = new EnumMap<>(FindingKind.class);
      first.forEach(
          (kind, kept) ->
              found.put(kind, new Found(counts.getOrDefault(kind, 0L), List.copyOf(kept))));
      return new Report(found, looked, unreadable);
    }
  }
}
