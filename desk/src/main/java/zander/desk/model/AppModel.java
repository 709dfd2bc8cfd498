package zander.desk.model;

import static java.util.Objects.requireNonNull;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import javafx.beans.property.BooleanProperty;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.beans.property.SimpleObjectProperty;
import javafx.collections.FXCollections;
import javafx.collections.ObservableList;
import org.jspecify.annotations.Nullable;
import zander.core.book.ServerEntry;
import zander.core.connect.Connector;
import zander.core.connect.address.HostLookup;
import zander.core.connect.keys.Agent;
import zander.core.connect.report.ConnectFailure;
import zander.core.files.RemotePath;
import zander.core.journal.Journal;
import zander.core.transfer.resume.ResumeFolder;
import zander.core.trust.WireKey;
import zander.desk.file.Drafts;
import zander.desk.file.FileSheets;
import zander.desk.file.own.OwnCopies;
import zander.desk.folder.FolderModel;
import zander.desk.kept.KeptModel;
import zander.desk.kept.VaultKey;
import zander.desk.line.Journals;
import zander.desk.reach.BookModel;
import zander.desk.reach.KeysModel;
import zander.desk.reach.Prompts;
import zander.desk.reach.Secrets;
import zander.desk.reach.SignInModel;
import zander.desk.reach.SignInRunner;
import zander.desk.reach.TypedServer;
import zander.desk.reach.VaultModel;
import zander.desk.save.KeptSaveRules;
import zander.desk.template.Templates;
import zander.desk.transfer.SavedRules;
import zander.desk.transfer.TransferModel;
import zander.desk.waterline.DeskTransfers;
import zander.desk.waterline.DragOutCopies;
import zander.desk.work.Background;
import zander.desk.work.FailureWords;
import zander.desk.work.Settings;

/** The whole program as a model: the book, the open desks, and signing in. */
public final class AppModel {
  private final Background background;
  private final Connector connector;
  private final Path home;
  private final Path stateFolder;
  private final BookModel book;
  private final KeysModel keys;
  private final VaultModel vault;
  private final VaultKey vaultKey;
  private final KeptModel kept;
  private final SignInRunner reach;
  private final Settings settings;
  private final SavedRules keptRules;
  private final KeptSaveRules saveRules;
  private final Templates templates;
  private final ObservableList<DeskModel> desks = FXCollections.observableArrayList();
  private final ObjectProperty<DeskModel> current = new SimpleObjectProperty<>();
  private final ReadOnlyObjectWrapper<SignInModel> signIn = new ReadOnlyObjectWrapper<>();
  private final BooleanProperty dark;
  private final Folds folds;
  private final Journals journals;
  private final ActingDesks acting = new ActingDesks(this);
  private final Map<String, List<RemotePath>> visited = new LinkedHashMap<>();
  private @Nullable ServerEntry wanted;

  public AppModel(Background background, Connector connector, Prompts prompts, DataFolders places) {
    this.background = background;
    this.connector = connector;
    this.home = places.home();
    this.stateFolder = places.state();
    this.keptRules = new SavedRules(stateFolder, background);
    this.saveRules = new KeptSaveRules(stateFolder.resolve("checks.json"), background);
    this.templates = new Templates(stateFolder, background);
    this.settings = new Settings(stateFolder.resolve("settings.json"), background);
    this.dark = settings.property(Settings.DARK);
    this.folds = new Folds(settings, current.flatMap(DeskModel::currentProperty));
    String person = System.getProperty("user.name");
    this.book = new BookModel(background, places.book(), home, person);
    this.keys = new KeysModel(background, home.resolve(".ssh"), Agent.running().orElse(null));
    this.vault = new VaultModel(places.vault(), background);
    this.vaultKey =
        new VaultKey(vault, prompts, background, stateFolder.resolve("kept.pub"), () -> sealKept());
    this.journals = new Journals(stateFolder.resolve("journal"), background, vaultKey.seal());
    this.kept =
        new KeptModel(
            stateFolder, journals, background, () -> settings.now().journal(), this::running);
    background.run(() -> DragOutCopies.clearOthers(stateFolder));
    this.reach = new SignInRunner(background, connector, prompts, vault, book, home);
  }

  /** How computers are found by name from here. */
  HostLookup lookup() {
    return connector.lookup();
  }

  /** Opens a desk for a saved server; one that is open is shown. */
  public void open(ServerEntry entry) {
    for (DeskModel desk : desks) {
      if (desk.entry().name().equals(entry.name()) && desk.entry().host().equals(entry.host())) {
        current.set(desk);
        return;
      }
    }
    openAnother(entry);
  }

  /** Opens one more desk for a server, over a connection of its own. */
  public void openAnother(ServerEntry entry) {
    if (signIn.get() != null && !signIn.get().isOver()) {
      return;
    }
    wanted = entry;
    current.set(null);
    Secrets secrets = new Secrets();
    signIn.set(
        reach.signIn(
            entry,
            secrets,
            false,
            new SignInRunner.Outcome(
                opened ->
                    background.run(
                        () -> journalOf(entry),
                        journal -> {
                          DeskModel desk =
                              new DeskModel(this, entry, opened, journal, secrets, null);
                          signIn.set(null);
                          desks.add(desk);
                          current.set(desk);
                        },
                        failure -> {
                          background.run(opened.connection()::close);
                          book.tell(FailureWords.of(failure));
                          signIn.set(null);
                        }),
                failed -> secrets.wipe())));
  }

  /** Somebody pressed something on the desk in front. */
  public void used() {
    acting.used(current.get());
  }

  /** The desks on which another account is acted as. */
  ActingDesks acting() {
    return acting;
  }

  /** On the thread that opened the vault. */
  private void sealKept() {
    try {
      journals.sealKept();
    } catch (java.io.IOException e) {
      // The next opening of a journal seals what it keeps.
    }
  }

  /** The lists of transfers that are being written. */
  private List<Path> running() {
    return desks.stream()
        .flatMap(desk -> desk.transfers().queue().all().stream())
        .map(TransferModel::file)
        .filter(java.util.Objects::nonNull)
        .toList();
  }

  KeptSaveRules saveRules() {
    return saveRules;
  }

  DeskTransfers.Kept keptTransfers() {
    return new DeskTransfers.Kept(
        keptRules,
        new ResumeFolder(stateFolder.resolve("transfers"), vaultKey.seal()),
        () -> desks.stream().map(DeskModel::transfers).toList());
  }

  /** Where copies are that were made to be dragged to the desktop. */
  Path takenOutFolder() {
    return DragOutCopies.ofThisProgram(stateFolder);
  }

  /** Opens what was typed: a name of the book, {@code account@host:port}, or an address. */
  public void openTyped(String typed) {
    background.run(
        () -> TypedServer.read(typed, book, home),
        this::open,
        failure -> book.tell(FailureWords.of(failure)));
  }

  /** Tries the last sign-in again. */
  public void signInAgain() {
    if (wanted != null) {
      open(book.find(wanted.name()) == null ? wanted : book.find(wanted.name()));
    }
  }

  /** Edits the server of the last sign-in. */
  public void editTried() {
    if (wanted != null) {
      book.edit(wanted);
    }
  }

  /** Gives a sign-in up, or puts its report away. */
  public void endSignIn() {
    if (signIn.get() != null) {
      signIn.get().stop();
      signIn.set(null);
    }
  }

  /** Puts the host key that the server showed in the place of the known one, and tries again. */
  public void replaceHostKey(ConnectFailure failure) {
    WireKey shown = requireNonNull(failure.shown(), "another key was shown");
    background.run(
        () -> {
          connector.knownHosts().replace(failure.address().knownHostsName(), shown);
          return failure;
        },
        done -> signInAgain(),
        why -> book.tell(FailureWords.of(why)));
  }

  /** Closes the key file that a sign-in stumbled over to others, and tries again. */
  public void closeKeyFile(ConnectFailure failure) {
    keys.close(requireNonNull(failure.keyFile(), "its file is too open"), this::signInAgain);
  }

  Journal journalOf(ServerEntry entry) throws java.io.IOException {
    return journals.open(folderName(entry), entry.name(), settings.now().journal());
  }

  /** A desk on this server has ended, and nothing of it writes any more. */
  void journalDone(ServerEntry entry) {
    journals.close(folderName(entry));
  }

  private static String folderName(ServerEntry entry) {
    return entry.address().toString().replaceAll("[^A-Za-z0-9@.:-]", "_");
  }

  /** The files of a desk; an account that is acted as has drafts and copies of its own. */
  FileSheets fileSheets(DeskModel desk, FolderModel folder) {
    String own = folderName(desk.entry(), desk.actsAs());
    return new FileSheets(
        desk,
        folder,
        draftsOf(desk.entry(), desk.actsAs()),
        new OwnCopies(stateFolder.resolve("open").resolve(own)),
        saveRules(),
        templates);
  }

  /**
   * @param actsAs the account that is acted as, which has drafts of its own; {@code null} for none
   */
  Drafts draftsOf(ServerEntry entry, @Nullable String actsAs) {
    Path own = stateFolder.resolve("drafts").resolve(folderName(entry, actsAs));
    return new Drafts(own, vaultKey.seal());
  }

  private static String folderName(ServerEntry entry, @Nullable String actsAs) {
    return folderName(entry) + (actsAs == null ? "" : "_as_" + actsAs);
  }

  public Settings settings() {
    return settings;
  }

  void remember(String server, RemotePath path) {
    List<RemotePath> paths = visited.computeIfAbsent(server, name -> new ArrayList<>());
    paths.remove(path);
    paths.add(0, path);
    if (paths.size() > 30) {
      paths.remove(30);
    }
  }

  /** The folders visited on a server, newest first. */
  public List<RemotePath> visited(String server) {
    return List.copyOf(visited.getOrDefault(server, List.of()));
  }

  public void close(DeskModel desk) {
    // What is done as another account over its connection ends first.
    for (DeskModel other : new ArrayList<>(desks)) {
      if (other.own() == desk) {
        close(other);
        if (desks.contains(other)) {
          return;
        }
      }
    }
    if (desk.hasUnsaved()) {
      current.set(desk);
      desk.sheets().stream()
          .filter(sheet -> sheet.unsavedProperty().get())
          .findFirst()
          .ifPresent(desk::close);
      return;
    }
    desk.end();
    desks.remove(desk);
    if (current.get() == desk) {
      current.set(desks.isEmpty() ? null : desks.get(desks.size() - 1));
    }
  }

  public boolean hasUnsaved() {
    return desks.stream().anyMatch(DeskModel::hasUnsaved);
  }

  public void stop() {
    new ArrayList<>(desks).forEach(DeskModel::end);
    vault.lock();
    connector.close();
    background.stop();
  }

  Background background() {
    return background;
  }

  Path home() {
    return home;
  }

  SignInRunner reach() {
    return reach;
  }

  public BookModel book() {
    return book;
  }

  public KeysModel keys() {
    return keys;
  }

  public VaultModel vault() {
    return vault;
  }

  /** What lies on this computer of servers. */
  public KeptModel kept() {
    return kept;
  }

  public ObservableList<DeskModel> desks() {
    return desks;
  }

  /** The desk in front; {@code null} while a server is being chosen. */
  public ObjectProperty<DeskModel> currentProperty() {
    return current;
  }

  /** The sign-in under way or the last one that failed; {@code null} for none. */
  public ReadOnlyObjectProperty<SignInModel> signInProperty() {
    return signIn.getReadOnlyProperty();
  }

  public BooleanProperty darkProperty() {
    return dark;
  }

  /** What of the window is folded away. */
  public Folds folds() {
    return folds;
  }
}
