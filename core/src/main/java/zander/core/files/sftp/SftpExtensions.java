package zander.core.files.sftp;

import java.io.IOException;
import java.util.Set;
import org.apache.sshd.common.util.buffer.Buffer;
import org.apache.sshd.common.util.buffer.ByteArrayBuffer;
import org.jspecify.annotations.Nullable;
import zander.core.files.AccountNames;
import zander.core.files.DiskSpace;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFailure.Reason;
import zander.core.files.RemotePath;
import zander.core.files.sftp.wire.OpenHandle;
import zander.core.files.sftp.wire.RequestBody;
import zander.core.files.sftp.wire.SftpWire;
import zander.core.files.sftp.wire.WireAttributes;
import zander.core.phrase.FilePhrase;
import zander.core.phrase.FileStep;
import zander.core.rights.Mode;

/** Requests beyond version 3 that OpenSSH documents in its PROTOCOL, each asked only if offered. */
final class SftpExtensions {
  private static final String RENAME_OVER = "posix-rename@openssh.com";
  private static final String NAMES_BY_ID = "users-groups-by-id@openssh.com";
  private static final String SPACE = "statvfs@openssh.com";
  private static final String HARD_LINK = "hardlink@openssh.com";
  private static final String COPY = "copy-data";

  /** SSH2_FXE_STATVFS_ST_RDONLY. */
  private static final long READ_ONLY = 1;

  private final SftpWire wire;

  SftpExtensions(SftpWire wire) {
    this.wire = wire;
  }

  boolean namesById() {
    return wire.offers(NAMES_BY_ID);
  }

  /** Asks for the names of numbers; those without a name are learnt as empty. */
  void learnNames(Set<Integer> uids, Set<Integer> gids, AccountNames names) throws IOException {
    RequestBody body = SftpWire.body();
    putIds(body, uids);
    putIds(body, gids);
    wire.expectExtended(
        wire.sendExtended(NAMES_BY_ID, body, FileStep.LEARN_NAMES, null),
        answer -> {
          Buffer users = new ByteArrayBuffer(answer.getBytes());
          uids.forEach(uid -> names.learnUser(uid, users.getString()));
          Buffer groups = new ByteArrayBuffer(answer.getBytes());
          gids.forEach(gid -> names.learnGroup(gid, groups.getString()));
          return true;
        });
  }

  private static void putIds(Buffer body, Set<Integer> ids) {
    RequestBody list = SftpWire.body();
    ids.forEach(list::putInt);
    body.putBytes(list.getCompactData());
  }

  void needsRenameOver(RemotePath to) throws RemoteFailure {
    need(RENAME_OVER, FileStep.RENAME, to, FilePhrase.NO_RENAME_OVER);
  }

  boolean renamesOver() {
    return wire.offers(RENAME_OVER);
  }

  SftpWire.Sent sendRenameOver(RemotePath from, RemotePath to) throws RemoteFailure {
    return twoPaths(RENAME_OVER, from, to, FileStep.RENAME);
  }

  void hardLink(RemotePath from, RemotePath to) throws IOException {
    need(HARD_LINK, FileStep.LINK, to, FilePhrase.NO_HARD_LINKS);
    wire.expectOk(sendHardLink(from, to));
  }

  boolean hardLinks() {
    return wire.offers(HARD_LINK);
  }

  SftpWire.Sent sendHardLink(RemotePath from, RemotePath to) throws RemoteFailure {
    return twoPaths(HARD_LINK, from, to, FileStep.LINK);
  }

  private void need(String extension, FileStep step, RemotePath path, FilePhrase otherwise)
      throws RemoteFailure {
    if (!wire.offers(extension)) {
      throw new RemoteFailure(Reason.NOT_SUPPORTED, step, path, otherwise.of(), null);
    }
  }

  private SftpWire.Sent twoPaths(String extension, RemotePath from, RemotePath to, FileStep step)
      throws RemoteFailure {
    RequestBody body = SftpWire.body(from);
    body.putPath(to);
    return wire.sendExtended(extension, body, step, to);
  }

  @Nullable DiskSpace space(RemotePath path) throws IOException {
    if (!wire.offers(SPACE)) {
      return null;
    }
    return wire.expectExtended(
        wire.sendExtended(SPACE, SftpWire.body(path), FileStep.ASK_FREE_SPACE, path),
        answer -> {
          answer.getLong();
          long fragment = answer.getLong();
          long total = answer.getLong();
          answer.getLong();
          long free = answer.getLong();
          long names = answer.getLong();
          answer.getLong();
          long freeNames = answer.getLong();
          long id = answer.getLong();
          boolean readOnly = (answer.getLong() & READ_ONLY) != 0;
          return new DiskSpace(
              id, fragment * free, fragment * total, names == 0 ? -1 : freeNames, readOnly);
        });
  }

  boolean copies() {
    return wire.offers(COPY);
  }

  /** Copies a file's content into a new file without the data coming here. */
  void copy(RemotePath from, RemotePath to, Mode mode) throws IOException {
    need(COPY, FileStep.COPY, to, FilePhrase.NO_COPYING);
    RequestBody writing = SftpWire.body(to);
    writing.putInt(SftpWire.OPEN_WRITE | SftpWire.OPEN_CREATE | SftpWire.OPEN_EXCLUSIVE);
    WireAttributes.putMode(writing, mode);
    byte[] source = OpenHandle.open(wire, from, SftpWire.OPEN_READ).handle();
    try {
      byte[] goal = wire.expectHandle(wire.send(SftpWire.OPEN, writing, FileStep.CREATE, to));
      try {
        RequestBody body = SftpWire.body();
        body.putBytes(source);
        body.putLong(0);
        body.putLong(0);
        body.putBytes(goal);
        body.putLong(0);
        wire.expectOk(wire.sendExtended(COPY, body, FileStep.COPY, to));
      } finally {
        close(goal, to);
      }
    } finally {
      close(source, from);
    }
  }

  private void close(byte[] handle, RemotePath path) throws IOException {
    RequestBody body = SftpWire.body();
    body.putBytes(handle);
    wire.expectOk(wire.send(SftpWire.CLOSE, body, FileStep.CLOSE, path));
  }
}
