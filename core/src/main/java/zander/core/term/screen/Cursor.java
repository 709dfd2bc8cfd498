package zander.core.term.screen;

import org.jspecify.annotations.Nullable;

/** Where and how the next character is written; a copy is what DECSC saves. */
final class Cursor {
  int x;
  int y;

  /** The last column was written: the next character goes to the next row. */
  boolean wrapDue;

  boolean origin;
  long style;
  @Nullable Decoration decoration;
  Charsets charsets = Charsets.ASCII;

  Cursor copy() {
    Cursor copy = new Cursor();
    copy.set(this);
    return copy;
  }

  void set(Cursor other) {
    x = other.x;
    y = other.y;
    wrapDue = other.wrapDue;
    origin = other.origin;
    style = other.style;
    decoration = other.decoration;
    charsets = other.charsets;
  }
}
