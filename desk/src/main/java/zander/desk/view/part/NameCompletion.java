package zander.desk.view.part;

import java.util.List;
import java.util.function.Supplier;
import javafx.geometry.Side;
import javafx.scene.control.ContextMenu;
import javafx.scene.control.MenuItem;
import javafx.scene.control.TextField;

/** Offers the names that begin with, or else contain, what is typed into a field. */
public final class NameCompletion {
  private static final int MOST = 8;

  /** The names of a server. */
  public interface Names {
    List<String> of(boolean groups);
  }

  private final TextField field;
  private final Supplier<List<String>> names;
  private final ContextMenu menu = new ContextMenu();

  private NameCompletion(TextField field, Supplier<List<String>> names) {
    this.field = field;
    this.names = names;
  }

  /** While the keyboard is in the field. */
  public static void on(TextField field, Supplier<List<String>> names) {
    NameCompletion made = new NameCompletion(field, names);
    field.textProperty().addListener((observed, old, now) -> made.offer(now));
    field.focusedProperty().addListener((observed, old, now) -> made.menu.hide());
  }

  /** Those that fit: what begins with it first. */
  public static List<String> fitting(List<String> names, String typed) {
    List<String> begin = names.stream().filter(name -> name.startsWith(typed)).toList();
    return java.util.stream.Stream.concat(
            begin.stream(),
            names.stream().filter(name -> name.contains(typed) && !begin.contains(name)))
        .limit(MOST)
        .toList();
  }

  private void offer(String typed) {
    List<String> found =
        field.isFocused() && !typed.isBlank() ? fitting(names.get(), typed.strip()) : List.of();
    if (found.isEmpty() || found.contains(typed.strip())) {
      menu.hide();
      return;
    }
    menu.getItems().clear();
    for (String name : found) {
      MenuItem item = new MenuItem(name);
      item.setMnemonicParsing(false);
      item.setOnAction(
          event -> {
            field.setText(name);
            field.end();
          });
      menu.getItems().add(item);
    }
    menu.show(field, Side.BOTTOM, 0, 0);
  }
}
