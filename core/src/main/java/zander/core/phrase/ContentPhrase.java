package zander.core.phrase;

/** What a file contains, by its first bytes, or why it is no text. */
public enum ContentPhrase implements Phrase.Key {
  BZIP2,
  DATA,
  ELF,
  EMPTY,
  GIF,
  GZIP,
  JPEG,
  LARGER_THAN_EDITED,
  MIXED_LINE_ENDS,
  NOT_IN(1),
  PDF,
  PNG,
  PRIVATE_KEY,
  SCRIPT(2),
  SQLITE,
  TEXT(2),
  WITH_MARK(1),
  XZ,
  ZERO_BYTE,
  ZIP,
  ZSTD;

  private final int places;

  ContentPhrase() {
    this(0);
  }

  ContentPhrase(int places) {
    this.places = places;
  }

  @Override
  public int places() {
    return places;
  }
}
