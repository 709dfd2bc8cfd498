package zander.core.kept;

import java.io.IOException;
import java.util.List;
import java.util.function.LongConsumer;
import zander.core.change.rights.look.ScannedEntry;
import zander.core.change.rights.look.TreeLook;
import zander.core.change.rights.look.TreeRoots;
import zander.core.connect.command.Commands;
import zander.core.files.FileKind;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.work.Cancellation;

/** Shows a tree to one who learns from it. Waits; for one thread. */
public final class KeptLook implements TreeLook.Visitor {
  private static final int PACE = 2048;

  private final RemoteFiles files;
  private final Commands commands;
  private final KeptLearner learner;
  private final Cancellation stop;
  private int seen;
  private long looked;
  private LongConsumer progress = count -> {};
  private int skip;

  public KeptLook(RemoteFiles files, Commands commands, KeptLearner learner, Cancellation stop) {
    this.files = files;
    this.commands = commands;
    this.learner = learner;
    this.stop = stop;
  }

  /**
   * Looks at a folder and all below it on its file system.
   *
   * @param progress told how many entries were seen, now and then
   * @return how many entries were learnt from
   * @throws java.util.concurrent.CancellationException when it was stopped
   */
  public int run(RemotePath folder, LongConsumer progress) throws IOException {
    this.progress = progress;
    TreeRoots roots = TreeRoots.of(List.of(folder));
    skip = roots.names().isEmpty() ? 0 : roots.names().get(0).length();
    new TreeLook(files, commands, stop).run(roots, false, this);
    return seen;
  }

  @Override
  public void entry(ScannedEntry entry) {
    if (++looked % PACE == 0) {
      progress.accept(looked);
    }
    boolean folder = entry.kind() == FileKind.FOLDER;
    boolean meant = (folder || entry.kind() == FileKind.FILE) && !entry.elsewhere();
    if (meant && learner.hasRoom()) {
      String path = entry.path();
      String below = skip > 0 && path.length() > skip ? path.substring(skip + 1) : "";
      learner.add(skip == 0 ? path : below, folder, entry.rights());
      seen++;
    }
  }

  @Override
  public void unreadable(String path) {
    // What cannot be seen teaches nothing; the look at the differences tells of it.
  }
}
