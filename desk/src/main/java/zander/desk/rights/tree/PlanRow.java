package zander.desk.rights.tree;

import javafx.beans.property.BooleanProperty;
import javafx.beans.property.SimpleBooleanProperty;
import zander.core.change.rights.PlanGroup;
import zander.core.change.rights.PlanGroup.Fate;

/** A row of the preview: entries of which the same is to be said. */
public final class PlanRow {
  private final PlanGroup group;
  private final BooleanProperty chosen;

  PlanRow(PlanGroup group) {
    this.group = group;
    // What is dangerous has to be asked for.
    chosen = new SimpleBooleanProperty(mayBeChosen() && group.danger() == null);
  }

  public PlanGroup group() {
    return group;
  }

  /** Whether these are changed if it is wished. */
  public boolean mayBeChosen() {
    return group.fate() == Fate.CHANGED;
  }

  public BooleanProperty chosenProperty() {
    return chosen;
  }
}
