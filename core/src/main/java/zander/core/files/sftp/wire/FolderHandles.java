package zander.core.files.sftp.wire;

import java.io.IOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.Iterator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.TimeUnit;
import org.apache.sshd.common.util.buffer.Buffer;
import org.jspecify.annotations.Nullable;
import zander.core.files.FileKind;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFailure.Reason;
import zander.core.files.RemotePath;
import zander.core.files.WireName;
import zander.core.files.sftp.channel.SftpChannel;
import zander.core.files.sftp.wire.FolderGuard.Place;
import zander.core.files.sftp.wire.HandleOpening.Opened;
import zander.core.phrase.FilePhrase;
import zander.core.phrase.FileStep;
import zander.core.phrase.Phrase;

/**
 * Names for entries that nobody can turn: below the open handle of their folder. SFTP version 3 has
 * no requests relative to a handle; but a folder that the service has open is there as {@code
 * /proc/self/fd/N} ({@code proc(5)}), and a name below that is looked up in this very folder,
 * wherever its path leads by now. That it is the folder that was meant, its true path says when it
 * is opened.
 *
 * <p>For the folders of one channel in which another account can turn a path ({@link FolderGuard});
 * all others are named by their paths. Opening one takes a round trip. Safe for several threads.
 */
public final class FolderHandles {
  public static final String HANDLES = "/proc/self/fd/";

  /** OpenSSH keeps a thousand handles open; small files take up to 640 at once. */
  private static final int MOST = 128;

  /** How long a folder is taken to be at its path still, when nothing of ours moved it. */
  private static final long FRESH_NANOS = TimeUnit.SECONDS.toNanos(1);

  private static final class Held {
    final Opened opened;
    final RemotePath real;
    long moves;
    long seen;

    Held(Opened opened, RemotePath real) {
      this.opened = opened;
      this.real = real;
    }
  }

  /** Sends a request by the names it got; what comes later is sent later. */
  public interface Sender {
    int send(Buffer placed) throws IOException;
  }

  private final SftpWire wire;
  private final SftpChannel channel;
  private final FolderGuard guard;

  /** The one that was used longest ago first. */
  private final Map<RemotePath, Held> held = new LinkedHashMap<>(16, 0.75f, true);

  /** To be closed when no request waits that may have been named by them. */
  private final List<Opened> unused = new ArrayList<>();

  private final Object opening = new Object();

  public FolderHandles(SftpWire wire, SftpChannel channel, FolderGuard guard) {
    this.wire = wire;
    this.channel = channel;
    this.guard = guard;
  }

  public FolderGuard guard() {
    return guard;
  }

  /** Whether others can turn an entry; asks where that is not known. */
  public boolean isOpen(RemotePath entry) throws RemoteFailure {
    if (entry.isRoot()) {
      return false;
    }
    Place place = guard.known(entry.parent());
    if (place != null || guard.isOff()) {
      return place != null && place.open();
    }
    try {
      return channel.apart(() -> guard.isActive(wire) && guard.place(wire, entry.parent()).open());
    } catch (RemoteFailure e) {
      throw e;
    } catch (IOException e) {
      throw new RemoteFailure(Reason.LINE_LOST, FileStep.LOOK_AT, entry, Phrase.of(e), e);
    }
  }

  /** The same for a request that changes nothing, without asking. */
  public boolean isKnownOpen(RemotePath entry) {
    if (wire.isByScripts()) {
      return false;
    }
    Place place = guard.known(entry.parent());
    return place != null && place.open();
  }

  /** Where the folder of an entry truly is. */
  public RemotePath real(RemotePath entry) throws RemoteFailure {
    return guard.place(wire, entry.parent()).real().child(entry.wireName());
  }

  /**
   * Sends a request with the names that nobody can turn.
   *
   * @param changes whether it changes something, or opens a file
   */
  public int send(RequestBody body, boolean changes, Sender sender) throws IOException {
    if (!needsHandles(body, changes)) {
      return sender.send(body);
    }
    // Decided once: what is known of a folder may be forgotten at any moment.
    Set<RemotePath> open = new HashSet<>();
    for (RemotePath path : body.paths()) {
      if (isOpen(path)) {
        open.add(path);
      }
    }
    while (true) {
      for (RemotePath path : open) {
        hold(path.parent());
      }
      // Between the name and the request nothing may close the handle.
      synchronized (held) {
        Map<RemotePath, String> names = new HashMap<>();
        for (RemotePath path : body.paths()) {
          names.put(path, open.contains(path) ? nameOf(path) : path.wire());
        }
        if (!names.containsValue(null)) {
          return sender.send(body.with(names::get));
        }
      }
    }
  }

  private boolean needsHandles(RequestBody body, boolean changes) throws RemoteFailure {
    for (RemotePath path : body.paths()) {
      if (changes ? isOpen(path) : isKnownOpen(path)) {
        return true;
      }
    }
    return false;
  }

  /** {@code null} when its folder is not held any more. */
  private @Nullable String nameOf(RemotePath path) {
    Held folder = held.get(path.parent());
    return folder == null ? null : folder.opened.name() + "/" + path.wireName();
  }

  /** Opens a folder, and makes sure that it is where it was meant to be. */
  private void hold(RemotePath folder) throws IOException {
    if (wire.isByScripts()) {
      throw new RemoteFailure(
          Reason.NOT_SUPPORTED,
          FileStep.OPEN_FOLDER,
          folder,
          FilePhrase.NO_SAFE_FILE_SERVICE.of(),
          null);
    }
    Held old;
    synchronized (held) {
      old = held.get(folder);
    }
    if (old != null && isFresh(old)) {
      return;
    }
    channel.apart(
        () -> {
          synchronized (opening) {
            reopen(folder);
          }
          return true;
        });
  }

  private boolean isFresh(Held one) {
    return one.moves == guard.moves() && System.nanoTime() - one.seen < FRESH_NANOS;
  }

  private void reopen(RemotePath folder) throws IOException {
    Held old;
    synchronized (held) {
      old = held.get(folder);
    }
    long moves = guard.moves();
    if (old != null && (isFresh(old) || isStillThere(old))) {
      old.moves = moves;
      old.seen = System.nanoTime();
      return;
    }
    RemotePath real = guard.place(wire, folder).real();
    RequestBody body = SftpWire.body();
    SftpWire.putName(body, real.wire());
    Opened opened = HandleOpening.open(wire, SftpWire.OPENDIR, body, FileStep.OPEN_FOLDER, folder);
    if (!opened.path().equals(real.wire())) {
      if (!isHarmless(real, opened)) {
        opened.close(wire);
        throw turned(FileStep.OPEN_FOLDER, folder, opened.path());
      }
      real = RemotePath.ofWire(opened.path());
      guard.leads(folder, real);
    }
    Held one = new Held(opened, real);
    one.moves = moves;
    one.seen = System.nanoTime();
    synchronized (held) {
      Held before = held.put(folder, one);
      if (before != null) {
        unused.add(before.opened);
      }
      closeUnused();
    }
  }

  /** Whether the path goes through a link that may be followed all the same. */
  private boolean isHarmless(RemotePath path, Opened opened) throws RemoteFailure {
    RequestBody body = SftpWire.body();
    SftpWire.putName(body, opened.name() + "/.");
    SftpWire.Sent asked = wire.sendAsIs(SftpWire.LSTAT, body, FileStep.LOOK_AT, path);
    RemoteAttributes target = Answers.take(asked, wire::expectAttributes, refused -> null);
    return isHarmless(path, opened, target);
  }

  /** The same for a file that a link at the end of the path leads to. */
  private boolean isFileHarmless(RemotePath file, Opened opened) throws RemoteFailure {
    RequestBody body = SftpWire.body();
    body.putBytes(opened.handle());
    SftpWire.Sent asked = wire.sendAsIs(SftpWire.FSTAT, body, FileStep.LOOK_AT, file);
    RemoteAttributes target = Answers.take(asked, wire::expectAttributes, refused -> null);
    return target != null && target.kind() == FileKind.FILE && isHarmless(file, opened, target);
  }

  private boolean isHarmless(RemotePath path, Opened opened, @Nullable RemoteAttributes target)
      throws RemoteFailure {
    // What is open need not have a path: a pipe has none.
    return opened.path().startsWith("/")
        && guard.isLinkHarmless(wire, path, RemotePath.ofWire(opened.path()), target);
  }

  private boolean isStillThere(Held one) throws RemoteFailure {
    RequestBody body = SftpWire.body();
    SftpWire.putName(body, one.opened.name());
    SftpWire.Sent asked = wire.sendAsIs(SftpWire.READLINK, body, FileStep.LOOK_AT, one.real);
    return one.real.wire().equals(Answers.takeOr(asked, wire::expectName, ""));
  }

  /**
   * Closes what is not used any more, and the oldest of many. Not while requests are kept back:
   * they are named already, and would meet another folder under the number.
   */
  private void closeUnused() throws RemoteFailure {
    Iterator<Held> oldest = held.values().iterator();
    while (held.size() > MOST) {
      unused.add(oldest.next().opened);
      oldest.remove();
    }
    if (!channel.isKeepingBack()) {
      for (Opened one : unused) {
        one.close(wire);
      }
      unused.clear();
    } else if (unused.size() > MOST) {
      throw new RemoteFailure(
          Reason.FAILED, FileStep.OPEN_FOLDER, null, FilePhrase.TOO_MANY_FOLDERS_OPEN.of(), null);
    }
  }

  /** Opens a file that is there, and makes sure that no link led elsewhere. */
  public byte[] openFile(RequestBody rest, RemotePath file) throws IOException {
    RemotePath real = real(file);
    while (true) {
      hold(file.parent());
      RequestBody body = SftpWire.body();
      synchronized (held) {
        String name = nameOf(file);
        if (name == null) {
          continue;
        }
        SftpWire.putName(body, name);
      }
      // Its folder may be closed by another thread in between: then it does not open, or elsewhere.
      body.append(rest);
      Opened opened = HandleOpening.open(wire, SftpWire.OPEN, body, FileStep.OPEN, file);
      if (opened.path().equals(real.wire()) || isFileHarmless(file, opened)) {
        return opened.handle();
      }
      opened.close(wire);
      throw turned(FileStep.OPEN, file, opened.path());
    }
  }

  /** Sets attributes of the very folder that is open: the name of its handle leads to it. */
  public SftpWire.Sent setFolder(RemotePath folder, RequestBody wanted, FileStep step)
      throws IOException {
    while (true) {
      hold(folder);
      synchronized (held) {
        Held one = held.get(folder);
        if (one != null) {
          RequestBody body = SftpWire.body();
          SftpWire.putName(body, one.opened.name());
          body.append(wanted);
          return wire.sendAsIs(SftpWire.SETSTAT, body, step, folder);
        }
      }
    }
  }

  public static RemoteFailure turned(FileStep step, RemotePath path, String leads) {
    return new RemoteFailure(Reason.LEADS_ELSEWHERE, step, path, WireName.toText(leads), null);
  }
}
