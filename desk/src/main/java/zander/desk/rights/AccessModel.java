package zander.desk.rights;

import static java.util.Objects.requireNonNull;

import java.time.Duration;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import javafx.beans.property.ReadOnlyBooleanProperty;
import javafx.beans.property.ReadOnlyBooleanWrapper;
import javafx.beans.property.ReadOnlyLongProperty;
import javafx.beans.property.ReadOnlyLongWrapper;
import org.jspecify.annotations.Nullable;
import zander.core.access.AccessChain;
import zander.core.access.AccessReader;
import zander.core.access.AccessStep;
import zander.core.access.Deed;
import zander.core.access.EntryExtras;
import zander.core.access.PathFacts;
import zander.core.files.AccountNames;
import zander.core.files.RemoteEntry;
import zander.core.files.RemotePath;
import zander.core.rights.AccessList.Answer;
import zander.core.rights.AccessList.Asker;
import zander.desk.folder.FolderModel;
import zander.desk.sheet.OpenDesk;
import zander.desk.words.Words;
import zander.desk.work.FailureWords;

/**
 * Who can do what with what is selected, what stops them, and what would let them. Asked only once
 * somebody wants to know, and from then on of each selection. Interface thread only.
 */
public final class AccessModel {
  private static final Words WORDS = Words.of(AccessModel.class);

  /** Who goes through a list with the arrow keys asks for the last alone. */
  private static final Duration REST = Duration.ofMillis(150);

  private final OpenDesk desk;
  private final ReadOnlyBooleanWrapper open = new ReadOnlyBooleanWrapper();
  private final ReadOnlyLongWrapper changes = new ReadOnlyLongWrapper();
  private final AccessListModel list;
  private @Nullable RemoteEntry entry;
  private String account = "";
  private Deed deed = Deed.READ;
  private @Nullable PathFacts facts;
  private @Nullable AccessChain chain;
  private List<AccessCures.Offered> cures = List.of();
  private String problem = "";
  private boolean busy;
  private long asked;

  AccessModel(OpenDesk desk, FolderModel folder) {
    this.desk = desk;
    this.list =
        new AccessListModel(
            desk,
            folder,
            (change, path) -> {
              if (!busy) {
                carryOut(change, List.of(path), desk);
              }
            });
  }

  /** What is selected now; {@code null} for nothing, or for several. */
  void select(@Nullable RemoteEntry chosen) {
    boolean same = entry != null && entry.equals(chosen);
    entry = chosen;
    if (!same) {
      read();
    }
  }

  /** Shows it, or not; from then on for what is selected. */
  public void open(boolean wanted) {
    open.set(wanted);
    read();
  }

  /** Reads all that decides, anew. */
  private void read() {
    facts = null;
    list.take(null, EntryExtras.NOTHING);
    chain = null;
    cures = List.of();
    problem = "";
    long mine = ++asked;
    if (!open.get() || entry == null) {
      changed();
      return;
    }
    if (account.isEmpty()) {
      account = desk.serviceAccount().isEmpty() ? entry.owner() : desk.serviceAccount();
    }
    desk.background().later(REST, () -> readNow(mine));
    changed();
  }

  private void readNow(long mine) {
    if (mine != asked || entry == null) {
      return;
    }
    RemotePath path = entry.path();
    desk.background()
        .run(
            () -> new AccessReader(desk.files(), desk.commands()).read(path),
            found -> {
              if (mine == asked) {
                facts = found;
                list.take(found, EntryExtras.NOTHING);
                readExtras(found);
                answer();
              }
            },
            failure -> {
              if (mine == asked) {
                problem = FailureWords.of(failure).headline();
                changed();
                desk.checkLine();
              }
            });
  }

  /** What does not decide comes after the answer, which waits for nothing. */
  private void readExtras(PathFacts of) {
    if (of.entry().is() == null) {
      return;
    }
    desk.background()
        .run(
            () -> EntryExtras.of(desk.commands(), of.entry().path()),
            found -> {
              if (facts == of) {
                list.take(of, found);
                changed();
              }
            },
            failure -> {});
  }

  private void answer() {
    cures = List.of();
    if (facts == null) {
      return;
    }
    Asker asker = AccessCures.asker(desk.files().names(), account);
    chain = AccessChain.of(facts, asker, deed);
    changed();
    if (chain.answer() == Answer.NO) {
      findCures();
    }
  }

  private void findCures() {
    long mine = ++asked;
    PathFacts of = requireNonNull(facts, "a chain comes of facts");
    String who = account;
    Deed what = deed;
    desk.background()
        .run(
            () -> new AccessCures(desk).find(of, who, what),
            found -> {
              if (mine == asked) {
                cures = found;
                changed();
              }
            },
            failure -> {});
  }

  private void changed() {
    changes.set(changes.get() + 1);
  }

  public void ask(String who) {
    if (who != null && !who.equals(account)) {
      account = who;
      answer();
    }
  }

  public void ask(Deed what) {
    deed = what;
    answer();
  }

  /** The accounts that may be asked about: the likely ones first. */
  public List<String> accounts() {
    Set<String> all = new LinkedHashSet<>();
    all.add(account);
    if (!desk.serviceAccount().isEmpty()) {
      all.add(desk.serviceAccount());
    }
    if (entry != null) {
      all.add(entry.owner());
    }
    all.add(desk.whoAmI().account());
    all.addAll(desk.files().names().accounts());
    all.remove("");
    return new ArrayList<>(all);
  }

  public String account() {
    return account;
  }

  /** Which groups the account is in, as far as the server lists them; empty where none is known. */
  public String groupWords() {
    AccountNames names = desk.files().names();
    List<String> groups = names.groupsOf(account).stream().map(names::group).sorted().toList();
    return groups.isEmpty() ? "" : WORDS.say("itsGroups", String.join(", ", groups));
  }

  public Deed deed() {
    return deed;
  }

  /** Whether there is one thing to ask about. */
  public boolean mayAsk() {
    return entry != null;
  }

  private boolean isFolder() {
    return facts != null && facts.entry().isFolder();
  }

  public String words(Deed one) {
    return AccessWords.deed(one, isFolder());
  }

  /** The answer as a sentence, or that it is being looked at; or what failed. */
  public String answerWords() {
    return !problem.isEmpty()
        ? problem
        : chain == null ? WORDS.say("looking") : AccessWords.answer(chain, account, isFolder());
  }

  /** What the answer does not take into account; empty where it takes all. */
  public String unseenWords() {
    return chain == null || !chain.byModeAlone() ? "" : WORDS.say("byOwnerAndMode");
  }

  /** {@code null} while it is not known. */
  public @Nullable Answer answerNow() {
    return chain == null ? null : chain.answer();
  }

  public List<AccessStep> steps() {
    return chain == null ? List.of() : chain.steps();
  }

  public String place(AccessStep step) {
    return AccessWords.place(step.place());
  }

  public String words(AccessStep step) {
    return AccessWords.step(step, desk.files().names(), account);
  }

  /** Whether a step is the first that stops. */
  public boolean isStop(AccessStep step) {
    return chain != null && step == chain.stop();
  }

  /** The access list of what is selected, and what else decides. */
  public AccessListModel list() {
    return list;
  }

  /**
   * One thing that would let the account do it.
   *
   * @param what it does
   * @param effect whom else it lets, or keeps out
   * @param button what its button says; empty where it cannot be done from here
   */
  public record CureRow(String what, String effect, String button) {}

  public List<CureRow> cures() {
    List<CureRow> rows = new ArrayList<>();
    for (AccessCures.Offered one : cures) {
      String button =
          one.mayOwn() ? WORDS.say("set") : desk.mayActAsRoot() ? WORDS.say("setAsRoot") : "";
      rows.add(
          new CureRow(
              AccessWords.cure(one.cure(), desk.files().names()),
              AccessWords.effect(one.effect(), account, one.opened()),
              button));
    }
    return rows;
  }

  /** Makes one of the cures. */
  public void cure(int number) {
    if (busy || entry == null || number >= cures.size()) {
      return;
    }
    AccessCures.Offered one = cures.get(number);
    if (one.mayOwn()) {
      carryOut(one, desk);
    } else {
      desk.actAsRoot(entry.path().parent(), root -> carryOut(one, root));
    }
  }

  private void carryOut(AccessCures.Offered one, OpenDesk on) {
    List<RemotePath> paths =
        one.cure().changes().stream().map(change -> change.path()).distinct().toList();
    carryOut(() -> AccessCures.carryOut(one.cure(), on), paths, on);
  }

  private void carryOut(AccessListModel.Change change, List<RemotePath> paths, OpenDesk on) {
    busy = true;
    changed();
    on.background()
        .run(
            () -> {
              change.make();
              return true;
            },
            done -> {
              busy = false;
              on.changed(paths);
              if (on != desk) {
                desk.changed(paths);
              }
              read();
            },
            failure -> {
              busy = false;
              on.openSheets().front().tellFailure(FailureWords.of(failure));
              on.checkLine();
              read();
            });
  }

  public boolean isBusy() {
    return busy;
  }

  /** Whether it is shown. */
  public ReadOnlyBooleanProperty openProperty() {
    return open.getReadOnlyProperty();
  }

  /** Counts up whenever something to be shown has changed. */
  public ReadOnlyLongProperty changesProperty() {
    return changes.getReadOnlyProperty();
  }
}
