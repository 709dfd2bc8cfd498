package zander.desk.view.folder;

import java.util.function.BiConsumer;
import javafx.application.Platform;
import javafx.scene.control.TableCell;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import zander.core.files.FileKind;
import zander.core.files.RemoteEntry;
import zander.core.files.WireName;
import zander.desk.view.part.Tables;

/** A name, which can be typed over in its place: Enter takes it, Escape and leaving it do not. */
final class RenameCell extends TableCell<RemoteEntry, RemoteEntry> {
  private static final int LONG = 30;

  private final BiConsumer<RemoteEntry, String> rename;
  private final Runnable over;

  RenameCell(BiConsumer<RemoteEntry, String> rename, Runnable over) {
    this.rename = rename;
    this.over = over;
    Tables.hint(this, entry -> entry == null || words(entry).length() <= LONG ? "" : words(entry));
  }

  @Override
  protected void updateItem(RemoteEntry entry, boolean empty) {
    super.updateItem(entry, empty);
    setGraphic(null);
    boolean shown = !empty && entry != null;
    boolean link = shown && entry.kind() == FileKind.LINK;
    setText(shown ? words(entry) : null);
    Tables.mark(this, "folder-name", shown && entry.leadsToFolder());
    Tables.mark(this, "link-name", link);
  }

  private static String words(RemoteEntry entry) {
    String target = entry.kind() == FileKind.LINK ? entry.target() : null;
    return entry.name() + (target == null ? "" : "  →  " + WireName.toText(target));
  }

  @Override
  public void startEdit() {
    RemoteEntry entry = getItem();
    if (entry == null) {
      return;
    }
    super.startEdit();
    TextField field = new TextField(entry.name());
    field.setId("rename-field");
    field.setOnAction(
        event -> {
          String typed = field.getText();
          cancelEdit();
          rename.accept(entry, typed);
        });
    field.setOnKeyPressed(
        event -> {
          if (event.getCode() == KeyCode.ESCAPE) {
            cancelEdit();
            event.consume();
          }
        });
    field
        .focusedProperty()
        .addListener(
            (observed, old, now) -> {
              if (!now && isEditing()) {
                cancelEdit();
              }
            });
    setText(null);
    setGraphic(field);
    Platform.runLater(
        () -> {
          field.requestFocus();
          int dot = entry.name().lastIndexOf('.');
          boolean ending = dot > 0 && !entry.attributes().isFolder();
          field.selectRange(0, ending ? dot : entry.name().length());
        });
  }

  @Override
  public void cancelEdit() {
    super.cancelEdit();
    updateItem(getItem(), isEmpty());
    over.run();
    getTableView().requestFocus();
  }
}
