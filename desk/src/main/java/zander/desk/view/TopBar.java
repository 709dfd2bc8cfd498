package zander.desk.view;

import java.util.Locale;
import javafx.collections.ListChangeListener;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Pane;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import org.kordamp.ikonli.feather.Feather;
import org.kordamp.ikonli.javafx.FontIcon;
import zander.core.book.Mark;
import zander.desk.model.AppModel;
import zander.desk.model.DeskModel;

/** The top: the open desks, a way to open another, and the field that goes anywhere. */
final class TopBar extends HBox {
  private final AppModel model;
  private final HBox tabs = new HBox();

  TopBar(AppModel model, Runnable openGoto) {
    this.model = model;
    getStyleClass().add("top");
    tabs.getStyleClass().add("desk-tabs");
    Label go = Parts.label("Go to a path, server or action", "goto-words");
    Button field = Parts.button("", "goto", openGoto, "goto-button");
    field.setGraphic(
        Parts.row(
            "goto-inner",
            new FontIcon(Feather.SEARCH),
            go,
            Parts.spring(),
            Parts.label("Ctrl G", "key")));
    field.setAccessibleText("Go to a path, server or action");
    getChildren().addAll(brand(), tabs, Parts.spring(), field);
    model.desks().addListener((ListChangeListener<DeskModel>) change -> show());
    model.currentProperty().addListener((observed, old, now) -> show());
    show();
  }

  private static HBox brand() {
    Pane mark = new Pane();
    mark.getStyleClass().add("brand-mark");
    mark.setMinSize(22, 22);
    mark.setMaxSize(22, 22);
    double[][] lines = {{4, 6, 14, 0}, {4, 10, 10, 1}, {4, 14, 12, 0}};
    for (double[] line : lines) {
      Region stroke = new Region();
      stroke.getStyleClass().add(line[3] > 0 ? "brand-amber" : "brand-light");
      stroke.setLayoutX(line[0]);
      stroke.setLayoutY(line[1]);
      stroke.setPrefSize(line[2], 2);
      mark.getChildren().add(stroke);
    }
    return Parts.row("brand", mark, Parts.label("Zander", "brand-name"));
  }

  private void show() {
    tabs.getChildren().clear();
    for (DeskModel desk : model.desks()) {
      tabs.getChildren().add(tab(desk));
    }
    Button open =
        Parts.button(
            "Open a server", "open-server", () -> model.currentProperty().set(null), "open-tab");
    if (model.currentProperty().get() == null) {
      open.getStyleClass().add("current");
    }
    tabs.getChildren().add(open);
  }

  private Node tab(DeskModel desk) {
    HBox content = Parts.row("tab-content", Parts.label(desk.entry().name()));
    Mark mark = desk.entry().mark();
    if (mark != Mark.NONE) {
      content
          .getChildren()
          .add(
              Parts.label(
                  mark.name().toLowerCase(Locale.ROOT),
                  "tag",
                  mark == Mark.LIVE ? "look" : "good"));
    }
    Label away = Parts.label("away", "tag", "danger");
    away.visibleProperty().bind(desk.line().awayProperty());
    away.managedProperty().bind(desk.line().awayProperty());
    content.getChildren().add(away);
    Button tab = Parts.button("", null, () -> model.currentProperty().set(desk), "desk-tab");
    tab.setGraphic(content);
    tab.setAccessibleText(desk.entry().name());
    Button close =
        Parts.iconButton(
            Feather.X, "Close " + desk.entry().name(), () -> model.close(desk), "tab-close");
    Region stripe = new Region();
    stripe.getStyleClass().add(mark == Mark.LIVE ? "live-stripe" : "no-stripe");
    HBox line = Parts.row("tab-with-close", tab, close);
    VBox all = new VBox(stripe, line);
    all.getStyleClass().add("desk-tab-box");
    if (desk == model.currentProperty().get()) {
      all.getStyleClass().add("current");
    }
    return all;
  }
}
