package zander.core.transfer.compare;

import java.io.IOException;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;
import zander.core.files.FileKind;
import zander.core.phrase.ExplainedException;
import zander.core.phrase.Phrase;
import zander.core.phrase.TransferPhrase;
import zander.core.transfer.endpoint.Source;
import zander.core.transfer.endpoint.Target;
import zander.core.transfer.endpoint.TreeEntry;
import zander.core.transfer.rules.Comparison;
import zander.core.transfer.rules.Decision;
import zander.core.transfer.rules.TransferRules;
import zander.core.work.Cancellation;

/**
 * What a transfer would do, looked at before it is done: both sides are scanned at once and nothing
 * is changed.
 */
public final class TransferPlan {
  private static final int MOST_ROWS = 20_000;
  private static final int TELL_EVERY = 500;
  private static final Phrase MAY_NOT = TransferPhrase.FOLDER_NOT_WRITABLE.of();

  /** What changes the folder that an entry is in; of what is compared, that is not known yet. */
  private static final Set<Deed> WRITES =
      EnumSet.of(Deed.ARRIVES, Deed.REPLACES, Deed.BESIDE, Deed.IS_COMPARED);

  /** What would become of something. */
  public enum Deed {
    /** It is new over there. */
    ARRIVES,
    REPLACES,
    IS_ASKED,
    /** By its content when it is its turn, and replaced if that differs. */
    IS_COMPARED,
    /** It is put beside what is there, under another name. */
    BESIDE,
    IS_SAME,
    /** The rule leaves what is there. */
    STAYS,
    LEFT_OUT,
    /** It cannot be transferred; why is told. */
    CANNOT,
    /** Only over there, and left there. */
    ONLY_THERE,
    /** Only over there, and deleted to make a mirror. */
    DELETED
  }

  /**
   * One entry.
   *
   * @param path relative to both sides, in wire form
   * @param node what would come; {@code null} when only the target has it
   * @param there what is there; {@code null} for nothing
   * @param why the pattern that leaves it out, quoted, or why it cannot be transferred; else {@code
   *     null}
   */
  public record Row(
      String path,
      Deed deed,
      Comparison standing,
      @Nullable TreeEntry node,
      @Nullable TreeEntry there,
      @Nullable Phrase why) {}

  /** How many, and their bytes. */
  public record Sum(long count, long bytes) {
    static final Sum NONE = new Sum(0, 0);

    Sum plus(long size) {
      return new Sum(count + 1, bytes + size);
    }
  }

  /**
   * The plan as far as it is made.
   *
   * @param rows all but what is the same, at most some thousand
   * @param sums of files and links by what becomes of them; of what only the target has, the top of
   *     each tree
   * @param folders new folders
   * @param leftOut how many each pattern leaves out
   * @param free bytes free on the other side; -1 where that is not known
   * @param complete whether all was scanned
   * @param toDelete the paths that a mirror deletes, in wire form: all of them, once all was
   *     scanned
   */
  public record Result(
      List<Row> rows,
      Map<Deed, Sum> sums,
      long folders,
      Map<Phrase, Long> leftOut,
      long free,
      boolean complete,
      List<String> toDelete) {

    public Sum sum(Deed deed) {
      return sums.getOrDefault(deed, Sum.NONE);
    }

    /** Bytes that would be transferred for certain. */
    public long bytes() {
      return sum(Deed.ARRIVES).bytes() + sum(Deed.REPLACES).bytes() + sum(Deed.BESIDE).bytes();
    }

    public boolean fits() {
      return free < 0 || bytes() <= free;
    }
  }

  private final Source source;
  private final Target target;
  private final TransferRules rules;
  private final Cancellation stop;
  private final List<Row> rows = new ArrayList<>();
  private final List<String> toDelete = new ArrayList<>();
  private final Map<Deed, Sum> sums = new EnumMap<>(Deed.class);
  private final Map<Phrase, Long> leftOut = new HashMap<>();

  /** Folders over there that this account may not write into, by their paths; empty for the top. */
  private final Set<String> closed = new HashSet<>();

  private long folders;
  private long seen;
  private long free = -1;

  public TransferPlan(Source source, Target target, TransferRules rules, Cancellation stop) {
    this.source = source;
    this.target = target;
    this.rules = rules;
    this.stop = stop;
  }

  /**
   * Scans; waits.
   *
   * @param progress told now and then how far it is, on this thread
   * @throws java.util.concurrent.CancellationException when it was stopped
   * @throws IOException when a line is lost
   */
  public Result make(List<String> names, Consumer<Result> progress) throws IOException {
    free = target.free();
    TreeEntry top = target.look("");
    if (top != null && !target.mayWrite(top)) {
      closed.add("");
    }
    new TreePairWalk(source, target, stop)
        .walk(
            names,
            new TreePairWalk.Visitor() {
              @Override
              public boolean follows(String path, TreeEntry link) {
                return rules.follows(path, link);
              }

              @Override
              public void notFollowed(String path, TreeEntry link, Phrase why) {
                add(path, Deed.CANNOT, Comparison.NEW, link, null, why, 0);
              }

              @Override
              public boolean pair(
                  String path,
                  @Nullable TreeEntry node,
                  @Nullable TreeEntry there,
                  boolean followed) {
                if (++seen % TELL_EVERY == 0) {
                  progress.accept(result(false));
                }
                return visit(path, node, there, followed);
              }

              @Override
              public void unreadable(String path, IOException why) {
                Phrase found =
                    why instanceof ExplainedException known
                        ? known.phrase()
                        : TransferPhrase.CANNOT_BE_READ.of(source.why(why));
                add(path, Deed.CANNOT, Comparison.NEW, null, null, found, 0);
              }
            });
    return result(true);
  }

  private Result result(boolean complete) {
    return new Result(
        List.copyOf(rows),
        Map.copyOf(sums),
        folders,
        Map.copyOf(leftOut),
        free,
        complete,
        complete ? List.copyOf(toDelete) : List.of());
  }

  private boolean visit(
      String path, @Nullable TreeEntry node, @Nullable TreeEntry there, boolean followed) {
    if (node == null) {
      onlyThere(path, Objects.requireNonNull(there));
      return false;
    }
    boolean folder = FolderPairs.isFolder(node);
    Phrase pattern = followed ? null : pattern(path, node);
    if (pattern != null) {
      leftOut.merge(pattern, 1L, Long::sum);
      add(path, Deed.LEFT_OUT, Comparison.of(node, there), node, there, pattern, node.size());
      return false;
    }
    Comparison standing = Comparison.of(node, there);
    if (folder && there != null && FolderPairs.isFolder(there)) {
      if (!target.mayWrite(there)) {
        closed.add(path);
      }
      return true;
    }
    if (folder && there == null) {
      folders++;
      if (isClosed(path)) {
        add(path, Deed.CANNOT, standing, node, null, MAY_NOT, 0);
        return false;
      }
      add(path, Deed.ARRIVES, standing, node, null, null, -1);
      return true;
    }
    if (node.kind() == FileKind.OTHER) {
      add(path, Deed.CANNOT, standing, node, there, TransferPhrase.NOT_TRANSFERABLE.of(), 0);
      return false;
    }
    Phrase cannot = target.cannotHold(path);
    Deed deed = cannot == null ? deed(node, there) : Deed.CANNOT;
    if (cannot == null && WRITES.contains(deed) && isClosed(path)) {
      deed = Deed.CANNOT;
      cannot = MAY_NOT;
    }
    add(path, deed, standing, node, there, cannot, node.size());
    return false;
  }

  private boolean isClosed(String path) {
    return closed.contains(path.substring(0, Math.max(0, path.lastIndexOf('/'))));
  }

  /** What leaves it out; {@code null} when nothing does. A link is one, wherever it leads. */
  private @Nullable Phrase pattern(String path, TreeEntry node) {
    String pattern = rules.leaveOut().by(path, FolderPairs.isFolder(node));
    if (pattern != null) {
      return Phrase.quoted(pattern);
    }
    return node.kind() == FileKind.LINK && rules.links() == TransferRules.Links.LEFT_OUT
        ? TransferPhrase.BY_THE_RULE_FOR_LINKS.of()
        : null;
  }

  private void onlyThere(String path, TreeEntry there) {
    if (rules.leaveOut().by(path, FolderPairs.isFolder(there)) == null
        && !there.name().contains(zander.core.change.place.TemporaryName.MARK)
        && !there.name().equals(zander.core.change.place.HoldingFolder.NAME)) {
      Deed deed = rules.mirror() ? Deed.DELETED : Deed.ONLY_THERE;
      if (rules.mirror()) {
        toDelete.add(path);
      }
      add(path, deed, Comparison.NEW, null, there, null, there.size());
    }
  }

  private Deed deed(TreeEntry node, @Nullable TreeEntry there) {
    return switch (Decision.of(rules.whenExists(), node, there, false)) {
      case TRANSFER -> there == null ? Deed.ARRIVES : Deed.REPLACES;
      case SKIP -> Deed.STAYS;
      case UNCHANGED -> Deed.IS_SAME;
      case COMPARE -> Deed.IS_COMPARED;
      case KEEP_BOTH -> Deed.BESIDE;
      case ASK -> Deed.IS_ASKED;
    };
  }

  /**
   * @param size what it counts; -1 for a folder, which is in no sum
   */
  private void add(
      String path,
      Deed deed,
      Comparison standing,
      @Nullable TreeEntry node,
      @Nullable TreeEntry there,
      @Nullable Phrase why,
      long size) {
    if (size >= 0) {
      sums.merge(deed, Sum.NONE.plus(size), (a, b) -> new Sum(a.count() + 1, a.bytes() + size));
    }
    if (deed != Deed.IS_SAME && rows.size() < MOST_ROWS) {
      rows.add(new Row(path, deed, standing, node, there, why));
    }
  }
}
