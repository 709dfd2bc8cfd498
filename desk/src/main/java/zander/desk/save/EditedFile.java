package zander.desk.save;

import java.nio.charset.Charset;
import java.util.List;
import java.util.function.Consumer;
import zander.core.change.save.AtomicSave;
import zander.core.change.save.AtomicSave.Allow;
import zander.core.change.save.FileVersion;
import zander.core.edit.TextFile;
import zander.desk.compare.ComparedFile;
import zander.desk.edit.CursorGoal;
import zander.desk.edit.EditedText;
import zander.desk.sheet.Question;

/**
 * What those who ask, merge and check for an open file may see and do of it. Interface thread only.
 */
public interface EditedFile extends ComparedFile {
  /** A version of the server. */
  record Loaded(FileVersion version, TextFile text) {}

  /** The text with its encoding and line ends, as it is to be written. */
  EditedText.Snapshot toBeSaved();

  boolean isUnsaved();

  AtomicSave saver();

  /** Whether nothing is under way or asked. */
  boolean isFree();

  boolean isBusy();

  void setBusy(boolean now);

  /** Says how it stands, in a few words. */
  void say(String state);

  /** The server may have this content instead of the one of {@link #version}, or has. */
  void perhapsSaved(byte[] content);

  /**
   * The server has it.
   *
   * @param text what was saved; the person may have typed on
   */
  void saved(FileVersion made, String text);

  void ask(Question question);

  void dismissQuestion();

  /** Where the cursor is to go. */
  CursorGoal goal();

  /** The server's version comes in the place of the text. */
  void take(Loaded theirs);

  /** A text that has the changes of both; it is put into the editor as if it had been typed. */
  void takeMerged(Loaded theirs, String merged);

  /**
   * The server has another version than the one that was saved: it is read, and the text here
   * stays, not saved.
   */
  void rebase(Consumer<Loaded> then);

  void save(List<Allow> allowed);

  /** Once without what goes with its saves. */
  void savePlainly();

  /** In UTF-8, whatever the encoding was. */
  void saveInUtf8();

  /** The text goes along; what is on the server stays as it is until it is saved there. */
  void goOnAsRoot();

  /** Loads the server's version; the editor's own undo brings the old text back. */
  void loadTheirs();

  /** Loads the server's version in an encoding that the person knows. */
  void readIn(Charset known);

  /** Puts the server's changes and those made here together. */
  void mergeTheirs();

  /** Asks for what is to go with each save. */
  void askForRules();
}
