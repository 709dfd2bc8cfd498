package zander.desk.view;

import java.util.Locale;
import javafx.collections.ListChangeListener;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import zander.core.book.Mark;
import zander.core.book.ServerEntry;
import zander.desk.model.AppModel;
import zander.desk.work.Said;

/** The start: the server book, an address to type, and how a sign-in goes. */
final class OpenServerView extends ScrollPane {
  private final AppModel model;
  private final VBox book = new VBox();
  private final VBox failure = new VBox();
  private final TextField address = new TextField();

  OpenServerView(AppModel model) {
    this.model = model;
    getStyleClass().add("open-server");
    setFitToWidth(true);
    address.setId("address");
    address.setPromptText("account@host or account@host:port");
    address.setPrefColumnCount(28);
    TextField key = new TextField();
    key.setId("key-file");
    key.setPromptText("Key file; empty for a password");
    key.setPrefColumnCount(24);
    Runnable open = () -> model.openTyped(address.getText(), key.getText());
    address.setOnAction(event -> open.run());
    key.setOnAction(event -> open.run());
    Button go = Parts.button("Open", "open-typed", open, "main");
    go.setMinWidth(USE_PREF_SIZE);
    HBox typed = Parts.row("typed", address, key, go);
    Label step = Parts.label("", "step");
    step.setId("step");
    step.textProperty().bind(model.stepProperty());
    book.getStyleClass().add("book");
    failure.getStyleClass().addAll("strip", "danger");
    failure.setId("failure");
    VBox inner =
        new VBox(
            Parts.row("page-head", Parts.label("Open a server", "page-title"), step),
            failure,
            Parts.label("Server book", "field-title"),
            book,
            Parts.label("Or type an address", "field-title"),
            typed);
    inner.getStyleClass().add("page");
    setContent(inner);
    model.servers().addListener((ListChangeListener<ServerEntry>) change -> showBook());
    model.failureProperty().addListener((observed, old, now) -> showFailure(now));
    showBook();
    showFailure(model.failureProperty().get());
  }

  private void showBook() {
    book.getChildren().clear();
    if (model.servers().isEmpty()) {
      book.getChildren()
          .add(Parts.label("No server is saved yet. Type an address below.", "quiet"));
    }
    for (ServerEntry entry : model.servers()) {
      book.getChildren().add(row(entry));
    }
    if (getScene() != null && address.isFocused() && address.getText().isEmpty()) {
      focusFirst();
    }
  }

  private Button row(ServerEntry entry) {
    HBox name = Parts.row("book-name", Parts.label(entry.name(), "strong-word"));
    if (entry.mark() != Mark.NONE) {
      String mark = entry.mark().name().toLowerCase(Locale.ROOT);
      name.getChildren().add(Parts.label(mark, "tag", entry.mark() == Mark.LIVE ? "look" : "good"));
    }
    Label where = Parts.label(entry.address().toString(), "mono", "quiet");
    VBox left = new VBox(name, where);
    HBox.setHgrow(left, Priority.ALWAYS);
    Label note = Parts.label(entry.note() == null ? "" : entry.note(), "quiet");
    Button row = Parts.button("", "server-" + entry.name(), () -> model.open(entry), "book-row");
    row.setGraphic(Parts.row("book-line", left, note));
    row.setMaxWidth(Double.MAX_VALUE);
    row.setAccessibleText("Open " + entry.name());
    row.disableProperty().bind(model.stepProperty().isNotEmpty());
    return row;
  }

  private void showFailure(Said said) {
    failure.getChildren().clear();
    Parts.show(failure, said != null);
    if (said != null) {
      Label headline = Parts.label(said.headline(), "strip-headline");
      headline.setWrapText(true);
      failure.getChildren().add(headline);
      for (String line : said.detail().split("\n")) {
        // Fingerprints are compared letter by letter, so they stand in letters of one width.
        Label detail = Parts.label(line, line.contains("SHA256:") ? "mono" : "strip-detail");
        detail.setWrapText(true);
        detail.setMinHeight(USE_PREF_SIZE);
        failure.getChildren().add(detail);
      }
      failure.getChildren().add(Parts.button("Close", "dismiss-failure", model::dismissFailure));
    }
  }

  void focusFirst() {
    if (book.getChildren().isEmpty() || model.servers().isEmpty()) {
      address.requestFocus();
    } else {
      book.getChildren().get(0).requestFocus();
    }
  }
}
