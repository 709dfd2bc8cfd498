package zander.core.files.sftp;

import java.io.IOException;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import zander.core.files.FileKind;
import zander.core.files.PathTrust;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteBatch;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFailure.Reason;
import zander.core.files.RemotePath;
import zander.core.files.WireName;
import zander.core.files.sftp.wire.Answers;
import zander.core.files.sftp.wire.RequestBody;
import zander.core.files.sftp.wire.SftpWire;
import zander.core.files.sftp.wire.WireAttributes;
import zander.core.phrase.FilePhrase;
import zander.core.phrase.FileStep;
import zander.core.work.Cancellation;

/** The same small requests for many paths, many of them under way at once. */
final class SftpBatch implements RemoteBatch {
  /** Requests and answers of a hundred bytes or two each. */
  private static final int UNDER_WAY = 1024;

  private static final int TOGETHER = 128;

  private final SftpWire wire;
  private final SftpExtensions extensions;
  private final FailureCause cause;
  private final SftpSmallFiles smallFiles;

  private final AttributeSetter attributes;

  SftpBatch(
      SftpOpening opening,
      SftpWire wire,
      SftpExtensions extensions,
      FailureCause cause,
      AttributeSetter attributes) {
    this.attributes = attributes;
    this.wire = wire;
    this.extensions = extensions;
    this.cause = cause;
    this.smallFiles = new SftpSmallFiles(opening, wire, cause);
  }

  /** Sends what is to be asked about one; gives what its answers are taken by. */
  private interface Request<T, S> {
    S send(T about) throws RemoteFailure;
  }

  /**
   * @param otherwise what stands for a request that was refused
   */
  private <T, S, R> List<R> each(
      List<T> all,
      Request<T, S> request,
      Answers.Answer<S, R> answer,
      Function<RemoteFailure, R> otherwise)
      throws RemoteFailure {
    return each(all, request, answer, otherwise, () -> {});
  }

  /**
   * @param allSent runs between the last request and the last answers
   */
  private <T, S, R> List<R> each(
      List<T> all,
      Request<T, S> request,
      Answers.Answer<S, R> answer,
      Function<RemoteFailure, R> otherwise,
      Runnable allSent)
      throws RemoteFailure {
    Deque<S> sent = new ArrayDeque<>();
    List<R> answers = new ArrayList<>(all.size());
    for (int from = 0; from < all.size(); from += TOGETHER) {
      List<T> some = all.subList(from, Math.min(all.size(), from + TOGETHER));
      while (sent.size() + some.size() > UNDER_WAY) {
        answers.add(Answers.take(sent.removeFirst(), answer, otherwise));
      }
      wire.together(
          FileStep.ASK_FOR_MANY,
          () -> {
            for (T one : some) {
              sent.addLast(request.send(one));
            }
          });
    }
    allSent.run();
    while (!sent.isEmpty()) {
      answers.add(Answers.take(sent.removeFirst(), answer, otherwise));
    }
    return answers;
  }

  /** {@code null} for success. */
  private @Nullable RemoteFailure ok(SftpWire.Sent sent) throws RemoteFailure {
    wire.expectOk(sent);
    return null;
  }

  @Override
  public List<RemoteAttributes> look(List<RemotePath> paths) throws IOException {
    return look(SftpWire.LSTAT, paths);
  }

  @Override
  public List<RemoteAttributes> lookThrough(List<RemotePath> paths) throws IOException {
    return look(SftpWire.STAT, paths);
  }

  private List<RemoteAttributes> look(int type, List<RemotePath> paths) throws RemoteFailure {
    return each(
        paths,
        path -> wire.send(type, SftpWire.body(path), FileStep.LOOK_AT, path),
        wire::expectAttributes,
        refused -> null);
  }

  @Override
  public List<Look> lookAtThemselves(List<RemotePath> paths) throws IOException {
    return each(
        paths,
        path ->
            new SftpWire.Sent[] {
              wire.send(SftpWire.LSTAT, SftpWire.body(path), FileStep.LOOK_AT, path),
              wire.send(SftpWire.READLINK, SftpWire.body(path), FileStep.READ_LINK, path)
            },
        this::lookAtItself,
        refused -> new Look(null, refused),
        () -> {});
  }

  /** That it can be read as a link is believed more than that it is said to be none. */
  private Look lookAtItself(SftpWire.Sent[] sent) throws RemoteFailure {
    RemoteAttributes is;
    String target;
    try {
      is = wire.expectAttributes(sent[0]);
    } finally {
      target = Answers.take(sent[1], wire::expectName, refused -> null);
    }
    if (target != null && is.kind() != FileKind.LINK) {
      throw new RemoteFailure(
          Reason.LINKS_FOLLOWED,
          sent[0].step(),
          sent[0].path(),
          FilePhrase.LEADS_TO.of(WireName.toText(target)),
          null);
    }
    return new Look(is, null);
  }

  @Override
  public List<String> readLinks(List<RemotePath> links) throws IOException {
    return each(
        links,
        path -> wire.send(SftpWire.READLINK, SftpWire.body(path), FileStep.READ_LINK, path),
        wire::expectName,
        refused -> null);
  }

  @Override
  public List<RemoteFailure> removeFiles(List<RemotePath> paths) throws IOException {
    return remove(SftpWire.REMOVE, FileStep.REMOVE, paths);
  }

  List<RemoteFailure> removeFolders(List<RemotePath> paths) throws IOException {
    List<RemoteFailure> removed = remove(SftpWire.RMDIR, FileStep.REMOVE_FOLDER, paths);
    wire.handles().guard().moved();
    return removed;
  }

  private List<RemoteFailure> remove(int type, FileStep step, List<RemotePath> paths)
      throws IOException {
    return cause.of(
        each(
            paths,
            path -> wire.send(type, SftpWire.body(path), step, path),
            this::ok,
            refused -> refused.reason() == Reason.NO_SUCH_FILE ? null : refused));
  }

  @Override
  public List<RemoteFailure> rename(List<Renaming> renamings, Runnable sent) throws IOException {
    if (!extensions.renamesOver() && renamings.stream().anyMatch(Renaming::over)) {
      throw new RemoteFailure(
          Reason.NOT_SUPPORTED, FileStep.RENAME, null, FilePhrase.NO_RENAME_OVER.of(), null);
    }
    List<RemoteFailure> renamed =
        each(
            renamings,
            one ->
                one.over()
                    ? extensions.sendRenameOver(one.from(), one.to())
                    : wire.send(
                        SftpWire.RENAME, twoPaths(one.from(), one.to()), FileStep.RENAME, one.to()),
            this::ok,
            refused -> refused,
            sent);
    wire.handles().guard().moved();
    return cause.of(renamed);
  }

  private static RequestBody twoPaths(RemotePath from, RemotePath to) {
    RequestBody body = SftpWire.body(from);
    body.putPath(to);
    return body;
  }

  @Override
  public List<RemoteFailure> hardLink(List<NewName> names) throws IOException {
    if (!extensions.hardLinks()) {
      RemoteFailure cannot =
          new RemoteFailure(
              Reason.NOT_SUPPORTED, FileStep.LINK, null, FilePhrase.NO_HARD_LINKS.of(), null);
      return new ArrayList<>(java.util.Collections.nCopies(names.size(), cannot));
    }
    return cause.of(
        each(
            names,
            one -> extensions.sendHardLink(one.from(), one.to()),
            this::ok,
            refused -> refused));
  }

  @Override
  public List<RemoteFailure> makeFolders(List<NewFolder> folders) throws IOException {
    List<RemoteFailure> made =
        each(
            folders,
            one -> {
              RequestBody body = SftpWire.body(one.path());
              if (one.mode() == null) {
                WireAttributes.putNone(body);
              } else {
                WireAttributes.putMode(body, one.mode());
              }
              return wire.send(SftpWire.MKDIR, body, FileStep.MAKE_FOLDER, one.path());
            },
            this::ok,
            refused -> refused);
    for (int at = 0; at < made.size(); at++) {
      if (made.get(at) == null) {
        wire.handles().guard().made(folders.get(at).path(), folders.get(at).mode());
      }
    }
    return cause.of(made);
  }

  @Override
  public List<RemoteFailure> set(List<Setting> settings) throws IOException {
    List<RemoteFailure> set =
        each(
            settings,
            one -> {
              RequestBody wanted = SftpWire.body();
              WireAttributes.putModeAndTime(wanted, one.mode(), one.modified());
              return attributes.send(one.path(), wanted, FileStep.SET_MODE_AND_TIME);
            },
            asked -> {
              attributes.expect(asked);
              return null;
            },
            refused -> refused);
    for (Setting one : settings) {
      if (one.mode() != null && PathTrust.letsOthersWrite(one.mode())) {
        wire.handles().guard().givenAway(one.path());
      }
    }
    return cause.of(set);
  }

  @Override
  public List<RemoteFailure> setRights(List<NewRights> rights) throws IOException {
    List<RemoteFailure> set =
        each(
            rights,
            one -> {
              List<AttributeSetter.Asked> asked = new ArrayList<>();
              if (one.owned()) {
                RequestBody owner = SftpWire.body();
                WireAttributes.putOwner(owner, one.uid(), one.gid());
                asked.add(attributes.sendToItself(one.path(), owner, FileStep.SET_OWNER));
              }
              // After the owner: a change of owner clears the set-id bits.
              RequestBody mode = SftpWire.body();
              WireAttributes.putMode(mode, one.mode());
              asked.add(attributes.sendToItself(one.path(), mode, FileStep.SET_MODE));
              return asked;
            },
            this::allSet,
            refused -> refused);
    if (rights.stream().anyMatch(one -> one.owned() || PathTrust.letsOthersWrite(one.mode()))) {
      rightsChanged();
    }
    return cause.of(set);
  }

  @Override
  public void rightsChanged() {
    wire.handles().guard().forget();
  }

  /** Takes all answers; the first that is a refusal counts. */
  private @Nullable RemoteFailure allSet(List<AttributeSetter.Asked> asked) throws RemoteFailure {
    RemoteFailure first = null;
    for (AttributeSetter.Asked one : asked) {
      try {
        attributes.expect(one);
      } catch (RemoteFailure e) {
        if (e.reason() == Reason.LINE_LOST) {
          throw e;
        }
        first = first == null ? e : first;
      }
    }
    return first;
  }

  @Override
  public List<RemoteFailure> put(List<NewFile> files, Cancellation stop) throws IOException {
    return smallFiles.put(files, stop);
  }

  @Override
  public List<Got> get(List<Wanted> files, Cancellation stop) throws IOException {
    return smallFiles.get(files, stop);
  }
}
