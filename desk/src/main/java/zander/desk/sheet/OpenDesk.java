package zander.desk.sheet;

import java.util.List;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;
import zander.core.connect.AccountIdentity;
import zander.core.connect.Connection;
import zander.core.connect.command.Commands;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.journal.Journal;
import zander.core.page.PageRoutes;
import zander.desk.work.Background;
import zander.desk.work.Settings;
import zander.desk.work.Subscriptions;

/**
 * What a sheet may ask of the desk it is on. Used on the interface thread, but for what it gives.
 */
public interface OpenDesk {
  Background background();

  Settings settings();

  /** What is listened to outside the desk, until it is closed. */
  Subscriptions subscriptions();

  /** The files of the connection there is now: another one after the line broke and came back. */
  RemoteFiles files();

  /** The same for commands. */
  Commands commands();

  Journal journal();

  AccountIdentity whoAmI();

  RemotePath home();

  /**
   * The account of the server that serves what is in its folders, such as {@code web}; or empty.
   */
  String serviceAccount();

  /** Those that the person marked, and what rights they keep. */
  MarkedFolders marked();

  /** The public address that goes with a path, by its marked folder; {@code null} for none. */
  @Nullable String publicAddress(RemotePath path);

  /** The ways to pages that are served from here. */
  PageRoutes pageRoutes();

  /** The marked folder that a path is in, the nearest of those; empty for none. */
  String markedFolderOf(RemotePath path);

  /** {@code sftp://account@host:port}. */
  String address();

  /**
   * Opens a file as a sheet.
   *
   * @param line where to, counted from 1; 0 for where it was left
   */
  void openFile(RemotePath path, int line);

  /** What a file that is open here was when it was last read or saved; {@code null} for none. */
  @Nullable RemoteAttributes openedAs(RemotePath path);

  /** Shows a folder in front. */
  void goTo(RemotePath folder);

  /** The sheets of this desk. */
  OpenSheets openSheets();

  /** Whether something that is told once a desk was not told yet; from now on it was. */
  boolean isFirstTime(String what);

  /** Remembers a folder as visited. */
  void arrivedAt(RemotePath path);

  /** These were changed from here: rows and panels that show them look again. */
  void changed(List<RemotePath> paths);

  /** Whether root may be acted as from here: not where one is, or acts as another already. */
  boolean mayActAsRoot();

  /** Whether it may help to be root, where this failed. */
  default boolean mayRootHelp(Throwable failure) {
    return mayActAsRoot()
        && failure instanceof RemoteFailure remote
        && remote.reason() == RemoteFailure.Reason.PERMISSION_DENIED;
  }

  /**
   * Acts as root, asking for a password if the server does.
   *
   * @param folder where to begin
   * @param then told of the desk on which all is done as root, once it is there
   */
  void actAsRoot(RemotePath folder, Consumer<OpenDesk> then);

  /** Opens a file as a sheet with a text that is not on the server yet. */
  void openFile(RemotePath path, String unsaved, String basedOn);

  /** Looks whether the line is still there after something failed. */
  void checkLine();

  /**
   * A line that was opened beside the desk's own, as whom the desk acts.
   *
   * @param close waits
   */
  record NewLine(Connection connection, Runnable close) {}

  /**
   * Signs in once more, asking what must be asked, and acts as whom this desk acts: which shows
   * that one still gets in.
   *
   * @param in told of the line, which it has to close
   */
  void signInAnew(Consumer<NewLine> in, Consumer<Throwable> refused);
}
