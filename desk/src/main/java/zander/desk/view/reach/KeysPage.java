package zander.desk.view.reach;

import javafx.collections.ListChangeListener;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;
import zander.desk.model.AppModel;
import zander.desk.reach.KeysModel;
import zander.desk.view.part.Parts;
import zander.desk.words.Words;

/** The person's keys, and beside the list the one that is selected, or a new one being made. */
final class KeysPage extends BorderPane {
  private static final Words WORDS = Words.of(KeysPage.class);

  private final AppModel model;
  private final KeysModel keys;
  private final VBox list = new VBox();
  private final ScrollPane panel = new ScrollPane();
  private KeysModel.@Nullable Row selected;

  KeysPage(AppModel model) {
    this.model = model;
    this.keys = model.keys();
    list.getStyleClass().add("book");
    ScrollPane scroll = new ScrollPane(list);
    scroll.setFitToWidth(true);
    scroll.getStyleClass().add("book-list");
    VBox.setVgrow(scroll, javafx.scene.layout.Priority.ALWAYS);
    VBox left =
        new VBox(
            Parts.label(WORDS.say("keysInAndIn", keys.shown(keys.folder())), "quiet"),
            scroll,
            Parts.row("choices", Parts.button(WORDS.say("newKey"), "make-key", this::startMaking)));
    left.getStyleClass().add("book-side");
    setLeft(left);
    panel.setFitToWidth(true);
    panel.getStyleClass().add("book-panel");
    setCenter(panel);
    keys.rows().addListener((ListChangeListener<KeysModel.Row>) change -> showList());
    keys.read();
    showList();
  }

  private void showList() {
    list.getChildren().clear();
    for (KeysModel.Row row : keys.rows()) {
      list.getChildren().add(button(row));
    }
    boolean gone = selected == null || !keys.rows().contains(selected);
    if (gone && !(panel.getContent() instanceof KeyForm)) {
      select(keys.rows().isEmpty() ? null : keys.rows().get(0));
    }
  }

  private Button button(KeysModel.Row row) {
    String type = row.line() == null ? WORDS.say("typeNotKnown") : row.line().key().shortType();
    Label facts = Parts.label(type + ", " + row.where(), "quiet");
    if (!row.problem().isEmpty()) {
      facts.getStyleClass().add("problem");
    }
    Button button = Parts.button("", "key-" + row.name(), () -> select(row), "book-row");
    button.setGraphic(new VBox(Parts.label(row.name(), "strong-word"), facts));
    button.setMaxWidth(Double.MAX_VALUE);
    button.setUserData(row);
    button.setAccessibleText(row.name() + ", " + type);
    return button;
  }

  private void select(KeysModel.@Nullable Row row) {
    selected = row;
    for (Node node : list.getChildren()) {
      node.getStyleClass().remove("current");
      if (row != null && row.equals(node.getUserData())) {
        node.getStyleClass().add("current");
      }
    }
    panel.setContent(row == null ? empty() : new KeyPanel(model, row));
  }

  private static Node empty() {
    VBox page =
        new VBox(
            Parts.label(WORDS.say("noKeyYet"), "page-title"),
            Parts.label(WORDS.say("createOneThePublic"), "quiet"));
    page.getStyleClass().add("page");
    return page;
  }

  private void startMaking() {
    panel.setContent(
        new KeyForm(
            keys,
            made -> {
              panel.setContent(null);
              select(made);
            },
            () -> select(selected)));
  }
}
