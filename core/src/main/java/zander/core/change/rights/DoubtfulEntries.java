package zander.core.change.rights;

import static java.util.Objects.requireNonNull;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import zander.core.change.rights.TreeOutcome.Left;
import zander.core.change.rights.TreeOutcome.Why;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteBatch.Look;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFailure.Reason;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.phrase.FilePhrase;
import zander.core.phrase.FileStep;
import zander.core.rights.Rights;
import zander.core.rights.RightsStep;

/** Entries that do not seem to be as wanted: asked about alone, so that the server says why. */
final class DoubtfulEntries {
  private final RemoteFiles files;
  private final List<RemotePath> paths = new ArrayList<>();
  private final List<RightsStep> wanted = new ArrayList<>();

  DoubtfulEntries(RemoteFiles files) {
    this.files = files;
  }

  int size() {
    return paths.size();
  }

  void add(RemotePath path, RightsStep step) {
    paths.add(path);
    wanted.add(step);
  }

  /** Those that listings do not show any more are looked at by name: how many are as wanted. */
  long look(List<Left> left) throws IOException {
    if (paths.isEmpty()) {
      return 0;
    }
    List<Look> found = files.batch().lookAtThemselves(paths);
    long set = 0;
    for (int i = 0; i < paths.size(); i++) {
      RemoteAttributes is = found.get(i).attributes();
      if (is == null) {
        boolean gone = requireNonNull(found.get(i).failure()).reason() == Reason.NO_SUCH_FILE;
        left.add(new Left(paths.get(i), gone ? Why.GONE : Why.OUT_OF_REACH, null));
      } else if (isAfter(is, i)) {
        set++;
      } else {
        left.add(new Left(paths.get(i), Why.REFUSED, notKept(i)));
      }
    }
    return set;
  }

  private boolean isAfter(RemoteAttributes is, int at) {
    return new Rights(is.uid(), is.gid(), is.mode()).equals(wanted.get(at).after());
  }

  /** How many could be set after all. */
  long again(List<Left> left) throws IOException {
    if (paths.isEmpty()) {
      return 0;
    }
    List<RemoteFailure> why = ServiceSetter.setAll(files, paths, wanted);
    List<RemoteAttributes> now = files.lookAll(paths);
    long set = 0;
    for (int i = 0; i < paths.size(); i++) {
      RemoteAttributes is = now.get(i);
      if (is != null && isAfter(is, i)) {
        set++;
      } else {
        RemoteFailure failure = why.get(i);
        boolean since = failure != null && failure.reason() == Reason.ALREADY_EXISTS;
        left.add(
            new Left(
                paths.get(i),
                since ? Why.CHANGED_SINCE : Why.REFUSED,
                since ? null : failure == null ? notKept(i) : failure));
      }
    }
    return set;
  }

  private RemoteFailure notKept(int at) {
    return new RemoteFailure(
        Reason.NOT_SUPPORTED,
        FileStep.SET_RIGHTS,
        paths.get(at),
        FilePhrase.RIGHTS_NOT_KEPT.of(),
        null);
  }
}
