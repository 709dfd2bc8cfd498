package zander.desk.file;

import java.io.IOException;
import java.nio.charset.Charset;
import java.util.List;
import java.util.concurrent.Callable;
import java.util.concurrent.atomic.AtomicReference;
import java.util.function.Consumer;
import javafx.beans.property.ReadOnlyBooleanProperty;
import javafx.beans.property.ReadOnlyBooleanWrapper;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.beans.property.ReadOnlyStringProperty;
import javafx.beans.property.ReadOnlyStringWrapper;
import zander.core.change.save.AtomicSave;
import zander.core.change.save.AtomicSave.Allow;
import zander.core.change.save.FileVersion;
import zander.core.change.save.SaveFailure;
import zander.core.change.save.StagedCheck;
import zander.core.edit.NotTextException;
import zander.core.edit.TextFile;
import zander.core.edit.UnencodableTextException;
import zander.core.files.RemotePath;
import zander.core.journal.JournalEntry;
import zander.core.rights.Mode;
import zander.desk.edit.ChangedLines;
import zander.desk.edit.CursorGoal;
import zander.desk.edit.EditedText;
import zander.desk.edit.FindInFile;
import zander.desk.sheet.OpenDesk;
import zander.desk.sheet.Sheet;

/** A text file of the server being edited: the text here, the version over there, and saving. */
public final class FileModel extends Sheet implements EditedFile {
  private final OpenDesk desk;
  private final RemotePath path;
  private final SaveQuestions questions;
  private final SaveCheck check;
  private final ReadOnlyBooleanWrapper busy = new ReadOnlyBooleanWrapper(false);
  private final ReadOnlyStringWrapper state = new ReadOnlyStringWrapper("");
  private final ReadOnlyObjectWrapper<TextFile> loaded = new ReadOnlyObjectWrapper<>();
  private final ReadOnlyObjectWrapper<String> drafted = new ReadOnlyObjectWrapper<>();
  private final CursorGoal goal = new CursorGoal();
  private FileVersion version;
  private boolean closed;
  private final EditedText text;
  private final ServerCopy serverCopy;
  private final FindInFile find;
  private final ChangedLines changes;
  private final DraftKeeper draftKeeper;

  /** What is kept on this computer of files that are edited. */
  record Kept(Drafts drafts, SavedChecks checks) {}

  FileModel(OpenDesk desk, Kept kept, RemotePath path, AtomicSave.Opened opened)
      throws NotTextException {
    TextFile decoded = TextFile.decode(opened.content());
    this.desk = desk;
    this.path = path;
    this.questions = new SaveQuestions(desk, this);
    this.check = new SaveCheck(desk, this, kept.checks);
    this.text = new EditedText(decoded);
    this.find = new FindInFile(desk.background(), text::text);
    this.changes = new ChangedLines(desk.background(), text);
    this.serverCopy = new ServerCopy(desk, this, questions);
    this.draftKeeper = new DraftKeeper(desk, kept.drafts, this::draft);
    setTitle(path.name());
    take(opened.version(), decoded);
    if (isSavedInSteps() && desk.isFirstTime("saved in steps")) {
      ask(questions.savedInSteps());
    }
  }

  /** Says it now where the file cannot be saved, and not after it was edited. */
  void lookWhetherItCanBeSaved() {
    serverCopy.lookWhetherItCanBeSaved();
  }

  private void take(FileVersion newVersion, TextFile decoded) {
    version = newVersion;
    // One of before would be put into the new text where that is cut into lines elsewhere.
    drafted.set(null);
    text.take(decoded);
    find.taken();
    loaded.set(decoded);
    changes.lookSoon();
    setUnsaved(false);
    state.set("as on the server");
  }

  @Override
  public RemotePath path() {
    return path;
  }

  /** The text as last loaded; a new one when the server's version was taken. */
  public ReadOnlyObjectProperty<TextFile> loadedProperty() {
    return loaded.getReadOnlyProperty();
  }

  @Override
  public FileVersion version() {
    return version;
  }

  /**
   * Told of each change in the editor, before {@link #edited}: lines outside of it stay as they
   * are.
   *
   * @param line the one that it begins in, counted from 0
   * @param position where it begins in the text
   */
  public void replaced(int line, int position, String removed, String inserted) {
    text.replaced(line, removed, inserted);
    find.replaced(position, removed, inserted);
  }

  /** Told of the text after each change in the editor. */
  public void edited(String now) {
    text.edited(now);
    draftKeeper.keepSoon();
    changes.lookSoon();
    setUnsaved(text.isUnsaved());
    state.set(isUnsaved() ? "not on the server yet" : "as on the server");
  }

  /** What is looked for in it. */
  public FindInFile find() {
    return find;
  }

  /** Which of its lines are not as on the server. */
  public ChangedLines changes() {
    return changes;
  }

  /** Shows in the sheet what saving would change. */
  public void showChanges() {
    serverCopy.showChanges();
  }

  /** For work of the view that would make the window wait. */
  public <T> void onAnotherThread(Callable<T> work, Consumer<T> then) {
    desk.background().run(work, then, failure -> {});
  }

  @Override
  public String text() {
    return text.text();
  }

  @Override
  public String savedText() {
    return text.saved();
  }

  private DraftKeeper.Wanted draft() {
    return new DraftKeeper.Wanted(
        isUnsaved() && !closed,
        new Drafts.Draft(version.real(), version.digestText(), text.text()),
        !version.attributes().mode().allows(Mode.Who.OTHERS, Mode.May.READ),
        () -> {
          if (isUnsaved() && !closed && !busy.get()) {
            state.set("not on the server yet; no draft without a vault");
          }
        });
  }

  /** Takes a text that was not saved before the program ended. */
  public void takeDraft(Drafts.Draft draft) {
    drafted.set(draft.text());
    if (!draft.digest().equals(version.digestText())) {
      ask(questions.draftOfAnother());
    }
  }

  /** A text to be put into the editor as if it had been typed; {@code null} for none. */
  public ReadOnlyObjectProperty<String> draftedProperty() {
    return drafted.getReadOnlyProperty();
  }

  @Override
  public CursorGoal goal() {
    return goal;
  }

  public void goToLine(int number) {
    goal.set(number, 0);
  }

  /** Asks for a line, and for a column if it is known. */
  public void askForLine() {
    ask(new TypedQuestions(this).line());
  }

  /** Asks in which encoding to read it. */
  public void askForEncoding() {
    ask(new TypedQuestions(this).encoding(text.form().charset()));
  }

  @Override
  public void readIn(Charset known) {
    serverCopy.readIn(known);
  }

  @Override
  protected void discard() {
    closed = true;
    draftKeeper.drop(version.real());
  }

  /** The facts beside the name: encoding, line ends, lines. */
  public String facts() {
    return text.facts() + (isSavedInSteps() ? "   saves in two steps" : "");
  }

  /** Whether the server cannot replace a file in one step. */
  public boolean isSavedInSteps() {
    return !desk.files().renamesOver();
  }

  @Override
  public AtomicSave saver() {
    return new AtomicSave(desk.files(), desk.commands(), desk.journal());
  }

  @Override
  protected void askBeforeClosing(Runnable close) {
    ask(questions.closing(close));
  }

  public void save() {
    save(List.of());
  }

  @Override
  public void save(List<Allow> allowed) {
    if (!busy.get()) {
      check.before(wanted -> save(allowed, wanted));
    }
  }

  @Override
  public void saveUnchecked() {
    save(List.of(), StagedCheck.NONE);
  }

  @Override
  public void askForCheck() {
    check.ask();
  }

  private void save(List<Allow> allowed, StagedCheck wanted) {
    if (busy.get()) {
      return;
    }
    EditedText.Snapshot saving = text.snapshot();
    AtomicReference<byte[]> content = new AtomicReference<>();
    busy.set(true);
    state.set(wanted.isNone() ? "saving" : "checking, then saving");
    check.watch(wanted);
    FileVersion before = version;
    desk.background()
        .run(
            () -> {
              content.set(saving.encode());
              AtomicSave.Saved made = saver().trying(wanted).save(before, content.get(), allowed);
              return new Saved(made, endsWithThisRun(made.version()));
            },
            done -> saved(saving.text(), done, !wanted.isNone()),
            failure -> {
              if (failure instanceof SaveFailure save
                  && (save.state() == SaveFailure.ServerState.OLD_OR_NEW
                      || save.state() == SaveFailure.ServerState.UNFINISHED)) {
                version = version.orPerhaps(content.get());
              }
              saveFailed(failure);
            });
  }

  /**
   * A save that was made.
   *
   * @param passing whether the version before can be put back only as long as Zander runs
   */
  private record Saved(AtomicSave.Saved made, boolean passing) {}

  private boolean endsWithThisRun(FileVersion after) {
    try {
      List<JournalEntry> about = desk.journal().about(after.real());
      return !about.isEmpty() && desk.journal().endsWithThisRun(about.get(0));
    } catch (IOException e) {
      // The save is made; the history tells what became of its journal.
      return false;
    }
  }

  private void saved(String saving, Saved done, boolean checked) {
    check.over();
    busy.set(false);
    version = done.made().version();
    text.saved(saving);
    dismissQuestion();
    edited(text.text());
    String how = done.made().inPlace() ? ", written into the same file" : "";
    String passing = done.passing() ? "; it can be put back until Zander ends" : "";
    state.set(
        isUnsaved()
            ? "not on the server yet"
            : "saved to the server" + (checked ? ", checked" : "") + how + passing);
    desk.changed(List.of(path));
  }

  private void saveFailed(Throwable failure) {
    check.over();
    busy.set(false);
    state.set("not on the server yet");
    if (!(failure instanceof UnencodableTextException)) {
      desk.checkLine();
    }
    ask(questions.afterFailure(failure));
  }

  @Override
  public void goOnAsRoot() {
    String typed = text.text();
    String basedOn = version.digestText();
    RemotePath real = version.real();
    desk.actAsRoot(
        real.parent(),
        root -> {
          dismissQuestion();
          if (isUnsaved()) {
            root.openFile(real, typed, basedOn);
          } else {
            root.openFile(real, 0);
          }
        });
  }

  @Override
  public void saveInUtf8() {
    text.useUtf8();
    save();
  }

  @Override
  public void loadTheirs() {
    serverCopy.loadTheirs();
  }

  @Override
  public void mergeTheirs() {
    serverCopy.mergeTheirs();
  }

  /** Says it within seconds when another changed the file on the server. */
  public void lookForChanges() {
    if (isFree()) {
      serverCopy.look();
    }
  }

  @Override
  public boolean isFree() {
    return !busy.get() && !closed && questionProperty().get() == null;
  }

  @Override
  public void take(Loaded theirs) {
    take(theirs.version(), theirs.text());
  }

  @Override
  public void takeMerged(Loaded theirs, String merged) {
    take(theirs);
    drafted.set(merged);
    if (isUnsaved()) {
      state.set("merged, not on the server yet");
    }
  }

  @Override
  public void setBusy(boolean now) {
    busy.set(now);
  }

  public ReadOnlyBooleanProperty busyProperty() {
    return busy.getReadOnlyProperty();
  }

  /** Whether the server has this text, in words. */
  public ReadOnlyStringProperty stateProperty() {
    return state.getReadOnlyProperty();
  }
}
