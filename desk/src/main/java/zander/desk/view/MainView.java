package zander.desk.view;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import javafx.collections.ListChangeListener;
import javafx.scene.Node;
import javafx.scene.Scene;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyCodeCombination;
import javafx.scene.input.KeyCombination;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.StackPane;
import org.jspecify.annotations.Nullable;
import zander.core.book.MarkedFolder;
import zander.core.book.ServerEntry;
import zander.core.connect.address.TypedAddress;
import zander.core.files.RemotePath;
import zander.desk.file.FileModel;
import zander.desk.find.FindModel;
import zander.desk.model.AppModel;
import zander.desk.model.DeskModel;
import zander.desk.reach.BookModel;
import zander.desk.reach.Prompts;
import zander.desk.sheet.Action;
import zander.desk.shell.ShellModel;
import zander.desk.term.TerminalView;
import zander.desk.view.folder.FolderActions;
import zander.desk.view.reach.ReachView;
import zander.desk.view.shell.ShellView;
import zander.desk.words.Words;

/** The whole window: top bar, the desk in front, and what may stand over it. */
public final class MainView extends StackPane {
  private static final Words WORDS = Words.of(MainView.class);

  /** In a narrower window the panel is folded away unless it is opened there, in pixels. */
  private static final double NARROW = 1100;

  /** Keys are read once, not at every press. */
  private static final Map<String, KeyCombination> COMBINATIONS = new HashMap<>();

  private final AppModel model;
  private final Overlay prompts;
  private final BorderPane ground = new BorderPane();
  private final ReachView reach;
  private final GotoView go;
  private final WindowActions actions;
  private final Map<DeskModel, DeskView> desks = new HashMap<>();

  /** Whether the last key that was pressed did something in the window. */
  private boolean usedUp;

  /**
   * @param prompts made before the model, which asks through it
   */
  public MainView(AppModel model, Overlay prompts) {
    this.model = model;
    this.prompts = prompts;
    this.reach = new ReachView(model);
    this.actions = new WindowActions(model, this);
    this.go = new GotoView(this::offers, this::typedPath);
    getStyleClass().add("zander");
    ground.setTop(new TopBar(model, this::openGoto));
    getChildren().addAll(ground, go, prompts.overlay);
    model
        .folds()
        .narrowProperty()
        .bind(widthProperty().lessThan(NARROW).and(widthProperty().greaterThan(0)));
    addEventFilter(KeyEvent.KEY_PRESSED, pressed -> model.used());
    addEventFilter(MouseEvent.MOUSE_PRESSED, pressed -> model.used());
    model.currentProperty().addListener((observed, old, now) -> show());
    model
        .desks()
        .addListener(
            (ListChangeListener<DeskModel>) change -> desks.keySet().retainAll(model.desks()));
    show();
  }

  /** The overlay for questions, made first so that the model can be given it. */
  public static final class Overlay {
    private final PromptOverlay overlay = new PromptOverlay();

    public Prompts prompts() {
      return overlay;
    }
  }

  private void show() {
    DeskModel desk = model.currentProperty().get();
    ground.setCenter(desk == null ? reach : view(desk));
  }

  WindowActions actions() {
    return actions;
  }

  DeskView view(DeskModel desk) {
    return desks.computeIfAbsent(
        desk,
        made -> {
          DeskView view = new DeskView(model, made);
          FolderActions actions = new FolderActions(made);
          view.folderView()
              .offer(
                  List.of(
                      List.of(
                          new Action(WORDS.say("bringDown"), "", made.transfers()::bringDown),
                          new Action(WORDS.say("rename"), "", () -> rename(made))),
                      actions.changing(),
                      actions.looking(),
                      actions.copying().subList(0, 4),
                      actions.deleting()));
          return view;
        });
  }

  void rename(DeskModel desk) {
    desk.currentProperty().set(desk.folder());
    view(desk).folderView().startRename();
  }

  /** The person came back to the window: what is shown may have changed meanwhile. */
  public void cameBack() {
    onDesk(
        desk -> {
          desk.folder().refreshIfOld();
          desk.local().refresh();
        });
  }

  void openGoto() {
    go.open();
  }

  /**
   * Makes the keys of the actions work wherever the focus is: before a table or the editor could
   * take them for something else. In a shell all keys belong to the program there; with Shift added
   * the window's come through.
   */
  public void installKeys(Scene scene) {
    scene.addEventFilter(
        KeyEvent.KEY_PRESSED,
        event -> {
          boolean inShell = scene.getFocusOwner() instanceof TerminalView;
          boolean shifted = event.isControlDown() && event.isShiftDown();
          usedUp = false;
          if ((inShell && !shifted) || isAsking() || isForOthers(scene, event)) {
            return;
          }
          Action action = actionFor(event);
          if (action != null) {
            usedUp = true;
            event.consume();
            action.run().run();
          }
        });
    // With Alt a letter comes besides, which a text would take.
    scene.addEventFilter(
        KeyEvent.KEY_TYPED,
        event -> {
          if (usedUp) {
            event.consume();
          }
        });
  }

  /**
   * The one with this key that applies, or else one that does not; those with just this key come
   * before those that are reached from a shell by it. {@code null} for none.
   */
  private @Nullable Action actionFor(KeyEvent event) {
    List<Action> all = actions.all();
    List<Action> wanted =
        new ArrayList<>(all.stream().filter(action -> isKeyOf(action.key(), event)).toList());
    all.stream()
        .filter(action -> action.key().startsWith("Ctrl+") && !action.key().contains("Shift+"))
        .filter(action -> isKeyOf(action.key().replace("Ctrl+", "Ctrl+Shift+"), event))
        .forEach(wanted::add);
    return wanted.stream()
        .filter(Action::applies)
        .findFirst()
        .orElse(wanted.isEmpty() ? null : wanted.get(0));
  }

  private static boolean isKeyOf(String key, KeyEvent event) {
    return !key.isEmpty() && combination(key).match(event);
  }

  /** The shell that is seen; {@code null} for none. */
  @Nullable ShellView shell() {
    DeskModel desk = model.currentProperty().get();
    return desk == null || !desks.containsKey(desk) ? null : view(desk).shell();
  }

  /** Whether what is typed goes to a shell. */
  boolean isInShell() {
    return getScene() != null && getScene().getFocusOwner() instanceof TerminalView;
  }

  /** The view in front if it is of a kind; {@code null} when another one is. */
  <V> @Nullable V inFront(Class<V> kind) {
    DeskModel desk = model.currentProperty().get();
    return desk == null || !desks.containsKey(desk) ? null : view(desk).inFront(kind);
  }

  /** What can be done with the page of the file in front. */
  List<Action> pageActions() {
    DeskModel desk = model.currentProperty().get();
    return desk == null || !desks.containsKey(desk) ? List.of() : view(desk).pageActions();
  }

  private static KeyCombination combination(String key) {
    return COMBINATIONS.computeIfAbsent(key, MainView::keyCombination);
  }

  /** A name that is no key's would be taken for a letter, and never match. */
  private static KeyCombination keyCombination(String key) {
    KeyCombination made = KeyCombination.valueOf(key);
    if (!(made instanceof KeyCodeCombination)) {
      throw new IllegalArgumentException("there is no key " + key);
    }
    return made;
  }

  /** Keys without Ctrl or Alt that change a folder are for its rows alone, never from elsewhere. */
  private static boolean isForOthers(Scene scene, KeyEvent event) {
    boolean plain = !event.isControlDown() && !event.isAltDown();
    Node focus = scene.getFocusOwner();
    boolean inRows = focus != null && "server-table".equals(focus.getId());
    return plain && !inRows && (event.getCode() == KeyCode.DELETE || event.getCode() == KeyCode.F2);
  }

  /** While a host key or a secret is asked, nothing else may be done by a key. */
  private boolean isAsking() {
    return prompts.overlay.isVisible();
  }

  private void onDesk(Consumer<DeskModel> what) {
    DeskModel desk = model.currentProperty().get();
    if (desk != null) {
      what.accept(desk);
    }
  }

  void newServer() {
    page(ReachView.Page.SERVERS);
    model.book().startNew();
  }

  void page(ReachView.Page page) {
    model.currentProperty().set(null);
    reach.show(page);
  }

  void openAServer() {
    model.currentProperty().set(null);
    reach.focusFirst();
  }

  static void save(DeskModel desk) {
    if (desk.currentProperty().get() instanceof FileModel file && file.unsavedProperty().get()) {
      file.save();
    }
  }

  static void toPartner(DeskModel desk) {
    if (desk.currentProperty().get() instanceof FileModel file) {
      desk.transfers().bringDownToPartner(file.path());
    }
  }

  void find(DeskModel desk) {
    desk.openSheets().show(new FindModel(desk, desk.folderInFront()));
    view(desk).focusFront();
  }

  void typePath(DeskModel desk) {
    desk.currentProperty().set(desk.folder());
    view(desk).folderView().typePath();
  }

  void narrow(DeskModel desk) {
    desk.currentProperty().set(desk.folder());
    view(desk).folderView().focusNarrow();
  }

  static void refresh(DeskModel desk) {
    desk.folder().refresh();
    desk.local().refresh();
  }

  void step(DeskModel desk, int by) {
    if (getScene().getFocusOwner() instanceof TerminalView && isInShellBelow(desk)) {
      desk.shells().step(by);
      return;
    }
    int size = desk.sheets().size();
    int at = desk.sheets().indexOf(desk.currentProperty().get());
    for (int i = 1; i <= size; i++) {
      var sheet = desk.sheets().get(Math.floorMod(at + i * by, size));
      boolean below = sheet instanceof ShellModel shell && shell.belowProperty().get();
      if (!below) {
        desk.currentProperty().set(sheet);
        return;
      }
    }
  }

  /** In a shell below the sheets the same keys, with Shift, go from shell to shell. */
  private static boolean isInShellBelow(DeskModel desk) {
    return desk.shells().frontProperty().get() != null
        && !(desk.currentProperty().get() instanceof ShellModel);
  }

  /** All that can be gone to or done, the likely first: places, and then actions. */
  private List<Action> offers() {
    List<Action> offers = new ArrayList<>();
    onDesk(
        desk -> {
          for (DeskModel other : model.desks()) {
            if (other != desk && other.folder().path() != null) {
              offers.add(
                  new Action(
                      WORDS.say("copyTheSelectionTo", other.entry().name(), other.folder().path()),
                      "",
                      () -> desk.transfers().copyTo(other.transfers())));
            }
          }
          for (ShellModel shell : desk.shells().shells()) {
            offers.add(
                new Action(
                    shell.titleProperty().get() + "  " + shell.folder(),
                    "",
                    () -> desk.shells().frontProperty().set(shell)));
          }
          for (MarkedFolder folder : desk.marked().all()) {
            offers.add(
                new Action(
                    folder.name() + "  " + folder.path(),
                    "",
                    () -> desk.goWithPartner(RemotePath.of(folder.path()))));
          }
          for (RemotePath path : model.visited(desk.entry().name())) {
            offers.add(new Action(path.text(), "", () -> goTo(desk, path)));
          }
        });
    for (BookModel.Row row : model.book().rows()) {
      if (row.source() != BookModel.Source.REMOVED) {
        ServerEntry entry = row.entry();
        offers.add(new Action(WORDS.say("server", entry.name()), "", () -> model.open(entry)));
      }
    }
    offers.addAll(actions.offered());
    return offers;
  }

  private @Nullable Action typedPath(String typed) {
    DeskModel desk = model.currentProperty().get();
    if (desk != null && (typed.startsWith("/") || typed.startsWith("~"))) {
      return new Action(WORDS.say("goTo", typed), "", () -> goTyped(desk, typed));
    }
    if (TypedAddress.looksLikeOne(typed)) {
      return new Action(WORDS.say("openNamed", typed), "", () -> model.openTyped(typed));
    }
    return null;
  }

  private static void goTyped(DeskModel desk, String typed) {
    desk.currentProperty().set(desk.folder());
    desk.folder().goTyped(typed);
  }

  private static void goTo(DeskModel desk, RemotePath path) {
    desk.currentProperty().set(desk.folder());
    desk.folder().go(path);
  }

  /** The desk's view in front, for focus when the window opens. */
  public void focusFirst() {
    Node center = ground.getCenter();
    if (center == reach) {
      reach.focusFirst();
    }
  }
}
