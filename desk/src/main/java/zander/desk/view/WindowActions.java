package zander.desk.view;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import java.util.function.Function;
import java.util.function.Predicate;
import zander.core.files.RemoteEntry;
import zander.core.files.RemotePath;
import zander.desk.file.FileModel;
import zander.desk.history.JournalSheet;
import zander.desk.model.AppModel;
import zander.desk.model.DeskModel;
import zander.desk.reading.ReadingModel;
import zander.desk.sheet.Action;
import zander.desk.view.compare.CompareActions;
import zander.desk.view.compare.CompareView;
import zander.desk.view.file.FileActions;
import zander.desk.view.file.FileView;
import zander.desk.view.file.OpenFileActions;
import zander.desk.view.file.ReadingActions;
import zander.desk.view.file.ReadingView;
import zander.desk.view.folder.FolderActions;
import zander.desk.view.shell.ShellActions;
import zander.desk.work.Settings;

/**
 * All that can be done in the window, by name and by key: the one list that the keys and the go-to
 * field read. What is done in a folder is in {@link FolderActions}, for menus too.
 */
final class WindowActions {
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
    this.goTo = new Action("Go to a path, server or action", "Ctrl+G", window::openGoto);
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
              return desk == null ? "open a server first" : whyNot.apply(desk);
            }));
  }

  private static Function<DeskModel, String> unless(Predicate<DeskModel> possible, String whyNot) {
    return desk -> possible.test(desk) ? "" : whyNot;
  }

  private void window() {
    add("Open a server", "Ctrl+O", window::openAServer);
    add("New server", "Ctrl+N", window::newServer);
    add("Keys", "", () -> window.page("Keys"));
    add("Vault", "", () -> window.page("Vault"));
    add(
        "Fold or show this computer",
        "Ctrl+M",
        () -> model.localFoldedProperty().set(!model.localFoldedProperty().get()));
    add(
        "Fold or show the panel",
        "Ctrl+I",
        () -> model.panelFoldedProperty().set(!model.panelFoldedProperty().get()));
    add(
        "Light or dark look",
        "Ctrl+D",
        () -> model.darkProperty().set(!model.darkProperty().get()));
    add(
        "Show or hide hidden files",
        "Ctrl+H",
        () ->
            model
                .settings()
                .set(Settings.SHOW_HIDDEN, !model.settings().get(Settings.SHOW_HIDDEN)));
    onDesk("Close the desk", "", model::close);
    onDesk(
        "Act as root on this server",
        "Alt+R",
        desk -> desk.actAsRoot(desk.folderInFront(), root -> {}),
        unless(DeskModel::mayActAsRoot, "you are root here, or this account has no shell"));
    onDesk(
        "Act as another account …",
        "",
        desk -> new ActingAccount(desk).ask(),
        unless(DeskModel::mayAct, "you act as another here, or this account has no shell"));
    onDesk(
        "Stop acting as another account",
        "",
        model::close,
        unless(desk -> desk.actsAs() != null, "you do not act as another account here"));
    onDesk(
        "Stop acting as another account when idle …",
        "",
        desk -> new ActingTime(model.settings(), desk.openSheets().front()).ask());
    onDesk("Open another desk on this server", "", desk -> model.openAnother(desk.entry()));
    onDesk(
        "Connect now",
        "",
        desk -> desk.line().tryNow(),
        unless(desk -> desk.line().awayProperty().get(), "already connected"));
  }

  private void folders() {
    onDesk(
        "Folder above",
        "Alt+Up",
        desk -> desk.folder().goUp(),
        unless(
            desk -> desk.folder().path() != null && !desk.folder().path().isRoot(),
            "there is none above"));
    onDesk(
        "Back to the folder before",
        "Alt+Left",
        desk -> desk.folder().goBack(),
        unless(desk -> desk.folder().mayGoBack(), "no folder was visited before"));
    onDesk(
        "Forward again",
        "Alt+Right",
        desk -> desk.folder().goForward(),
        unless(desk -> desk.folder().mayGoForward(), "you did not go back"));
    onDesk("Home folder", "Alt+Home", desk -> desk.folder().goHome());
    onDesk(
        "Rename",
        "F2",
        window::rename,
        unless(desk -> desk.folder().selection().size() == 1, "select one entry first"));
    onDesk(
        "Find below this folder",
        "Ctrl+F",
        window::find,
        unless(desk -> front(desk) == null, "a file is in front: Ctrl+Shift+F"));
    onDesk("Find below the folder, also from a file", "Ctrl+Shift+F", window::find);
    onDesk("Type a path", "Ctrl+L", window::typePath);
    onDesk("Narrow the list", "Ctrl+K", window::narrow);
    onDesk("Read the folder again", "F5", MainView::refresh);
    onDesk(
        "Set rights",
        "Ctrl+R",
        desk -> desk.rights().apply(),
        unless(desk -> desk.rights().isChanged(), "no rights were changed in the panel"));
    onDesk("Open a shell here", "Ctrl+J", DeskModel::openShell);
    onDesk(
        "Open a shell that the server keeps when the line is lost (tmux)",
        "Alt+Shift+J",
        desk -> desk.shells().openKept(desk.folderInFront()));
  }

  private void reading() {
    onDesk(
        "Read a file and follow it as it grows",
        "Alt+Shift+R",
        desk -> ReadingModel.show(desk, toRead(desk)),
        unless(desk -> toRead(desk) != null, "open or select a file first"));
  }

  /** The file in front, or the one that is selected; {@code null} for none. */
  private static RemotePath toRead(DeskModel desk) {
    if (front(desk) != null) {
      return front(desk).path();
    }
    List<RemoteEntry> selected = desk.folder().selection();
    boolean isFile = selected.size() == 1 && selected.get(0).leadsToFile();
    return isFile ? selected.get(0).path() : null;
  }

  private void transfers() {
    onDesk(
        "Send up",
        "Ctrl+Up",
        desk -> desk.transfers().sendUp(),
        unless(desk -> !desk.local().selection().isEmpty(), "select files on this computer first"));
    onDesk(
        "Bring down",
        "Ctrl+Down",
        desk -> desk.transfers().bringDown(),
        unless(desk -> !desk.folder().selection().isEmpty(), "select files on the server first"));
    onDesk(
        "Bring the open file to its place on this computer",
        "Ctrl+B",
        MainView::toPartner,
        unless(desk -> front(desk) != null, "no file is in front"));
    onDesk("Plan a transfer", "Ctrl+P", desk -> desk.transfers().plan());
    onDesk("Check against the other side", "Ctrl+E", desk -> desk.transfers().check());
    onDesk("List of transfers", "Ctrl+T", desk -> desk.transfers().openList());
    Function<DeskModel, String> idle =
        unless(desk -> desk.transfers().queue().isBusy(), "no transfer is under way");
    onDesk("Pause the transfer", "", desk -> desk.transfers().pause(), idle);
    onDesk("Stop the transfer", "", desk -> desk.transfers().stop(), idle);
    onDesk(
        "Answer what transfers ask",
        "Alt+A",
        desk -> desk.transfers().answer(),
        unless(desk -> desk.transfers().asking() > 0, "no transfer asks"));
  }

  private void sheets() {
    onDesk(
        "Save to server",
        "Ctrl+S",
        MainView::save,
        unless(
            desk -> front(desk) != null && front(desk).unsavedProperty().get(),
            "nothing is unsaved in front"));
    onDesk("Journal of this server", "Alt+J", JournalSheet::open);
    onDesk("Next sheet", "Ctrl+Page Down", desk -> window.step(desk, 1));
    onDesk("Previous sheet", "Ctrl+Page Up", desk -> window.step(desk, -1));
    onDesk("Close the sheet", "Ctrl+W", desk -> desk.close(desk.currentProperty().get()));
  }

  /** The file in front; {@code null} when something else is. */
  private static FileModel front(DeskModel desk) {
    return desk.currentProperty().get() instanceof FileModel file ? file : null;
  }
}
