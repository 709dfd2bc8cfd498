package zander.desk.view.reach;

import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import zander.core.connect.address.TypedAddress;
import zander.desk.model.AppModel;
import zander.desk.reach.BookModel;
import zander.desk.reach.SignInModel;
import zander.desk.view.part.Parts;
import zander.desk.words.Words;
import zander.desk.work.Message;

/**
 * The server book: one field that searches and takes addresses, the list under it, and beside it
 * what is selected, being edited, or being opened.
 */
final class ServersPage extends BorderPane {
  private static final Words WORDS = Words.of(ServersPage.class);

  private final AppModel model;
  private final BookModel book;
  private final TextField search = new TextField();
  private final VBox notice = new VBox();
  private final ScrollPane panel = new ScrollPane();

  ServersPage(AppModel model) {
    this.model = model;
    this.book = model.book();
    search.setId("search");
    search.setPromptText(WORDS.say("searchOrTypeAccount"));
    search.textProperty().bindBidirectional(book.searchProperty());
    search.addEventFilter(KeyEvent.KEY_PRESSED, this::key);
    HBox.setHgrow(search, Priority.ALWAYS);
    BookList list = new BookList(model);
    VBox.setVgrow(list, Priority.ALWAYS);
    HBox foot =
        Parts.row(
            "choices",
            Parts.button(WORDS.say("newServer"), "new-server", book::startNew),
            Parts.spring(),
            Parts.button(
                WORDS.say("writeAsOpenSSHConfig"),
                "write-config",
                () -> book.writeConfig(path -> {})));
    notice.setId("notice");
    notice.getStyleClass().add("strip");
    VBox left = new VBox(Parts.row("search-row", search), list, foot);
    left.getStyleClass().add("book-side");
    setLeft(left);
    panel.setFitToWidth(true);
    panel.getStyleClass().add("book-panel");
    setCenter(new BorderPane(panel, notice, null, null, null));
    book.selectedProperty()
        .addListener(
            (observed, old, now) -> {
              SignInModel shown = model.signInProperty().get();
              boolean another = old == null || now == null || !old.entry().equals(now.entry());
              if (another && shown != null && shown.isOver()) {
                model.endSignIn();
              }
              showPanel();
            });
    book.draftProperty().addListener((observed, old, now) -> showPanel());
    model.signInProperty().addListener((observed, old, now) -> showPanel());
    book.noticeProperty().addListener((observed, old, now) -> showNotice(now));
    showPanel();
    showNotice(book.noticeProperty().get());
  }

  private void key(KeyEvent event) {
    switch (event.getCode()) {
      case DOWN -> step(1);
      case UP -> step(-1);
      case ENTER -> openTyped();
      case ESCAPE -> search.clear();
      default -> {
        return;
      }
    }
    event.consume();
  }

  private void step(int by) {
    int at = book.rows().indexOf(book.selectedProperty().get()) + by;
    if (at >= 0 && at < book.rows().size()) {
      book.select(book.rows().get(at));
    }
  }

  private void openTyped() {
    String typed = search.getText().strip();
    if (TypedAddress.looksLikeOne(typed) && book.find(typed) == null) {
      model.openTyped(typed);
    } else if (book.selectedProperty().get() != null) {
      BookModel.Row row = book.selectedProperty().get();
      if (row.source() != BookModel.Source.REMOVED) {
        model.open(row.entry());
      }
    } else {
      model.openTyped(typed);
    }
  }

  private void showPanel() {
    SignInModel signIn = model.signInProperty().get();
    Node content;
    if (book.draftProperty().get() != null) {
      content = new EntryForm(book, book.draftProperty().get(), model.keys().folder());
    } else if (signIn != null) {
      content = new SignInPanel(model, signIn);
    } else if (book.selectedProperty().get() != null) {
      content = new EntryPanel(model, book.selectedProperty().get());
    } else {
      content = empty();
    }
    panel.setContent(content);
    panel.setVvalue(0);
  }

  private Node empty() {
    String typed = search.getText().strip();
    VBox page =
        new VBox(
            Parts.label(
                typed.isEmpty() ? WORDS.say("noServerIsSaved") : WORDS.say("noServerFits"),
                "page-title"),
            Parts.label(
                TypedAddress.looksLikeOne(typed)
                    ? WORDS.say("pressEnterToOpen", typed)
                    : WORDS.say("makeOneWithNew"),
                "quiet"));
    page.getStyleClass().add("page");
    return page;
  }

  private void showNotice(Message said) {
    notice.getChildren().clear();
    Parts.show(notice, said != null);
    if (said != null) {
      notice.getChildren().add(Parts.label(said.headline(), "strip-headline"));
      Label detail = Parts.label(said.detail(), "strip-detail");
      detail.setWrapText(true);
      notice
          .getChildren()
          .addAll(detail, Parts.button(WORDS.say("close"), "dismiss-notice", book::dismissNotice));
    }
  }

  void focusSearch() {
    search.requestFocus();
    search.selectAll();
  }
}
