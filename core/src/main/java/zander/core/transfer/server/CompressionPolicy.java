package zander.core.transfer.server;

import java.util.zip.Deflater;

/**
 * Whether loads are compressed on their way, one way of one line: when the line was found slow and
 * what is transferred becomes much smaller. For several threads.
 */
public final class CompressionPolicy {
  /** Quicker lines than this (bytes a second) are not worth the work at both ends. */
  private static final double SLOW = 6 << 20;

  /** What is not made smaller than this part of itself is left as it is. */
  private static final double SMALLER = 0.75;

  /** So long something must have been under way before the line's rate is believed. */
  private static final double EVIDENCE_SECONDS = 0.6;

  private static final int SAMPLE = 64 * 1024;

  /** What was found longer ago than this counts less and less. */
  private static final double LONG_AGO_SECONDS = 10;

  private int underWay;
  private long since;
  private double busySeconds;
  private long bytes;
  private double part = 1;
  private boolean cannot;

  /** Something goes onto the line. */
  public synchronized void begins() {
    if (underWay++ == 0) {
      since = System.nanoTime();
    }
  }

  /**
   * It is over.
   *
   * @param wire the bytes that went over the line for it
   */
  public synchronized void ends(long wire) {
    bytes += wire;
    if (--underWay == 0) {
      busySeconds += seconds();
      if (busySeconds > LONG_AGO_SECONDS) {
        busySeconds /= 2;
        bytes /= 2;
      }
    }
  }

  private double seconds() {
    return (System.nanoTime() - since) / 1e9;
  }

  /** What of some content is left when it is compressed, 0 to 1; remembered for what comes next. */
  public synchronized void sample(byte[] content) {
    Deflater deflater = new Deflater(Deflater.BEST_SPEED);
    try {
      int length = Math.min(content.length, SAMPLE);
      deflater.setInput(content, 0, length);
      deflater.finish();
      byte[] into = new byte[SAMPLE + 1024];
      part = length == 0 ? 1 : (double) deflater.deflate(into) / length;
    } finally {
      deflater.end();
    }
  }

  /** The other end cannot do it after all. */
  public synchronized void cannot() {
    cannot = true;
  }

  /** Whether what comes next, alike to the last sample, is to be compressed. */
  public synchronized boolean pays() {
    double busy = busySeconds + (underWay > 0 ? seconds() : 0);
    return !cannot && busy > EVIDENCE_SECONDS && bytes / busy < SLOW && part < SMALLER;
  }
}
