package zander.desk.model;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.OptionalInt;
import java.util.Set;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.function.Consumer;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.beans.property.SimpleObjectProperty;
import javafx.collections.FXCollections;
import javafx.collections.ListChangeListener;
import javafx.collections.ObservableList;
import zander.core.book.MarkedFolder;
import zander.core.book.ServerEntry;
import zander.core.change.AtomicSave;
import zander.core.change.RightsChange;
import zander.core.connect.AccountIdentity;
import zander.core.connect.Connection;
import zander.core.connect.command.Commands;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteEntry;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.journal.Journal;
import zander.core.journal.JournalEntry;
import zander.desk.find.FindModel;
import zander.desk.folder.CopyText;
import zander.desk.folder.DeleteActions;
import zander.desk.folder.FolderModel;
import zander.desk.folder.LocalModel;
import zander.desk.history.JournalModel;
import zander.desk.history.RecoveryModel;
import zander.desk.reach.KeyPlacing;
import zander.desk.reach.KeysModel;
import zander.desk.reach.Secrets;
import zander.desk.reach.SignInRunner;
import zander.desk.sheet.OpenDesk;
import zander.desk.sheet.Question;
import zander.desk.sheet.Sheet;
import zander.desk.work.Background;
import zander.desk.work.FailureWords;
import zander.desk.work.Message;
import zander.desk.work.Settings;
import zander.desk.work.Subscriptions;

/** One open server: its connection, its sheets, and the folder of this computer below it. */
public final class DeskModel implements OpenDesk {
  private final AppModel app;
  private final ServerEntry entry;
  private final Journal journal;
  private final FolderModel folder;
  private final LocalModel local;
  private final RightsModel rights;
  private final ObservableList<Sheet> sheets = FXCollections.observableArrayList();
  private final ObjectProperty<Sheet> current = new SimpleObjectProperty<>();
  private final DeskTransfers transfers;
  private final DragOutCopies takenOut;
  private final Partners partners = new Partners(this);
  private final Secrets secrets;
  private final Drafts drafts;
  private final LineKeeper line;
  private final ReadOnlyObjectWrapper<List<JournalEntry>> happened =
      new ReadOnlyObjectWrapper<>(List.of());
  private final ExecutorService typing =
      Executors.newSingleThreadExecutor(
          task -> {
            Thread thread = new Thread(task, "typing");
            thread.setDaemon(true);
            return thread;
          });
  private final ShellsBelow shellsBelow = new ShellsBelow(sheets);
  private final Subscriptions subscriptions = new Subscriptions();
  private final Set<RemotePath> opening = new HashSet<>();
  private final Set<String> told = new HashSet<>();
  private int shells;

  /**
   * @param secrets what the person let this desk keep; wiped when it ends
   */
  DeskModel(
      AppModel app,
      ServerEntry entry,
      SignInRunner.Opened opened,
      Journal journal,
      Secrets secrets) {
    this.app = app;
    this.entry = entry;
    this.journal = journal;
    this.secrets = secrets;
    this.drafts = app.draftsOf(entry);
    this.line = new LineKeeper(app.background(), this::signInAgain, this::cameBack, this::waitsFor);
    line.take(opened);
    this.folder = new FolderModel(this);
    this.takenOut = new DragOutCopies(this, app.takenOutFolder());
    this.transfers = new DeskTransfers(this, app::desks, app.keptRules(), app.transfersFolder());
    this.rights = new RightsModel(this);
    Path start = entry.local() == null ? app.home() : app.home().resolve(entry.local());
    this.local = new LocalModel(app.background(), app.settings(), subscriptions, app.home(), start);
    folder.selection().addListener((ListChangeListener<RemoteEntry>) change -> selected());
    folder.allProperty().addListener((observed, old, now) -> local.compareWith(folder.path(), now));
    sheets.add(folder);
    current.set(folder);
    current.addListener((observed, old, now) -> selected());
    folder.land(opened.connection().landing());
    showBanner(opened.connection().banner());
    RecoveryModel.look(this, true);
    new DeleteActions(folder).tidyHeld();
    new DraftOffer(this, drafts).make();
  }

  private void showBanner(String banner) {
    if (!banner.isEmpty()) {
      folder.ask(
          Question.notice(
              new Message(entry.name() + " says", banner),
              false,
              new Question.Choice("Close", ticked -> folder.dismissQuestion())));
    }
  }

  /** Whether something that is told once a desk was not told yet. */
  boolean isFirstTime(String what) {
    return told.add(what);
  }

  private void signInAgain(boolean unattended, SignInRunner.Outcome outcome) {
    // The book may have a better way by now: a key in the place of a password.
    ServerEntry now = app.book().find(entry.name());
    boolean same = now != null && now.address().equals(entry.address());
    app.reach().signIn(same ? now : entry, secrets, unattended, outcome);
  }

  /** The line is back: what is shown is asked for again; sheets and texts stay as they are. */
  private void cameBack() {
    folder.refresh();
    selected();
    RecoveryModel.look(this, false);
  }

  private String waitsFor() {
    if (folder.goalProperty().get() != null) {
      return "the listing of " + folder.goalProperty().get();
    }
    if (!opening.isEmpty()) {
      return opening.iterator().next().name() + " to open";
    }
    for (Sheet sheet : sheets) {
      if (sheet instanceof FileModel file && file.busyProperty().get()) {
        return file.path().name() + " to be saved";
      }
    }
    return transfers.queue().isBusy() ? "the transfer to go on" : "any answer";
  }

  private void selected() {
    if (current.get() instanceof FileModel file) {
      showRightsOf(file);
      showJournal(file.version().real());
      return;
    }
    List<RemoteEntry> chosen = List.copyOf(folder.selection());
    rights.select(chosen);
    showJournal(chosen.size() == 1 ? chosen.get(0).path() : null);
  }

  private void showRightsOf(FileModel file) {
    background()
        .run(
            () -> files().entry(file.version().real()),
            entry -> {
              if (current.get() == file) {
                rights.select(List.of(entry));
              }
            },
            failure -> rights.select(List.of()));
  }

  private void showJournal(RemotePath about) {
    if (about == null) {
      happened.set(List.of());
      return;
    }
    background().run(() -> journal.about(about), happened::set, e -> happened.set(List.of()));
  }

  // What the sheets of this desk need.

  @Override
  public Background background() {
    return app.background();
  }

  @Override
  public Settings settings() {
    return app.settings();
  }

  @Override
  public Subscriptions subscriptions() {
    return subscriptions;
  }

  @Override
  public RemoteFiles files() {
    return connection().files();
  }

  @Override
  public Commands commands() {
    return connection();
  }

  /** The home of the person on this computer. */
  Path personHome() {
    return app.home();
  }

  Connection connection() {
    return line.connection();
  }

  @Override
  public Journal journal() {
    return journal;
  }

  Drafts drafts() {
    return drafts;
  }

  @Override
  public String serviceAccount() {
    return entry.service() == null ? "" : entry.service();
  }

  @Override
  public String publicAddress(RemotePath path) {
    for (MarkedFolder marked : entry.folders()) {
      RemotePath base = RemotePath.of(marked.path());
      if (marked.address() != null && path.chain().contains(base)) {
        String rest = CopyText.percent(path).substring(CopyText.percent(base).length());
        return marked.address().replaceFirst("/+$", "") + rest;
      }
    }
    return null;
  }

  @Override
  public String address() {
    String port = entry.port() == 22 ? "" : ":" + entry.port();
    return "sftp://" + entry.account() + "@" + entry.host() + port;
  }

  @Override
  public RemoteAttributes openedAs(RemotePath path) {
    for (Sheet sheet : sheets) {
      if (sheet instanceof FileModel file
          && (file.path().equals(path) || file.version().real().equals(path))) {
        return file.version().attributes();
      }
    }
    return null;
  }

  @Override
  public void goTo(RemotePath to) {
    current.set(folder);
    folder.go(to);
  }

  @Override
  public void show(Sheet sheet) {
    sheets.add(sheet);
    current.set(sheet);
  }

  @Override
  public void offer(Sheet sheet) {
    boolean front = current.get().getClass() == sheet.getClass();
    sheets.add(sheet);
    if (front) {
      current.set(sheet);
    }
    List.copyOf(sheets).stream()
        .filter(other -> other != sheet && other.getClass() == sheet.getClass())
        .forEach(this::remove);
  }

  @Override
  public void changed(List<RemotePath> paths) {
    folder.lookAgain(paths);
    selected();
    for (Sheet sheet : sheets) {
      if (sheet instanceof JournalModel shown) {
        shown.refresh();
      }
    }
  }

  ExecutorService typing() {
    return typing;
  }

  AtomicSave saver() {
    return new AtomicSave(files(), journal);
  }

  RightsChange rightsChange() {
    return new RightsChange(files(), journal);
  }

  @Override
  public RemotePath home() {
    return connection().whoAmI().home();
  }

  String userName(int uid) {
    return files().names().user(uid);
  }

  String groupName(int gid) {
    return files().names().group(gid);
  }

  public OptionalInt uidOf(String name) {
    return files().names().uidOf(name.strip());
  }

  public OptionalInt gidOf(String name) {
    return files().names().gidOf(name.strip());
  }

  @Override
  public void arrivedAt(RemotePath path) {
    transfers.showRules();
    app.remember(entry.name(), path);
  }

  void fileSaved(RemotePath path) {
    changed(List.of(path));
  }

  void rightsChanged(List<RemoteEntry> now) {
    folder.update(now);
    changed(now.stream().map(RemoteEntry::path).toList());
  }

  void shellUsed() {
    folder.refresh();
  }

  /** Looks whether the line is still there after something failed. */
  @Override
  public void checkLine() {
    line.check();
  }

  // What a person does.

  public void openFile(RemotePath path) {
    openFile(path, file -> {});
  }

  @Override
  public void openFile(RemotePath path, int line) {
    openFile(path, file -> file.goToLine(line));
  }

  void openFile(RemotePath path, Consumer<FileModel> then) {
    for (Sheet sheet : sheets) {
      if (sheet instanceof FileModel file && file.path().equals(path)) {
        current.set(file);
        then.accept(file);
        return;
      }
    }
    if (!opening.add(path)) {
      return;
    }
    background()
        .run(
            () -> new FileModel(this, path, saver().open(path, FileModel.LARGEST)),
            file -> {
              opening.remove(path);
              show(file);
              then.accept(file);
            },
            failure -> {
              opening.remove(path);
              current.set(folder);
              if (LargeFiles.isTooLarge(failure)) {
                new LargeFiles(this).ask(path);
                return;
              }
              folder.ask(Question.notice(FailureWords.of(failure), true, folder.dismiss()));
              checkLine();
            });
  }

  /** Shows the journal of this server; one sheet is enough. */
  public void openJournal() {
    for (Sheet sheet : sheets) {
      if (sheet instanceof JournalModel shown) {
        current.set(shown);
        return;
      }
    }
    show(new JournalModel(this));
  }

  /** Opens a sheet to find something below the folder shown. */
  public void openFind() {
    show(new FindModel(this, folder.path() == null ? home() : folder.path()));
  }

  /** Puts an entry of the panel's journal back; what stands against it is told in front. */
  public void putBack(JournalEntry entry) {
    new JournalModel(this).putBack(entry, false, current.get());
  }

  public void openShell() {
    openShell(folder.path() == null ? home() : folder.path(), new byte[0]);
  }

  /**
   * @param typed what is typed into it at once
   */
  void openShell(RemotePath at, byte[] typed) {
    sheets.add(new ShellModel(this, "Shell " + ++shells, at, typed));
  }

  /** Closes a sheet; one with unsaved text asks first, in itself. */
  public void close(Sheet sheet) {
    if (sheet == folder) {
      return;
    }
    if (sheet instanceof FileModel file && file.unsavedProperty().get()) {
      current.set(file);
      file.ask(
          Question.notice(
              new Message(
                  file.path().name() + " is not saved",
                  "The server has the version before your changes."),
              true,
              new Question.Choice("Save", ticked -> file.save()),
              new Question.Choice("Close without saving", ticked -> remove(file)),
              new Question.Choice("Keep editing", ticked -> file.dismissQuestion())));
      return;
    }
    remove(sheet);
  }

  private void remove(Sheet sheet) {
    sheet.close();
    if (sheet instanceof FileModel file) {
      file.dropDraft();
    }
    // First out of the front: a view asked for a sheet that is gone would be made again.
    if (current.get() == sheet) {
      current.set(folder);
    }
    sheets.remove(sheet);
  }

  void end() {
    subscriptions.end();
    transfers.end(() -> app.journalDone(entry));
    new ArrayList<>(sheets).forEach(Sheet::close);
    typing.shutdown();
    line.end();
    secrets.wipe();
  }

  public boolean hasUnsaved() {
    return sheets.stream().anyMatch(sheet -> sheet.unsavedProperty().get());
  }

  public ServerEntry entry() {
    return entry;
  }

  @Override
  public AccountIdentity whoAmI() {
    return connection().whoAmI();
  }

  /** Why this account has no shell, in the server's words; empty where it has one, or may have. */
  public String whyNoShell() {
    return connection().whyNoShell();
  }

  public String keyType() {
    return connection().keyType();
  }

  public FolderModel folder() {
    return folder;
  }

  public LocalModel local() {
    return local;
  }

  public RightsModel rights() {
    return rights;
  }

  public ObservableList<Sheet> sheets() {
    return sheets;
  }

  /** The shells below the sheets. */
  public ShellsBelow shells() {
    return shellsBelow;
  }

  public ObjectProperty<Sheet> currentProperty() {
    return current;
  }

  /** What goes over the waterline of this desk. */
  public DeskTransfers transfers() {
    return transfers;
  }

  /** What can be dragged to the desktop. */
  public Partners partners() {
    return partners;
  }

  public DragOutCopies takenOut() {
    return takenOut;
  }

  /** What the journal has about the one thing selected. */
  public ReadOnlyObjectProperty<List<JournalEntry>> happenedProperty() {
    return happened.getReadOnlyProperty();
  }

  /** The line to the server: its delay, whether it is there, and how it comes back. */
  public LineKeeper line() {
    return line;
  }

  /** Puts a key on this server and, once it is proved, switches the entry to it. */
  public KeyPlacing place(KeysModel.Row key) {
    return new KeyPlacing(background(), app.reach(), app.book(), entry, key, connection(), journal);
  }
}
