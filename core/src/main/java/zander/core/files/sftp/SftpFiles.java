package zander.core.files.sftp;

import java.io.IOException;
import java.io.InputStream;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import org.apache.sshd.client.session.ClientSession;
import org.jspecify.annotations.Nullable;
import zander.core.files.AccountNames;
import zander.core.files.DiskSpace;
import zander.core.files.FileKind;
import zander.core.files.PathTrust;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteBatch;
import zander.core.files.RemoteEntry;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.files.RemoteReader;
import zander.core.files.RemoteWriter;
import zander.core.files.sftp.SftpListing.Raw;
import zander.core.files.sftp.channel.ServiceStart;
import zander.core.files.sftp.channel.SftpChannel;
import zander.core.files.sftp.wire.FolderGuard;
import zander.core.files.sftp.wire.FolderHandles;
import zander.core.files.sftp.wire.OpenHandle;
import zander.core.files.sftp.wire.RequestBody;
import zander.core.files.sftp.wire.SftpWire;
import zander.core.files.sftp.wire.WireAttributes;
import zander.core.phrase.FileStep;
import zander.core.rights.Mode;

/** The files of a server over SFTP version 3 with the extensions OpenSSH documents (PROTOCOL). */
public final class SftpFiles implements RemoteFiles {
  private static final Duration PATIENCE = Duration.ofSeconds(30);

  private final SftpWire wire;
  private final SftpExtensions extensions;
  private final SftpBatch batch;
  private final FailureCause cause;
  private final AttributeSetter attributes;
  private final SftpOpening opening;
  private final SftpWholeFiles whole;
  private final EntryReader entries;
  private final AccountNames names;

  private SftpFiles(SftpChannel channel, AccountNames names, FolderGuard guard) {
    this.wire = new SftpWire(channel, guard);
    this.extensions = new SftpExtensions(wire);
    this.cause = new FailureCause(wire, extensions);
    this.attributes = new AttributeSetter(wire);
    this.opening = new SftpOpening(wire, cause);
    this.batch = new SftpBatch(opening, wire, extensions, cause, attributes);
    this.whole = new SftpWholeFiles(this, wire, opening, extensions, cause);
    this.names = names;
    this.entries = new EntryReader(wire, extensions, names);
  }

  /**
   * Opens the file service on a signed-in session; waits.
   *
   * @param names shared by all that is known of one server
   * @param guard shared by all channels of one connection
   * @param start {@code null} for the account's own service
   * @throws IOException when the server has none, or no room for one more
   */
  public static SftpFiles open(
      ClientSession session, AccountNames names, FolderGuard guard, @Nullable ServiceStart start)
      throws IOException {
    return new SftpFiles(SftpChannel.open(session, PATIENCE, start), names, guard);
  }

  @Override
  public boolean othersMayTurn(RemotePath entry) throws IOException {
    return wire.handles().isOpen(entry);
  }

  @Override
  public long window() {
    return wire.window();
  }

  @Override
  public AccountNames names() {
    return names;
  }

  @Override
  public List<RemoteEntry> list(RemotePath folder, Consumer<List<RemoteEntry>> portion)
      throws IOException {
    List<RemoteEntry> unfollowed = new ArrayList<>();
    List<Raw> raw =
        SftpListing.of(wire, folder, names)
            .read(
                part -> {
                  part.forEach(one -> guard().listed(one.path(), one.attributes()));
                  List<RemoteEntry> some = part.stream().map(entries::unfollowed).toList();
                  unfollowed.addAll(some);
                  portion.accept(some);
                });
    boolean named = entries.learnNames(raw);
    // Made once for the portions; made anew only where something was learnt since.
    return named ? entries.follow(raw, null) : entries.follow(raw, unfollowed);
  }

  @Override
  public Landing land(@Nullable String wanted, java.util.concurrent.Future<?> namesAsked)
      throws IOException {
    return SftpLanding.at(wanted, wire, names, entries, namesAsked);
  }

  @Override
  public RemoteEntry entry(RemotePath path) throws IOException {
    List<Raw> one = List.of(new Raw(path, look(path)));
    entries.learnNames(one);
    return entries.follow(one, null).get(0);
  }

  @Override
  public List<RemoteEntry> entries(List<RemotePath> paths) throws IOException {
    List<RemoteAttributes> found = batch.look(paths);
    List<Raw> raw = new ArrayList<>();
    for (int i = 0; i < paths.size(); i++) {
      if (found.get(i) != null) {
        raw.add(new Raw(paths.get(i), found.get(i)));
      }
    }
    entries.learnNames(raw);
    return entries.follow(raw, null);
  }

  @Override
  public RemoteAttributes look(RemotePath path) throws IOException {
    return wire.expectAttributes(
        wire.send(SftpWire.LSTAT, SftpWire.body(path), FileStep.LOOK_AT, path));
  }

  @Override
  public RemoteAttributes lookAtItself(RemotePath path) throws IOException {
    RemoteBatch.Look look = batch.lookAtThemselves(List.of(path)).get(0);
    return look.orThrow();
  }

  @Override
  public RemoteAttributes lookThrough(RemotePath path) throws IOException {
    if (othersMayTurn(path)) {
      return lookAtNoLink(path);
    }
    return wire.expectAttributes(
        wire.send(SftpWire.STAT, SftpWire.body(path), FileStep.LOOK_AT, path));
  }

  private RemoteAttributes lookAtNoLink(RemotePath path) throws IOException {
    RemoteAttributes is = look(path);
    if (is.kind() == FileKind.LINK) {
      throw FolderHandles.turned(FileStep.LOOK_AT, path, readLink(path));
    }
    return is;
  }

  @Override
  public RemotePath realPath(RemotePath path) throws IOException {
    if (!othersMayTurn(path)) {
      return realPath(path.wire());
    }
    RemoteAttributes is = look(path);
    if (is.kind() != FileKind.LINK) {
      return wire.handles().real(path);
    }
    RemotePath real = realPath(path.wire());
    if (!guard().isLinkHarmless(wire, path, real, look(real))) {
      throw FolderHandles.turned(FileStep.LOOK_AT, path, real.wire());
    }
    return real;
  }

  @Override
  public RemotePath trueFolder(RemotePath folder) throws IOException {
    return othersMayTurn(folder.child("x")) ? guard().place(wire, folder).real() : folder;
  }

  @Override
  public int uid() {
    return guard().uid();
  }

  @Override
  public String readLink(RemotePath link) throws IOException {
    return wire.expectName(
        wire.send(SftpWire.READLINK, SftpWire.body(link), FileStep.READ_LINK, link));
  }

  @Override
  public RemotePath realPath(String wirePath) throws IOException {
    RequestBody body = SftpWire.body();
    SftpWire.putName(body, wirePath);
    RemotePath about = wirePath.startsWith("/") ? RemotePath.ofWire(wirePath) : null;
    String real = wire.expectName(wire.send(SftpWire.REALPATH, body, FileStep.RESOLVE, about));
    return SftpWire.pathOf(real, about);
  }

  @Override
  public byte[] readAll(RemotePath file, long limit) throws IOException {
    return opening.readAll(file, limit);
  }

  @Override
  public RemoteReader openToRead(RemotePath file) throws IOException {
    return new SftpOpenFile(OpenHandle.open(wire, file, SftpWire.OPEN_READ), file);
  }

  @Override
  public InputStream read(RemotePath file, long from, List<RemoteFiles> more) throws IOException {
    return opening.read(file, from, wires(more));
  }

  @Override
  public RemoteWriter create(RemotePath file, @Nullable Mode mode, List<RemoteFiles> more)
      throws IOException {
    return opening.create(file, mode, wires(more));
  }

  @Override
  public RemoteWriter continueFrom(RemotePath file, long from, List<RemoteFiles> more)
      throws IOException {
    return opening.continueFrom(file, from, wires(more));
  }

  @Override
  public RemoteWriter rewrite(RemotePath file) throws IOException {
    return opening.rewrite(file);
  }

  private static List<SftpWire> wires(List<RemoteFiles> more) {
    return more.stream().map(other -> ((SftpFiles) other).wire).toList();
  }

  @Override
  public WholeFile readWhole(RemotePath file, long limit) throws IOException {
    return whole.read(file, limit);
  }

  @Override
  public CreatedFile createAndLook(RemotePath file, Mode mode) throws IOException {
    return whole.create(file, mode);
  }

  @Override
  public @Nullable RemoteAttributes renameOver(RemotePath from, RemotePath to) throws IOException {
    return whole.renameOver(from, to);
  }

  @Override
  public void hardLink(RemotePath from, RemotePath to) throws IOException {
    extensions.hardLink(from, to);
  }

  @Override
  public boolean copiesByItself() {
    return extensions.copies();
  }

  @Override
  public void copyByItself(RemotePath from, RemotePath to, Mode mode) throws IOException {
    extensions.copy(from, to, mode);
  }

  @Override
  public RemoteBatch batch() {
    return batch;
  }

  @Override
  public boolean renamesOver() {
    return extensions.renamesOver();
  }

  private static List<RemoteFailure> refused(List<RemoteFailure> answers) {
    return answers.stream().filter(java.util.Objects::nonNull).toList();
  }

  @Override
  public List<RemoteAttributes> lookAll(List<RemotePath> paths) throws IOException {
    return batch.look(paths);
  }

  @Override
  public List<RemoteFailure> removeFiles(List<RemotePath> paths) throws IOException {
    return refused(batch.removeFiles(paths));
  }

  @Override
  public List<RemoteFailure> removeFolders(List<RemotePath> paths) throws IOException {
    return refused(batch.removeFolders(paths));
  }

  @Override
  public void rename(RemotePath from, RemotePath to) throws IOException {
    RequestBody body = SftpWire.body(from);
    body.putPath(to);
    cause.expectNew(to, wire.send(SftpWire.RENAME, body, FileStep.RENAME, to), this::ok);
    guard().moved();
  }

  private FolderGuard guard() {
    return wire.handles().guard();
  }

  private boolean ok(SftpWire.Sent sent) throws RemoteFailure {
    wire.expectOk(sent);
    return true;
  }

  @Override
  public void makeFolder(RemotePath folder, Mode mode) throws IOException {
    RequestBody body = SftpWire.body(folder);
    WireAttributes.putMode(body, mode);
    cause.expectNew(
        folder, wire.send(SftpWire.MKDIR, body, FileStep.MAKE_FOLDER, folder), this::ok);
    guard().made(folder, mode);
  }

  private void expectSet(SftpWire.Sent sent) throws RemoteFailure {
    try {
      wire.expectOk(sent);
    } catch (RemoteFailure e) {
      throw cause.of(e);
    }
  }

  @Override
  public void removeFile(RemotePath file) throws IOException {
    expectSet(wire.send(SftpWire.REMOVE, SftpWire.body(file), FileStep.REMOVE, file));
  }

  @Override
  public void removeFolder(RemotePath folder) throws IOException {
    expectSet(wire.send(SftpWire.RMDIR, SftpWire.body(folder), FileStep.REMOVE_FOLDER, folder));
    guard().moved();
  }

  @Override
  public void makeLink(RemotePath link, String wireTarget) throws IOException {
    RequestBody body = SftpWire.body();
    // OpenSSH takes the two names in the other order than the draft, and says so in its PROTOCOL.
    SftpWire.putName(body, wireTarget);
    body.putPath(link);
    cause.expectNew(link, wire.send(SftpWire.SYMLINK, body, FileStep.MAKE_LINK, link), this::ok);
  }

  @Override
  public void setMode(RemotePath path, Mode mode) throws IOException {
    RequestBody wanted = SftpWire.body();
    WireAttributes.putMode(wanted, mode);
    set(path, wanted, FileStep.SET_MODE);
    if (PathTrust.letsOthersWrite(mode)) {
      guard().givenAway(path);
    }
  }

  @Override
  public void setOwner(RemotePath path, int uid, int gid) throws IOException {
    RequestBody wanted = SftpWire.body();
    WireAttributes.putOwner(wanted, uid, gid);
    set(path, wanted, FileStep.SET_OWNER);
    guard().givenAway(path);
  }

  @Override
  public void setTimes(RemotePath path, long accessed, long modified) throws IOException {
    RequestBody wanted = SftpWire.body();
    WireAttributes.putTimes(wanted, accessed, modified);
    set(path, wanted, FileStep.SET_TIMES);
  }

  private void set(RemotePath path, RequestBody wanted, FileStep step) throws IOException {
    try {
      attributes.expect(attributes.send(path, wanted, step));
    } catch (RemoteFailure e) {
      throw cause.of(e);
    }
  }

  @Override
  public @Nullable DiskSpace space(RemotePath path) throws IOException {
    return extensions.space(path);
  }

  @Override
  public void close() {
    wire.close();
  }
}
