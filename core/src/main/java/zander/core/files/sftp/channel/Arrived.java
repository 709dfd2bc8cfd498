package zander.core.files.sftp.channel;

import java.io.IOException;
import java.io.OutputStream;

/** A stream whose bytes are taken as they are written. */
final class Arrived extends OutputStream {
  /** Takes bytes that belong to the caller. */
  interface Taker {
    void take(byte[] data, int offset, int length) throws IOException;
  }

  private final Taker taker;

  Arrived(Taker taker) {
    this.taker = taker;
  }

  @Override
  public void write(int b) throws IOException {
    write(new byte[] {(byte) b}, 0, 1);
  }

  @Override
  public void write(byte[] data, int offset, int length) throws IOException {
    taker.take(data, offset, length);
  }
}
