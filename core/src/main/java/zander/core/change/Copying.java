package zander.core.change;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.function.LongConsumer;
import zander.core.connect.Commands;
import zander.core.connect.ExecResult;
import zander.core.connect.ShellWords;
import zander.core.files.FileKind;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteEntry;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFailure.Reason;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.files.RemoteWriter;
import zander.core.files.TreeWalk;
import zander.core.rights.Mode;
import zander.core.work.Cancellation;

/**
 * Copies a file, a link or a tree from one place of a server to another, with modes, times, and
 * owners where the account may give them. By the server's {@code cp -a}, by its copy extension, or
 * through this computer; {@link #way} says which.
 */
final class Copying {
  /** How the data goes. */
  enum Way {
    BY_SHELL,
    BY_EXTENSION,
    THROUGH_HERE
  }

  private final RemoteFiles files;
  private final Commands commands;
  private final LongConsumer progress;
  private final Cancellation stop;
  private long copied;

  /**
   * @param progress told how many bytes went through this computer
   */
  Copying(RemoteFiles files, Commands commands, LongConsumer progress, Cancellation stop) {
    this.files = files;
    this.commands = commands;
    this.progress = progress;
    this.stop = stop;
  }

  static Way way(RemoteFiles files, Commands commands) {
    return commands.hasShell()
        ? Way.BY_SHELL
        : files.copiesByItself() ? Way.BY_EXTENSION : Way.THROUGH_HERE;
  }

  /** Makes {@code to}, which must be free, a copy of {@code from}. */
  void copy(RemotePath from, RemotePath to) throws IOException {
    if (commands.hasShell()) {
      ExecResult result =
          commands.stream(
              "cp -a -- " + ShellWords.quote(from) + " " + ShellWords.quote(to), out -> {}, stop);
      if (result.exit() != 0) {
        String said = new String(result.errors(), StandardCharsets.UTF_8).strip();
        boolean denied = said.contains("ermission denied");
        boolean full = said.contains("No space left");
        throw new RemoteFailure(
            full ? Reason.NO_SPACE : denied ? Reason.PERMISSION_DENIED : Reason.FAILED,
            "copy",
            from,
            said.lines().findFirst().orElse("cp ended with " + result.exit()),
            null);
      }
      return;
    }
    RemoteAttributes attributes = files.look(from);
    if (attributes.isFolder()) {
      copyTree(from, attributes, to);
    } else {
      copyOne(from, attributes, to);
    }
  }

  private record Folder(RemotePath to, RemoteAttributes was) {}

  private void copyTree(RemotePath from, RemoteAttributes root, RemotePath to) throws IOException {
    List<Folder> folders = new ArrayList<>();
    makeFolder(to, root, folders);
    new TreeWalk(files, stop)
        .below(
            from,
            new TreeWalk.Visitor() {
              @Override
              public void entry(RemoteEntry entry) throws IOException {
                stop.throwIfStopped();
                RemotePath goal =
                    RemotePath.ofWire(
                        to.wire() + entry.path().wire().substring(from.wire().length()));
                if (entry.attributes().isFolder()) {
                  makeFolder(goal, entry.attributes(), folders);
                } else {
                  copyOne(entry.path(), entry.attributes(), goal);
                }
              }

              @Override
              public void unreadable(RemotePath folder, RemoteFailure why) throws RemoteFailure {
                throw why;
              }
            });
    // Deepest first: filling a folder changes its time, and a closed one could not be filled.
    for (int i = folders.size() - 1; i >= 0; i--) {
      keep(folders.get(i).to(), folders.get(i).was());
    }
  }

  private void makeFolder(RemotePath to, RemoteAttributes was, List<Folder> folders)
      throws IOException {
    files.makeFolder(to, new Mode(was.mode().bits() & 0777 | 0700));
    folders.add(new Folder(to, was));
  }

  private void copyOne(RemotePath from, RemoteAttributes was, RemotePath to) throws IOException {
    if (was.kind() == FileKind.LINK) {
      files.makeLink(to, files.readLink(from));
      return;
    }
    if (was.kind() != FileKind.FILE) {
      throw new RemoteFailure(
          Reason.NOT_SUPPORTED, "copy", from, "a device, a pipe or a socket", null);
    }
    if (files.copiesByItself()) {
      files.copyByItself(from, to, new Mode(0600));
    } else {
      throughHere(from, to);
    }
    keep(to, was);
  }

  private void throughHere(RemotePath from, RemotePath to) throws IOException {
    byte[] buffer = new byte[256 * 1024];
    try (InputStream in = files.read(from);
        RemoteWriter out = files.create(to, new Mode(0600))) {
      for (int count; (count = in.read(buffer)) >= 0; ) {
        stop.throwIfStopped();
        out.write(buffer, 0, count);
        copied += count;
        progress.accept(copied);
      }
      out.finish();
    }
  }

  private void keep(RemotePath to, RemoteAttributes was) throws IOException {
    Mode mode = was.mode();
    RemoteAttributes now = files.look(to);
    if (now.uid() != was.uid() || now.gid() != was.gid()) {
      try {
        files.setOwner(to, was.uid(), was.gid());
      } catch (RemoteFailure e) {
        if (e.reason() == Reason.LINE_LOST) {
          throw e;
        }
        // As cp -a does: a copy that cannot be given away is without set-id bits.
        mode = new Mode(mode.bits() & 01777);
      }
    }
    files.setMode(to, mode);
    files.setTimes(to, was.accessed(), was.modified());
  }
}
