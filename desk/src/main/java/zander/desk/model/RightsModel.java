package zander.desk.model;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.OptionalInt;
import java.util.function.UnaryOperator;
import javafx.beans.property.ReadOnlyBooleanProperty;
import javafx.beans.property.ReadOnlyBooleanWrapper;
import javafx.beans.property.ReadOnlyLongProperty;
import javafx.beans.property.ReadOnlyLongWrapper;
import javafx.beans.property.ReadOnlyStringProperty;
import javafx.beans.property.ReadOnlyStringWrapper;
import javafx.beans.property.SimpleStringProperty;
import javafx.beans.property.StringProperty;
import zander.core.change.RightsChange;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteEntry;
import zander.core.files.RemotePath;
import zander.core.rights.Mode;
import zander.core.rights.SymbolicMode;
import zander.desk.work.FailureWords;

/**
 * The rights of what is selected, being edited. Each selected entry has a mode it is to get; boxes,
 * octal and symbolic notation are three ways to change these, so they cannot disagree.
 */
public final class RightsModel {
  /** The umask for clauses that name no class. */
  private static final int UMASK = 022;

  /** A box over several files: all have the bit, none, or some. */
  public enum Bit {
    ON,
    OFF,
    MIXED
  }

  private final DeskModel desk;
  private final Map<RemoteEntry, Mode> wanted = new LinkedHashMap<>();
  private final StringProperty owner = new SimpleStringProperty("");
  private final StringProperty group = new SimpleStringProperty("");
  private final ReadOnlyStringWrapper problem = new ReadOnlyStringWrapper("");
  private final ReadOnlyStringWrapper outcome = new ReadOnlyStringWrapper("");
  private final ReadOnlyBooleanWrapper busy = new ReadOnlyBooleanWrapper(false);
  private final ReadOnlyLongWrapper changes = new ReadOnlyLongWrapper();

  RightsModel(DeskModel desk) {
    this.desk = desk;
    owner.addListener((observed, old, now) -> checkNames());
    group.addListener((observed, old, now) -> checkNames());
  }

  /** Takes a new selection; edits not set yet are dropped. */
  void select(List<RemoteEntry> entries) {
    boolean same = wanted.keySet().stream().toList().equals(entries);
    if (same) {
      return;
    }
    boolean samePaths =
        wanted.keySet().stream()
            .map(RemoteEntry::path)
            .toList()
            .equals(entries.stream().map(RemoteEntry::path).toList());
    wanted.clear();
    entries.forEach(entry -> wanted.put(entry, real(entry).mode()));
    owner.set(common(entries.stream().map(e -> desk.userName(real(e).uid())).toList()));
    group.set(common(entries.stream().map(e -> desk.groupName(real(e).gid())).toList()));
    problem.set("");
    if (!samePaths) {
      outcome.set("");
    }
    changed();
  }

  /** Rights are those of what a link leads to, because that is what a change would reach. */
  private static RemoteAttributes real(RemoteEntry entry) {
    return entry.behind() == null ? entry.attributes() : entry.behind();
  }

  private static String common(List<String> values) {
    return values.stream().distinct().count() == 1 ? values.get(0) : "";
  }

  private void changed() {
    changes.set(changes.get() + 1);
  }

  public List<RemoteEntry> entries() {
    return List.copyOf(wanted.keySet());
  }

  public Bit bit(int bit) {
    long on = wanted.values().stream().filter(mode -> mode.has(bit)).count();
    return on == 0 ? Bit.OFF : on == wanted.size() ? Bit.ON : Bit.MIXED;
  }

  /** A press on a box: on becomes off, anything else becomes on, for all. */
  public void press(int bit) {
    boolean on = bit(bit) != Bit.ON;
    change(mode -> mode.withBit(bit, on));
  }

  private void change(UnaryOperator<Mode> to) {
    wanted.replaceAll((entry, mode) -> to.apply(mode));
    problem.set("");
    outcome.set("");
    changed();
  }

  /** The digits as a sum for one class, {@code 4+2 = 6}; empty when the files differ. */
  public String sum(Mode.Who who) {
    return common(wanted.values().stream().map(mode -> mode.sum(who)).toList());
  }

  /** Four digits, or empty when the files differ. */
  public String octal() {
    return common(wanted.values().stream().map(Mode::octal).toList());
  }

  /** The notation that sets it, or empty when the files differ. */
  public String symbolic() {
    return common(wanted.values().stream().map(SymbolicMode::of).toList());
  }

  public void typeOctal(String text) {
    try {
      Mode mode = Mode.ofOctal(text);
      change(before -> mode);
    } catch (IllegalArgumentException e) {
      problem.set(e.getMessage());
    }
  }

  /** Applies an expression to what each file has now, {@code u+x}, {@code go-w}, {@code a=rX}. */
  public void typeSymbolic(String text) {
    try {
      SymbolicMode change = SymbolicMode.parse(text);
      wanted.replaceAll(
          (entry, mode) -> change.apply(real(entry).mode(), UMASK, real(entry).isFolder()));
      problem.set("");
      outcome.set("");
      changed();
    } catch (IllegalArgumentException e) {
      problem.set(e.getMessage());
    }
  }

  public StringProperty ownerProperty() {
    return owner;
  }

  public StringProperty groupProperty() {
    return group;
  }

  private void checkNames() {
    if (!owner.get().isBlank() && desk.uidOf(owner.get()).isEmpty()) {
      problem.set("no account " + owner.get() + " on this server");
    } else if (!group.get().isBlank() && desk.gidOf(group.get()).isEmpty()) {
      problem.set("no group " + group.get() + " on this server");
    } else {
      problem.set("");
    }
    changed();
  }

  /** Whether there is something to set. */
  public boolean isChanged() {
    boolean modes =
        wanted.entrySet().stream().anyMatch(e -> !real(e.getKey()).mode().equals(e.getValue()));
    return modes || !uidWanted().isEmpty() || !gidWanted().isEmpty();
  }

  private OptionalInt uidWanted() {
    OptionalInt uid = owner.get().isBlank() ? OptionalInt.empty() : desk.uidOf(owner.get());
    boolean same =
        uid.isPresent() && wanted.keySet().stream().allMatch(e -> real(e).uid() == uid.getAsInt());
    return same ? OptionalInt.empty() : uid;
  }

  private OptionalInt gidWanted() {
    OptionalInt gid = group.get().isBlank() ? OptionalInt.empty() : desk.gidOf(group.get());
    boolean same =
        gid.isPresent() && wanted.keySet().stream().allMatch(e -> real(e).gid() == gid.getAsInt());
    return same ? OptionalInt.empty() : gid;
  }

  /** Sets the rights on the server, reads them back, and shows what they are now. */
  public void apply() {
    if (busy.get() || wanted.isEmpty() || !problem.get().isEmpty()) {
      return;
    }
    busy.set(true);
    outcome.set("setting");
    OptionalInt uid = uidWanted();
    OptionalInt gid = gidWanted();
    Map<RemotePath, Mode> modes = new LinkedHashMap<>();
    wanted.forEach((entry, mode) -> modes.put(entry.path(), mode));
    desk.background()
        .run(
            () -> {
              RightsChange change = desk.rightsChange();
              List<RightsChange.Result> results = new ArrayList<>();
              for (Map.Entry<RemotePath, Mode> one : modes.entrySet()) {
                results.addAll(
                    change.apply(
                        List.of(one.getKey()), uid, gid, (before, folder) -> one.getValue()));
              }
              return results;
            },
            this::applied,
            failure -> {
              busy.set(false);
              outcome.set(FailureWords.of(failure).headline());
              desk.checkLine();
            });
  }

  private void applied(List<RightsChange.Result> results) {
    busy.set(false);
    List<RemoteEntry> now =
        results.stream().map(RightsChange.Result::entry).filter(e -> e != null).toList();
    desk.rightsChanged(now);
    List<RightsChange.Result> failed =
        results.stream().filter(result -> result.failure() != null).toList();
    if (failed.isEmpty()) {
      outcome.set("set and read back" + (results.size() == 1 ? "" : ", all " + results.size()));
    } else {
      problem.set(
          failed.size()
              + " of "
              + results.size()
              + " not set. "
              + FailureWords.of(failed.get(0).failure()).headline());
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

  /** Counts up whenever something to be shown has changed. */
  public ReadOnlyLongProperty changesProperty() {
    return changes.getReadOnlyProperty();
  }
}
