package zander.desk.view;

import static java.util.Objects.requireNonNull;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import java.util.function.Function;
import java.util.function.Predicate;
import org.jspecify.annotations.Nullable;
import zander.core.files.RemoteEntry;
import zander.core.files.RemotePath;
import zander.desk.file.FileModel;
import zander.desk.history.JournalSheet;
import zander.desk.model.AppModel;
import zander.desk.model.DeskModel;
import zander.desk.reading.ReadingModel;
import zander.desk.sheet.Action;
import zander.desk.sheet.Sheet;
import zander.desk.view.compare.CompareActions;
import zander.desk.view.compare.CompareView;
import zander.desk.view.file.FileActions;
import zander.desk.view.file.FileView;
import zander.desk.view.file.OpenFileActions;
import zander.desk.view.file.ReadingActions;
import zander.desk.view.file.ReadingView;
import zander.desk.view.folder.FolderActions;
import zander.desk.view.reach.ReachView;
import zander.desk.view.shell.ShellActions;
import zander.desk.words.Words;
import zander.desk.work.Settings;

/**
 * All that can be done in the window, by name and by key: the one list that the keys and the go-to
 * field read. What is done in a folder is in {@link FolderActions}, for menus too.
 */
final class WindowActions {
  private static final Words WORDS = Words.of(WindowActions.class);

  private final AppModel model;
  private final MainView window;
  private final List<Action> actions = new ArrayList<>();
  private final Action goTo;
  private final FileActions inFile;
  private final ReadingActions inReading;
  private final CompareActions inCompare;
  private final ShellActions inShell;

  WindowActions(AppModel model, MainView window) {
    this.model = model;
    this.window = window;
    this.goTo = new Action(WORDS.say("goToAPath"), "Ctrl+G", window::openGoto);
    actions.add(goTo);
    this.inFile = new FileActions(() -> window.inFront(FileView.class));
    this.inReading = new ReadingActions(() -> window.inFront(ReadingView.class));
    this.inCompare = new CompareActions(() -> window.inFront(CompareView.class));
    this.inShell = new ShellActions(window::shell, model.currentProperty()::get);
    window();
    folders();
    reading();
    transfers();
    sheets();
  }

  /** Those of the folder in front, too. */
  List<Action> all() {
    List<Action> all = new ArrayList<>(actions);
    // Those of a file in front come before others with the same key.
    all.addAll(window.inFront(FileView.class) == null ? all.size() : 0, inFile.all());
    all.addAll(window.inFront(ReadingView.class) == null ? all.size() : 0, inReading.all());
    all.addAll(window.inFront(CompareView.class) == null ? all.size() : 0, inCompare.all());
    all.addAll(window.isInShell() ? 0 : all.size(), inShell.all());
    DeskModel desk = model.currentProperty().get();
    if (desk != null) {
      all.addAll(new OpenFileActions(desk).all());
      all.addAll(window.pageActions());
      all.addAll(new FolderActions(desk).all());
    }
    return all;
  }

  /** The same for the go-to field, which does not offer itself. */
  List<Action> offered() {
    List<Action> offered = all();
    offered.remove(goTo);
    return offered;
  }

  void add(Action action) {
    actions.add(action);
  }

  private void add(String name, String key, Runnable run) {
    add(new Action(name, key, run));
  }

  private void onDesk(String name, String key, Consumer<DeskModel> run) {
    onDesk(name, key, run, desk -> "");
  }

  private void onDesk(
      String name, String key, Consumer<DeskModel> run, Function<DeskModel, String> whyNot) {
    actions.add(
        new Action(
            name,
            key,
            () -> {
              DeskModel desk = model.currentProperty().get();
              if (desk != null) {
                run.accept(desk);
              }
            },
            () -> {
              DeskModel desk = model.currentProperty().get();
              return desk == null ? WORDS.say("openAServerFirst") : whyNot.apply(desk);
            }));
  }

  private static Function<DeskModel, String> unless(Predicate<DeskModel> possible, String whyNot) {
    return desk -> possible.test(desk) ? "" : whyNot;
  }

  private void window() {
    add(WORDS.say("openAServer"), "Ctrl+O", window::openAServer);
    add(WORDS.say("newServer"), "Ctrl+N", window::newServer);
    add(WORDS.say("keys"), "", () -> window.page(ReachView.Page.KEYS));
    add(WORDS.say("vault"), "", () -> window.page(ReachView.Page.VAULT));
    add(
        WORDS.say("foldOrShowThis"),
        "Ctrl+M",
        () -> model.folds().localProperty().set(!model.folds().localProperty().get()));
    add(
        WORDS.say("foldOrShowThe"),
        "Ctrl+I",
        () -> model.folds().panelProperty().set(!model.folds().panelProperty().get()));
    add(
        WORDS.say("lightOrDarkLook"),
        "Ctrl+D",
        () -> model.darkProperty().set(!model.darkProperty().get()));
    add(
        WORDS.say("showOrHideHidden"),
        "Ctrl+H",
        () ->
            model
                .settings()
                .set(Settings.SHOW_HIDDEN, !model.settings().get(Settings.SHOW_HIDDEN)));
    onDesk(WORDS.say("closeTheDesk"), "", model::close);
    onDesk(
        WORDS.say("actAsRootOn"),
        "Alt+R",
        desk -> desk.actAsRoot(desk.folderInFront(), root -> {}),
        unless(DeskModel::mayActAsRoot, WORDS.say("youAreRootHere")));
    onDesk(
        WORDS.say("actAsAnotherAccount"),
        "",
        desk -> new ActingAccount(desk).ask(),
        unless(DeskModel::mayAct, WORDS.say("youActAsAnother")));
    onDesk(
        WORDS.say("stopActingAsAnother"),
        "",
        model::close,
        unless(desk -> desk.actsAs() != null, WORDS.say("youDoNotAct")));
    onDesk(
        WORDS.say("stopActingAsAnotherAccount"),
        "",
        desk -> new ActingTime(model.settings(), desk.openSheets().front()).ask());
    onDesk(WORDS.say("openAnotherDeskOn"), "", desk -> model.openAnother(desk.entry()));
    onDesk(
        WORDS.say("connectNow"),
        "",
        desk -> desk.line().tryNow(),
        unless(desk -> desk.line().awayProperty().get(), WORDS.say("alreadyConnected")));
  }

  private void folders() {
    onDesk(
        WORDS.say("folderAbove"),
        "Alt+Up",
        desk -> desk.folder().goUp(),
        unless(
            desk -> desk.folder().path() != null && !desk.folder().path().isRoot(),
            WORDS.say("thereIsNoneAbove")));
    onDesk(
        WORDS.say("backToTheFolder"),
        "Alt+Left",
        desk -> desk.folder().goBack(),
        unless(desk -> desk.folder().mayGoBack(), WORDS.say("noFolderWasVisited")));
    onDesk(
        WORDS.say("forwardAgain"),
        "Alt+Right",
        desk -> desk.folder().goForward(),
        unless(desk -> desk.folder().mayGoForward(), WORDS.say("youDidNotGo")));
    onDesk(WORDS.say("homeFolder"), "Alt+Home", desk -> desk.folder().goHome());
    onDesk(
        WORDS.say("rename"),
        "F2",
        window::rename,
        unless(desk -> desk.folder().selection().size() == 1, WORDS.say("selectOneEntryFirst")));
    onDesk(
        WORDS.say("findBelowThisFolder"),
        "Ctrl+F",
        window::find,
        unless(desk -> front(desk) == null, WORDS.say("aFileIsIn")));
    onDesk(WORDS.say("findBelowTheFolder"), "Ctrl+Shift+F", window::find);
    onDesk(WORDS.say("typeAPath"), "Ctrl+L", window::typePath);
    onDesk(WORDS.say("narrowTheList"), "Ctrl+K", window::narrow);
    onDesk(WORDS.say("readTheFolderAgain"), "F5", MainView::refresh);
    onDesk(
        WORDS.say("setRights"),
        "Ctrl+R",
        desk -> desk.rights().apply(),
        unless(desk -> desk.rights().isChanged(), WORDS.say("noRightsWereChanged")));
    onDesk(WORDS.say("openAShellHere"), "Ctrl+J", DeskModel::openShell);
    onDesk(
        WORDS.say("openAShellThat"),
        "Alt+Shift+J",
        desk -> desk.shells().openKept(desk.folderInFront()));
  }

  private void reading() {
    onDesk(
        WORDS.say("readAFileAnd"),
        "Alt+Shift+R",
        desk -> ReadingModel.show(desk, requireNonNull(toRead(desk), "there is one")),
        unless(desk -> toRead(desk) != null, WORDS.say("openOrSelectA")));
  }

  private static boolean isFrontUnsaved(DeskModel desk) {
    FileModel front = front(desk);
    return front != null && front.unsavedProperty().get();
  }

  /** The file in front, or the one that is selected; {@code null} for none. */
  private static @Nullable RemotePath toRead(DeskModel desk) {
    FileModel front = front(desk);
    if (front != null) {
      return front.path();
    }
    List<RemoteEntry> selected = desk.folder().selection();
    boolean isFile = selected.size() == 1 && selected.get(0).leadsToFile();
    return isFile ? selected.get(0).path() : null;
  }

  private void transfers() {
    onDesk(
        WORDS.say("sendUp"),
        "Ctrl+Up",
        desk -> desk.transfers().sendUp(),
        unless(desk -> !desk.local().selection().isEmpty(), WORDS.say("selectFilesOnThis")));
    onDesk(
        WORDS.say("bringDown"),
        "Ctrl+Down",
        desk -> desk.transfers().bringDown(),
        unless(desk -> !desk.folder().selection().isEmpty(), WORDS.say("selectFilesOnThe")));
    onDesk(
        WORDS.say("bringTheOpenFile"),
        "Ctrl+B",
        MainView::toPartner,
        unless(desk -> front(desk) != null, WORDS.say("noFileIsIn")));
    onDesk(WORDS.say("planATransfer"), "Ctrl+P", desk -> desk.transfers().plan());
    onDesk(WORDS.say("checkAgainstTheOther"), "Ctrl+E", desk -> desk.transfers().check());
    onDesk(WORDS.say("listOfTransfers"), "Ctrl+T", desk -> desk.transfers().openList());
    Function<DeskModel, String> idle =
        unless(desk -> desk.transfers().queue().isBusy(), WORDS.say("noTransferIsUnder"));
    onDesk(WORDS.say("pauseTheTransfer"), "", desk -> desk.transfers().pause(), idle);
    onDesk(WORDS.say("stopTheTransfer"), "", desk -> desk.transfers().stop(), idle);
    onDesk(
        WORDS.say("answerWhatTransfersAsk"),
        "Alt+A",
        desk -> desk.transfers().answer(),
        unless(desk -> desk.transfers().asking() > 0, WORDS.say("noTransferAsks")));
  }

  private void sheets() {
    onDesk(
        WORDS.say("saveToServer"),
        "Ctrl+S",
        MainView::save,
        unless(WindowActions::isFrontUnsaved, WORDS.say("nothingIsUnsavedIn")));
    onDesk(
        WORDS.say("saveAllAsOne"),
        "Ctrl+Shift+S",
        desk -> desk.fileSheets().saveAll(),
        unless(
            desk -> desk.sheets().stream().filter(Sheet::isUnsaved).count() > 1,
            WORDS.say("fewerThanTwoUnsaved")));
    onDesk(WORDS.say("journalOfThisServer"), "Alt+J", JournalSheet::open);
    onDesk(WORDS.say("nextSheet"), "Ctrl+Page Down", desk -> window.step(desk, 1));
    onDesk(WORDS.say("previousSheet"), "Ctrl+Page Up", desk -> window.step(desk, -1));
    onDesk(WORDS.say("closeTheSheet"), "Ctrl+W", desk -> desk.close(desk.currentProperty().get()));
  }

  /** The file in front; {@code null} when something else is. */
  private static @Nullable FileModel front(DeskModel desk) {
    return desk.currentProperty().get() instanceof FileModel file ? file : null;
  }
}
