package zander.core.connect.script;

import org.apache.sshd.common.util.buffer.Buffer;
import org.jspecify.annotations.Nullable;

/**
 * The attributes of a request (draft-ietf-secsh-filexfer-02, section 5).
 *
 * @param size -1 to leave it
 * @param uid {@code null} to leave owner and group
 * @param mode {@code null} to leave it
 * @param accessed in seconds since 1970-01-01 UTC; {@code null} to leave both times
 */
record WantedAttributes(
    long size,
    @Nullable Integer uid,
    @Nullable Integer gid,
    @Nullable Integer mode,
    @Nullable Long accessed,
    @Nullable Long modified) {
  private static final int HAS_SIZE = 0x1;
  private static final int HAS_OWNER = 0x2;
  private static final int HAS_MODE = 0x4;
  private static final int HAS_TIMES = 0x8;

  static WantedAttributes read(Buffer body) {
    int flags = body.getInt();
    long size = (flags & HAS_SIZE) != 0 ? body.getLong() : -1;
    boolean owner = (flags & HAS_OWNER) != 0;
    Integer uid = owner ? body.getInt() : null;
    Integer gid = owner ? body.getInt() : null;
    Integer mode = (flags & HAS_MODE) != 0 ? body.getInt() : null;
    boolean times = (flags & HAS_TIMES) != 0;
    Long accessed = times ? body.getUInt() : null;
    Long modified = times ? body.getUInt() : null;
    return new WantedAttributes(size, uid, gid, mode, accessed, modified);
  }
}
