package zander.desk.view;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import javafx.collections.ListChangeListener;
import javafx.geometry.Orientation;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.SplitPane;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import org.kordamp.ikonli.feather.Feather;
import zander.desk.crossing.CheckModel;
import zander.desk.crossing.CrossingListModel;
import zander.desk.crossing.PlanModel;
import zander.desk.find.FindModel;
import zander.desk.folder.FolderModel;
import zander.desk.history.JournalModel;
import zander.desk.history.RecoveryModel;
import zander.desk.model.AppModel;
import zander.desk.model.DeskModel;
import zander.desk.model.FileModel;
import zander.desk.model.LineKeeper;
import zander.desk.model.ShellModel;
import zander.desk.sheet.Sheet;

/** One open server: side, sheets, panel, the waterline, and this computer below it. */
final class DeskView extends VBox {
  private static final double LOCAL_HEIGHT = 216;

  private final DeskModel model;
  private final HBox tabs = new HBox();
  private final StackPane front = new StackPane();
  private final SplitPane middle = new SplitPane(front);
  private final Map<Sheet, Node> views = new HashMap<>();

  DeskView(AppModel app, DeskModel model) {
    this.model = model;
    getStyleClass().add("desk");
    tabs.getStyleClass().add("sheet-tabs");
    middle.setOrientation(Orientation.VERTICAL);
    VBox.setVgrow(middle, Priority.ALWAYS);
    BorderPane server = new BorderPane();
    server.setLeft(new SideView(model));
    server.setCenter(new VBox(tabs, awayStrip(), middle));
    server.setRight(new RightsView(model));
    VBox.setVgrow(server, Priority.ALWAYS);
    LocalView local = new LocalView(model);
    local.setPrefHeight(LOCAL_HEIGHT);
    local.setMinHeight(LOCAL_HEIGHT);
    local.managedProperty().bind(app.localFoldedProperty().not());
    local.visibleProperty().bind(local.managedProperty());
    getChildren().addAll(server, new WaterlineView(app, model), local);
    model.sheets().addListener((ListChangeListener<Sheet>) change -> sheetsChanged(change));
    model.currentProperty().addListener((observed, old, now) -> show());
    model.sheets().forEach(this::listenTo);
    show();
  }

  private HBox awayStrip() {
    LineKeeper line = model.line();
    Label words = Parts.label("", "strip-headline");
    words.setWrapText(true);
    HBox.setHgrow(words, Priority.ALWAYS);
    words.textProperty().bind(line.wordsProperty());
    Button again = Parts.button("Connect now", "connect-again", line::tryNow, "strong");
    Button stop = Parts.button("Stop trying", "stop-trying", line::stopTrying);
    again.setMinWidth(USE_PREF_SIZE);
    stop.setMinWidth(USE_PREF_SIZE);
    line.tryingProperty().addListener((observed, old, now) -> Parts.show(stop, now));
    Parts.show(stop, line.tryingProperty().get());
    HBox strip = Parts.row("away", words, again, stop);
    line.awayProperty().addListener((observed, old, now) -> Parts.show(strip, now));
    Parts.show(strip, line.awayProperty().get());
    return strip;
  }

  private void sheetsChanged(ListChangeListener.Change<? extends Sheet> change) {
    while (change.next()) {
      for (Sheet gone : change.getRemoved()) {
        Node view = views.remove(gone);
        if (view instanceof FileView file) {
          file.dispose();
        }
      }
      change.getAddedSubList().forEach(this::listenTo);
    }
    show();
  }

  private void listenTo(Sheet sheet) {
    sheet.titleProperty().addListener((observed, old, now) -> showTabs());
    sheet.unsavedProperty().addListener((observed, old, now) -> showTabs());
    if (sheet instanceof ShellModel shell) {
      shell
          .belowProperty()
          .addListener(
              (observed, old, now) -> {
                model.currentProperty().set(now ? model.folder() : shell);
                show();
                focusShell(shell);
              });
      javafx.application.Platform.runLater(() -> focusShell(shell));
    }
  }

  private void focusShell(ShellModel shell) {
    if (views.get(shell) instanceof ShellView view) {
      view.focusTerminal();
    }
  }

  private Node viewOf(Sheet sheet) {
    return views.computeIfAbsent(
        sheet,
        made -> {
          if (made instanceof FolderModel) {
            return new FolderView(model);
          }
          if (made instanceof FindModel find) {
            return new FindView(find);
          }
          if (made instanceof JournalModel journal) {
            return new JournalView(journal);
          }
          if (made instanceof CrossingListModel list) {
            return new CrossingListView(model, list);
          }
          if (made instanceof PlanModel plan) {
            return new PlanView(plan);
          }
          if (made instanceof CheckModel check) {
            return new CheckView(check);
          }
          if (made instanceof RecoveryModel recovery) {
            return new RecoveryView(recovery);
          }
          if (made instanceof FileModel file) {
            return new FileView(
                file,
                path -> {
                  model.currentProperty().set(model.folder());
                  model.folder().go(path);
                });
          }
          ShellModel shell = (ShellModel) made;
          return new ShellView(shell, () -> model.close(shell));
        });
  }

  private ShellModel shellBelow() {
    ShellModel last = null;
    for (Sheet sheet : model.sheets()) {
      if (sheet instanceof ShellModel shell && shell.belowProperty().get()) {
        last = shell;
      }
    }
    return last;
  }

  private void show() {
    showTabs();
    Sheet current = model.currentProperty().get();
    ShellModel below = shellBelow();
    if (current == below && below != null) {
      // A shell whose place is below is never the sheet in front as well.
      model.currentProperty().set(model.folder());
      return;
    }
    front.getChildren().setAll(viewOf(current));
    List<Node> wanted = below == null ? List.of(front) : List.of(front, viewOf(below));
    if (!middle.getItems().equals(wanted)) {
      middle.getItems().setAll(wanted);
      if (wanted.size() > 1) {
        middle.setDividerPositions(0.5);
      }
    }
  }

  private void showTabs() {
    tabs.getChildren().clear();
    for (Sheet sheet : model.sheets()) {
      if (sheet instanceof ShellModel shell && shell.belowProperty().get()) {
        continue;
      }
      tabs.getChildren().add(tab(sheet));
    }
  }

  private Node tab(Sheet sheet) {
    HBox content = Parts.row("tab-content", Parts.label(sheet.titleProperty().get()));
    if (sheet.unsavedProperty().get()) {
      content.getChildren().add(Parts.label("unsaved", "tag", "look"));
    }
    Button tab = Parts.button("", null, () -> model.currentProperty().set(sheet), "sheet-tab");
    tab.setGraphic(content);
    tab.setAccessibleText(sheet.titleProperty().get());
    if (sheet == model.currentProperty().get()) {
      tab.getStyleClass().add("current");
    }
    if (sheet == model.folder()) {
      return tab;
    }
    Button close =
        Parts.iconButton(
            Feather.X,
            "Close " + sheet.titleProperty().get(),
            () -> model.close(sheet),
            "tab-close");
    return Parts.row("tab-with-close", tab, close);
  }

  FolderView folderView() {
    return (FolderView) viewOf(model.folder());
  }

  void focusFront() {
    Node view = viewOf(model.currentProperty().get());
    if (view instanceof FileView file) {
      file.focusText();
    } else if (view instanceof ShellView shell) {
      shell.focusTerminal();
    } else if (view instanceof FindView find) {
      find.focusFirst();
    } else {
      folderView().focusTable();
    }
  }
}
