package zander.desk.view.folder;

import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import javafx.collections.ListChangeListener;
import javafx.scene.control.Button;
import javafx.scene.control.CheckMenuItem;
import javafx.scene.control.ContextMenu;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.SeparatorMenuItem;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import zander.core.files.FileKind;
import zander.core.files.RemoteEntry;
import zander.core.files.RemotePath;
import zander.desk.folder.Column;
import zander.desk.folder.Emptiness;
import zander.desk.folder.FolderModel;
import zander.desk.folder.PathCompletion;
import zander.desk.model.DeskModel;
import zander.desk.sheet.Action;
import zander.desk.sheet.Texts;
import zander.desk.view.part.NarrowField;
import zander.desk.view.part.Parts;
import zander.desk.view.part.QuestionStrip;
import zander.desk.view.part.Repeating;
import zander.desk.view.part.SheetView;
import zander.desk.words.Words;
import zander.desk.work.Settings;
import zander.desk.work.Subscriptions;

/** A folder of the server: where it is, its rows, and what they amount to. */
public final class FolderView extends VBox implements SheetView {
  private static final Words WORDS = Words.of(FolderView.class);

  private static final double LEAST_TABLE = 58;

  private static final Duration LOOK_EVERY = Duration.ofSeconds(4);

  private final FolderModel model;
  private final Settings settings;
  private final Subscriptions subscriptions;
  private final FolderTable table;
  private final PathBar path;
  private final NarrowField narrow;
  private final Label facts = Parts.label("", "quiet");
  private final Label room = Parts.label("", "quiet");

  public FolderView(DeskModel desk) {
    this.model = desk.folder();
    this.settings = desk.settings();
    this.subscriptions = desk.subscriptions();
    this.path = new PathBar("server-path", this::goTyped);
    path.suggestBy(new PathCompletion(model)::suggest);
    this.table = new FolderTable(model, desk.local(), settings, subscriptions);
    getStyleClass().add("sheet");
    Button up = Parts.button(WORDS.say("up"), "up", model::goUp);
    Parts.hint(up, WORDS.say("toTheFolderAbove"));
    up.setMinWidth(USE_PREF_SIZE);
    this.narrow =
        new NarrowField(
            "narrow",
            model.narrowProperty(),
            model.narrowingProperty(),
            () -> WORDS.say("of", model.rows().size(), model.allProperty().get().size()));
    narrow.explained().setId("explained");
    HBox bar = Parts.row("sheet-bar", up, path);
    if (desk.mayActAsRoot()) {
      Button asRoot =
          Parts.button(
              WORDS.say("asRoot"),
              "as-root",
              () -> desk.actAsRoot(desk.folderInFront(), root -> {}));
      Parts.hint(asRoot, WORDS.say("thisFolderAsRoot"));
      asRoot.setMinWidth(USE_PREF_SIZE);
      bar.getChildren().add(asRoot);
    }
    bar.getChildren().addAll(narrow, newMenu(desk), showMenu());
    VBox.setVgrow(table, Priority.ALWAYS);
    // Its head and a row: less, and the row would be drawn across what is below it.
    table.setMinHeight(LEAST_TABLE);
    HBox foot = Parts.row("sheet-foot", facts, Parts.spring(), room);
    facts.setId("folder-facts");
    getChildren()
        .addAll(bar, narrow.explained(), new QuestionStrip(model.questionProperty()), table, foot);
    model.pathProperty().addListener((observed, old, now) -> showPath());
    model.loadingProperty().addListener((observed, old, now) -> showEmptiness());
    model.partialProperty().addListener((observed, old, now) -> showEmptiness());
    model.rows().addListener((ListChangeListener<RemoteEntry>) change -> showEmptiness());
    model.selection().addListener((ListChangeListener<RemoteEntry>) change -> showFacts());
    model.spaceProperty().addListener((observed, old, now) -> showFacts());
    ServerDrags.install(table, desk);
    Repeating.whileShown(this, LOOK_EVERY, this::lookForChanges);
    showPath();
    showEmptiness();
  }

  private static MenuButton newMenu(DeskModel desk) {
    MenuButton menu = new MenuButton(WORDS.say("new"));
    menu.setId("new-menu");
    FolderActions actions = new FolderActions(desk);
    for (Action action : actions.making()) {
      menu.getItems().add(item(action));
    }
    return menu;
  }

  static MenuItem item(Action action) {
    MenuItem item = new MenuItem(action.name());
    item.setMnemonicParsing(false);
    item.setOnAction(event -> action.run().run());
    return item;
  }

  private MenuButton showMenu() {
    MenuButton menu = new MenuButton(WORDS.say("show"));
    menu.setId("show-menu");
    CheckMenuItem hidden = new CheckMenuItem(WORDS.say("hiddenFiles"));
    hidden.setOnAction(event -> settings.set(Settings.SHOW_HIDDEN, hidden.isSelected()));
    CheckMenuItem first = new CheckMenuItem(WORDS.say("foldersFirst"));
    first.setOnAction(event -> settings.set(Settings.FOLDERS_FIRST, first.isSelected()));
    menu.getItems().addAll(hidden, first, new SeparatorMenuItem());
    List<CheckMenuItem> boxes = new ArrayList<>();
    for (Column column : Column.values()) {
      if (column != Column.NAME) {
        CheckMenuItem box = new CheckMenuItem(column.title());
        box.setUserData(column);
        box.setOnAction(event -> table.toggle(column));
        boxes.add(box);
      }
    }
    menu.getItems().addAll(boxes);
    Runnable tick =
        () -> {
          Set<String> left = settings.get(Settings.HIDDEN_COLUMNS);
          hidden.setSelected(settings.get(Settings.SHOW_HIDDEN));
          first.setSelected(settings.get(Settings.FOLDERS_FIRST));
          boxes.forEach(
              box -> box.setSelected(!left.contains(((Column) box.getUserData()).name())));
        };
    subscriptions.on(settings.value(Settings.SHOW_HIDDEN), now -> tick.run());
    subscriptions.on(settings.value(Settings.FOLDERS_FIRST), now -> tick.run());
    subscriptions.on(settings.value(Settings.HIDDEN_COLUMNS), now -> tick.run());
    tick.run();
    return menu;
  }

  /** Sets what a right click offers. */
  public void offer(List<List<Action>> groups) {
    ContextMenu menu = new ContextMenu();
    menu.setId("row-menu");
    for (List<Action> group : groups) {
      if (!menu.getItems().isEmpty()) {
        menu.getItems().add(new SeparatorMenuItem());
      }
      group.forEach(action -> menu.getItems().add(item(action)));
    }
    table.setContextMenu(menu);
  }

  private void showPath() {
    RemotePath at = model.path();
    if (at == null) {
      return;
    }
    List<PathBar.Crumb> crumbs = new ArrayList<>();
    for (RemotePath folder : at.chain()) {
      crumbs.add(new PathBar.Crumb(folder.name(), () -> model.go(folder)));
    }
    path.show(at.text(), crumbs);
    table.scrollTo(0);
  }

  /** A name that is being typed is not taken away. */
  private void lookForChanges() {
    if (table.getEditingCell() == null) {
      model.lookForChanges();
    }
  }

  private void showEmptiness() {
    ((Label) table.getPlaceholder())
        .setText(
            model.loadingProperty().get()
                ? WORDS.say("readingTheFolder")
                : words(model.emptiness(), WORDS.say("thisFolderIsEmpty")));
    narrow.explain();
    showFacts();
  }

  static String words(Emptiness why, String empty) {
    return switch (why) {
      case EMPTY -> empty;
      case ONLY_HIDDEN -> WORDS.say("onlyHiddenFilesAre");
      case NOTHING_FITS -> WORDS.say("nothingHereMatchesClear");
    };
  }

  private void showFacts() {
    int chosen = model.selection().size();
    long all = model.allProperty().get().size();
    long hidden = model.hiddenCount();
    String counts =
        (all == 1 ? WORDS.say("1Entry") : WORDS.say("entries", Texts.count(all)))
            + (hidden > 0 ? WORDS.say("hidden", hidden) : "")
            + (model.loadingProperty().get()
                ? WORDS.say("soFar")
                : model.partialProperty().get() ? WORDS.say("soFarTheListing") : "");
    long bytes =
        model.selection().stream()
            .filter(entry -> entry.kind() == FileKind.FILE)
            .mapToLong(entry -> entry.attributes().size())
            .sum();
    facts.setText(
        chosen == 0
            ? counts
            : WORDS.say("selected", counts, Texts.count(chosen), Texts.size(bytes)));
    var space = model.spaceProperty().get();
    room.setText(
        space == null
            ? ""
            : WORDS.say("freeOf", Texts.size(space.free()), Texts.size(space.total())));
  }

  private void goTyped(String typed) {
    model.goTyped(typed);
    table.requestFocus();
  }

  public void startRename() {
    table.startRename();
  }

  @Override
  public void takeFocus() {
    table.requestFocus();
  }

  public void typePath() {
    path.type();
  }

  public void focusNarrow() {
    narrow.requestFocus();
    narrow.selectAll();
  }
}
