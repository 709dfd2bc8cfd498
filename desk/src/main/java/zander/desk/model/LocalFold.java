package zander.desk.model;

import javafx.beans.property.BooleanProperty;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.SimpleBooleanProperty;
import javafx.beans.value.ChangeListener;
import zander.desk.file.FileEndModel;
import zander.desk.file.FileModel;
import zander.desk.sheet.Sheet;
import zander.desk.work.Setting;
import zander.desk.work.Settings;

/**
 * Whether this computer's folder is folded away: beside a text, whose space it is then, unless the
 * person wants otherwise, and beside other sheets as they chose. Interface thread only.
 */
final class LocalFold {
  private final Settings settings;
  private final ObjectProperty<DeskModel> desk;
  private final BooleanProperty folded = new SimpleBooleanProperty();
  private final ChangeListener<Sheet> sheetChanged = (observed, old, now) -> follow();

  LocalFold(Settings settings, ObjectProperty<DeskModel> desk) {
    this.settings = settings;
    this.desk = desk;
    desk.addListener(
        (observed, old, now) -> {
          if (old != null) {
            old.currentProperty().removeListener(sheetChanged);
          }
          if (now != null) {
            now.currentProperty().addListener(sheetChanged);
          }
          follow();
        });
    for (Setting<Boolean> setting :
        java.util.List.of(Settings.LOCAL_FOLDED, Settings.LOCAL_FOLDED_BY_TEXT)) {
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
    DeskModel front = desk.get();
    Sheet sheet = front == null ? null : front.currentProperty().get();
    boolean isText = sheet instanceof FileModel || sheet instanceof FileEndModel;
    return isText ? Settings.LOCAL_FOLDED_BY_TEXT : Settings.LOCAL_FOLDED;
  }

  private void follow() {
    folded.set(settings.get(setting()));
  }

  BooleanProperty foldedProperty() {
    return folded;
  }
}
