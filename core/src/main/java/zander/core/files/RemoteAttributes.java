package zander.core.files;

import zander.core.rights.Mode;

/**
 * What a server says of one file, in the terms of SFTP version 3 (draft-ietf-secsh-filexfer-02,
 * section 5).
 *
 * @param size bytes, 0 or more
 * @param modified seconds since 1970-01-01 UTC, as an unsigned 32-bit number
 * @param accessed the same
 */
public record RemoteAttributes(
    FileKind kind, long size, int uid, int gid, Mode mode, long modified, long accessed) {

  /** The same of another kind. */
  public RemoteAttributes as(FileKind other) {
    return new RemoteAttributes(other, size, uid, gid, mode, modified, accessed);
  }

  public boolean isFolder() {
    return kind == FileKind.FOLDER;
  }

  /** Whether the file's content can have changed from {@code before} to this, as far as seen. */
  public boolean looksChangedSince(RemoteAttributes before) {
    return kind != before.kind || size != before.size || modified != before.modified;
  }
}
