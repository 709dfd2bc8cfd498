package zander.desk.rights.tree;

import static java.util.Objects.requireNonNull;

import java.io.IOException;
import java.util.Comparator;
import java.util.HashMap;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import javafx.beans.property.ReadOnlyLongProperty;
import javafx.beans.property.ReadOnlyLongWrapper;
import javafx.collections.FXCollections;
import javafx.collections.ObservableList;
import org.jspecify.annotations.Nullable;
import zander.core.change.rights.PlanGroup;
import zander.core.change.rights.TreePlan;
import zander.core.change.rights.TreeSteps;
import zander.core.files.RemotePath;
import zander.desk.sheet.OpenDesk;

/** What of a plan is chosen to be set. Interface thread only, but for {@link Chosen}. */
public final class PlanChoice {
  /** Of a group so many entries are shown one by one. */
  private static final int MOST_SHOWN = 1000;

  private final OpenDesk desk;
  private final ObservableList<PlanRow> rows = FXCollections.observableArrayList();
  private final ObservableList<TreePlan.Planned> shown = FXCollections.observableArrayList();
  private final Map<RemotePath, PlanRow> leftOut = new HashMap<>();
  private @Nullable PlanRow shownRow;
  private final ReadOnlyLongWrapper changes = new ReadOnlyLongWrapper();
  private @Nullable TreePlan plan;

  PlanChoice(OpenDesk desk) {
    this.desk = desk;
  }

  void clear() {
    plan = null;
    rows.clear();
    shown.clear();
    leftOut.clear();
    changed();
  }

  void take(TreePlan made) {
    clear();
    plan = made;
    rows.setAll(
        made.groups().stream()
            .sorted(
                Comparator.comparing(PlanGroup::fate)
                    .thenComparing(group -> group.danger() == null ? -1 : group.danger().ordinal())
                    .thenComparing(Comparator.comparingLong(PlanGroup::count).reversed()))
            .map(PlanRow::new)
            .toList());
    rows.forEach(row -> row.chosenProperty().addListener((observed, old, now) -> changed()));
  }

  private void changed() {
    changes.set(changes.get() + 1);
  }

  /** Whether other file systems are told apart, as far as is known. */
  boolean seesFileSystems() {
    return plan == null || plan.seesFileSystems();
  }

  /** How many entries would be set. */
  public long count() {
    long all =
        rows.stream()
            .filter(row -> row.chosenProperty().get())
            .mapToLong(row -> row.group().count())
            .sum();
    return all - leftOut.values().stream().filter(row -> row.chosenProperty().get()).count();
  }

  /** What is chosen at a moment; for any thread. */
  record Chosen(@Nullable TreePlan plan, Set<PlanGroup> groups, Set<RemotePath> leftOut) {
    TreeSteps steps() throws IOException {
      return requireNonNull(plan, "something was planned").choose(groups, leftOut);
    }
  }

  Chosen chosen() {
    Set<PlanGroup> groups =
        rows.stream()
            .filter(row -> row.chosenProperty().get())
            .map(PlanRow::group)
            .collect(Collectors.toSet());
    return new Chosen(plan, groups, Set.copyOf(leftOut.keySet()));
  }

  /** Shows the entries of a row one by one. */
  public void show(PlanRow row) {
    shownRow = row;
    if (plan == null || !row.mayBeChosen()) {
      shown.clear();
      return;
    }
    TreePlan of = plan;
    desk.background()
        .run(
            () -> of.entriesOf(row.group(), MOST_SHOWN),
            entries -> {
              if (plan == of && shownRow == row) {
                shown.setAll(entries);
              }
            },
            failure -> {});
  }

  /** Whether an entry is left out though its row is chosen. */
  public boolean isLeftOut(RemotePath path) {
    return leftOut.containsKey(path);
  }

  /** Leaves one of those that are shown out, or not. */
  public void leaveOut(RemotePath path, boolean out) {
    if (out) {
      leftOut.put(path, shownRow);
    } else {
      leftOut.remove(path);
    }
    changed();
  }

  public ObservableList<PlanRow> rows() {
    return rows;
  }

  /** The entries of one row. */
  public ObservableList<TreePlan.Planned> shown() {
    return shown;
  }

  /** Counts up whenever other entries are chosen. */
  public ReadOnlyLongProperty changesProperty() {
    return changes.getReadOnlyProperty();
  }
}
