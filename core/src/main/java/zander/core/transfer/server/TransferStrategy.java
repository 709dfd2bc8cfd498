package zander.core.transfer.server;

import java.io.IOException;
import java.time.Duration;
import org.jspecify.annotations.Nullable;
import zander.core.connect.command.ServerTools;
import zander.core.phrase.CarrierPhrase;
import zander.core.phrase.Phrase;

/**
 * Chooses how files go to and from one server, by the line's delay, their sizes and what the server
 * has, and changes its mind when a way does not work. For any thread.
 */
public final class TransferStrategy {
  /** What a person may ask for instead of leaving it to Zander. */
  public enum Wish {
    BEST,
    /** Requests to the file service alone. */
    FILES
  }

  /** Fewer small files are quicker by requests than by starting a program for them. */
  private static final int WORTH_PACKING = 24;

  /** The same on a far line, where starting it costs some round trips more. */
  private static final int WORTH_PACKING_FAR = 200;

  /** From this size on, starting a program for one file pays. */
  private static final long WORTH_STREAMING = 4L << 20;

  /** From this delay on, what a server lets be under way on one channel limits the rate. */
  private static final Duration FAR = Duration.ofMillis(8);

  private static final long WORTH_LANES = 16L << 20;

  /** Bytes in a second that a server's windows should not keep a line from. */
  private static final long WANTED_RATE = 8L << 20;

  /** A window of less than this is one of a small system; OpenSSH's is 2 MiB. */
  private static final long SMALL_WINDOW = 256 * 1024;

  private static final int MOST_CHANNELS = 12;
  static final int LANES = 3;
  private static final int MOST_REFUSED = 8;

  private final ServerChannels line;
  private final Wish wish;
  private @Nullable ServerTools tools;
  private Duration delay = Duration.ZERO;
  private long window;
  private @Nullable CarrierPhrase changed;
  private int refused;
  private boolean compressed;

  TransferStrategy(ServerChannels line, Wish wish) {
    this.line = line;
    this.wish = wish;
  }

  private synchronized ServerTools tools() throws IOException {
    if (tools == null) {
      delay = line.delay();
      window = line.files().window();
      tools = wish == Wish.FILES ? ServerTools.NONE : line.tools();
    }
    return tools;
  }

  /**
   * @param open whether the program runs already, and only has to go on
   */
  public boolean packsUp(int count, boolean open) throws IOException {
    return tools().unpacks() && (open || count >= worthPacking());
  }

  public boolean packsDown(int count, boolean open) throws IOException {
    return tools().packs() && (open || count >= worthPacking());
  }

  public boolean streamsDown(long size) throws IOException {
    return size >= WORTH_STREAMING && tools().streams();
  }

  /** Near, a stream is quicker; far, several channels carry more than one stream. */
  public boolean streamsUp(long size) throws IOException {
    return size >= WORTH_STREAMING && tools().streams() && !isFar();
  }

  /** Channels beside the first for a file of this size. */
  public int lanesUp(long size) throws IOException {
    int channels = channelsUp();
    if (channels > 1) {
      return (int) Math.min(channels, size / (4 * window)) > 1
          ? (int) Math.min(channels, size / (4 * window)) - 1
          : 0;
    }
    return isFar() && size >= WORTH_LANES ? LANES : 0;
  }

  /**
   * How many channels small files and programs should go over, because what the server lets be
   * under way on one is little for the line's delay (24 KiB at dropbear: 160 KB/s at 150 ms).
   */
  public synchronized int channelsUp() throws IOException {
    tools();
    if (window >= SMALL_WINDOW || window <= 0) {
      return 1;
    }
    double needed = delay.toNanos() / 1e9 * WANTED_RATE / window;
    return (int) Math.max(1, Math.min(MOST_CHANNELS, Math.ceil(needed)));
  }

  public boolean holes() throws IOException {
    return tools().holes();
  }

  public boolean sums() throws IOException {
    return tools().sums();
  }

  private int worthPacking() {
    return isFar() ? WORTH_PACKING_FAR : WORTH_PACKING;
  }

  /** Whether what one channel lets be under way is less than the line would carry. */
  public synchronized boolean isFar() {
    return delay.compareTo(FAR) >= 0;
  }

  public boolean compresses() throws IOException {
    return tools().compresses();
  }

  /** Loads are compressed from now on, as long as they become smaller. */
  public synchronized void compressed() {
    compressed = true;
  }

  /** A program could not be started, or gave no good answer: that may pass, but not for ever. */
  public synchronized void noRoom() {
    if (++refused >= MOST_REFUSED) {
      giveUpPrograms(CarrierPhrase.PROGRAMS_UNUSABLE);
    }
  }

  /** A program on the server did not do what it should: requests are used from now on. */
  public synchronized void giveUpPrograms(CarrierPhrase why) {
    tools = ServerTools.NONE;
    changed = why;
  }

  /** How files go, and why; {@code null} while that is not known. */
  public synchronized @Nullable Phrase carrier() {
    if (tools == null) {
      return null;
    }
    long millis = delay.toMillis();
    Phrase line = millis < 1 ? CarrierPhrase.NEAR_LINE.of() : CarrierPhrase.LINE_OF.of(millis);
    if (changed != null) {
      return CarrierPhrase.BY_REQUESTS.of(changed);
    }
    if (tools.unpacks() || tools.packs()) {
      return CarrierPhrase.PACKED.of(
          compressed ? CarrierPhrase.SMALL_PACKED_COMPRESSED : CarrierPhrase.SMALL_PACKED,
          isFar() ? CarrierPhrase.LARGE_IN_CHANNELS : CarrierPhrase.LARGE_AS_STREAM,
          line);
    }
    return wish == Wish.FILES
        ? CarrierPhrase.MANY_REQUESTS.of(line)
        : CarrierPhrase.MANY_REQUESTS_WITHOUT_TAR.of(line);
  }
}
