package zander.core.edit;

import java.io.IOException;
import java.nio.charset.Charset;

/** A text has a character that the encoding of its file lacks. */
public final class UnencodableTextException extends IOException {
  private final Charset charset;
  private final String character;
  private final int line;

  UnencodableTextException(Charset charset, String character, int line) {
    super(charset.name() + " has no \"" + character + "\", in line " + line);
    this.charset = charset;
    this.character = character;
    this.line = line;
  }

  public Charset charset() {
    return charset;
  }

  /** The first that is not in it. */
  public String character() {
    return character;
  }

  /** Where it stands, counted from 1. */
  public int line() {
    return line;
  }
}
