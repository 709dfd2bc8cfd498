package zander.core.change;

import static java.util.Objects.requireNonNull;

import java.io.IOException;
import java.io.InputStream;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.concurrent.CancellationException;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.Future;
import java.util.concurrent.atomic.AtomicLong;
import java.util.function.LongConsumer;
import org.jspecify.annotations.Nullable;
import zander.core.files.FileKind;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteBatch;
import zander.core.files.RemoteBatch.Got;
import zander.core.files.RemoteBatch.NewFile;
import zander.core.files.RemoteBatch.NewFolder;
import zander.core.files.RemoteBatch.Setting;
import zander.core.files.RemoteBatch.Wanted;
import zander.core.files.RemoteEntry;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFailure.Reason;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.files.RemoteWriter;
import zander.core.files.TreeWalk;
import zander.core.phrase.FilePhrase;
import zander.core.phrase.FileStep;
import zander.core.rights.Mode;
import zander.core.work.Cancellation;
import zander.core.work.Workers;

/**
 * Copies a file, a link or a tree by the file service alone, all of a kind together: a tree of a
 * hundred small files costs some round trips more than one file, not a hundred times as many.
 */
final class TreeCopy {
  /** What is as small is quicker fetched and sent than copied by requests of its own. */
  private static final long SMALL = 32 * 1024;

  private static final int FILES_TOGETHER = 256;
  private static final int AT_ONCE = 16;

  private final RemoteFiles files;
  private final LongConsumer progress;
  private final Cancellation stop;
  private final AtomicLong copied = new AtomicLong();

  /** Something on the server and what is to become of it. */
  private record Pair(
      RemotePath from, RemoteAttributes was, @Nullable String target, RemotePath to) {}

  private final List<Pair> folders = new ArrayList<>();
  private final List<Pair> links = new ArrayList<>();
  private final List<Pair> small = new ArrayList<>();
  private final List<Pair> large = new ArrayList<>();

  /**
   * @param progress told how many bytes went through this computer, on any thread
   */
  TreeCopy(RemoteFiles files, LongConsumer progress, Cancellation stop) {
    this.files = files;
    this.progress = progress;
    this.stop = stop;
  }

  /** Makes {@code to}, which must be free, a copy of {@code from}. */
  void copy(RemotePath from, RemotePath to) throws IOException {
    RemoteAttributes was = files.lookAtItself(from);
    add(new Pair(from, was, was.kind() == FileKind.LINK ? files.readLink(from) : null, to));
    if (was.isFolder()) {
      find(from, to);
    }
    if (!links.isEmpty()) {
      // Before anything is made: a server that looks through links would copy what they lead to.
      files.lookAtItself(links.get(0).from());
    }
    makeFolders();
    copySmall();
    try (Workers workers = new Workers("tree-copy", AT_ONCE)) {
      List<Future<?>> begun = new ArrayList<>();
      for (Pair link : links) {
        begun.add(workers.submit(() -> made(link)));
      }
      for (Pair file : large) {
        begun.add(workers.submit(() -> copyLarge(file)));
      }
      await(begun);
    }
    finishFolders();
  }

  private void find(RemotePath from, RemotePath to) throws IOException {
    new TreeWalk(files, stop)
        .lookingBeforeEntering()
        .below(
            from,
            new TreeWalk.Visitor() {
              @Override
              public void entry(RemoteEntry entry) throws IOException {
                String below = entry.path().wire().substring(from.wire().length());
                RemotePath goal = RemotePath.ofWire(to.wire() + below);
                add(new Pair(entry.path(), entry.attributes(), entry.target(), goal));
              }

              @Override
              public void unreadable(RemotePath folder, RemoteFailure why) throws RemoteFailure {
                throw why;
              }
            });
  }

  private void add(Pair pair) throws RemoteFailure {
    switch (pair.was().kind()) {
      case FOLDER -> folders.add(pair);
      case LINK -> links.add(pair);
      case FILE -> (pair.was().size() <= SMALL ? small : large).add(pair);
      default ->
          throw new RemoteFailure(
              Reason.NOT_SUPPORTED,
              FileStep.COPY,
              pair.from(),
              FilePhrase.DEVICE_PIPE_OR_SOCKET.of(),
              null);
    }
  }

  private static void throwFirst(List<RemoteFailure> failures) throws RemoteFailure {
    for (RemoteFailure failure : failures) {
      if (failure != null) {
        throw failure;
      }
    }
  }

  /** Each is told before what is in it, so they can be made in their order. */
  private void makeFolders() throws IOException {
    List<NewFolder> wanted = new ArrayList<>();
    for (Pair folder : folders) {
      wanted.add(new NewFolder(folder.to(), new Mode((folder.was().mode().bits() & 0777) | 0700)));
    }
    throwFirst(files.batch().makeFolders(wanted));
  }

  private void copySmall() throws IOException {
    for (int from = 0; from < small.size(); from += FILES_TOGETHER) {
      stop.throwIfStopped();
      List<Pair> some = small.subList(from, Math.min(small.size(), from + FILES_TOGETHER));
      List<Wanted> wanted =
          some.stream().map(one -> new Wanted(one.from(), one.was().size())).toList();
      List<NewFile> made = new ArrayList<>();
      List<Got> got = files.batch().get(wanted, stop);
      for (int i = 0; i < some.size(); i++) {
        RemoteAttributes was = some.get(i).was();
        byte[] content = got.get(i).contentOrThrow();
        made.add(new NewFile(some.get(i).to(), content, was.mode(), was.modified()));
        progress.accept(copied.addAndGet(content.length));
      }
      throwFirst(files.batch().put(made, stop));
      giveOwners(some);
    }
  }

  /** What cannot be given away keeps the account's own owner, and loses set-id bits. */
  private void giveOwners(List<Pair> made) throws IOException {
    List<RemoteAttributes> now = files.batch().look(made.stream().map(Pair::to).toList());
    for (int i = 0; i < made.size(); i++) {
      RemoteAttributes was = made.get(i).was();
      RemoteAttributes is = now.get(i);
      if (is != null && (is.uid() != was.uid() || is.gid() != was.gid())) {
        keep(made.get(i).to(), was, is);
      }
    }
  }

  private @Nullable Object made(Pair link) throws IOException {
    stop.throwIfStopped();
    files.makeLink(link.to(), requireNonNull(link.target()));
    return null;
  }

  private @Nullable Object copyLarge(Pair file) throws IOException {
    stop.throwIfStopped();
    if (files.copiesByItself()) {
      files.copyByItself(file.from(), file.to(), new Mode(0600));
    } else {
      throughHere(file);
    }
    keep(file.to(), file.was(), files.look(file.to()));
    return null;
  }

  private void throughHere(Pair file) throws IOException {
    byte[] buffer = new byte[RemoteBatch.LARGEST];
    try (InputStream in = files.read(file.from());
        RemoteWriter out = files.create(file.to(), new Mode(0600))) {
      for (int count; (count = in.read(buffer)) >= 0; ) {
        stop.throwIfStopped();
        out.write(buffer, 0, count);
        progress.accept(copied.addAndGet(count));
      }
      out.finish();
    }
  }

  private void keep(RemotePath to, RemoteAttributes was, RemoteAttributes now) throws IOException {
    Mode mode = was.mode();
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

  private static void await(List<Future<?>> begun) throws IOException {
    try {
      for (Future<?> one : begun) {
        one.get();
      }
    } catch (ExecutionException e) {
      if (e.getCause() instanceof CancellationException stopped) {
        throw stopped;
      }
      throw e.getCause() instanceof IOException io ? io : new IOException(e.getCause());
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new CancellationException("interrupted");
    }
  }

  /** Deepest first: filling a folder changes its time, and a closed one could not be filled. */
  private void finishFolders() throws IOException {
    List<Pair> deepest = new ArrayList<>(folders);
    Collections.reverse(deepest);
    List<RemoteAttributes> now = files.batch().look(deepest.stream().map(Pair::to).toList());
    List<Setting> settings = new ArrayList<>();
    for (int i = 0; i < deepest.size(); i++) {
      RemoteAttributes was = deepest.get(i).was();
      RemoteAttributes is = now.get(i);
      if (is == null || (is.uid() == was.uid() && is.gid() == was.gid())) {
        settings.add(new Setting(deepest.get(i).to(), was.mode(), was.modified()));
      }
    }
    throwFirst(files.batch().set(settings));
    giveOwners(deepest);
  }
}
