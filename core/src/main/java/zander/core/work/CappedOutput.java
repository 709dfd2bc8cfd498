package zander.core.work;

import java.io.ByteArrayOutputStream;
import java.io.OutputStream;

/** Keeps the beginning of what is written to it, and drops the rest. For any thread. */
public final class CappedOutput extends OutputStream {
  private final int most;
  private final ByteArrayOutputStream kept = new ByteArrayOutputStream();

  public CappedOutput(int most) {
    this.most = most;
  }

  @Override
  public void write(int b) {
    write(new byte[] {(byte) b}, 0, 1);
  }

  @Override
  public synchronized void write(byte[] bytes, int offset, int length) {
    kept.write(bytes, offset, Math.min(length, most - kept.size()));
  }

  public synchronized byte[] toByteArray() {
    return kept.toByteArray();
  }
}
