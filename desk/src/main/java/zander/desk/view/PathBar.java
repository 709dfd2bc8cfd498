package zander.desk.view;

import java.util.List;
import java.util.function.Consumer;
import javafx.scene.control.Button;
import javafx.scene.control.ContextMenu;
import javafx.scene.control.MenuItem;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.StackPane;

/**
 * A path as a row of names to press, which turns into a field to type in. The caller gives the
 * names, and what each leads to.
 */
final class PathBar extends StackPane {
  /** One name of the path and what pressing it does. */
  record Crumb(String name, Runnable go) {}

  private final HBox crumbs = new HBox();
  private final TextField field = new TextField();
  private String text = "";

  PathBar(String id, Consumer<String> typed) {
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

  /** Shows suggestions below the field; Tab takes the first, the arrows and Enter any. */
  void suggestBy(Suggesting suggesting) {
    ContextMenu menu = new ContextMenu();
    menu.setId("path-suggestions");
    menu.setAutoFix(true);
    field
        .textProperty()
        .addListener(
            (observed, old, now) -> {
              if (field.isFocused() && !now.equals(text)) {
                suggesting.suggest(now, found -> showSuggestions(menu, found));
              }
            });
    field.addEventFilter(
        javafx.scene.input.KeyEvent.KEY_PRESSED,
        event -> {
          if (event.getCode() == javafx.scene.input.KeyCode.TAB && menu.isShowing()) {
            take(menu.getItems().get(0).getText());
            event.consume();
          }
        });
    field.focusedProperty().addListener((observed, old, now) -> menu.hide());
  }

  private void showSuggestions(ContextMenu menu, List<String> found) {
    menu.getItems().clear();
    for (String one : found) {
      MenuItem item = new MenuItem(one);
      item.setMnemonicParsing(false);
      item.setOnAction(event -> take(one));
      menu.getItems().add(item);
    }
    if (found.isEmpty() || !field.isFocused()) {
      menu.hide();
    } else if (!menu.isShowing()) {
      menu.show(field, javafx.geometry.Side.BOTTOM, 0, 0);
    }
  }

  private void take(String path) {
    field.setText(path);
    field.requestFocus();
    field.end();
  }

  void show(String whole, List<Crumb> path) {
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
      }
      button.setFocusTraversable(false);
      crumbs.getChildren().add(button);
    }
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
