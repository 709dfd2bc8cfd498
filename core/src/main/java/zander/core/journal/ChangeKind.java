package zander.core.journal;

/** What a change on a server was. The words are stored: add, never rename. */
public enum ChangeKind {
  SAVE,
  RIGHTS,
  /** Of all that is in folders; what was before is kept as content. */
  RIGHTS_OF_TREE,
  /** Of an access control list; the one before is kept as content. */
  ACCESS_LIST,
  /** One entry of the lists of a folder and of all in it. */
  ACCESS_LISTS_OF_TREE,
  MAKE_FILE,
  MAKE_FOLDER,
  MAKE_LINK,
  /** Another name or another folder; nothing else changes. */
  RENAME,
  COPY,
  /** Into the holding folder, from which it can be put back. */
  DELETE,
  /** Deleted so that nothing is kept. */
  PURGE,
  SEND_UP,
  REPLACE,
  PACK,
  UNPACK,
  FETCH
}
