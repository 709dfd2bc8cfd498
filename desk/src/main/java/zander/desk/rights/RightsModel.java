package zander.desk.rights;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.OptionalInt;
import java.util.Set;
import java.util.function.UnaryOperator;
import java.util.stream.Stream;
import javafx.beans.property.ReadOnlyBooleanProperty;
import javafx.beans.property.ReadOnlyBooleanWrapper;
import javafx.beans.property.ReadOnlyLongProperty;
import javafx.beans.property.ReadOnlyLongWrapper;
import javafx.beans.property.ReadOnlyStringProperty;
import javafx.beans.property.ReadOnlyStringWrapper;
import javafx.beans.property.SimpleStringProperty;
import javafx.beans.property.StringProperty;
import zander.core.change.RightsChange;
import zander.core.files.AccountNames;
import zander.core.files.RemoteEntry;
import zander.core.files.RemotePath;
import zander.core.rights.Mode;
import zander.core.rights.Rights;
import zander.core.rights.SymbolicMode;
import zander.core.work.Cancellation;
import zander.desk.folder.FolderModel;
import zander.desk.rights.tree.TreeRightsModel;
import zander.desk.sheet.OpenDesk;
import zander.desk.words.Phrases;
import zander.desk.words.Words;
import zander.desk.work.FailureWords;

/**
 * The rights of what is selected, being edited. Each selected entry has a mode it is to get; boxes,
 * octal and symbolic notation are three ways to change these, so they cannot disagree.
 */
public final class RightsModel implements ModeEditing {
  private static final Words WORDS = Words.of(RightsModel.class);

  /** More entries are looked through on another thread. */
  private static final int MANY = 3000;

  /** The umask for clauses that name no class. */
  private static final int UMASK = 022;

  private final OpenDesk desk;
  private final FolderModel folder;
  private final AccessModel access;
  private final CopiedRights copied;
  private List<RemoteEntry> entries = List.of();

  /** The mode that each entry is to get. */
  private List<Mode> wanted = List.of();

  /** The modes in {@link #wanted}, each once: a hundred thousand files have few. */
  private Set<Mode> modes = Set.of();

  private boolean modesChange;
  private Set<Integer> uids = Set.of();
  private Set<Integer> gids = Set.of();
  private boolean selecting;
  private long selections;
  private Cancellation stop = new Cancellation();

  private final StringProperty owner = new SimpleStringProperty("");
  private final StringProperty group = new SimpleStringProperty("");
  private final ReadOnlyStringWrapper problem = new ReadOnlyStringWrapper("");
  private final ReadOnlyStringWrapper outcome = new ReadOnlyStringWrapper("");
  private final ReadOnlyBooleanWrapper busy = new ReadOnlyBooleanWrapper(false);
  private final ReadOnlyLongWrapper changes = new ReadOnlyLongWrapper();

  /**
   * @param folder shows what was changed
   */
  public RightsModel(OpenDesk desk, FolderModel folder) {
    this.desk = desk;
    this.folder = folder;
    this.access = new AccessModel(desk, folder);
    this.copied = new CopiedRights(this, folder);
    owner.addListener((observed, old, now) -> checkNames());
    group.addListener((observed, old, now) -> checkNames());
  }

  private AccountNames names() {
    return desk.files().names();
  }

  /** The number of an account, by name or number, as far as it is known here. */
  public OptionalInt uidOf(String name) {
    return names().uidOf(name.strip());
  }

  /** The same for a group. */
  public OptionalInt gidOf(String name) {
    return names().gidOf(name.strip());
  }

  /** Takes a new selection; edits not set yet are dropped. Many are looked through elsewhere. */
  void select(List<RemoteEntry> chosen) {
    long mine = ++selections;
    List<RemoteEntry> before = entries;
    if (chosen.size() <= MANY) {
      take(RightsSummary.of(before, chosen));
      return;
    }
    // Until then none: what is set must never be set for what was selected before.
    take(RightsSummary.of(List.of(), List.of()));
    desk.background()
        .run(
            () -> RightsSummary.of(before, chosen),
            summary -> {
              if (mine == selections) {
                take(summary);
              }
            },
            failure -> {});
  }

  private void take(RightsSummary summary) {
    if (entries.equals(summary.entries())) {
      return;
    }
    entries = summary.entries();
    access.select(entries.size() == 1 ? entries.get(0) : null);
    want(summary.modes(), summary.distinct(), false);
    uids = summary.uids();
    gids = summary.gids();
    selecting = true;
    owner.set(common(uids.stream().map(uid -> names().user(uid))));
    group.set(common(gids.stream().map(gid -> names().group(gid))));
    selecting = false;
    problem.set("");
    if (!summary.samePaths()) {
      outcome.set("");
    }
    changed();
  }

  private void want(List<Mode> each, Set<Mode> distinct, boolean changes) {
    wanted = each;
    modes = distinct;
    modesChange = changes;
  }

  private void want(List<Mode> each) {
    boolean changes = false;
    for (int i = 0; i < each.size() && !changes; i++) {
      changes = each.get(i).bits() != RightsSummary.real(entries.get(i)).mode().bits();
    }
    want(each, new HashSet<>(each), changes);
  }

  private static String common(Stream<String> values) {
    List<String> distinct = values.distinct().limit(2).toList();
    return distinct.size() == 1 ? distinct.get(0) : "";
  }

  private void changed() {
    changes.set(changes.get() + 1);
  }

  public List<RemoteEntry> entries() {
    return entries;
  }

  /** Who can do what with what is selected. */
  public AccessModel access() {
    return access;
  }

  /** Rights that are taken from others. */
  public CopiedRights copied() {
    return copied;
  }

  /**
   * Fills in what others have; nothing is set by that.
   *
   * @param ofFolders the kind that the mode is of: what is of the other one keeps its own
   */
  void fill(Rights rights, boolean ofFolders) {
    owner.set(names().user(rights.uid()));
    group.set(names().group(rights.gid()));
    List<Mode> each = new ArrayList<>(wanted);
    for (int i = 0; i < each.size(); i++) {
      if (RightsSummary.real(entries.get(i)).isFolder() == ofFolders) {
        each.set(i, rights.mode());
      }
    }
    want(each);
    say("");
  }

  /** Says something of what is selected. */
  void say(String words) {
    problem.set("");
    outcome.set(words);
    changed();
  }

  /** Whether there is something inside of what is selected. */
  public boolean hasFolders() {
    return entries.stream().anyMatch(one -> one.attributes().isFolder());
  }

  /** Opens the sheet on the rights of all that is in what is selected. */
  public void everythingInside() {
    if (hasFolders()) {
      desk.openSheets()
          .show(new TreeRightsModel(desk, entries.stream().map(RemoteEntry::path).toList()));
    }
  }

  @Override
  public Bit bit(int bit) {
    long on = modes.stream().filter(mode -> mode.has(bit)).count();
    return on == 0 ? Bit.OFF : on == modes.size() ? Bit.ON : Bit.MIXED;
  }

  @Override
  public void press(int bit) {
    boolean on = bit(bit) != Bit.ON;
    change(mode -> mode.withBit(bit, on));
  }

  private void change(UnaryOperator<Mode> to) {
    want(wanted.stream().map(to).toList());
    problem.set("");
    outcome.set("");
    changed();
  }

  @Override
  public String sum(Mode.Who who) {
    return common(modes.stream().map(mode -> mode.sum(who)));
  }

  @Override
  public String octal() {
    return common(modes.stream().map(Mode::octal));
  }

  @Override
  public String sentence() {
    boolean folders = entries.stream().allMatch(one -> RightsSummary.real(one).isFolder());
    return common(modes.stream().map(mode -> ModeWords.sentence(mode, folders)));
  }

  @Override
  public String symbolic() {
    return common(modes.stream().map(SymbolicMode::of));
  }

  @Override
  public void typeOctal(String text) {
    try {
      Mode mode = Mode.ofOctal(text);
      change(before -> mode);
    } catch (IllegalArgumentException e) {
      problem.set(Phrases.of(e));
    }
  }

  @Override
  public void typeSymbolic(String text) {
    try {
      SymbolicMode change = SymbolicMode.parse(text);
      want(
          entries.stream()
              .map(RightsSummary::real)
              .map(now -> change.apply(now.mode(), UMASK, now.isFolder()))
              .toList());
      problem.set("");
      outcome.set("");
      changed();
    } catch (IllegalArgumentException e) {
      problem.set(Phrases.of(e));
    }
  }

  public StringProperty ownerProperty() {
    return owner;
  }

  public StringProperty groupProperty() {
    return group;
  }

  private void checkNames() {
    if (selecting) {
      return;
    }
    if (!owner.get().isBlank() && uidOf(owner.get()).isEmpty()) {
      problem.set(WORDS.say("noAccountOnThis", owner.get()));
    } else if (!group.get().isBlank() && gidOf(group.get()).isEmpty()) {
      problem.set(WORDS.say("noGroupOnThis", group.get()));
    } else {
      problem.set("");
    }
    changed();
  }

  /** Whether there is something to set. */
  public boolean isChanged() {
    return modesChange || !uidWanted().isEmpty() || !gidWanted().isEmpty();
  }

  private OptionalInt uidWanted() {
    OptionalInt uid = owner.get().isBlank() ? OptionalInt.empty() : uidOf(owner.get());
    boolean same = uid.isPresent() && uids.equals(Set.of(uid.getAsInt()));
    return same ? OptionalInt.empty() : uid;
  }

  private OptionalInt gidWanted() {
    OptionalInt gid = group.get().isBlank() ? OptionalInt.empty() : gidOf(group.get());
    boolean same = gid.isPresent() && gids.equals(Set.of(gid.getAsInt()));
    return same ? OptionalInt.empty() : gid;
  }

  /** Sets the rights on the server, reads them back, and shows what they are now. */
  public void apply() {
    if (busy.get() || entries.isEmpty() || !problem.get().isEmpty()) {
      return;
    }
    busy.set(true);
    outcome.set(WORDS.say("setting"));
    OptionalInt uid = uidWanted();
    OptionalInt gid = gidWanted();
    Map<RemotePath, Mode> each = new LinkedHashMap<>();
    for (int i = 0; i < entries.size(); i++) {
      each.put(entries.get(i).path(), wanted.get(i));
    }
    stop = new Cancellation();
    Cancellation mine = stop;
    RightsSetting setting = new RightsSetting(each, uid, gid);
    desk.background()
        .run(
            () -> setting.on(desk, mine, soFar -> desk.background().show(() -> tell(soFar))),
            results -> {
              applied(results, each.size());
              setting.offerRoot(desk, folder, results);
            },
            failure -> {
              busy.set(false);
              outcome.set(FailureWords.of(failure).headline());
              desk.checkLine();
            });
  }

  private void tell(String soFar) {
    if (busy.get()) {
      outcome.set(soFar);
      changed();
    }
  }

  /** Ends what {@link #apply} is doing; each entry has its old or its new rights. */
  public void stop() {
    stop.stop();
  }

  private void applied(List<RightsChange.Result> results, int all) {
    busy.set(false);
    List<RemoteEntry> now =
        results.stream().map(RightsChange.Result::entry).filter(e -> e != null).toList();
    folder.update(now);
    desk.changed(now.stream().map(RemoteEntry::path).toList());
    List<RightsChange.Result> failed =
        results.stream().filter(result -> result.failure() != null).toList();
    if (failed.isEmpty()) {
      outcome.set(RightsSetting.words(results.size(), all));
    } else {
      problem.set(RightsSetting.notSet(failed, results.size()));
      desk.checkLine();
    }
    changed();
  }

  /** Why the fields cannot be taken, or what failed; empty when all is well. */
  public ReadOnlyStringProperty problemProperty() {
    return problem.getReadOnlyProperty();
  }

  /** What the last change came to. */
  public ReadOnlyStringProperty outcomeProperty() {
    return outcome.getReadOnlyProperty();
  }

  public ReadOnlyBooleanProperty busyProperty() {
    return busy.getReadOnlyProperty();
  }

  @Override
  public ReadOnlyLongProperty changesProperty() {
    return changes.getReadOnlyProperty();
  }
}
