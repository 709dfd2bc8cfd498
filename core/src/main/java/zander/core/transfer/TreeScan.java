package zander.core.transfer;

import static java.util.Objects.requireNonNull;

import java.io.IOException;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.Executor;
import java.util.concurrent.atomic.AtomicLong;
import org.jspecify.annotations.Nullable;
import zander.core.files.FileKind;
import zander.core.phrase.Phrase;
import zander.core.phrase.TransferPhrase;
import zander.core.transfer.compare.FolderPairs;
import zander.core.transfer.compare.FollowedLinks;
import zander.core.transfer.endpoint.Endpoint;
import zander.core.transfer.endpoint.Source;
import zander.core.transfer.endpoint.Target;
import zander.core.transfer.endpoint.TransferItem;
import zander.core.transfer.endpoint.TreeEntry;
import zander.core.transfer.progress.ProgressCounter;
import zander.core.transfer.resume.ResumeLog;
import zander.core.transfer.rules.KeptModes;
import zander.core.transfer.rules.TransferRules;
import zander.core.work.Workers;

/**
 * Finds what is to be transferred: both sides folder by folder, while what was found is carried.
 * Folders that are not there yet are made on the way. For several threads.
 */
final class TreeScan {
  private static final int SCANNERS = 16;

  /** The longest path that systems take (POSIX {@code PATH_MAX} where it is known), in bytes. */
  private static final int LONGEST_PATH = 4096;

  /** What is done with what is found. */
  interface Found {
    /** A file, a link, or a folder where something else is. */
    void file(PendingFolder folder, TransferItem item);

    /** Nothing more is found, unless a question is still to be answered. */
    void allFound();
  }

  private final Source source;
  private final Target target;
  private @Nullable KeptModes keptModes;
  private final TransferRules rules;
  private final Retrier retrier;
  private final ProgressCounter counter;
  private final ResumeLog resumeLog;
  private final TaskGroup tasks;
  private final PendingFolder top;
  private final Found found;
  private final Workers scanners = new Workers("transfer-scan", SCANNERS);
  private final Prefetch ahead;
  private final boolean startsPrograms;

  /** Folders that are still to be scanned, and the top. */
  private final AtomicLong scans = new AtomicLong(1);

  /**
   * @param top what is to be filled
   * @param elsewhere runs what starts programs; {@code null} for none to be started
   */
  TreeScan(
      TransferContext context,
      TaskGroup tasks,
      PendingFolder top,
      Found found,
      @Nullable Executor elsewhere) {
    this.source = context.source();
    this.target = context.target();
    this.rules = context.rules();
    this.retrier = context.retrier();
    this.counter = context.counter();
    this.resumeLog = context.resumeLog();
    this.tasks = tasks;
    this.top = top;
    this.found = found;
    this.startsPrograms = elsewhere != null;
    this.ahead = new Prefetch(source, target, rules, scanners, elsewhere);
  }

  /**
   * The modes that the target keeps; before {@link #begin}.
   *
   * @param modes {@code null} for none
   */
  void keepModes(@Nullable KeptModes modes) {
    keptModes = modes;
  }

  /**
   * Begins with the named entries of the source's folder.
   *
   * @param names in wire form
   */
  void begin(List<String> names) {
    tasks.run(scanners, () -> roots(names));
  }

  /** Whether all is found, so that what is decided now must not wait for more. */
  boolean isOver() {
    return scans.get() == 0;
  }

  /** Begins no more; what is under way goes on. */
  void close() {
    scanners.close();
  }

  void closeAndAwait() {
    scanners.closeAndAwait();
  }

  private void roots(List<String> names) {
    if (startsPrograms && source.hasFolders()) {
      ahead.read(names);
    }
    ahead.list(names);
    List<TreeEntry> nodes = retrier.attempt("", () -> source.lookAll(names));
    List<TreeEntry> there = new ArrayList<>();
    for (int i = 0; nodes != null && i < names.size(); i++) {
      if (nodes.get(i) == null) {
        retrier.problem(names.get(i), TransferPhrase.NOT_THERE_HERE.of(), false);
      } else {
        there.add(nodes.get(i));
      }
    }
    if (startsPrograms) {
      there.stream().filter(FolderPairs::isFolder).findFirst().ifPresent(ahead::expect);
    }
    contents(top, there);
    scanned();
  }

  private void scanned() {
    if (scans.decrementAndGet() == 0) {
      found.allFound();
      counter.allCounted();
    }
  }

  private void scan(PendingFolder folder) {
    counter.begin(source.show(folder.from));
    List<TreeEntry> rest = folder.existed ? children(folder) : childrenOfNew(folder);
    contents(folder, rest == null ? List.of() : rest);
    scanned();
  }

  private @Nullable List<TreeEntry> children(PendingFolder folder) {
    return retrier.attempt(
        folder.from,
        () -> {
          List<TreeEntry> all = new ArrayList<>();
          ahead.children(folder.from, all::addAll);
          return all;
        });
  }

  /**
   * Where nothing was before, nothing is compared with it: files go as soon as they are known, and
   * the others are returned.
   */
  private List<TreeEntry> childrenOfNew(PendingFolder folder) {
    List<TreeEntry> others = new ArrayList<>();
    Set<String> known = new HashSet<>();
    retrier.attempt(
        folder.from,
        () -> {
          ahead.children(
              folder.from,
              portion -> {
                for (TreeEntry node : portion) {
                  // When the line breaks, all are named once more.
                  if (!known.add(node.name())) {
                    continue;
                  }
                  tasks.throwIfEnded();
                  if (node.kind() == FileKind.FILE) {
                    sort(folder, new FolderPairs.Pair(node, null), Map.of(), List.of(), List.of());
                  } else {
                    others.add(node);
                  }
                }
              });
          return true;
        });
    return others;
  }

  private void contents(PendingFolder folder, List<TreeEntry> children) {
    FolderPairs pairs =
        children.isEmpty()
            ? null
            : retrier.attempt(
                folder.from,
                () -> FolderPairs.of(children, target, folder.existed ? folder.to : null, false));
    if (pairs != null) {
      List<TransferItem> toMake = new ArrayList<>();
      List<TransferItem> links = new ArrayList<>();
      Map<String, TreeEntry> behind =
          retrier.attempt(
              folder.from, () -> FollowedLinks.of(source, folder.from, children, rules::follows));
      for (FolderPairs.Pair pair : pairs.both()) {
        tasks.throwIfEnded();
        sort(folder, pair, behind == null ? Map.of() : behind, toMake, links);
      }
      makeFolders(folder, toMake, links);
    }
    folder.leave();
  }

  /**
   * @param behind what followed links lead to, by their names
   * @param toMake gets what is a folder and not there yet
   * @param links gets those of them that are followed links
   */
  private void sort(
      PendingFolder folder,
      FolderPairs.Pair pair,
      Map<String, TreeEntry> behind,
      List<TransferItem> toMake,
      List<TransferItem> links) {
    TreeEntry node = pair.node();
    String from = Endpoint.join(folder.from, node.name());
    String to = Endpoint.join(folder.to, node.name());
    if (from.length() > LONGEST_PATH) {
      retrier.problem(from.substring(0, 200), TransferPhrase.PATH_TOO_LONG.of(), false);
      return;
    }
    boolean link = node.kind() == FileKind.LINK;
    if (rules.leaveOut().by(from, node.kind() == FileKind.FOLDER) != null
        || (link && rules.links() == TransferRules.Links.LEFT_OUT)) {
      counter.leftOut();
      return;
    }
    if (link && rules.links() == TransferRules.Links.FOLLOWED) {
      TreeEntry leads = behind.get(node.name());
      Phrase whyNot = FollowedLinks.whyNot(leads, folder.followed);
      if (leads == null || whyNot != null) {
        retrier.problem(from, requireNonNull(whyNot), false);
        return;
      }
      node = leads;
    }
    boolean isFolder = FolderPairs.isFolder(node);
    TransferItem item =
        new TransferItem(
            from,
            to,
            node,
            pair.there(),
            node != pair.node(),
            rules.modeFor(node, isFolder, to, keptModes),
            rules.timeFor(node));
    if (isFolder && FolderPairs.isFolder(pair.there())) {
      boolean madeBefore = resumeLog.foldersBefore().contains(to);
      submitScan(folder.child(item, true, madeBefore, link));
    } else if (isFolder && pair.there() == null) {
      toMake.add(item);
      if (link) {
        links.add(item);
      }
    } else {
      found.file(folder, item);
    }
  }

  private void submitScan(PendingFolder folder) {
    scans.incrementAndGet();
    tasks.run(scanners, () -> scan(folder));
  }

  void makeFolders(PendingFolder folder, List<TransferItem> toMake, List<TransferItem> links) {
    if (toMake.isEmpty()) {
      return;
    }
    if (scans.get() <= 1) {
      ahead.list(toMake.stream().map(TransferItem::from).toList());
    }
    boolean[] tried = {false};
    List<Boolean> made = List.of();
    while (made != null && made.isEmpty()) {
      made =
          retrier.attempt(
              folder.from,
              () -> {
                List<Boolean> done = new ArrayList<>();
                List<TreeEntry> there =
                    tried[0]
                        ? target.lookAll(toMake.stream().map(TransferItem::to).toList())
                        : null;
                List<TransferItem> left = new ArrayList<>();
                for (int i = 0; i < toMake.size(); i++) {
                  // Made just before the line broke; only the answer was lost.
                  if (there == null || !FolderPairs.isFolder(there.get(i))) {
                    left.add(toMake.get(i));
                  }
                }
                tried[0] = true;
                int asked = retrier.roomAnswers();
                List<IOException> failures = target.makeFolders(left);
                for (int i = 0; i < left.size(); i++) {
                  IOException failure = failures.get(i);
                  if (failure != null
                      && retrier.isFull(failure, asked)
                      && retrier.awaitRoom(left.get(i).from(), failure, asked)) {
                    // All that are not there by now are made once more.
                    return List.of();
                  }
                }
                for (TransferItem item : toMake) {
                  int at = left.indexOf(item);
                  IOException failure = at < 0 ? null : failures.get(at);
                  if (failure != null) {
                    retrier.failed(item.from(), failure);
                  }
                  done.add(failure == null);
                }
                return done;
              });
    }
    for (int i = 0; made != null && i < toMake.size(); i++) {
      TransferItem item = toMake.get(i);
      if (made.get(i)) {
        resumeLog.folderMade(item.to());
        submitScan(folder.child(item, false, true, links.contains(item)));
      }
    }
  }
}
