package zander.desk.transfer;

/** How fast a transfer goes, smoothed over some seconds so that the time left does not jump. */
final class TransferRate {
  private static final double KEEP = 0.9;

  private long lastTime;
  private long lastBytes;
  private double bytesPerSecond = -1;

  void add(long nanoTime, long bytes) {
    if (lastTime != 0 && nanoTime > lastTime) {
      double now = Math.max(0, bytes - lastBytes) * 1e9 / (nanoTime - lastTime);
      bytesPerSecond = bytesPerSecond < 0 ? now : KEEP * bytesPerSecond + (1 - KEEP) * now;
    }
    lastTime = nanoTime;
    lastBytes = bytes;
  }

  /** Seconds for so many bytes, or -1 while the pace is not known. */
  long secondsFor(long bytes) {
    return bytesPerSecond < 1 ? -1 : (long) Math.ceil(bytes / bytesPerSecond);
  }

  /** The pace now; less than 1 while nothing moves or it is not known. */
  double bytesPerSecond() {
    return bytesPerSecond;
  }
}
