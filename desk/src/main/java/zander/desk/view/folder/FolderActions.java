package zander.desk.view.folder;

import java.util.ArrayList;
import java.util.List;
import javafx.scene.input.Clipboard;
import javafx.scene.input.ClipboardContent;
import zander.core.files.RemoteEntry;
import zander.core.files.RemotePath;
import zander.core.kept.KeptFolder;
import zander.desk.file.FileModel;
import zander.desk.folder.action.CopyText;
import zander.desk.folder.action.CreateActions;
import zander.desk.folder.action.DeleteActions;
import zander.desk.folder.action.ToolActions;
import zander.desk.model.DeskModel;
import zander.desk.rights.CopiedRights;
import zander.desk.rights.FindingsModel;
import zander.desk.rights.kept.KeptRequest;
import zander.desk.rights.tree.LocalRequest;
import zander.desk.rights.tree.TreeRightsModel;
import zander.desk.sheet.Action;
import zander.desk.words.Words;

/** What can be done in the folder of a desk, by name and by key. */
public final class FolderActions {
  private static final Words WORDS = Words.of(FolderActions.class);

  private final DeskModel desk;
  private final CreateActions make;
  private final DeleteActions delete;
  private final ToolActions tools;
  private final CopyText texts;

  public FolderActions(DeskModel desk) {
    this.desk = desk;
    this.make = new CreateActions(desk.folder());
    this.delete = new DeleteActions(desk.folder());
    this.tools = new ToolActions(desk.folder());
    this.texts = new CopyText(desk.folder());
  }

  private Action action(String name, String key, Runnable run) {
    return new Action(name, key, inFolder(run));
  }

  /** One that is done with what is selected. */
  private Action onSelection(String name, String key, Runnable run) {
    return new Action(
        name,
        key,
        inFolder(run),
        () -> desk.folder().selection().isEmpty() ? WORDS.say("selectAnEntryFirst") : "");
  }

  private Runnable inFolder(Runnable run) {
    return () -> {
      desk.currentProperty().set(desk.folder());
      run.run();
    };
  }

  List<Action> making() {
    return List.of(
        action(WORDS.say("newFile"), "Alt+Shift+N", make::newFile),
        action(WORDS.say("newFolder"), "Alt+N", make::newFolder),
        action(WORDS.say("newLink"), "Alt+L", make::newLink),
        action(WORDS.say("fetchFromAWeb"), "Alt+W", tools::fetch));
  }

  public List<Action> changing() {
    List<Action> actions = new ArrayList<>();
    actions.add(onSelection(WORDS.say("duplicate"), "Alt+D", make::duplicate));
    actions.add(onSelection(WORDS.say("copyToAFolder"), "Alt+C", make::copyTo));
    actions.add(onSelection(WORDS.say("moveToAFolder"), "Alt+M", make::moveTo));
    actions.add(
        onSelection(
            WORDS.say("rightsOfEverythingInside"), "Alt+I", desk.rights()::everythingInside));
    CopiedRights copied = desk.rights().copied();
    actions.add(onSelection(WORDS.say("copyItsRights"), "Alt+Shift+C", copied::copy));
    actions.add(onSelection(WORDS.say("fillInTheCopied"), "Alt+Shift+V", copied::give));
    actions.add(onSelection(WORDS.say("fillInTheRights"), "", copied::asNeighbours));
    actions.add(action(WORDS.say("rightsAsOnThis"), "", this::asHere));
    return actions;
  }

  /**
   * Of what is selected, or of the folder shown, as the entries of the same names here have them.
   */
  private void asHere() {
    RemotePath shown = desk.folder().path();
    List<RemotePath> chosen = desk.folder().selection().stream().map(RemoteEntry::path).toList();
    TreeRightsModel sheet =
        new TreeRightsModel(
            desk,
            chosen.isEmpty() ? List.of(shown) : chosen,
            new LocalRequest(shown, desk.local().folder()));
    desk.openSheets().show(sheet);
    sheet.look();
  }

  public List<Action> looking() {
    return List.of(
        action(WORDS.say("factsSizeKindChecksum"), "Alt+Enter", tools::facts),
        action(WORDS.say("lookForRightsThat"), "Alt+Shift+I", this::findings),
        action(WORDS.say("rightsThatTheFolder"), "Alt+K", this::kept),
        onSelection(WORDS.say("makeReadyToDrag"), "Alt+T", desk.takenOut()::prepare),
        onSelection(WORDS.say("packIntoAnArchive"), "Alt+P", tools::pack),
        onSelection(WORDS.say("unpackAnArchive"), "Alt+U", tools::unpack));
  }

  private void findings() {
    desk.openSheets().show(new FindingsModel(desk, below()));
  }

  /** The one folder that is selected, or the one that is shown. */
  private RemotePath below() {
    var chosen = desk.folder().selection();
    boolean one = chosen.size() == 1 && chosen.get(0).attributes().isFolder();
    return one ? chosen.get(0).path() : desk.folder().path();
  }

  /** Of the folder that is selected or shown, as it or the nearest one above it keeps them. */
  private void kept() {
    RemotePath at = below();
    KeptFolder keeper = desk.marked().keeperOf(at);
    if (keeper == null) {
      desk.openSheets().show(new TreeRightsModel(desk, List.of(at), new KeptRequest(desk, at)));
    } else {
      desk.marked().showDifferences(List.of(keeper.path()));
    }
  }

  public List<Action> deleting() {
    return List.of(onSelection(WORDS.say("delete"), WORDS.say("delete"), delete::delete));
  }

  public List<Action> copying() {
    List<Action> actions = new ArrayList<>();
    actions.add(action(WORDS.say("copyThePath"), "Alt+Y", () -> copy(texts.path())));
    actions.add(action(WORDS.say("copyThePathQuoted"), "", () -> copy(texts.quoted())));
    actions.add(action(WORDS.say("copyTheSftpAddress"), "", () -> copy(texts.address())));
    actions.add(action(WORDS.say("copyThePublicAddress"), "", () -> copy(texts.publicAddress())));
    for (var sheet : desk.sheets()) {
      if (sheet instanceof FileModel file) {
        RemotePath open = file.path();
        actions.add(
            action(
                WORDS.say("copyThePathAs", open.name()), "", () -> copy(texts.relativeTo(open))));
      }
    }
    return actions;
  }

  private static void copy(String text) {
    ClipboardContent content = new ClipboardContent();
    content.putString(text);
    Clipboard.getSystemClipboard().setContent(content);
  }

  public List<Action> all() {
    List<Action> all = new ArrayList<>(making());
    all.addAll(changing());
    all.addAll(looking());
    all.addAll(copying());
    all.addAll(deleting());
    return all;
  }
}
