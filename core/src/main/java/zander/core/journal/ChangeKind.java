package zander.core.journal;

/** What a change on a server was. The words are stored: add, never rename. */
public enum ChangeKind {
  SAVE,
  RIGHTS,
  MAKE_FOLDER,
  SEND_UP,
  REPLACE
}
