package zander.desk.view;

import javafx.geometry.Orientation;
import javafx.scene.control.Button;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Region;
import org.kordamp.ikonli.feather.Feather;
import zander.desk.model.AppModel;
import zander.desk.model.DeskModel;
import zander.desk.view.part.Edge;
import zander.desk.view.part.Parts;
import zander.desk.words.Words;
import zander.desk.work.Settings;

/** The panel beside the sheets with its edge, which makes it wider and folds it away. */
final class PanelEdge extends HBox {
  private static final Words WORDS = Words.of(PanelEdge.class);

  private static final double LEAST = 264;
  private static final double MOST = 560;

  PanelEdge(AppModel app, DeskModel desk, Region panel) {
    Region edge = new Region();
    edge.setId("panel-edge");
    edge.getStyleClass().add("edge");
    Tooltip.install(edge, new Tooltip(WORDS.say("dragToMakeThe")));
    Edge.on(
        edge,
        Orientation.VERTICAL,
        panel,
        width -> app.settings().set(Settings.PANEL_WIDTH, Math.round(within(width))),
        app.folds().panelProperty());
    Button handle =
        Parts.iconButton(
            Feather.CHEVRON_LEFT,
            WORDS.say("showThePanel"),
            () -> app.folds().panelProperty().set(false),
            "panel-handle");
    handle.setId("panel-handle");
    handle.setMaxHeight(Double.MAX_VALUE);
    handle.managedProperty().bind(app.folds().panelProperty());
    handle.visibleProperty().bind(handle.managedProperty());
    getChildren().addAll(edge, panel, handle);
    panel.setMinWidth(LEAST);
    panel.managedProperty().bind(app.folds().panelProperty().not());
    panel.visibleProperty().bind(panel.managedProperty());
    size(panel, app.settings().get(Settings.PANEL_WIDTH));
    desk.subscriptions()
        .on(app.settings().value(Settings.PANEL_WIDTH), width -> size(panel, width));
  }

  private static double within(double width) {
    return Math.max(LEAST, Math.min(MOST, width));
  }

  private static void size(Region panel, double width) {
    panel.setPrefWidth(within(width));
    panel.setMaxWidth(within(width));
  }
}
