package zander.core.phrase;

/** Why something was not transferred, or what was not kept of it. */
public enum TransferPhrase implements Phrase.Key {
  AGAINST_PROTOCOL,
  BECAUSE(2),
  BELONGS_TO(2),
  BROKE_OFF,
  BY_THE_RULE_FOR_LINKS,
  CANNOT_BE_READ(1),
  CHANGED_MEANWHILE,
  DISK_FULL,
  DISK_FULL_HERE,
  FILE_TABLE_FULL,
  FOLDER_NOT_WRITABLE,
  GREW_WHILE_READ,
  GROWN_MEANWHILE,
  LEADS_NOWHERE,
  LEADS_ROUND,
  LINE_LOST,
  LINKS_FOLLOWED,
  LINK_LEADS_TO(1),
  LINK_MEANWHILE,
  NAME_NOT_HERE(1),
  NAME_NOT_UTF8(1),
  NAME_NOT_UTF8_HERE,
  NAME_TOO_LONG,
  NOT_ARRIVED,
  NOT_A_FOLDER,
  NOT_A_FOLDER_HERE,
  NOT_DIRECTLY,
  NOT_KEPT,
  NOT_POSSIBLE,
  NOT_THERE,
  NOT_THERE_HERE,
  NOT_THE_SAME,
  NOT_TRANSFERABLE,
  NO_FILE_NAME(1),
  NO_PERMISSION(1),
  NO_PERMISSION_HERE,
  NO_SHELL,
  PATH_TOO_LONG,
  QUOTA,
  READ_ONLY,
  SERVER_COULD_NOT(1),
  SHORTER_THAN_SAID,
  STOPPED,
  TAKEN,
  TAKEN_HERE,
  TARGET_NOT_UTF8,
  TOO_LARGE;

  private final int places;

  TransferPhrase() {
    this(0);
  }

  TransferPhrase(int places) {
    this.places = places;
  }

  @Override
  public int places() {
    return places;
  }
}
