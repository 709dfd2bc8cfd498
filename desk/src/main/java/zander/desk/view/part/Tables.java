package zander.desk.view.part;

import java.util.List;
import java.util.function.Consumer;
import java.util.function.Function;
import java.util.function.Supplier;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.collections.ListChangeListener;
import javafx.collections.ObservableList;
import javafx.collections.transformation.SortedList;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.SelectionMode;
import javafx.scene.control.TableCell;
import javafx.scene.control.TableColumn;
import javafx.scene.control.TableRow;
import javafx.scene.control.TableView;
import javafx.scene.control.Tooltip;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;

/** What the table above the waterline and the one below it have in common. */
public final class Tables {
  private static final double ROW_HEIGHT = 27;

  /** The longest are such as {@code 999.9 MB}. */
  private static final double NUMBER_WIDTH = 84;

  private static final double LIBRARY_WIDTH = 80;

  private Tables() {}

  public static <R, T> TableColumn<R, T> column(
      String title, double width, Function<R, T> value, Supplier<TableCell<R, T>> cell) {
    TableColumn<R, T> column = new TableColumn<>(title);
    // A width that is the library's own makes it fit the column to the first rows it ever shows.
    column.setPrefWidth(width == LIBRARY_WIDTH ? width + 1 : width);
    column.setMinWidth(48);
    column.setCellValueFactory(
        row -> new ReadOnlyObjectWrapper<>(value.apply(row.getValue())).getReadOnlyProperty());
    column.setCellFactory(ignored -> cell.get());
    return column;
  }

  /** Makes a column one of numbers, which it is never so narrow as to cut. */
  public static <R, T> TableColumn<R, T> numbers(TableColumn<R, T> column) {
    column.setMinWidth(NUMBER_WIDTH);
    column.getStyleClass().add("right");
    return column;
  }

  public static <R, T> TableCell<R, T> text(
      Function<T, String> words, Pos alignment, String styleClass) {
    TableCell<R, T> cell =
        new TableCell<>() {
          @Override
          protected void updateItem(T item, boolean empty) {
            super.updateItem(item, empty);
            setText(empty || item == null ? null : words.apply(item));
          }
        };
    cell.setAlignment(alignment);
    cell.getStyleClass().add(styleClass);
    return cell;
  }

  /**
   * A cell with a tag in it.
   *
   * @param words empty for no tag
   * @param classes the style classes of the tag
   */
  public static <R, T> TableCell<R, T> tag(
      Function<T, String> words, Function<T, List<String>> classes) {
    Label tag = new Label();
    return new TableCell<>() {
      @Override
      protected void updateItem(T item, boolean empty) {
        super.updateItem(item, empty);
        if (empty || item == null || words.apply(item).isEmpty()) {
          setGraphic(null);
          return;
        }
        tag.setText(words.apply(item));
        List<String> wanted = classes.apply(item);
        if (!tag.getStyleClass().equals(wanted)) {
          tag.getStyleClass().setAll(wanted);
        }
        setGraphic(tag);
      }
    };
  }

  /**
   * Words that show while the mouse rests on a cell. Made when it comes, because a table that
   * scrolls would make thousands that nobody reads.
   *
   * @param words empty for none; asked with what the cell shows, which may be {@code null}
   */
  public static <R, T> void hint(TableCell<R, T> cell, Function<T, String> words) {
    cell.setOnMouseEntered(
        event -> {
          String text = cell.isEmpty() ? "" : words.apply(cell.getItem());
          cell.setTooltip(text.isEmpty() ? null : new Tooltip(text));
        });
  }

  /** Gives a cell or row a style class or takes it, touching its style only when that changes. */
  public static void mark(Node node, String styleClass, boolean on) {
    boolean has = node.getStyleClass().contains(styleClass);
    if (on && !has) {
      node.getStyleClass().add(styleClass);
    } else if (!on && has) {
      node.getStyleClass().remove(styleClass);
    }
  }

  /** Shows rows in the table's own order. */
  public static <R> void fill(TableView<R> table, ObservableList<R> rows) {
    SortedList<R> sorted = new SortedList<>(rows);
    sorted.comparatorProperty().bind(table.comparatorProperty());
    table.setItems(sorted);
  }

  /**
   * Makes rows that are opened by Enter and by a double click.
   *
   * @param row told of each row that is made
   */
  public static <R> void open(TableView<R> table, Consumer<R> open, Consumer<TableRow<R>> row) {
    RowSelection<R> selection = new RowSelection<>(table);
    selection.setSelectionMode(SelectionMode.MULTIPLE);
    table.setSelectionModel(selection);
    table.setFixedCellSize(ROW_HEIGHT);
    table.setRowFactory(
        view -> {
          TableRow<R> made = new TableRow<>();
          made.setOnMouseClicked(
              event -> {
                boolean twice = event.getClickCount() == 2;
                if (event.getButton() == MouseButton.PRIMARY && twice && !made.isEmpty()) {
                  open.accept(made.getItem());
                }
              });
          row.accept(made);
          return made;
        });
    table.setOnKeyPressed(
        event -> {
          R one = table.getSelectionModel().getSelectedItem();
          boolean editing = table.getEditingCell() != null;
          if (event.getCode() == KeyCode.ENTER && one != null && !event.isAltDown() && !editing) {
            open.accept(one);
            event.consume();
          }
        });
  }

  /**
   * Keeps the selection of a table made ready by {@link #open} and the model's the same. After rows
   * were read anew the model still knows what was selected and the table does not.
   */
  public static <R> void bindSelection(
      TableView<R> table, ObservableList<R> model, Consumer<List<R>> select) {
    RowSelection<R> selection = (RowSelection<R>) table.getSelectionModel();
    boolean[] busy = new boolean[1];
    Consumer<Runnable> once =
        change -> {
          if (!busy[0]) {
            busy[0] = true;
            change.run();
            busy[0] = false;
          }
        };
    selection
        .getSelectedItems()
        .addListener(
            (ListChangeListener<R>)
                change ->
                    once.accept(() -> select.accept(List.copyOf(selection.getSelectedItems()))));
    model.addListener(
        (ListChangeListener<R>) change -> once.accept(() -> selection.selectOnly(model)));
  }
}
