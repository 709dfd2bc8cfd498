package zander.core.files.sftp;

import static java.util.Objects.requireNonNull;

import java.io.IOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import zander.core.files.DiskSpace;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFailure.Reason;
import zander.core.files.RemotePath;
import zander.core.files.ToolErrors;
import zander.core.files.sftp.wire.SftpWire;
import zander.core.phrase.FilePhrase;
import zander.core.phrase.FileStep;

/**
 * Finds out why a server said no more than "failure": version 3 of SFTP has no status for a full
 * disk, for one without room for another name, or for one that is mounted read-only; the file
 * system tells.
 */
final class FailureCause {
  /** With less than this free, a file system is full. */
  private static final long FULL = 32 * 1024;

  private final SftpWire wire;
  private final SftpExtensions extensions;

  FailureCause(SftpWire wire, SftpExtensions extensions) {
    this.wire = wire;
    this.extensions = extensions;
  }

  /** Waits for an answer that carries something. */
  interface Expected<T> {
    T of(SftpWire.Sent sent) throws RemoteFailure;
  }

  /**
   * Waits for the answer to a request that makes something.
   *
   * @throws RemoteFailure with {@code ALREADY_EXISTS} when the name is taken
   */
  <T> T expectNew(RemotePath path, SftpWire.Sent sent, Expected<T> answer) throws RemoteFailure {
    try {
      return answer.of(sent);
    } catch (RemoteFailure e) {
      if (e.reason() == Reason.FAILED && exists(path)) {
        throw new RemoteFailure(Reason.ALREADY_EXISTS, e.step(), path, FilePhrase.EXISTS.of(), e);
      }
      throw of(e);
    }
  }

  private boolean exists(RemotePath path) throws RemoteFailure {
    try {
      wire.expectAttributes(wire.send(SftpWire.LSTAT, SftpWire.body(path), FileStep.LOOK_AT, path));
      return true;
    } catch (RemoteFailure e) {
      if (e.reason() == Reason.NO_SUCH_FILE) {
        return false;
      }
      throw e;
    }
  }

  /** The failure with its cause, where that can be found. */
  RemoteFailure of(RemoteFailure failure) {
    return of(new ArrayList<>(List.of(failure))).get(0);
  }

  /**
   * The same for many, in their order; asks once for each folder.
   *
   * @param failures {@code null} for what went well
   */
  List<RemoteFailure> of(List<RemoteFailure> failures) {
    Map<RemotePath, DiskSpace> spaces = new HashMap<>();
    List<RemoteFailure> explained = new ArrayList<>();
    for (RemoteFailure failure : failures) {
      boolean unclear =
          failure != null && failure.reason() == Reason.FAILED && failure.path() != null;
      explained.add(unclear ? explain(failure, spaces) : failure);
    }
    return explained;
  }

  private RemoteFailure explain(RemoteFailure failure, Map<RemotePath, DiskSpace> spaces) {
    Reason said = ToolErrors.reason(failure.said());
    if (said != Reason.FAILED) {
      return failure.because(said, failure.detail());
    }
    RemotePath folder = requireNonNull(failure.path()).parent();
    DiskSpace space = spaces.computeIfAbsent(folder, this::spaceOrNull);
    if (space == null) {
      return failure;
    }
    if (space.readOnly()) {
      return failure.because(Reason.READ_ONLY, FilePhrase.MOUNTED_READ_ONLY.of());
    }
    if (space.free() < FULL) {
      return failure.because(Reason.NO_SPACE, FilePhrase.BYTES_FREE.of(space.free()));
    }
    return space.freeNames() == 0
        ? failure.because(Reason.NO_INODES, FilePhrase.NO_FILES_LEFT.of())
        : failure;
  }

  private @Nullable DiskSpace spaceOrNull(RemotePath folder) {
    try {
      return extensions.space(folder);
    } catch (IOException | RuntimeException e) {
      return null;
    }
  }
}
