package zander.desk.model;

import java.util.List;
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
 * Whether this computer's folder is folded away: beside a text, whose space it is then, unless the
 * person wants otherwise, and beside other sheets as they chose. Interface thread only.
 */
final class LocalFold {
  private final Settings settings;
  private final ObservableValue<Sheet> front;
  private final BooleanProperty folded = new SimpleBooleanProperty();

  /**
   * @param front the sheet in front; of nothing where no desk is
   */
  LocalFold(Settings settings, ObservableValue<Sheet> front) {
    this.settings = settings;
    this.front = front;
    front.addListener((observed, old, now) -> follow());
    for (Setting<Boolean> setting : List.of(Settings.LOCAL_FOLDED, Settings.LOCAL_FOLDED_BY_TEXT)) {
      settings.value(setting).addListener((observed, old, now) -> follow());
    }
    folded.addListener(
        (observed, old, now) -> {
          if (!now.equals(settings.get(setting()))) {
            settings.set(setting(), now);
          }
        });
    follow();
  }

  private Setting<Boolean> setting() {
    Sheet sheet = front.getValue();
    boolean isText =
        sheet instanceof FileModel
            || sheet instanceof ReadingModel
            || sheet instanceof CompareModel;
    return isText ? Settings.LOCAL_FOLDED_BY_TEXT : Settings.LOCAL_FOLDED;
  }

  private void follow() {
    folded.set(settings.get(setting()));
  }

  BooleanProperty foldedProperty() {
    return folded;
  }
}
