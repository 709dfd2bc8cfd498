package zander.core.transfer.remote;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import zander.core.change.place.Renames;
import zander.core.files.FileKind;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteBatch.NewName;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFailure.Reason;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.journal.ChangeKind;
import zander.core.journal.FileState;
import zander.core.journal.Journal;
import zander.core.journal.NewChange;
import zander.core.phrase.FilePhrase;
import zander.core.phrase.FileStep;
import zander.core.phrase.Phrase;
import zander.core.phrase.TransferPhrase;
import zander.core.rights.Mode;
import zander.core.transfer.server.ArrivingFile;
import zander.core.transfer.server.RemoteContext;

/**
 * What a transfer replaces on a server: it gets one more name in the holding folder, which costs no
 * data. Where that cannot be done, a small one's content is kept in the journal, and a large one is
 * moved into the holding folder just before the new one takes its place; the same for all on a
 * server that cannot rename over a file. The journal has the place before anything moves.
 */
final class ReplacedFiles {
  /** Larger ones are not brought here to be kept. */
  private static final long SMALL = 4L << 20;

  /** Stands for an entry that has ended. */
  static final Journal.Pending ENDED = new Ended();

  private static final class Ended implements Journal.Pending {
    @Override
    public long id() {
      return 0;
    }

    @Override
    public void done(@Nullable FileState now, List<zander.core.journal.FolderTime> touched) {}

    @Override
    public void failed(String why) {}

    @Override
    public void lost() {}
  }

  private ReplacedFiles() {}

  /** Looks at all that is replaced and gives it its other name. */
  static void hold(RemoteContext context, List<ArrivingFile> all) throws IOException {
    List<ArrivingFile> replacing =
        all.stream().filter(one -> one.waits() && one.replaces()).toList();
    if (replacing.isEmpty()) {
      return;
    }
    List<RemoteAttributes> old =
        context.files().batch().look(replacing.stream().map(one -> one.target).toList());
    List<ArrivingFile> held = new ArrayList<>();
    List<NewName> names = new ArrayList<>();
    for (int i = 0; i < replacing.size(); i++) {
      ArrivingFile one = replacing.get(i);
      one.old = old.get(i);
      RemotePath name = isFile(one.old) ? context.holdingName() : null;
      if (name != null) {
        held.add(one);
        names.add(new NewName(one.target, name));
      }
    }
    List<RemoteFailure> failures = context.files().batch().hardLink(names);
    for (int i = 0; i < held.size(); i++) {
      ArrivingFile one = held.get(i);
      Held kept = held(context, one.old, names.get(i).to(), failures.get(i) == null);
      one.held = kept.name();
      one.moves = kept.moves();
    }
  }

  /**
   * Where something replaced is kept on the server.
   *
   * @param name {@code null} when it is not kept there
   * @param moves whether it goes there only when the new one takes its place
   */
  record Held(@Nullable RemotePath name, boolean moves) {
    static final Held NOT = new Held(null, false);
  }

  private static Held held(
      RemoteContext context, @Nullable RemoteAttributes old, RemotePath name, boolean linked)
      throws IOException {
    boolean over = context.files().renamesOver();
    if (linked && over) {
      return new Held(name, false);
    }
    if (linked) {
      // It will be moved there, and the name must be free for that.
      context.files().removeFile(name);
    }
    boolean large = old != null && old.size() > SMALL;
    return !over || large ? new Held(name, true) : Held.NOT;
  }

  /**
   * Whether what was to be replaced has moved to its held place and could not be moved back: the
   * journal keeps such an entry open, and its recovery offers to put it back.
   */
  static boolean isStranded(RemoteContext context, Held held) throws IOException {
    return held.moves()
        && held.name() != null
        && context.files().batch().look(List.of(held.name())).get(0) != null;
  }

  /** What to tell of one whose old version is neither on the server nor here; {@code null} else. */
  static @Nullable Phrase notKept(
      RemoteContext context, @Nullable RemoteAttributes old, @Nullable RemotePath held) {
    boolean large = old != null && isFile(old) && old.size() > SMALL;
    return context.holds() && large && held == null ? TransferPhrase.NOT_KEPT.of() : null;
  }

  /** The same for one. */
  static Held hold(RemoteContext context, RemotePath target, @Nullable RemoteAttributes old)
      throws IOException {
    RemotePath name = isFile(old) ? context.holdingName() : null;
    if (name == null) {
      return Held.NOT;
    }
    RemoteFailure failure =
        context.files().batch().hardLink(List.of(new NewName(target, name))).get(0);
    return held(context, old, name, failure == null);
  }

  static boolean isFile(@Nullable RemoteAttributes attributes) {
    return attributes != null && attributes.kind() == FileKind.FILE;
  }

  /** The journal's line for one that arrives. */
  static NewChange change(RemoteContext context, ArrivingFile one) throws IOException {
    return change(context, one.target, one.part, one.replaces(), one.old, one.held);
  }

  static NewChange change(
      RemoteContext context,
      RemotePath target,
      @Nullable RemotePath part,
      boolean replaces,
      @Nullable RemoteAttributes old,
      @Nullable RemotePath held)
      throws IOException {
    NewChange change =
        NewChange.of(replaces && old != null ? ChangeKind.REPLACE : ChangeKind.SEND_UP, target)
            .part(part)
            .group(context.group());
    if (!replaces || old == null) {
      return change;
    }
    FileState before = FileState.of(old);
    if (old.kind() == FileKind.LINK) {
      return change.states(before.withTarget(context.files().readLink(target)), null);
    }
    byte[] content =
        isFile(old) && held == null && old.size() <= SMALL
            ? context.files().readAll(target, SMALL)
            : null;
    return change.states(before, null).to(held).content(content);
  }

  /** What is there once a file has arrived. */
  static @Nullable FileState state(long size, @Nullable Mode mode, long modified) {
    if (modified < 0) {
      return null;
    }
    return FileState.of(
        new RemoteAttributes(
            FileKind.FILE, size, -1, -1, mode == null ? new Mode(0644) : mode, modified, modified));
  }

  /** Version 3 says only "failure" when a name is taken; a look tells that from other failures. */
  static RemoteFailure takenOrFailed(
      RemoteContext context, RemotePath target, RemoteFailure failure) throws IOException {
    boolean taken = context.files().batch().look(List.of(target)).get(0) != null;
    return taken
        ? new RemoteFailure(
            Reason.ALREADY_EXISTS, FileStep.RENAME, target, FilePhrase.EXISTS.of(), failure)
        : failure;
  }

  /**
   * Puts a whole file in the place of another in two steps: the old one moves to its held place, or
   * aside, and back if the new one cannot take its place.
   *
   * @param held where it goes; {@code null} for nowhere, because it is kept otherwise or is a link
   * @return what went wrong, or {@code null}
   */
  static @Nullable RemoteFailure inSteps(
      RemoteContext context, RemotePath part, RemotePath target, @Nullable RemotePath held)
      throws IOException {
    RemoteFiles files = context.files();
    RemotePath aside =
        held != null ? held : target.parent().child(context.partialNames().of(target.wireName()));
    try {
      Renames.inSteps(files, part, target, aside);
    } catch (RemoteFailure e) {
      if (RemoteContext.isLost(e)) {
        throw e;
      }
      return e;
    }
    if (held == null) {
      files.removeFile(aside);
    }
    return null;
  }
}
