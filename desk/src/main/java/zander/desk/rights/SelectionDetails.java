package zander.desk.rights;

import java.util.List;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.collections.ListChangeListener;
import org.jspecify.annotations.Nullable;
import zander.core.files.RemoteEntry;
import zander.core.files.RemotePath;
import zander.core.journal.JournalEntry;
import zander.desk.file.FileModel;
import zander.desk.folder.FolderModel;
import zander.desk.sheet.OpenDesk;

/**
 * What the panel tells of what is selected, or of the file in front: its rights, and what happened
 * to it.
 */
public final class SelectionDetails {
  private final OpenDesk desk;
  private final FolderModel folder;
  private final RightsModel rights;
  private final ReadOnlyObjectWrapper<List<JournalEntry>> history =
      new ReadOnlyObjectWrapper<>(List.of());

  public SelectionDetails(OpenDesk desk, FolderModel folder, RightsModel rights) {
    this.desk = desk;
    this.folder = folder;
    this.rights = rights;
    folder.selection().addListener((ListChangeListener<RemoteEntry>) change -> show());
    desk.openSheets().frontProperty().addListener((observed, old, now) -> show());
  }

  /** Looks again. */
  public void show() {
    if (desk.openSheets().front() instanceof FileModel file) {
      showRightsOf(file);
      showHistory(file.version().real());
      return;
    }
    List<RemoteEntry> chosen = List.copyOf(folder.selection());
    rights.select(chosen);
    showHistory(chosen.size() == 1 ? chosen.get(0).path() : null);
  }

  private void showRightsOf(FileModel file) {
    desk.background()
        .run(
            () -> desk.files().entry(file.version().real()),
            entry -> {
              if (desk.openSheets().front() == file) {
                rights.select(List.of(entry));
              }
            },
            failure -> rights.select(List.of()));
  }

  private void showHistory(@Nullable RemotePath about) {
    if (about == null) {
      history.set(List.of());
      return;
    }
    desk.background()
        .run(() -> desk.journal().about(about), history::set, failure -> history.set(List.of()));
  }

  /** What the journal has about the one thing selected. */
  public ReadOnlyObjectProperty<List<JournalEntry>> historyProperty() {
    return history.getReadOnlyProperty();
  }
}
