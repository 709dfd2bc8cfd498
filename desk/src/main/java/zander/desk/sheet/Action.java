package zander.desk.sheet;

import java.util.function.Supplier;

/**
 * Something the person can do, by name and by key.
 *
 * @param name as it stands in the go-to field
 * @param key in the form of JavaFX, {@code Ctrl+S}; empty for none
 * @param whyNot why it cannot be done now, in a few words; gives an empty text when it can
 */
public record Action(String name, String key, Runnable run, Supplier<String> whyNot) {
  /** One that can always be done. */
  public Action(String name, String key, Runnable run) {
    this(name, key, run, () -> "");
  }

  public boolean applies() {
    return whyNot.get().isEmpty();
  }
}
