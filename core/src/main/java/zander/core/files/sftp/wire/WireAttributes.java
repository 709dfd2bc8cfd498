package zander.core.files.sftp.wire;

import org.apache.sshd.common.util.buffer.Buffer;
import org.jspecify.annotations.Nullable;
import zander.core.files.FileKind;
import zander.core.files.RemoteAttributes;
import zander.core.rights.Mode;

/** The ATTRS of SFTP version 3 (draft-ietf-secsh-filexfer-02, section 5). */
public final class WireAttributes {
  private static final int HAS_SIZE = 0x1;
  private static final int HAS_OWNER = 0x2;
  private static final int HAS_MODE = 0x4;
  private static final int HAS_TIMES = 0x8;
  private static final int HAS_EXTENDED = 0x80000000;

  private WireAttributes() {}

  public static RemoteAttributes read(Buffer body) {
    int flags = body.getInt();
    long size = (flags & HAS_SIZE) != 0 ? body.getLong() : 0;
    int uid = (flags & HAS_OWNER) != 0 ? body.getInt() : -1;
    int gid = (flags & HAS_OWNER) != 0 ? body.getInt() : -1;
    int mode = (flags & HAS_MODE) != 0 ? body.getInt() : 0;
    long accessed = (flags & HAS_TIMES) != 0 ? body.getUInt() : 0;
    long modified = (flags & HAS_TIMES) != 0 ? body.getUInt() : 0;
    if ((flags & HAS_EXTENDED) != 0) {
      for (int left = body.getInt(); left > 0; left--) {
        body.getBytes();
        body.getBytes();
      }
    }
    return new RemoteAttributes(
        FileKind.ofMode(mode), Math.max(0, size), uid, gid, Mode.ofStat(mode), modified, accessed);
  }

  public static void putNone(Buffer body) {
    body.putInt(0);
  }

  public static void putSize(Buffer body, long size) {
    body.putInt(HAS_SIZE);
    body.putLong(size);
  }

  public static void putMode(Buffer body, Mode mode) {
    body.putInt(HAS_MODE);
    body.putInt(mode.bits());
  }

  public static void putOwner(Buffer body, int uid, int gid) {
    body.putInt(HAS_OWNER);
    body.putInt(uid);
    body.putInt(gid);
  }

  /**
   * @param mode {@code null} to leave it
   * @param modified -1 to leave both times
   */
  public static void putModeAndTime(Buffer body, @Nullable Mode mode, long modified) {
    body.putInt((mode == null ? 0 : HAS_MODE) | (modified < 0 ? 0 : HAS_TIMES));
    if (mode != null) {
      body.putInt(mode.bits());
    }
    if (modified >= 0) {
      body.putUInt(modified);
      body.putUInt(modified);
    }
  }

  public static void putTimes(Buffer body, long accessed, long modified) {
    body.putInt(HAS_TIMES);
    body.putUInt(accessed);
    body.putUInt(modified);
  }
}
