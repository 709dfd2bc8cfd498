package zander.core.facts;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;
import zander.core.connect.command.Commands;
import zander.core.connect.command.ExecResult;
import zander.core.connect.command.ShellWords;
import zander.core.files.FileKind;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteEntry;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.files.TreeWalk;
import zander.core.work.Cancellation;

/**
 * Counts and sums trees: by the server's {@code find} where there is a shell that has a fitting one
 * (GNU's {@code -printf}), by the file service otherwise. Links are counted, never followed.
 */
public final class TreeSize {
  private final RemoteFiles files;
  private final Commands commands;

  public TreeSize(RemoteFiles files, Commands commands) {
    this.files = files;
    this.commands = commands;
  }

  /**
   * @param progress told now and then how far it is, on a thread of its own
   * @throws java.util.concurrent.CancellationException when it was stopped
   */
  public MeasuredTree of(List<RemotePath> paths, Consumer<MeasuredTree> progress, Cancellation stop)
      throws IOException {
    MeasuredTree found = commands.byShellOrNull(() -> byFind(paths, progress, stop));
    return found != null ? found : byFiles(paths, progress, stop);
  }

  /**
   * How many bytes each takes, in their order; 0 for what is not there. Files are looked at
   * together, and only folders are gone through.
   */
  public List<Long> each(List<RemotePath> paths, Cancellation stop) throws IOException {
    List<Long> sizes = new ArrayList<>();
    List<RemoteAttributes> found = files.lookAll(paths);
    for (int i = 0; i < paths.size(); i++) {
      RemoteAttributes is = found.get(i);
      stop.throwIfStopped();
      sizes.add(
          is == null
              ? 0
              : is.isFolder() ? of(List.of(paths.get(i)), soFar -> {}, stop).bytes() : is.size());
    }
    return sizes;
  }

  /** {@code null} when the server's {@code find} cannot do it. */
  private @Nullable MeasuredTree byFind(
      List<RemotePath> paths, Consumer<MeasuredTree> progress, Cancellation stop)
      throws IOException {
    Lines lines = new Lines(progress);
    ExecResult result =
        commands.stream(
            "find " + ShellWords.quoteAll(paths) + " -printf '%y %s\\n'", lines::add, stop);
    if (result.exit() != 0 && lines.sum.count() == 0) {
      return null;
    }
    long complaints = new String(result.errors(), StandardCharsets.ISO_8859_1).lines().count();
    return lines.sum.plusUnreadable(complaints);
  }

  /** Takes lines of a letter and a number apart, wherever the parts are cut. */
  private static final class Lines {
    private static final int TELL_EVERY = 2000;

    private final Consumer<MeasuredTree> progress;
    private MeasuredTree sum = MeasuredTree.NOTHING;
    private char kind;
    private long size;
    private long told;

    Lines(Consumer<MeasuredTree> progress) {
      this.progress = progress;
    }

    void add(byte[] part) {
      for (byte b : part) {
        if (b == '\n') {
          sum = sum.plus(kind, size);
          kind = 0;
          size = 0;
        } else if (b >= '0' && b <= '9') {
          size = size * 10 + b - '0';
        } else if (b != ' ') {
          kind = (char) b;
        }
      }
      if (sum.count() - told > TELL_EVERY) {
        told = sum.count();
        progress.accept(sum);
      }
    }
  }

  private MeasuredTree byFiles(
      List<RemotePath> paths, Consumer<MeasuredTree> progress, Cancellation stop)
      throws IOException {
    MeasuredTree[] sum = {MeasuredTree.NOTHING};
    List<RemoteAttributes> found = files.lookAll(paths);
    for (int i = 0; i < paths.size(); i++) {
      RemoteAttributes one = found.get(i);
      if (one == null) {
        continue;
      }
      sum[0] = sum[0].plus(letter(one.kind()), one.size());
      if (one.isFolder()) {
        new TreeWalk(files, stop)
            .below(
                paths.get(i),
                new TreeWalk.Visitor() {
                  @Override
                  public void entry(RemoteEntry entry) {
                    sum[0] = sum[0].plus(letter(entry.kind()), entry.attributes().size());
                    if (sum[0].count() % 500 == 0) {
                      progress.accept(sum[0]);
                    }
                  }

                  @Override
                  public void unreadable(RemotePath folder, RemoteFailure why) {
                    sum[0] = sum[0].plusUnreadable(1);
                  }
                });
      }
    }
    return sum[0];
  }

  private static char letter(FileKind kind) {
    return switch (kind) {
      case FILE -> 'f';
      case FOLDER -> 'd';
      case LINK -> 'l';
      case OTHER -> 'o';
    };
  }
}
