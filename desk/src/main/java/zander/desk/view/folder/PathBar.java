package zander.desk.view.folder;

import java.util.List;
import java.util.function.Consumer;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import javafx.stage.Popup;
import zander.desk.view.part.Parts;

/**
 * A path as a row of names to press, which turns into a field to type in. The caller gives the
 * names, and what each leads to.
 */
public final class PathBar extends StackPane {
  /** One name of the path and what pressing it does. */
  public record Crumb(String name, Runnable go) {}

  /** The width of a letter of the crumbs, whose letters all have the same, in pixels. */
  private static final double LETTER = 8;

  private static final int MOST_LETTERS = 18;

  private final HBox crumbs = new HBox();
  private final TextField field = new TextField();
  private final Popup popup = new Popup();
  private final VBox list = new VBox();
  private List<String> suggested = List.of();
  private String text = "";

  /** What the last name should have at least. */
  private double lastWidth;

  public PathBar(String id, Consumer<String> typed) {
    getStyleClass().add("path-bar");
    setId(id);
    crumbs.getStyleClass().add("crumbs");
    field.setId(id + "-field");
    field.getStyleClass().add("mono");
    Parts.show(field, false);
    getChildren().addAll(crumbs, field);
    HBox.setHgrow(this, Priority.ALWAYS);
    setMinWidth(80);
    crumbs.setMinWidth(0);
    widthProperty().addListener((observed, old, now) -> fold());
    setOnMouseClicked(event -> type());
    field.setOnAction(
        event -> {
          stopTyping();
          typed.accept(field.getText());
        });
    field
        .focusedProperty()
        .addListener(
            (observed, old, now) -> {
              if (!now) {
                stopTyping();
              }
            });
    field.setOnKeyPressed(
        event -> {
          if (event.getCode() == javafx.scene.input.KeyCode.ESCAPE) {
            stopTyping();
            event.consume();
          }
        });
  }

  /** Suggestions for what is being typed: told the text, and whom to give whole texts. */
  interface Suggesting {
    void suggest(String typed, Consumer<List<String>> suggestions);
  }

  /** Shows suggestions below the field; Tab takes the first, the mouse any. */
  void suggestBy(Suggesting suggesting) {
    list.setId("path-suggestions");
    list.getStyleClass().add("suggestions");
    popup.getContent().setAll(list);
    popup.setAutoHide(true);
    field
        .textProperty()
        .addListener(
            (observed, old, now) -> {
              if (field.isFocused() && !now.equals(text)) {
                suggesting.suggest(now, this::showSuggestions);
              }
            });
    field.addEventFilter(
        javafx.scene.input.KeyEvent.KEY_PRESSED,
        event -> {
          boolean tab = event.getCode() == javafx.scene.input.KeyCode.TAB;
          if (tab && popup.isShowing() && !suggested.isEmpty()) {
            take(suggested.get(0));
            event.consume();
          }
        });
    field.focusedProperty().addListener((observed, old, now) -> popup.hide());
  }

  private void showSuggestions(List<String> found) {
    suggested = found;
    list.getChildren().clear();
    list.getStylesheets().setAll(getScene().getStylesheets());
    for (String one : found) {
      Button button = Parts.button(one, null, () -> take(one), "suggestion");
      button.setMnemonicParsing(false);
      button.setFocusTraversable(false);
      button.setMaxWidth(Double.MAX_VALUE);
      list.getChildren().add(button);
    }
    if (found.isEmpty() || !field.isFocused()) {
      popup.hide();
    } else if (!popup.isShowing()) {
      var at = field.localToScreen(0, field.getHeight() + 2);
      popup.show(field, at.getX(), at.getY());
    }
  }

  private void take(String path) {
    field.setText(path);
    field.requestFocus();
    field.end();
  }

  public void show(String whole, List<Crumb> path) {
    text = whole;
    crumbs.getChildren().clear();
    for (int i = 0; i < path.size(); i++) {
      Crumb crumb = path.get(i);
      if (i > 1 || (i == 1 && !path.get(0).name().equals("/"))) {
        crumbs.getChildren().add(Parts.label("/", "crumb-slash"));
      }
      Button button = Parts.button(crumb.name(), null, crumb.go(), "crumb");
      button.setMnemonicParsing(false);
      if (i == path.size() - 1) {
        button.getStyleClass().add("last");
        // Where one is matters most: the folders above are cut before it.
        lastWidth = Math.min(crumb.name().length(), MOST_LETTERS) * LETTER + LETTER;
      }
      button.setFocusTraversable(false);
      crumbs.getChildren().add(button);
    }
    fold();
  }

  /** Where there is no room for all, the first names go; the last one may be cut at the end. */
  private void fold() {
    List<Node> all = crumbs.getChildren();
    if (all.isEmpty()) {
      return;
    }
    double room = getWidth() > 0 ? getWidth() : Double.MAX_VALUE;
    all.forEach(each -> Parts.show(each, true));
    Button last = (Button) all.get(all.size() - 1);
    last.setMinWidth(Math.min(lastWidth, room));
    for (int i = 0; i < all.size() - 1 && needed() > room; i++) {
      Parts.show(all.get(i), false);
    }
  }

  private double needed() {
    return crumbs.getChildren().stream()
        .filter(Node::isManaged)
        .mapToDouble(each -> each.minWidth(-1))
        .sum();
  }

  /** Turns into a field with the whole path marked. */
  void type() {
    field.setText(text);
    Parts.show(field, true);
    crumbs.setVisible(false);
    field.requestFocus();
    field.selectAll();
  }

  private void stopTyping() {
    Parts.show(field, false);
    crumbs.setVisible(true);
  }
}
