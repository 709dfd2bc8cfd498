package zander.desk.view.reach;

import javafx.scene.control.TextField;

/** Takes letters out of fields without making a string of them. */
public final class SecretFields {
  private SecretFields() {}

  /** The field's letters; the field itself is emptied. */
  public static char[] take(TextField field) {
    char[] letters = letters(field);
    field.clear();
    return letters;
  }

  /** A copy of the field's letters, to be wiped. */
  static char[] letters(TextField field) {
    CharSequence text = field.getCharacters();
    char[] letters = new char[text.length()];
    for (int i = 0; i < letters.length; i++) {
      letters[i] = text.charAt(i);
    }
    return letters;
  }
}
