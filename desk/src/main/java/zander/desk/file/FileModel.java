package zander.desk.file;

import java.nio.charset.Charset;
import java.util.List;
import java.util.concurrent.Callable;
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
import zander.core.edit.NotTextException;
import zander.core.edit.TextFile;
import zander.core.files.RemotePath;
import zander.core.rights.Mode;
import zander.desk.edit.ChangedLines;
import zander.desk.edit.CursorGoal;
import zander.desk.edit.EditedText;
import zander.desk.edit.FindInFile;
import zander.desk.edit.Language;
import zander.desk.save.EditedFile;
import zander.desk.save.KeptSaveRules;
import zander.desk.save.SaveFlow;
import zander.desk.save.SaveQuestions;
import zander.desk.sheet.OpenDesk;
import zander.desk.sheet.Sheet;
import zander.desk.sheet.Texts;
import zander.desk.words.Words;

/** A text file of the server being edited: the text here, the version over there, and saving. */
public final class FileModel extends Sheet implements EditedFile {
  private static final Words WORDS = Words.of(FileModel.class);

  private final OpenDesk desk;
  private final RemotePath path;
  private final SaveQuestions questions;
  private final SaveFlow flow;
  private final ReadOnlyBooleanWrapper busy = new ReadOnlyBooleanWrapper(false);
  private final ReadOnlyStringWrapper state = new ReadOnlyStringWrapper("");
  private final ReadOnlyObjectWrapper<TextFile> loaded = new ReadOnlyObjectWrapper<>();
  private final ReadOnlyObjectWrapper<String> drafted = new ReadOnlyObjectWrapper<>();
  private final CursorGoal goal = new CursorGoal();
  private final ReadOnlyObjectWrapper<Language> language = new ReadOnlyObjectWrapper<>();
  private final ReadOnlyObjectWrapper<FileVersion> version = new ReadOnlyObjectWrapper<>();
  private boolean closed;
  private final EditedText text;
  private final ServerCopy serverCopy;
  private final FindInFile find;
  private final ChangedLines changes;
  private final DraftKeeper draftKeeper;
  private final FileLinks links;
  private final TypedQuestions typed;

  /** What is kept on this computer of files that are edited. */
  record Kept(Drafts drafts, KeptSaveRules saveRules) {}

  FileModel(OpenDesk desk, Kept kept, RemotePath path, AtomicSave.Opened opened, ToldForm told)
      throws NotTextException {
    TextFile decoded = told.decode(opened.content());
    this.desk = desk;
    this.path = path;
    this.questions = new SaveQuestions(desk, this);
    this.flow = new SaveFlow(desk, this, kept.saveRules, questions);
    this.text = new EditedText(decoded);
    this.find = new FindInFile(desk.background(), text::text);
    this.changes = new ChangedLines(desk.background(), text);
    this.serverCopy = new ServerCopy(desk, this, questions, told);
    this.typed = new TypedQuestions(this, text, language, told);
    this.links = new FileLinks(desk, this);
    this.draftKeeper = new DraftKeeper(desk, kept.drafts, this::draft);
    language.set(told.languageOf(path, decoded.text()));
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
    version.set(newVersion);
    // One of before would be put into the new text where that is cut into lines elsewhere.
    drafted.set(null);
    text.take(decoded);
    find.taken();
    loaded.set(decoded);
    changes.lookSoon();
    setUnsaved(false);
    state.set(WORDS.say("asOnTheServer"));
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
    return version.get();
  }

  /** What the server had when it was last read or saved. */
  public ReadOnlyObjectProperty<FileVersion> versionProperty() {
    return version.getReadOnlyProperty();
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
    links.lookSoon();
    setUnsaved(text.isUnsaved());
    state.set(isUnsaved() ? WORDS.say("notOnTheServer") : WORDS.say("asOnTheServer"));
  }

  /** What is looked for in it. */
  public FindInFile find() {
    return find;
  }

  /** Which of its lines are not as on the server. */
  public ChangedLines changes() {
    return changes;
  }

  /** What it names on the server. */
  public FileLinks links() {
    return links;
  }

  /** Shows in the sheet what saving would change. */
  public void showChanges() {
    serverCopy.showChanges();
  }

  /** Compares with versions of the journal and with backups beside it. */
  public void showOtherVersions() {
    new OtherVersions(desk, this).show();
  }

  @Override
  public void putIn(String other) {
    // The same one twice is put in twice.
    drafted.set(null);
    drafted.set(other);
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
        new Drafts.Draft(version().real(), version().digestText(), text.text()),
        !version().attributes().mode().allows(Mode.Who.OTHERS, Mode.May.READ),
        () -> {
          if (isUnsaved() && !closed && !busy.get()) {
            state.set(WORDS.say("notOnTheServerYet"));
          }
        });
  }

  /** Takes a text that was not saved before the program ended. */
  public void takeDraft(Drafts.Draft draft) {
    drafted.set(draft.text());
    if (!draft.digest().equals(version().digestText())) {
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

  /** What it is coloured and commented as. */
  public ReadOnlyObjectProperty<Language> languageProperty() {
    return language.getReadOnlyProperty();
  }

  /** What it asks to be typed. */
  public TypedQuestions typed() {
    return typed;
  }

  @Override
  public void readIn(Charset known) {
    serverCopy.readIn(known);
  }

  @Override
  protected void discard() {
    closed = true;
    flow.closed();
    draftKeeper.drop(version().real());
  }

  /** The facts beside the name: encoding, line ends, lines. */
  public String facts() {
    int dead = links.deadProperty().get().size();
    return text.facts()
        + (dead == 0 ? "" : "   " + Texts.count(dead, "deadLink"))
        + (isSavedInSteps() ? WORDS.say("savesInTwoSteps") : "");
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
    flow.save(allowed);
  }

  @Override
  public void savePlainly() {
    flow.savePlainly();
  }

  @Override
  public void askForRules() {
    flow.askForRules();
  }

  @Override
  public EditedText.Snapshot toBeSaved() {
    return text.snapshot();
  }

  @Override
  public void perhapsSaved(byte[] content) {
    version.set(version().orPerhaps(content));
  }

  @Override
  public void saved(FileVersion made, String saved) {
    version.set(made);
    text.saved(saved);
    dismissQuestion();
    edited(text.text());
    desk.changed(List.of(path));
  }

  @Override
  public void rebase(Consumer<Loaded> then) {
    serverCopy.rebase(then);
  }

  @Override
  public void goOnAsRoot() {
    String typed = text.text();
    String basedOn = version().digestText();
    RemotePath real = version().real();
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
      state.set(WORDS.say("mergedNotOnThe"));
    }
  }

  @Override
  public void setBusy(boolean now) {
    busy.set(now);
  }

  @Override
  public boolean isBusy() {
    return busy.get();
  }

  @Override
  public void say(String how) {
    state.set(how);
  }

  public ReadOnlyBooleanProperty busyProperty() {
    return busy.getReadOnlyProperty();
  }

  /** Whether the server has this text, in words. */
  public ReadOnlyStringProperty stateProperty() {
    return state.getReadOnlyProperty();
  }
}
