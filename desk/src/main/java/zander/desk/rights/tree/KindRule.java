package zander.desk.rights.tree;

import javafx.beans.property.ReadOnlyLongProperty;
import javafx.beans.property.ReadOnlyLongWrapper;
import javafx.beans.property.ReadOnlyStringProperty;
import javafx.beans.property.ReadOnlyStringWrapper;
import org.jspecify.annotations.Nullable;
import zander.core.rights.Mode;
import zander.core.rights.ModeRule;
import zander.core.rights.SymbolicMode;
import zander.desk.rights.ModeEditing;
import zander.desk.rights.ModeWords;
import zander.desk.words.Phrases;
import zander.desk.words.Words;

/**
 * What the modes of all files of a tree, or of all folders, are to be; left as they are at first.
 * Interface thread only.
 */
public final class KindRule implements ModeEditing {
  private static final Words WORDS = Words.of(KindRule.class);

  private static final int ALL = 07777;

  private final boolean folders;
  private final Mode usual;
  private final ReadOnlyLongWrapper changes = new ReadOnlyLongWrapper();
  private final ReadOnlyStringWrapper problem = new ReadOnlyStringWrapper("");

  /** {@code null} to leave them. */
  private @Nullable Mode exact;

  /** {@code null} unless it is relative to what each has. */
  private @Nullable String relative;

  private boolean keepsRun;

  /**
   * @param usual where the first press on a box begins
   */
  KindRule(boolean folders, Mode usual) {
    this.folders = folders;
    this.usual = usual;
    this.keepsRun = !folders;
  }

  void take(KindRule other) {
    keepsRun = other.keepsRun;
    set(other.exact, other.relative);
  }

  public boolean isForFolders() {
    return folders;
  }

  /** Whether they are left as they are. */
  public boolean isLeft() {
    return exact == null && relative == null;
  }

  /** What is wanted; {@code null} to leave them. */
  public @Nullable ModeRule rule() {
    return exact != null
        ? new ModeRule.Exact(exact, keepsRun && !folders)
        : relative == null
            ? null
            : new ModeRule.Symbolic(SymbolicMode.parse(relative), ModeRule.USUAL_UMASK);
  }

  /** Leaves them as they are again. */
  public void leave() {
    set(null, null);
  }

  private void set(@Nullable Mode to, @Nullable String expression) {
    exact = to;
    relative = expression;
    problem.set("");
    changes.set(changes.get() + 1);
  }

  /** Whether files that somebody may run stay so for those who may read them. */
  public boolean keepsRun() {
    return keepsRun;
  }

  public void keepRun(boolean keep) {
    keepsRun = keep;
    changes.set(changes.get() + 1);
  }

  @Override
  public Bit bit(int bit) {
    return exact == null
        ? relative == null ? Bit.OFF : Bit.MIXED
        : exact.has(bit) ? Bit.ON : Bit.OFF;
  }

  @Override
  public void press(int bit) {
    // A box that was left as it is looks empty: the first press is to fill it.
    set(exact == null ? usual.withBit(bit, true) : exact.withBit(bit, !exact.has(bit)), null);
  }

  @Override
  public String sum(Mode.Who who) {
    return exact == null ? (isLeft() ? WORDS.say("asItIs") : "") : exact.sum(who);
  }

  @Override
  public String octal() {
    return exact == null ? "" : exact.octal();
  }

  @Override
  public String symbolic() {
    return exact == null ? (relative == null ? "" : relative) : SymbolicMode.of(exact);
  }

  @Override
  public String sentence() {
    if (isLeft()) {
      return WORDS.say("modesOfStayAs", folders ? WORDS.say("folders") : WORDS.say("files"));
    }
    return exact == null ? WORDS.say("eachIsChangedFrom") : ModeWords.sentence(exact, folders);
  }

  @Override
  public String emptyWord() {
    return isLeft() ? WORDS.say("asItIs") : WORDS.say("mixed");
  }

  @Override
  public void typeOctal(String text) {
    try {
      set(text.isBlank() ? null : Mode.ofOctal(text), null);
    } catch (IllegalArgumentException e) {
      refuse(e);
    }
  }

  @Override
  public void typeSymbolic(String text) {
    try {
      if (text.isBlank()) {
        leave();
        return;
      }
      SymbolicMode change = SymbolicMode.parse(text);
      Mode none = change.apply(new Mode(0), ModeRule.USUAL_UMASK, folders);
      Mode all = change.apply(new Mode(ALL), ModeRule.USUAL_UMASK, folders);
      boolean same = none.equals(all);
      set(same ? none : null, same ? null : text.strip());
    } catch (IllegalArgumentException e) {
      refuse(e);
    }
  }

  private void refuse(IllegalArgumentException why) {
    problem.set(Phrases.of(why));
    changes.set(changes.get() + 1);
  }

  /** Why what was typed cannot be taken; empty when it was. */
  public ReadOnlyStringProperty problemProperty() {
    return problem.getReadOnlyProperty();
  }

  @Override
  public ReadOnlyLongProperty changesProperty() {
    return changes.getReadOnlyProperty();
  }

  /** In a few words, for a line that sums up: {@code files 0644}; empty when they are left. */
  String words() {
    String kind = folders ? WORDS.say("foldersBecome") : WORDS.say("filesBecome");
    String run = !folders && keepsRun && exact != null ? WORDS.say("whatCanBeRun") : "";
    return isLeft() ? "" : kind + (exact == null ? relative : exact.octal()) + run;
  }
}
