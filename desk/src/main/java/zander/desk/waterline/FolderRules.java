package zander.desk.waterline;

import javafx.beans.property.ObjectProperty;
import javafx.beans.property.ReadOnlyStringProperty;
import javafx.beans.property.ReadOnlyStringWrapper;
import javafx.beans.property.SimpleObjectProperty;
import zander.core.book.MarkedFolder;
import zander.core.files.RemotePath;
import zander.core.transfer.rules.TransferRules;
import zander.desk.folder.FolderModel;
import zander.desk.transfer.SavedRules;

/**
 * The rules for transfers between the folder shown and this computer, and the command that runs
 * after sending up into it. They are kept for each marked folder of a server.
 */
public final class FolderRules {
  private final String server;
  private final Partners partners;
  private final FolderModel folder;
  private final SavedRules saved;
  private final ObjectProperty<TransferRules> rules = new SimpleObjectProperty<>(SavedRules.USUAL);
  private final ReadOnlyStringWrapper command = new ReadOnlyStringWrapper("");

  /**
   * @param server its name in the book
   */
  FolderRules(String server, Partners partners, FolderModel folder, SavedRules saved) {
    this.server = server;
    this.partners = partners;
    this.folder = folder;
    this.saved = saved;
  }

  /** The rules of the folder shown are in force. */
  public void show() {
    rules.set(saved.of(place(folder.path())));
    command.set(saved.commandOf(place(folder.path())));
  }

  /** For transfers begun from now on. */
  public ObjectProperty<TransferRules> rulesProperty() {
    return rules;
  }

  /** What runs after sending up into the folder shown; empty for nothing. */
  public ReadOnlyStringProperty commandProperty() {
    return command.getReadOnlyProperty();
  }

  /** Changes the rules for the folder shown, from now on and the next time. */
  public void change(TransferRules changed) {
    rules.set(changed);
    saved.keep(place(folder.path()), changed);
  }

  /** Changes what runs after sending up into the folder shown, from now on and the next time. */
  public void changeCommand(String changed) {
    command.set(changed);
    saved.keepCommand(place(folder.path()), changed);
  }

  TransferRules now() {
    return rules.get();
  }

  /** Those of a folder that need not be shown. */
  TransferRules of(RemotePath at) {
    return saved.of(place(at));
  }

  String commandOf(RemotePath at) {
    return saved.commandOf(place(at));
  }

  /** The marked folder that a folder is in, for which rules are kept. */
  private String place(RemotePath at) {
    return server + ":" + (at == null ? "" : markedFolderOf(at));
  }

  /** The marked folder that a path is in; empty for none. */
  public String markedFolderOf(RemotePath at) {
    MarkedFolder in = partners.nearest(at, marked -> true);
    return in == null ? "" : in.path();
  }
}
