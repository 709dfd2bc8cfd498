package zander.desk.model;

import javafx.beans.property.BooleanProperty;
import javafx.beans.property.SimpleBooleanProperty;
import javafx.beans.value.ObservableValue;
import zander.desk.compare.CompareModel;
import zander.desk.file.FileModel;
import zander.desk.reading.ReadingModel;
import zander.desk.sheet.Sheet;
import zander.desk.work.Setting;
import zander.desk.work.Settings;

/**
 * What of the window is folded away: this computer's folder beside a text, whose space it is then,
 * and the panel where the window is narrow, unless the person wants otherwise there; elsewhere as
 * they chose. Interface thread only.
 */
public final class Folds {
  private final BooleanProperty narrow = new SimpleBooleanProperty();
  private final BooleanProperty local;
  private final BooleanProperty panel;

  /**
   * @param front the sheet in front; of nothing where no desk is
   */
  Folds(Settings settings, ObservableValue<Sheet> front) {
    local = settings.property(front.map(Folds::besideIt).orElse(Settings.LOCAL_FOLDED));
    panel =
        settings.property(
            narrow.map(is -> is ? Settings.PANEL_FOLDED_NARROW : Settings.PANEL_FOLDED));
  }

  private static Setting<Boolean> besideIt(Sheet sheet) {
    boolean isText =
        sheet instanceof FileModel
            || sheet instanceof ReadingModel
            || sheet instanceof CompareModel;
    return isText ? Settings.LOCAL_FOLDED_BY_TEXT : Settings.LOCAL_FOLDED;
  }

  /** Whether this computer's folder is folded away beside the sheet in front. */
  public BooleanProperty localProperty() {
    return local;
  }

  /** Whether the panel beside the sheets is folded away. */
  public BooleanProperty panelProperty() {
    return panel;
  }

  /** Whether the window is too narrow for all its parts; the view says so. */
  public BooleanProperty narrowProperty() {
    return narrow;
  }
}
