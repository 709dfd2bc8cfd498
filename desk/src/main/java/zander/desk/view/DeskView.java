package zander.desk.view;

import static java.util.Objects.requireNonNull;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import javafx.beans.binding.Bindings;
import javafx.beans.property.DoubleProperty;
import javafx.beans.property.SimpleDoubleProperty;
import javafx.collections.ListChangeListener;
import javafx.geometry.Orientation;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.SplitPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;
import zander.desk.model.AppModel;
import zander.desk.model.DeskModel;
import zander.desk.sheet.Action;
import zander.desk.sheet.Sheet;
import zander.desk.shell.ShellModel;
import zander.desk.shell.ShellsBelow;
import zander.desk.view.folder.FolderView;
import zander.desk.view.folder.LocalView;
import zander.desk.view.folder.SideView;
import zander.desk.view.page.PageActions;
import zander.desk.view.page.PagesBeside;
import zander.desk.view.part.Edge;
import zander.desk.view.part.Parts;
import zander.desk.view.part.SheetView;
import zander.desk.view.rights.RightsView;
import zander.desk.view.shell.ShellView;
import zander.desk.view.transfer.WaterlineView;
import zander.desk.words.Words;
import zander.desk.work.Settings;

/** One open server: side, sheets, panel, the waterline, and this computer below it. */
final class DeskView extends VBox {
  private static final Words WORDS = Words.of(DeskView.class);

  private static final double LOCAL_HEIGHT = 216;
  private static final double LEAST_LOCAL_HEIGHT = 130;

  /** The part of a low window that is this computer's. */
  private static final double LOCAL_PART = 0.287;

  /** What the sheets keep of a desk's height, whatever this computer's part is dragged to. */
  private static final double LEAST_SHEET_HEIGHT = 260;

  private final DoubleProperty localHeight = new SimpleDoubleProperty();
  private final DeskModel model;
  private final SheetViews sheetViews;
  private final SheetTabs tabs;
  private final StackPane front = new StackPane();
  private final SplitPane middle = new SplitPane(front);
  private final SplitPane pair = new SplitPane();
  private final Map<Sheet, SheetView> views = new HashMap<>();
  private final PagesBeside pages;

  DeskView(AppModel app, DeskModel model) {
    this.model = model;
    this.sheetViews = new SheetViews(model);
    this.tabs = new SheetTabs(model);
    this.pages =
        new PagesBeside(
            model,
            () -> {
              show();
              // A part of a pair comes into the window with the next frame.
              Parts.later(2, this::focusFront);
            });
    model.subscriptions().atEnd(pages::end);
    getStyleClass().add("desk");
    pair.getStyleClass().add("shell-pair");
    middle.setOrientation(Orientation.VERTICAL);
    VBox.setVgrow(middle, Priority.ALWAYS);
    DeskRow server =
        new DeskRow(new SideView(model), new VBox(tabs.row(), new LineStrip(model.line()), middle));
    VBox.setVgrow(server, Priority.ALWAYS);
    StackPane below = new StackPane();
    // Of the desk's height alone, so that the waterline stays where it is, whatever is above it.
    localHeight.set(app.settings().get(Settings.LOCAL_HEIGHT));
    model
        .subscriptions()
        .on(app.settings().value(Settings.LOCAL_HEIGHT), height -> localHeight.set(height));
    below
        .minHeightProperty()
        .bind(
            Bindings.createDoubleBinding(
                () -> localHeight(getHeight(), localHeight.get()), heightProperty(), localHeight));
    below.maxHeightProperty().bind(below.minHeightProperty());
    below.managedProperty().bind(app.folds().localProperty().not());
    below.visibleProperty().bind(below.managedProperty());
    WaterlineView waterline = new WaterlineView(app, model);
    Edge.on(
        waterline,
        Orientation.HORIZONTAL,
        below,
        height -> app.settings().set(Settings.LOCAL_HEIGHT, Math.round(Math.max(1, height))),
        app.folds().localProperty());
    if (model.actsAs() != null) {
      getStyleClass().add(actingStyle(model));
      getChildren().add(acting(app));
    }
    getChildren().addAll(server, waterline, below);
    // All in one frame would keep the window from answering for two tenths of a second.
    Parts.later(1, () -> server.setPanel(new PanelEdge(app, model, new RightsView(model))));
    Parts.later(2, () -> below.getChildren().setAll(new LocalView(model)));
    model.sheets().addListener((ListChangeListener<Sheet>) change -> sheetsChanged(change));
    model
        .currentProperty()
        .addListener(
            (observed, old, now) -> {
              show();
              focusFront();
            });
    model.shells().frontProperty().addListener((observed, old, now) -> showShell(now));
    model.shells().layoutProperty().addListener((observed, old, now) -> show());
    model.sheets().forEach(this::listenTo);
    show();
  }

  /** That all here is done as another account, and the way to end it. */
  private HBox acting(AppModel app) {
    String whom = requireNonNull(model.actsAs(), "it acts as another");
    Label words = Parts.label(WORDS.say("asEverythingOnThis", whom, whom));
    Button stop =
        Parts.button(WORDS.say("stopActingAs", whom), "stop-acting", () -> app.close(model));
    stop.setMinWidth(Button.USE_PREF_SIZE);
    return Parts.row("acting", words, Parts.spring(), stop);
  }

  /** Root is told apart by colour, besides the word. */
  static String actingStyle(DeskModel desk) {
    return "root".equals(desk.actsAs()) ? "as-root" : "as-other";
  }

  SheetViews sheetViews() {
    return sheetViews;
  }

  /**
   * @param chosen 0 for a part of the desk
   */
  private static double localHeight(double desk, double chosen) {
    double most = Math.max(LEAST_LOCAL_HEIGHT, desk - LEAST_SHEET_HEIGHT);
    double part = Math.min(LOCAL_HEIGHT, Math.rint(desk * LOCAL_PART));
    return Math.max(LEAST_LOCAL_HEIGHT, Math.min(most, chosen > 0 ? chosen : part));
  }

  private void sheetsChanged(ListChangeListener.Change<? extends Sheet> change) {
    while (change.next()) {
      for (Sheet gone : change.getRemoved()) {
        pages.closed(gone);
        SheetView view = views.remove(gone);
        if (view != null) {
          view.dispose();
        }
      }
      change.getAddedSubList().forEach(this::listenTo);
    }
    show();
  }

  private void listenTo(Sheet sheet) {
    sheet.titleProperty().addListener((observed, old, now) -> tabs.show());
    sheet.unsavedProperty().addListener((observed, old, now) -> tabs.show());
    if (sheet instanceof ShellModel shell) {
      shell
          .belowProperty()
          .addListener(
              (observed, old, now) -> {
                model.currentProperty().set(now ? model.folder() : shell);
                show();
                focusShell(shell);
              });
    }
  }

  /** The keyboard follows to another shell below, and to the first. */
  private void showShell(ShellModel shell) {
    show();
    if (shell != null) {
      javafx.application.Platform.runLater(() -> focusShell(shell));
    }
  }

  private void focusShell(ShellModel shell) {
    SheetView view = views.get(shell);
    if (view != null) {
      view.takeFocus();
    }
  }

  private SheetView viewOf(Sheet sheet) {
    return views.computeIfAbsent(sheet, sheetViews::make);
  }

  private void show() {
    tabs.show();
    Sheet current = model.currentProperty().get();
    ShellModel below = model.shells().frontProperty().get();
    if (current instanceof ShellModel shell && model.shells().shells().contains(shell)) {
      // A shell whose place is below is never the sheet in front as well.
      model.currentProperty().set(model.folder());
      return;
    }
    front.getChildren().setAll(pages.with(current, viewOf(current).node()));
    List<Node> wanted = below == null ? List.of(front) : List.of(front, shellsBelow());
    if (!middle.getItems().equals(wanted)) {
      middle.getItems().setAll(wanted);
      if (wanted.size() > 1) {
        middle.setDividerPositions(0.5);
      }
    }
  }

  /** One shell, or two in the way that was chosen. */
  private Node shellsBelow() {
    List<ShellModel> seen = model.shells().seen();
    if (seen.size() == 1) {
      pair.getItems().clear();
      return viewOf(seen.get(0)).node();
    }
    boolean beside = model.shells().layoutProperty().get() == ShellsBelow.Layout.SIDE_BY_SIDE;
    pair.setOrientation(beside ? Orientation.HORIZONTAL : Orientation.VERTICAL);
    List<Node> wanted = seen.stream().map(shell -> viewOf(shell).node()).toList();
    if (!pair.getItems().equals(wanted)) {
      middle.getItems().removeAll(wanted);
      pair.getItems().setAll(wanted);
      pair.setDividerPositions(0.5);
    }
    return pair;
  }

  /** What can be done with the page of the file in front. */
  List<Action> pageActions() {
    return new PageActions(model, pages, front::getWidth).all();
  }

  FolderView folderView() {
    return (FolderView) viewOf(model.folder());
  }

  /** The shell that is seen: the sheet in front, or the one below; {@code null} for none. */
  @Nullable ShellView shell() {
    if (inFront(ShellView.class) != null) {
      return inFront(ShellView.class);
    }
    ShellModel below = model.shells().frontProperty().get();
    return below == null ? null : (ShellView) viewOf(below);
  }

  /** The view in front if it is of a kind; {@code null} when another one is. */
  <V> @Nullable V inFront(Class<V> kind) {
    SheetView front = views.get(model.currentProperty().get());
    return kind.isInstance(front) ? kind.cast(front) : null;
  }

  void focusFront() {
    viewOf(model.currentProperty().get()).takeFocus();
  }
}
