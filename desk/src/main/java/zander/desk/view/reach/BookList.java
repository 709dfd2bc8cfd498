package zander.desk.view.reach;

import java.util.Locale;
import javafx.collections.ListChangeListener;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ScrollPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import zander.core.book.Mark;
import zander.core.book.ServerEntry;
import zander.desk.model.AppModel;
import zander.desk.reach.BookModel;
import zander.desk.reach.BookModel.Row;
import zander.desk.reach.BookModel.Source;
import zander.desk.view.part.Parts;
import zander.desk.words.Words;

/** The servers that fit, under the headings of their groups. */
final class BookList extends ScrollPane {
  private static final Words WORDS = Words.of(BookList.class);

  private final AppModel model;
  private final BookModel book;
  private final VBox rows = new VBox();

  BookList(AppModel model) {
    this.model = model;
    this.book = model.book();
    setFitToWidth(true);
    getStyleClass().add("book-list");
    rows.getStyleClass().add("book");
    setContent(rows);
    book.rows().addListener((ListChangeListener<Row>) change -> show());
    book.selectedProperty().addListener((observed, old, now) -> mark());
    show();
  }

  private void show() {
    rows.getChildren().clear();
    String heading = "";
    for (Row row : book.rows().sorted(java.util.Comparator.comparing(BookList::rank))) {
      String own = headingOf(row);
      if (!own.equals(heading)) {
        rows.getChildren().add(Parts.label(own, "field-title", "book-group"));
        heading = own;
      }
      rows.getChildren().add(button(row));
    }
    mark();
  }

  /** Groups in the order of their first server; then what is only read, then what was removed. */
  private static int rank(Row row) {
    return row.source().ordinal();
  }

  private static String headingOf(Row row) {
    return switch (row.source()) {
      case CONFIG -> WORDS.say("fromYourOpenSSH");
      case REMOVED -> WORDS.say("removed");
      default -> row.entry().group().isEmpty() ? WORDS.say("serverBook") : row.entry().group();
    };
  }

  private Button button(Row row) {
    ServerEntry entry = row.entry();
    HBox name = Parts.row("book-name", Parts.label(entry.name(), "strong-word"));
    name.getChildren().addAll(tags(entry));
    VBox text = new VBox(name, Parts.label(entry.address().toString(), "mono", "quiet"));
    String prefix =
        row.source() == Source.BOOK
            ? "server-"
            : row.source().name().toLowerCase(Locale.ROOT) + "-";
    Button button =
        Parts.button(
            "",
            prefix + entry.name().replaceAll("[^A-Za-z0-9._-]", "-"),
            () -> book.select(row),
            "book-row");
    button.setGraphic(text);
    button.setUserData(row);
    button.setMaxWidth(Double.MAX_VALUE);
    button.setFocusTraversable(false);
    button.setAccessibleText(entry.name() + ", " + entry.address());
    button.setOnMouseClicked(
        event -> {
          if (event.getClickCount() == 2 && row.source() != Source.REMOVED) {
            model.open(entry);
          }
        });
    return button;
  }

  static java.util.List<Node> tags(ServerEntry entry) {
    if (entry.mark() == Mark.NONE) {
      return java.util.List.of();
    }
    String mark = entry.mark().name().toLowerCase(Locale.ROOT);
    return java.util.List.of(Parts.label(mark, "tag", entry.mark() == Mark.LIVE ? "look" : "good"));
  }

  private void mark() {
    for (Node node : rows.getChildren()) {
      node.getStyleClass().remove("current");
      if (node.getUserData() != null && node.getUserData().equals(book.selectedProperty().get())) {
        node.getStyleClass().add("current");
        reveal(node);
      }
    }
  }

  private void reveal(Node node) {
    double height = rows.getHeight() - getViewportBounds().getHeight();
    double top = node.getBoundsInParent().getMinY();
    double shown = getVvalue() * height;
    if (height > 0 && (top < shown || top + 50 > shown + getViewportBounds().getHeight())) {
      setVvalue(Math.max(0, Math.min(1, top / height)));
    }
  }
}
