package zander.desk.view.part;

import javafx.animation.AnimationTimer;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import org.jspecify.annotations.Nullable;
import org.kordamp.ikonli.feather.Feather;
import org.kordamp.ikonli.javafx.FontIcon;

/** The small parts that views are put together from. */
public final class Parts {
  private Parts() {}

  public static Label label(String text, String... classes) {
    Label label = new Label(text);
    label.getStyleClass().addAll(classes);
    return label;
  }

  public static Button button(
      String text, @Nullable String id, Runnable action, String... classes) {
    Button button = new Button(text);
    button.setId(id);
    button.getStyleClass().addAll(classes);
    button.setOnAction(event -> action.run());
    return button;
  }

  /** A button that shows only an icon everybody reads; the words are for those who hear them. */
  public static Button iconButton(Feather icon, String words, Runnable action, String styleClass) {
    Button button = button("", null, action, styleClass);
    button.setGraphic(new FontIcon(icon));
    button.setAccessibleText(words);
    button.setTooltip(new Tooltip(words));
    button.setFocusTraversable(false);
    return button;
  }

  public static <T extends javafx.scene.control.Control> T hint(T control, String text) {
    control.setTooltip(new Tooltip(text));
    return control;
  }

  public static Region spring() {
    Region spring = new Region();
    HBox.setHgrow(spring, Priority.ALWAYS);
    return spring;
  }

  public static HBox row(String styleClass, Node... children) {
    HBox row = new HBox(children);
    row.getStyleClass().add(styleClass);
    return row;
  }

  /** Shows a node only while there is a reason to, and gives its place free otherwise. */
  public static void show(Node node, boolean shown) {
    node.setVisible(shown);
    node.setManaged(shown);
  }

  /** Does something some frames later, so that one frame has not all the work. */
  public static void later(int frames, Runnable work) {
    new AnimationTimer() {
      private int left = frames;

      @Override
      public void handle(long now) {
        if (left-- <= 0) {
          stop();
          work.run();
        }
      }
    }.start();
  }
}
