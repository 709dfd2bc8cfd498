package zander.core.book;

/** What a server is for, as its owner marked it. */
public enum Mark {
  LIVE,
  TRIAL,
  NONE
}
