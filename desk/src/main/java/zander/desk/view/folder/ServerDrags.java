package zander.desk.view.folder;

import java.io.File;
import java.nio.file.Path;
import java.util.List;
import javafx.event.EventHandler;
import javafx.scene.control.TableView;
import javafx.scene.input.ClipboardContent;
import javafx.scene.input.DataFormat;
import javafx.scene.input.DragEvent;
import javafx.scene.input.Dragboard;
import javafx.scene.input.TransferMode;
import zander.core.files.RemoteEntry;
import zander.desk.local.LocalRow;
import zander.desk.model.DeskModel;

/**
 * Dragging over the waterline: rows of the server are brought down where they are dropped below it,
 * files of this computer, or of its file manager, are sent up where they are dropped above it.
 */
final class ServerDrags {
  /** Rows of a server, which mean something to the desk they came from only. */
  private static final DataFormat ROWS = new DataFormat("application/x-zander-rows");

  private ServerDrags() {}

  static void install(TableView<RemoteEntry> table, DeskModel desk) {
    boolean[] outside = watchOutside(table);
    table.setOnDragDetected(
        event -> {
          if (!desk.folder().selection().isEmpty()) {
            Dragboard board = table.startDragAndDrop(TransferMode.COPY);
            board.setContent(content(desk));
            outside[0] = false;
            event.consume();
          }
        });
    table.setOnDragDone(
        event -> {
          boolean any = !desk.folder().selection().isEmpty();
          if (event.getTransferMode() == null && outside[0] && any) {
            desk.takenOut().prepare();
          }
          event.consume();
        });
    table.setOnDragOver(
        event -> {
          // Rows of this table itself carry files too, once they were taken out.
          if (event.getDragboard().hasFiles() && !event.getDragboard().hasContent(ROWS)) {
            event.acceptTransferModes(TransferMode.COPY);
            event.consume();
          }
        });
    table.setOnDragDropped(
        event -> {
          List<Path> paths = event.getDragboard().getFiles().stream().map(File::toPath).toList();
          desk.transfers().sendUp(paths);
          event.setDropCompleted(true);
          event.consume();
        });
  }

  /** Where a drag ended it does not say itself: the system tells no place outside the window. */
  private static boolean[] watchOutside(TableView<?> table) {
    boolean[] outside = new boolean[1];
    EventHandler<DragEvent> watch =
        event -> outside[0] = event.getEventType() == DragEvent.DRAG_EXITED;
    table
        .sceneProperty()
        .addListener(
            (observed, old, now) -> {
              if (old != null) {
                old.getRoot().removeEventHandler(DragEvent.DRAG_EXITED, watch);
                old.getRoot().removeEventHandler(DragEvent.DRAG_ENTERED, watch);
              }
              if (now != null) {
                now.getRoot().addEventHandler(DragEvent.DRAG_EXITED, watch);
                now.getRoot().addEventHandler(DragEvent.DRAG_ENTERED, watch);
              }
            });
    return outside;
  }

  /** Rows for this window, and their copies for others where those are here already. */
  static ClipboardContent content(DeskModel desk) {
    ClipboardContent content = new ClipboardContent();
    content.put(ROWS, desk.folder().path().wire());
    List<File> copies = desk.takenOut().of(desk.folder().selection());
    if (!copies.isEmpty()) {
      content.putFiles(copies);
    }
    return content;
  }

  static void installBelow(TableView<LocalRow> table, DeskModel desk) {
    table.setOnDragDetected(
        event -> {
          List<File> files =
              desk.local().selection().stream().map(row -> row.path().toFile()).toList();
          if (!files.isEmpty()) {
            Dragboard board = table.startDragAndDrop(TransferMode.COPY);
            ClipboardContent content = new ClipboardContent();
            content.putFiles(files);
            board.setContent(content);
            event.consume();
          }
        });
    table.setOnDragOver(
        event -> {
          if (event.getDragboard().hasContent(ROWS)) {
            event.acceptTransferModes(TransferMode.COPY);
            event.consume();
          }
        });
    table.setOnDragDropped(
        event -> {
          desk.transfers().bringDown();
          event.setDropCompleted(true);
          event.consume();
        });
  }
}
