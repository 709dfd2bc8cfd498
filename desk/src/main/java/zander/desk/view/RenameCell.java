package zander.desk.view;

import java.util.function.BiConsumer;
import javafx.application.Platform;
import javafx.scene.control.TableCell;
import javafx.scene.control.TextField;
import javafx.scene.control.Tooltip;
import javafx.scene.input.KeyCode;
import zander.core.files.FileKind;
import zander.core.files.RemoteEntry;
import zander.core.files.WireName;

/** A name, which can be typed over in its place: Enter takes it, Escape and leaving it do not. */
final class RenameCell extends TableCell<RemoteEntry, RemoteEntry> {
  private final BiConsumer<RemoteEntry, String> rename;
  private final Runnable over;

  RenameCell(BiConsumer<RemoteEntry, String> rename, Runnable over) {
    this.rename = rename;
    this.over = over;
  }

  @Override
  protected void updateItem(RemoteEntry entry, boolean empty) {
    super.updateItem(entry, empty);
    getStyleClass().removeAll("folder-name", "link-name");
    setGraphic(null);
    if (empty || entry == null) {
      setText(null);
      setTooltip(null);
      return;
    }
    boolean link = entry.kind() == FileKind.LINK;
    String target = link && entry.target() != null ? "  →  " + WireName.toText(entry.target()) : "";
    setText(entry.name() + target);
    setTooltip(entry.name().length() > 30 || link ? new Tooltip(getText()) : null);
    if (entry.leadsToFolder()) {
      getStyleClass().add("folder-name");
    }
    if (link) {
      getStyleClass().add("link-name");
    }
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
