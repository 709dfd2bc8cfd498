package zander.desk.model;

import java.nio.file.Path;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.function.Consumer;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.collections.ObservableList;
import org.jspecify.annotations.Nullable;
import zander.core.book.ServerEntry;
import zander.core.connect.AccountIdentity;
import zander.core.connect.Connection;
import zander.core.connect.command.Commands;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.journal.Journal;
import zander.core.journal.JournalEntry;
import zander.core.page.PageRoutes;
import zander.desk.file.Drafts;
import zander.desk.file.FileSheets;
import zander.desk.folder.FolderModel;
import zander.desk.folder.action.CopyText;
import zander.desk.history.JournalModel;
import zander.desk.history.RecoveryModel;
import zander.desk.line.DeskServer;
import zander.desk.line.LineKeeper;
import zander.desk.local.LocalModel;
import zander.desk.reach.KeyPlacing;
import zander.desk.reach.KeysModel;
import zander.desk.reach.Secrets;
import zander.desk.reach.SignInRunner;
import zander.desk.rights.RightsModel;
import zander.desk.rights.SelectionDetails;
import zander.desk.sheet.MarkedFolders;
import zander.desk.sheet.OpenDesk;
import zander.desk.sheet.OpenSheets;
import zander.desk.sheet.Sheet;
import zander.desk.shell.ShellSheets;
import zander.desk.shell.ShellsBelow;
import zander.desk.waterline.DeskTransfers;
import zander.desk.waterline.DragOutCopies;
import zander.desk.words.Words;
import zander.desk.work.Background;
import zander.desk.work.Settings;
import zander.desk.work.Subscriptions;

/**
 * One open server: its connection, its sheets, and the folder of this computer below it. It puts
 * the parts of a desk together; each of them knows only what it needs of the others.
 */
public final class DeskModel implements OpenDesk {
  private static final Words WORDS = Words.of(DeskModel.class);

  private final AppModel app;
  private final DeskServer server;
  private final Secrets secrets;
  private final Subscriptions subscriptions = new Subscriptions();
  private final Set<String> told = new HashSet<>();
  private final FolderModel folder;
  private final LocalModel local;
  private final OpenSheets sheets;
  private final ShellSheets shells;
  private final FileSheets files;
  private final DeskTransfers transfers;
  private final DragOutCopies takenOut;
  private final RightsModel rights;
  private final SelectionDetails details;
  private final MarkedFolders marked;

  /** {@code null} where all is done as the account that signed in. */
  private final @Nullable ActsAs acting;

  /**
   * @param secrets what the person let this desk keep; wiped when it ends
   * @param acting {@code null} where all is done as the account that signed in
   */
  DeskModel(
      AppModel app,
      ServerEntry entry,
      SignInRunner.Opened opened,
      Journal journal,
      Secrets secrets,
      @Nullable ActsAs acting) {
    this.app = app;
    this.acting = acting;
    this.secrets = secrets;
    LineKeeper line =
        new LineKeeper(
            app.background(),
            (unattended, outcome) ->
                new LineAgain(app, acting, secrets).again(this, unattended, outcome),
            this::cameBack,
            this::waitsFor);
    line.take(opened);
    this.server = new DeskServer(entry, line, journal, app.home());
    this.marked = new BookFolders(this, app.book(), entry);
    this.folder = new FolderModel(this);
    this.sheets = new OpenSheets(folder);
    Path start = entry.local() == null ? app.home() : app.home().resolve(entry.local());
    this.local = new LocalModel(app.background(), app.settings(), subscriptions, app.home(), start);
    this.transfers = new DeskTransfers(this, server, folder, local, app.keptTransfers());
    this.takenOut = new DragOutCopies(this, folder, transfers, app.takenOutFolder());
    this.shells = new ShellSheets(this, server::connection, folder::refresh);
    this.files = app.fileSheets(this, folder);
    this.rights = new RightsModel(this, folder);
    this.details = new SelectionDetails(this, folder, rights);
    folder.allProperty().addListener((observed, old, now) -> local.compareWith(folder.path(), now));
    Arrival.begin(this, folder, files, entry.name(), opened.connection());
  }

  @Override
  public boolean isFirstTime(String what) {
    return told.add(what);
  }

  /** The line is back: what is shown is asked for again; sheets and texts stay as they are. */
  private void cameBack() {
    folder.refresh();
    details.show();
    RecoveryModel.look(this, false);
  }

  private String waitsFor() {
    RemotePath listed = folder.goalProperty().get();
    return listed != null
        ? WORDS.say("theListingOf", listed)
        : files
            .waitsFor()
            .orElse(
                transfers.queue().isBusy() ? WORDS.say("theTransferToGo") : WORDS.say("anyAnswer"));
  }

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
  public OpenSheets openSheets() {
    return sheets;
  }

  @Override
  public RemoteFiles files() {
    return connection().files();
  }

  @Override
  public Commands commands() {
    return connection();
  }

  Connection connection() {
    return server.connection();
  }

  @Override
  public Journal journal() {
    return server.journal();
  }

  @Override
  public String serviceAccount() {
    return entry().service() == null ? "" : entry().service();
  }

  @Override
  public MarkedFolders marked() {
    return marked;
  }

  @Override
  public @Nullable String publicAddress(RemotePath path) {
    return CopyText.publicAddress(entry(), path);
  }

  @Override
  public PageRoutes pageRoutes() {
    return new PageRoutes(app.lookup(), this::connection);
  }

  @Override
  public String markedFolderOf(RemotePath path) {
    return transfers.rules().markedFolderOf(path);
  }

  @Override
  public String address() {
    return CopyText.address(entry());
  }

  @Override
  public @Nullable RemoteAttributes openedAs(RemotePath path) {
    return files.openedAs(path);
  }

  @Override
  public void goTo(RemotePath to) {
    sheets.frontProperty().set(folder);
    folder.go(to);
  }

  @Override
  public void changed(List<RemotePath> paths) {
    folder.lookAgain(paths);
    details.show();
    sheets.of(JournalModel.class).forEach(JournalModel::refresh);
  }

  @Override
  public RemotePath home() {
    return server.home();
  }

  @Override
  public void arrivedAt(RemotePath path) {
    transfers.rules().show();
    app.remember(entry().name(), path);
  }

  @Override
  public void checkLine() {
    server.line().check();
  }

  @Override
  public void signInAnew(Consumer<NewLine> in, Consumer<Throwable> refused) {
    new LineAgain(app, acting, secrets).beside(this, in, refused);
  }

  @Override
  public AccountIdentity whoAmI() {
    return connection().whoAmI();
  }

  public void openFile(RemotePath path) {
    files.open(path, file -> {});
  }

  @Override
  public void openFile(RemotePath path, int line) {
    files.open(path, file -> file.goToLine(line));
  }

  /** Goes to a folder of the server, and to the one that goes with it here. */
  public void goWithPartner(RemotePath to) {
    goTo(to);
    Path here = transfers.partnerOf(to);
    if (here != null && !here.equals(local.folder())) {
      local.go(here);
    }
  }

  /** The folder shown, or the home folder while there is none. */
  public RemotePath folderInFront() {
    return folder.path() == null ? home() : folder.path();
  }

  /** Files that are open, here or in other programs of this computer. */
  public FileSheets fileSheets() {
    return files;
  }

  public void openShell() {
    shells.open(folderInFront());
  }

  /** Closes a sheet; one with unsaved text asks first, in itself. */
  public void close(Sheet sheet) {
    sheets.close(sheet);
  }

  void end() {
    subscriptions.end();
    transfers.end(() -> app.journalDone(entry()));
    sheets.end();
    shells.end();
    server.line().end();
    secrets.wipe();
  }

  /** Puts a key on this server and, once it is proved, switches the entry to it. */
  public KeyPlacing place(KeysModel.Row key) {
    return new KeyPlacing(app.reach(), app.book(), entry(), key, connection(), journal());
  }

  // What views see.
  public boolean hasUnsaved() {
    return sheets.all().stream().anyMatch(Sheet::isUnsaved);
  }

  public ServerEntry entry() {
    return server.entry();
  }

  /** The account that all is done as here; {@code null} where it is the one that signed in. */
  public @Nullable String actsAs() {
    return acting == null ? null : acting.account();
  }

  /** The desk over whose connection another account is acted as; {@code null} for none. */
  @Nullable OpenDesk own() {
    return acting == null ? null : acting.own();
  }

  @Override
  public boolean mayActAsRoot() {
    return mayAct() && whoAmI().uid() != 0;
  }

  /** Whether another account may be acted as from here. */
  public boolean mayAct() {
    return acting == null && connection().mayHaveShell();
  }

  /** The same as any account that the server's rules allow. */
  public void actAs(String account, RemotePath at, Consumer<OpenDesk> then) {
    app.acting().actAs(this, account, at, then);
  }

  @Override
  public void actAsRoot(RemotePath at, Consumer<OpenDesk> then) {
    actAs(ActsAs.ROOT, at, then);
  }

  @Override
  public void openFile(RemotePath path, String unsaved, String basedOn) {
    files.open(path, file -> file.takeDraft(new Drafts.Draft(path, basedOn, unsaved)));
  }

  /** Whether this account is known to have no shell. Does not wait. */
  public boolean hasNoShell() {
    return connection().whyNoShell() != null;
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
    return sheets.all();
  }

  /** The sheet in front. */
  public ObjectProperty<Sheet> currentProperty() {
    return sheets.frontProperty();
  }

  /** The shells below the sheets. */
  public ShellsBelow shells() {
    return shells.below();
  }

  /** What goes over the waterline of this desk. */
  public DeskTransfers transfers() {
    return transfers;
  }

  /** What can be dragged to the desktop. */
  public DragOutCopies takenOut() {
    return takenOut;
  }

  /** What the journal has about the one thing selected. */
  public ReadOnlyObjectProperty<List<JournalEntry>> historyProperty() {
    return details.historyProperty();
  }

  /** The line to the server: its delay, whether it is there, and how it comes back. */
  public LineKeeper line() {
    return server.line();
  }
}
