package zander.core.phrase;

/** What else the journal says of a change. */
public enum JournalPhrase implements Phrase.Key {
  FOLDER_WITH_ALL,
  HALF_DONE_TAKEN_AWAY,
  LEFT_AS_FOUND,
  LINK_TO(1),
  NO_NEW_FILE_BESIDE,
  NOT_ARRIVED,
  PUT_BACK_BY_THE_SERVER,
  SENT_ANOTHER_WAY,
  STOPPED_HALFWAY,
  WRITTEN_IN_PLACE;

  private final int places;

  JournalPhrase() {
    this(0);
  }

  JournalPhrase(int places) {
    this.places = places;
  }

  @Override
  public int places() {
    return places;
  }
}
