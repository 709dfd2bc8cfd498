package zander.core.change;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.function.LongConsumer;
import zander.core.connect.command.Commands;
import zander.core.connect.command.ExecResult;
import zander.core.connect.command.ShellWords;
import zander.core.files.FileKind;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteBatch;
import zander.core.files.RemoteEntry;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFailure.Reason;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.files.ToolErrors;
import zander.core.files.TreeWalk;
import zander.core.phrase.FilePhrase;
import zander.core.phrase.FileStep;
import zander.core.work.Cancellation;

/**
 * Removes trees so that nothing is kept: by the server's {@code rm} where there is a shell, by many
 * requests at once otherwise. Links are removed, never followed.
 */
final class TreeRemoval {
  private static final int AT_ONCE = 512;

  private final RemoteFiles files;
  private final Commands commands;
  private final LongConsumer progress;
  private final Cancellation stop;
  private long removed;

  /**
   * @param progress told how many entries are gone, on any thread
   */
  TreeRemoval(RemoteFiles files, Commands commands, LongConsumer progress, Cancellation stop) {
    this.files = files;
    this.commands = commands;
    this.progress = progress;
    this.stop = stop;
  }

  /**
   * @throws RemoteFailure with {@code LINKS_FOLLOWED}, and nothing removed, where the server looks
   *     through links and one is at the path or below it
   */
  void remove(RemotePath path) throws IOException {
    remove(path, files.lookAtItself(path));
  }

  /**
   * @param is what is there, by {@link RemoteFiles#lookAtItself}
   */
  void remove(RemotePath path, RemoteAttributes is) throws IOException {
    if (!is.isFolder()) {
      files.removeFile(path);
      gone(1);
      return;
    }
    remove(List.of(path));
  }

  /**
   * Removes many; those that are not there are no failure.
   *
   * @throws RemoteFailure when one could not be removed; others may be gone
   */
  void removeAll(List<RemotePath> paths) throws IOException {
    List<RemotePath> plain = new ArrayList<>();
    List<RemotePath> trees = new ArrayList<>();
    List<RemoteBatch.Look> looks = files.batch().lookAtThemselves(paths);
    for (int i = 0; i < paths.size(); i++) {
      RemoteFailure unknown = looks.get(i).failure();
      if (unknown == null || unknown.reason() != Reason.NO_SUCH_FILE) {
        (looks.get(i).orThrow().isFolder() ? trees : plain).add(paths.get(i));
      }
    }
    inPortions(plain, files::removeFiles);
    if (!trees.isEmpty()) {
      remove(trees);
    }
  }

  private void remove(List<RemotePath> trees) throws IOException {
    List<RemotePath> ours = new ArrayList<>();
    for (RemotePath tree : trees) {
      // Between the command's start and its end the path may come to lead elsewhere.
      if (files.othersMayTurn(tree)) {
        byFiles(tree);
      } else {
        ours.add(tree);
      }
    }
    if (ours.isEmpty()) {
      return;
    }
    commands.byShellOr(
        () -> {
          byShell(ours);
          return true;
        },
        () -> {
          for (RemotePath tree : ours) {
            byFiles(tree);
          }
          return true;
        });
  }

  private void gone(long count) {
    removed += count;
    progress.accept(removed);
  }

  private void byShell(List<RemotePath> paths) throws IOException {
    String quoted = ShellWords.quoteAll(paths);
    // Told line by line, so that it can be watched, and ends when nobody listens any more.
    ExecResult result = commands.stream("rm -rfv -- " + quoted, this::count, stop);
    if (result.exit() != 0 && isAnyLeft(paths)) {
      result = commands.stream("rm -rf -- " + quoted, this::count, stop);
    }
    if (result.exit() != 0 && isAnyLeft(paths)) {
      String said = new String(result.errors(), StandardCharsets.UTF_8).strip();
      throw ToolErrors.failure(
          FileStep.DELETE, paths.get(0), said, FilePhrase.ENDED_WITH.of("rm", result.exit()));
    }
  }

  private boolean isAnyLeft(List<RemotePath> paths) throws IOException {
    return files.lookAll(paths).stream().anyMatch(java.util.Objects::nonNull);
  }

  private void count(byte[] output) {
    long lines = 0;
    for (byte b : output) {
      lines += b == '\n' ? 1 : 0;
    }
    gone(lines);
  }

  private void byFiles(RemotePath root) throws IOException {
    List<RemotePath> plain = new ArrayList<>();
    Map<Integer, List<RemotePath>> folders = new TreeMap<>(java.util.Comparator.reverseOrder());
    folders.computeIfAbsent(depth(root), level -> new ArrayList<>()).add(root);
    List<RemotePath> links = new ArrayList<>();
    new TreeWalk(files, stop)
        .lookingBeforeEntering()
        .below(
            root,
            new TreeWalk.Visitor() {
              @Override
              public void entry(RemoteEntry entry) {
                if (entry.attributes().isFolder()) {
                  folders
                      .computeIfAbsent(depth(entry.path()), level -> new ArrayList<>())
                      .add(entry.path());
                } else {
                  plain.add(entry.path());
                  if (entry.kind() == FileKind.LINK) {
                    links.add(entry.path());
                  }
                }
              }

              @Override
              public void unreadable(RemotePath folder, RemoteFailure why) throws RemoteFailure {
                throw why;
              }
            });
    if (!links.isEmpty()) {
      // What holds for one holds for all: such a server would remove what they lead to.
      files.lookAtItself(links.get(0));
    }
    inPortions(plain, files::removeFiles);
    for (List<RemotePath> level : folders.values()) {
      inPortions(level, files::removeFolders);
    }
  }

  private static int depth(RemotePath path) {
    return (int) path.wire().chars().filter(c -> c == '/').count();
  }

  private interface Portion {
    List<RemoteFailure> remove(List<RemotePath> paths) throws IOException;
  }

  private void inPortions(List<RemotePath> paths, Portion portion) throws IOException {
    for (int from = 0; from < paths.size(); from += AT_ONCE) {
      stop.throwIfStopped();
      List<RemotePath> part = paths.subList(from, Math.min(paths.size(), from + AT_ONCE));
      List<RemoteFailure> refused = portion.remove(part);
      gone(part.size() - refused.size());
      if (!refused.isEmpty()) {
        throw refused.get(0);
      }
    }
  }
}
