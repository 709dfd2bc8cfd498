package zander.core.files.sftp;

import java.io.IOException;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Deque;
import java.util.List;
import org.jspecify.annotations.Nullable;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteFailure;
import zander.core.files.RemotePath;
import zander.core.files.RemoteWriter;
import zander.core.files.sftp.wire.Answers;
import zander.core.files.sftp.wire.OpenHandle;
import zander.core.files.sftp.wire.RequestBody;
import zander.core.files.sftp.wire.SftpWire;
import zander.core.files.sftp.wire.WireAttributes;
import zander.core.phrase.FileStep;
import zander.core.rights.Mode;

/**
 * A file written front to back, with many WRITE requests under way on each of its lanes. Parts of
 * nothing but zeros are left out, so that a file with holes keeps them. For one thread.
 */
final class SftpWriter implements RemoteWriter {
  /** A request for each 32 KiB and its head would be one packet of the line and a bit. */
  private static final int PLAIN_CHUNK = 32 * 1024 - 512;

  private static final int LARGE_CHUNK = 255 * 1024;
  private static final int LEAST_CHUNK = 4 * 1024;

  /** As much as the system's {@code sshd} lets be under way on one channel, and some more. */
  private static final int MOST_UNDER_WAY = (9 << 20) / 4;

  private static final byte[] ZEROS = new byte[LARGE_CHUNK];
  static final String FSYNC = "fsync@openssh.com";

  private record Part(OpenHandle lane, SftpWire.Sent sent) {}

  private final FailureCause cause;
  private final RemotePath path;
  private final List<OpenHandle> lanes;
  private final OpenHandle first;
  private final int chunk;
  private final boolean fresh;
  private final Deque<Part> underWay = new ArrayDeque<>();
  private long at;
  private long written;
  private boolean closed;
  private boolean completed;

  /**
   * @param from where to go on; what is before it in the file stays
   * @param fresh whether nothing is there from that place on, so that zeros need not be written
   */
  SftpWriter(
      FailureCause cause, RemotePath path, List<OpenHandle> lanes, long from, boolean fresh) {
    this.cause = cause;
    this.path = path;
    this.lanes = lanes;
    this.first = lanes.get(0);
    int most = first.wire().offers("limits@openssh.com") ? LARGE_CHUNK : PLAIN_CHUNK;
    // More than fits into a small window would hold up the other lanes until it is through.
    this.chunk = (int) Math.max(LEAST_CHUNK, Math.min(most, first.wire().window() / 3));
    this.at = from;
    this.written = from;
    this.fresh = fresh;
  }

  @Override
  public void write(byte[] bytes, int offset, int length) throws IOException {
    for (int done = 0; done < length; ) {
      // Parts begin at whole multiples, so that lanes and holes do not depend on the caller's.
      int count = (int) Math.min(chunk - at % chunk, length - done);
      if (!isHole(bytes, offset + done, count)) {
        send(bytes, offset + done, count);
        written = at + count;
      }
      at += count;
      done += count;
    }
  }

  private boolean isHole(byte[] bytes, int offset, int count) {
    return fresh && count == chunk && Arrays.equals(bytes, offset, offset + count, ZEROS, 0, count);
  }

  private void send(byte[] bytes, int offset, int count) throws IOException {
    OpenHandle lane = lanes.get((int) (at / chunk % lanes.size()));
    RequestBody body = lane.body();
    body.putLong(at);
    underWay.addLast(
        new Part(
            lane,
            lane.wire()
                .sendData(SftpWire.WRITE, body, bytes, offset, count, FileStep.WRITE, path)));
    awaitDownTo(Math.max(2, MOST_UNDER_WAY / chunk) * lanes.size());
  }

  private void awaitDownTo(int count) throws IOException {
    while (underWay.size() > count) {
      Part part = underWay.removeFirst();
      try {
        part.lane().wire().expectOk(part.sent());
      } catch (RemoteFailure e) {
        throw cause.of(e);
      }
    }
  }

  @Override
  public long taken() {
    return underWay.isEmpty() ? at : Math.max(0, at - (long) underWay.size() * chunk);
  }

  @Override
  public void setOwner(int uid, int gid) throws IOException {
    RequestBody body = first.body();
    WireAttributes.putOwner(body, uid, gid);
    ask(body, FileStep.SET_OWNER);
  }

  @Override
  public void setMode(Mode mode) throws IOException {
    setModeAndTime(mode, -1);
  }

  @Override
  public void setModeAndTime(Mode mode, long modified) throws IOException {
    awaitDownTo(0);
    setLength();
    RequestBody body = first.body();
    WireAttributes.putModeAndTime(body, mode, modified);
    ask(body, FileStep.SET_MODE_AND_TIME);
  }

  @Override
  public void moveTo(long place) throws IOException {
    awaitDownTo(0);
    at = place;
    written = place;
  }

  @Override
  public void cutTo(long length) throws IOException {
    awaitDownTo(0);
    RequestBody body = first.body();
    WireAttributes.putSize(body, length);
    try {
      ask(body, FileStep.SET_LENGTH);
    } catch (RemoteFailure e) {
      throw cause.of(e);
    }
  }

  /** A file that ends in a hole needs its length told. */
  private void setLength() throws IOException {
    if (written < at) {
      cutTo(at);
      written = at;
    }
  }

  private void ask(RequestBody body, FileStep step) throws IOException {
    first.wire().expectOk(first.wire().send(SftpWire.FSETSTAT, body, step, path));
  }

  @Override
  public RemoteAttributes look() throws IOException {
    awaitDownTo(0);
    setLength();
    return first
        .wire()
        .expectAttributes(first.wire().send(SftpWire.FSTAT, first.body(), FileStep.LOOK_AT, path));
  }

  @Override
  public boolean finish() throws IOException {
    awaitDownTo(0);
    setLength();
    if (!first.wire().offers(FSYNC)) {
      return false;
    }
    try {
      first.wire().expectOk(first.wire().sendExtended(FSYNC, first.body(), FileStep.SYNC, path));
      return true;
    } catch (RemoteFailure e) {
      throw cause.of(e);
    }
  }

  @Override
  public Completed complete(Mode mode, @Nullable RemotePath other) throws IOException {
    if (written < at) {
      setLength();
    }
    SftpWire wire = first.wire();
    RequestBody wanted = first.body();
    WireAttributes.putMode(wanted, mode);
    List<SftpWire.Sent> done = new ArrayList<>();
    done.add(wire.send(SftpWire.FSETSTAT, wanted, FileStep.SET_MODE, path));
    if (wire.offers(FSYNC)) {
      done.add(wire.sendExtended(FSYNC, first.body(), FileStep.SYNC, path));
    }
    SftpWire.Sent look = wire.send(SftpWire.FSTAT, first.body(), FileStep.LOOK_AT, path);
    SftpWire.Sent elsewhere =
        other == null
            ? null
            : wire.send(SftpWire.STAT, SftpWire.body(other), FileStep.LOOK_AT, other);
    try {
      awaitDownTo(0);
    } catch (IOException e) {
      done.forEach(wire::forget);
      wire.forget(look);
      if (elsewhere != null) {
        wire.forget(elsewhere);
      }
      throw e;
    }
    RemoteFailure failure = null;
    for (SftpWire.Sent one : done) {
      RemoteFailure refused = Answers.take(one, sent -> ok(wire, sent), why -> why);
      failure = failure == null ? refused : failure;
    }
    RemoteAttributes is = wire.expectAttributes(look);
    RemoteAttributes there = elsewhere == null ? null : wire.expectAttributes(elsewhere);
    if (failure != null) {
      throw cause.of(failure);
    }
    completed = true;
    return new Completed(is, there);
  }

  private static @Nullable RemoteFailure ok(SftpWire wire, SftpWire.Sent sent)
      throws RemoteFailure {
    wire.expectOk(sent);
    return null;
  }

  @Override
  public void close() throws IOException {
    if (closed) {
      return;
    }
    closed = true;
    if (completed) {
      // All of it is taken, and on the disk: what closing answers changes nothing.
      for (OpenHandle lane : lanes) {
        lane.wire().forget(lane.wire().send(SftpWire.CLOSE, lane.body(), FileStep.CLOSE, path));
      }
      return;
    }
    IOException failure = null;
    try {
      awaitDownTo(0);
      setLength();
    } catch (IOException e) {
      failure = e;
    }
    for (Part left : underWay) {
      // Answers nobody takes would stay in the library's table for as long as the channel lives.
      Answers.take(left.sent(), sent -> takeAny(left.lane(), sent), refused -> false);
    }
    for (OpenHandle lane : lanes) {
      SftpWire.Sent close = lane.wire().send(SftpWire.CLOSE, lane.body(), FileStep.CLOSE, path);
      try {
        lane.wire().expectOk(close);
      } catch (IOException e) {
        failure = failure == null ? e : failure;
      }
    }
    if (failure != null) {
      throw failure;
    }
  }

  private static boolean takeAny(OpenHandle lane, SftpWire.Sent sent) throws RemoteFailure {
    lane.wire().expectOk(sent);
    return true;
  }
}
