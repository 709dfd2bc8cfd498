package zander.desk.rights;

import javafx.beans.property.ReadOnlyLongProperty;
import zander.core.rights.Mode;
import zander.desk.words.Words;

/**
 * A mode that is being edited: boxes, octal and symbolic notation are three ways to the same, so
 * they cannot disagree. Interface thread only.
 */
public interface ModeEditing {
  /** A box over several files: all have the bit, none, or some. */
  enum Bit {
    ON,
    OFF,
    MIXED
  }

  Bit bit(int bit);

  /** A press on a box: on becomes off, anything else becomes on, for all. */
  void press(int bit);

  /** The digits as a sum for one class, {@code 4+2 = 6}; empty when the files differ. */
  String sum(Mode.Who who);

  /** Four digits, or empty when the files differ. */
  String octal();

  /** The notation that sets it, or empty when the files differ. */
  String symbolic();

  /** What it lets whom do, as a sentence; empty when the files differ. */
  String sentence();

  /** What a field says that is empty. */
  default String emptyWord() {
    return Words.of(ModeEditing.class).say("mixed");
  }

  void typeOctal(String text);

  /** Applies an expression to what each file has now, {@code u+x}, {@code go-w}, {@code a=rX}. */
  void typeSymbolic(String text);

  /** Counts up whenever something to be shown has changed. */
  ReadOnlyLongProperty changesProperty();
}
