package zander.core.change.rights;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import zander.core.change.rights.look.TreeRoots;
import zander.core.files.FileKind;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteBatch;
import zander.core.files.RemoteBatch.Look;
import zander.core.files.RemoteBatch.NewRights;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFailure.Reason;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.phrase.FilePhrase;
import zander.core.phrase.FileStep;
import zander.core.rights.Mode;
import zander.core.rights.Rights;
import zander.core.rights.RightsStep;
import zander.core.rights.TreeRights;

/**
 * Sets rights by the file service, many requests under way, of what was just seen to be no link;
 * see {@link RemoteBatch#setRights} for what becomes one in between.
 */
final class ServiceSetter implements RightsSetter {
  private static final int TOGETHER = 1024;

  private final RemoteFiles files;
  private final TreeRoots roots;
  private final List<RemotePath> paths = new ArrayList<>();
  private final List<RightsStep> steps = new ArrayList<>();

  ServiceSetter(RemoteFiles files, TreeRoots roots) {
    this.files = files;
    this.roots = roots;
  }

  @Override
  public void set(String path, RightsStep step) throws IOException {
    paths.add(roots.at(path));
    steps.add(step);
    if (paths.size() >= TOGETHER) {
      flush();
    }
  }

  @Override
  public void inOrder() {
    // It is asked for in the order in which it came.
  }

  @Override
  public void flush() throws IOException {
    setAll(files, paths, steps);
    paths.clear();
    steps.clear();
  }

  @Override
  public void close() {
    paths.clear();
    steps.clear();
  }

  /**
   * Sets them, and says of each why it was not; {@code null} for those that were, or need not be.
   */
  static List<RemoteFailure> setAll(
      RemoteFiles files, List<RemotePath> paths, List<RightsStep> steps) throws IOException {
    List<Look> found = files.batch().lookAtThemselves(paths);
    RemoteFailure[] why = new RemoteFailure[paths.size()];
    List<NewRights> wanted = new ArrayList<>();
    List<Integer> places = new ArrayList<>();
    for (int i = 0; i < why.length; i++) {
      RightsStep step = steps.get(i);
      RemoteAttributes is = found.get(i).attributes();
      if (is == null) {
        why[i] = found.get(i).failure();
      } else if (!isStill(is, step)) {
        why[i] =
            new RemoteFailure(
                Reason.ALREADY_EXISTS,
                FileStep.SET_RIGHTS,
                paths.get(i),
                FilePhrase.CHANGED_MEANWHILE.of(),
                null);
      } else {
        Rights after = step.after();
        wanted.add(
            new NewRights(
                paths.get(i), step.changesOwner(), after.uid(), after.gid(), after.mode()));
        places.add(i);
      }
    }
    List<RemoteFailure> set = files.batch().setRights(wanted);
    for (int i = 0; i < set.size(); i++) {
      why[places.get(i)] = set.get(i);
    }
    return java.util.Arrays.asList(why);
  }

  /** Whether it is what was seen, or what a change that was half made leaves. */
  private static boolean isStill(RemoteAttributes is, RightsStep step) {
    Rights now = new Rights(is.uid(), is.gid(), is.mode());
    Rights before = step.before();
    Rights after = step.after();
    RightsStep opening = step.opening();
    Mode owned = TreeRights.afterNewOwner(before.mode(), step.folder());
    return is.kind() == (step.folder() ? FileKind.FOLDER : FileKind.FILE)
        && (now.equals(before)
            || now.equals(after)
            || (opening != null && now.equals(opening.after()))
            || (step.changesOwner() && now.equals(new Rights(after.uid(), after.gid(), owned))));
  }
}
