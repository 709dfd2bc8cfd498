package zander.core.files;

import static java.util.Objects.requireNonNull;

import java.io.IOException;
import java.util.List;
import org.jspecify.annotations.Nullable;
import zander.core.rights.Mode;
import zander.core.work.Cancellation;

/**
 * Small work on many files with many requests under way, so that the line's delay is paid a few
 * times for all of them and not a few times for each. Each method answers in the order of its
 * argument, with {@code null} for what went well; a lost line is thrown.
 */
public interface RemoteBatch {
  /** The largest content that {@link #put} and {@link #get} are meant for, in bytes. */
  int LARGEST = 256 * 1024;

  /**
   * A small file to be made.
   *
   * @param path free; the file must not exist yet
   * @param mode {@code null} for what the server gives new files
   * @param modified seconds since 1970-01-01 UTC; -1 for now
   */
  record NewFile(RemotePath path, byte[] content, @Nullable Mode mode, long modified) {}

  /**
   * Makes files whole: opened, written, given mode and time, closed.
   *
   * @throws java.util.concurrent.CancellationException when it was stopped before all were begun;
   *     each is whole or not there
   */
  List<RemoteFailure> put(List<NewFile> files, Cancellation stop) throws IOException;

  /**
   * @param expected bytes; a file that has become larger is read to its end all the same, up to
   *     {@link #LARGEST}
   */
  record Wanted(RemotePath path, long expected) {}

  /** Either a content with the attributes it was read under, or a failure. */
  record Got(
      byte @Nullable [] content,
      @Nullable RemoteAttributes attributes,
      @Nullable RemoteFailure failure) {
    /**
     * @throws RemoteFailure when it was not read
     */
    public byte[] contentOrThrow() throws RemoteFailure {
      if (content == null) {
        throw requireNonNull(failure);
      }
      return content;
    }
  }

  /**
   * @throws java.util.concurrent.CancellationException when it was stopped before all were begun
   */
  List<Got> get(List<Wanted> files, Cancellation stop) throws IOException;

  /**
   * @param over whether a file at {@code to} is replaced in one step; otherwise it must be free
   */
  record Renaming(RemotePath from, RemotePath to, boolean over) {}

  default List<RemoteFailure> rename(List<Renaming> renamings) throws IOException {
    return rename(renamings, () -> {});
  }

  /**
   * The same; what is asked of the service by {@code sent} comes after the renaming there, and
   * before its answers here, so that one wait serves both.
   *
   * @param sent runs once all is sent, unless the line broke before
   */
  List<RemoteFailure> rename(List<Renaming> renamings, Runnable sent) throws IOException;

  record NewName(RemotePath from, RemotePath to) {}

  /** Gives files one more name each. */
  List<RemoteFailure> hardLink(List<NewName> names) throws IOException;

  /**
   * @param mode {@code null} for what the server gives
   */
  record NewFolder(RemotePath path, @Nullable Mode mode) {}

  /** Folders that do not hold each other, or in the order in which they do. */
  List<RemoteFailure> makeFolders(List<NewFolder> folders) throws IOException;

  /**
   * @param mode {@code null} to leave it
   * @param modified seconds since 1970-01-01 UTC; -1 to leave both times
   */
  record Setting(RemotePath path, @Nullable Mode mode, long modified) {}

  /** Sets modes and times, in this order. */
  List<RemoteFailure> set(List<Setting> settings) throws IOException;

  /**
   * What an entry is to get.
   *
   * @param owned whether owner and group are set
   */
  record NewRights(RemotePath path, boolean owned, int uid, int gid, Mode mode) {}

  /**
   * Sets owners, groups and modes, in this order, of the entries themselves: no link is followed
   * where the server has a request for that ({@code lsetstat@openssh.com}) or another account can
   * turn the path. Look at them before.
   */
  List<RemoteFailure> setRights(List<NewRights> rights) throws IOException;

  /**
   * Tells that the server's tools changed owners and modes: what is known of folders for {@link
   * RemoteFiles#othersMayTurn} does not hold any more. Does not wait.
   */
  void rightsChanged();

  /** What is at each, links not followed; {@code null} where nothing is or can be looked at. */
  List<RemoteAttributes> look(List<RemotePath> paths) throws IOException;

  /** The same of what links lead to; {@code null} for those that lead nowhere. */
  List<RemoteAttributes> lookThrough(List<RemotePath> paths) throws IOException;

  /** Either what is there, or why that is not known. */
  record Look(@Nullable RemoteAttributes attributes, @Nullable RemoteFailure failure) {
    /**
     * @throws RemoteFailure when it was not seen
     */
    public RemoteAttributes orThrow() throws RemoteFailure {
      if (attributes == null) {
        throw requireNonNull(failure);
      }
      return attributes;
    }
  }

  /** The same before something is done to them: see {@link RemoteFiles#lookAtItself}. */
  List<Look> lookAtThemselves(List<RemotePath> paths) throws IOException;

  /** Where each link points, in wire form; {@code null} where it cannot be read. */
  List<String> readLinks(List<RemotePath> links) throws IOException;

  /** Removes files or links; one that is gone already is no failure. */
  List<RemoteFailure> removeFiles(List<RemotePath> paths) throws IOException;
}
