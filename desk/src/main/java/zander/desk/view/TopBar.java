package zander.desk.view;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import javafx.collections.ListChangeListener;
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
import zander.desk.sheet.TabNames;
import zander.desk.view.part.Parts;
import zander.desk.view.part.TabStrip;
import zander.desk.view.part.Tables;
import zander.desk.words.Words;

/** The top: the open desks, a way to open another, and the field that goes anywhere. */
final class TopBar extends HBox {
  private static final Words WORDS = Words.of(TopBar.class);

  private static final double FIELD_LEAST = 150;
  private static final double FIELD_MOST = 300;

  private final AppModel model;
  private final TabStrip tabs = new TabStrip("all-desks", WORDS.say("allOpenServers"), 4);
  private final HBox brand = brand();
  private final Button open;
  private final Button field;

  TopBar(AppModel model, Runnable openGoto) {
    this.model = model;
    getStyleClass().add("top");
    open =
        Parts.button(
            WORDS.say("openAServer"),
            "open-server",
            () -> model.currentProperty().set(null),
            "open-tab");
    open.setMinWidth(USE_PREF_SIZE);
    Label go = Parts.label(WORDS.say("goToAPath"), "goto-words");
    field = Parts.button("", "goto", openGoto, "goto-button");
    Label key = Parts.label("Ctrl G", "key");
    key.setMinWidth(USE_PREF_SIZE);
    HBox inner = Parts.row("goto-inner", new FontIcon(Feather.SEARCH), go, Parts.spring(), key);
    inner.prefWidthProperty().bind(field.widthProperty().subtract(22));
    field.setGraphic(inner);
    field.setMinWidth(FIELD_LEAST);
    field.setAccessibleText(WORDS.say("goToAPath"));
    getChildren().addAll(brand, tabs, open, Parts.spring(), field);
    model.desks().addListener((ListChangeListener<DeskModel>) change -> show());
    model.currentProperty().addListener((observed, old, now) -> show());
    show();
  }

  /** The field gives way before a tab does. */
  @Override
  protected void layoutChildren() {
    double taken = tabs.prefWidth(-1) + brand.prefWidth(-1) + open.prefWidth(-1);
    double left = getWidth() - taken - 4 * getSpacing() - snappedLeftInset() - snappedRightInset();
    double wanted = Math.max(FIELD_LEAST, Math.min(FIELD_MOST, Math.floor(left)));
    if (field.getPrefWidth() != wanted) {
      field.setPrefWidth(wanted);
    }
    super.layoutChildren();
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
    Label name = Parts.label(WORDS.say("zander"), "brand-name");
    name.setMinWidth(USE_PREF_SIZE);
    return Parts.row("brand", mark, name);
  }

  private void show() {
    List<DeskModel> desks = model.desks();
    List<String> names =
        TabNames.apart(
            desks.stream().map(desk -> desk.entry().name()).toList(),
            desks.stream().map(desk -> desk.entry().address().toString()).toList());
    List<TabStrip.Tab> made = new ArrayList<>();
    for (int i = 0; i < desks.size(); i++) {
      made.add(tab(desks.get(i), names.get(i)));
    }
    tabs.show(made);
    Tables.mark(open, "current", model.currentProperty().get() == null);
  }

  private TabStrip.Tab tab(DeskModel desk, String words) {
    Label name = Parts.label(words);
    HBox content = Parts.row("tab-content", name);
    Mark mark = desk.entry().mark();
    if (mark != Mark.NONE) {
      Label tag =
          Parts.label(
              mark.name().toLowerCase(Locale.ROOT), "tag", mark == Mark.LIVE ? "look" : "good");
      tag.setMinWidth(USE_PREF_SIZE);
      content.getChildren().add(tag);
    }
    if (desk.actsAs() != null) {
      Tables.mark(content, DeskView.actingStyle(desk), true);
    }
    Label away = Parts.label(WORDS.say("away"), "tag", "danger");
    away.setMinWidth(USE_PREF_SIZE);
    away.visibleProperty().bind(desk.line().awayProperty());
    away.managedProperty().bind(desk.line().awayProperty());
    content.getChildren().add(away);
    Runnable choose = () -> model.currentProperty().set(desk);
    Button tab = Parts.button("", null, choose, "desk-tab");
    tab.setGraphic(content);
    tab.setAccessibleText(words);
    Button close =
        Parts.iconButton(
            Feather.X, WORDS.say("closeNamed", words), () -> model.close(desk), "tab-close");
    Region stripe = new Region();
    stripe.getStyleClass().add(mark == Mark.LIVE ? "live-stripe" : "no-stripe");
    HBox line = Parts.row("tab-with-close", tab, close);
    VBox all = new VBox(stripe, line);
    all.getStyleClass().add("desk-tab-box");
    boolean current = desk == model.currentProperty().get();
    Tables.mark(all, "current", current);
    return new TabStrip.Tab(all, name, current, choose);
  }
}
