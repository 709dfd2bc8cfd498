package zander.core.files.sftp;

import java.io.IOException;
import java.io.InputStream;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.List;
import org.jspecify.annotations.Nullable;
import zander.core.files.RemotePath;
import zander.core.files.sftp.wire.Answers;
import zander.core.files.sftp.wire.OpenHandle;
import zander.core.files.sftp.wire.RequestBody;
import zander.core.files.sftp.wire.SftpWire;
import zander.core.phrase.FileStep;

/** A file read front to back, with several READ requests under way on each lane. For one thread. */
final class SftpReader extends InputStream {
  private static final int MOST_UNDER_WAY = 48;
  private static final SftpWire.Data NOTHING = new SftpWire.Data(new byte[0], 0, 0);

  private record Part(OpenHandle lane, SftpWire.Sent sent, long at, int length) {}

  private final RemotePath path;
  private final List<OpenHandle> lanes;
  private final int chunk;
  private final Deque<Part> underWay = new ArrayDeque<>();
  private long nextAt;
  private int nextLane;

  /** Two at first, so that the end of a small file is known with its content. */
  private int allowed = 2;

  private SftpWire.Data part = NOTHING;

  /** {@code null} when the part's memory was given back. */
  private @Nullable OpenHandle partFrom;

  private int taken;
  private boolean ended;
  private boolean closed;

  SftpReader(RemotePath path, List<OpenHandle> lanes, int chunk, long from) {
    this.path = path;
    this.lanes = lanes;
    this.chunk = chunk;
    this.nextAt = from;
  }

  @Override
  public int read() throws IOException {
    byte[] one = new byte[1];
    return read(one, 0, 1) < 0 ? -1 : one[0] & 0xff;
  }

  @Override
  public int read(byte[] into, int offset, int length) throws IOException {
    if (length == 0) {
      return 0;
    }
    if (taken == part.length() && !fill()) {
      return -1;
    }
    int count = Math.min(length, part.length() - taken);
    System.arraycopy(part.bytes(), part.offset() + taken, into, offset, count);
    taken += count;
    return count;
  }

  /** Gets the next part in order. Starts with two requests and asks further ahead as data comes. */
  private boolean fill() throws IOException {
    if (partFrom != null) {
      partFrom.wire().recycle(part);
      partFrom = null;
      part = NOTHING;
      taken = 0;
    }
    while (!ended) {
      while (underWay.size() < allowed) {
        underWay.addLast(request(lanes.get(nextLane), nextAt, chunk));
        nextLane = (nextLane + 1) % lanes.size();
        nextAt += chunk;
      }
      Part first = underWay.removeFirst();
      SftpWire.Data data = first.lane().wire().expectData(first.sent());
      if (data == null || data.length() == 0) {
        ended = true;
        break;
      }
      allowed = Math.min(MOST_UNDER_WAY * lanes.size(), allowed * 2);
      if (data.length() < first.length()) {
        // A server may answer with less than was asked; the rest is asked again, in order.
        underWay.addFirst(
            request(first.lane(), first.at() + data.length(), first.length() - data.length()));
      }
      part = data;
      partFrom = first.lane();
      taken = 0;
      return true;
    }
    return false;
  }

  private Part request(OpenHandle lane, long at, int length) throws IOException {
    RequestBody body = lane.body();
    body.putLong(at);
    body.putInt(length);
    return new Part(lane, lane.wire().send(SftpWire.READ, body, FileStep.READ, path), at, length);
  }

  @Override
  public void close() throws IOException {
    if (closed) {
      return;
    }
    closed = true;
    // Answers nobody takes would stay in the library's table for as long as the channel lives.
    for (Part left : underWay) {
      Answers.take(left.sent(), left.lane().wire()::expectData, refused -> null);
    }
    for (OpenHandle lane : lanes) {
      lane.wire().expectOk(lane.wire().send(SftpWire.CLOSE, lane.body(), FileStep.CLOSE, path));
    }
  }
}
