package zander.core.transfer.tar;

import java.io.BufferedInputStream;
import java.io.BufferedOutputStream;
import java.io.ByteArrayOutputStream;
import java.io.EOFException;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import zander.core.change.place.TemporaryName;
import zander.core.connect.command.Pipe;
import zander.core.connect.command.ShellWords;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteFailure;
import zander.core.files.ToolErrors;
import zander.core.files.WireName;
import zander.core.phrase.CarrierPhrase;
import zander.core.phrase.FileStep;
import zander.core.transfer.endpoint.Direction;
import zander.core.transfer.endpoint.TransferItem;
import zander.core.transfer.server.ArrivingFile;
import zander.core.transfer.server.CompressionPolicy;
import zander.core.transfer.server.RemoteContext;
import zander.core.work.Cancellation;

/**
 * Writes the temporary files of loads by one stream into the server's {@code tar}, which stays open
 * for the whole transfer: no round trip for a file, and none for starting a program for a load.
 *
 * <p>Each load is an archive of its own with an entry at its end that cannot be unpacked: the
 * beginning of a file "continued from another volume". The program makes nothing of it and says so
 * by its name, so when that is told the load is on the disk, and all complaints before it are about
 * the load. Names are not told one by one: each would be a packet of the line.
 */
public final class TarUpload {
  private static final int BUFFER = 64 * 1024;

  /** For a program that was found broken; most end at the end of their input. */
  private static final Duration TO_END = Duration.ofSeconds(3);

  /** What its complaints begin with (GNU coding standards, 4.4). */
  private static final String SAYS = "tar: ";

  private static final int LONGEST_LINE = 64 * 1024;

  /** Of what is said about one load; more is not about files any more. */
  private static final int MOST_SAID = 1 << 20;

  /** In seconds: some file systems count in twos (FAT). */
  private static final long COARSEST_TIME = 2;

  /** Enough of a load to see whether it can be made smaller. */
  private static final int SAMPLE = 32 * 1024;

  private final RemoteContext context;
  private final CompressionPolicy compression;

  /** One, and more where a server's window limits what is under way on each. */
  private final List<Kept> kept = new ArrayList<>();

  private final Object starting = new Object();

  public TarUpload(RemoteContext context) {
    this.context = context;
    this.compression = context.channels().compression(Direction.SEND_UP);
  }

  /** A program, and whose turn it is to write to it and to read what it says. */
  private static final class Kept {
    final boolean compressed;
    final Pipe pipe;
    final InputStream told;
    final ResponseOrder turns = new ResponseOrder();
    private final Object ending = new Object();
    private boolean over;

    Kept(Pipe pipe, boolean compressed) {
      this.compressed = compressed;
      this.pipe = pipe;
      this.told = new BufferedInputStream(pipe.out(), BUFFER);
    }

    void close() {
      turns.end();
      pipe.close();
    }

    /** The first does it, and the others wait for that. */
    void endWithin(Duration patience) {
      turns.end();
      synchronized (ending) {
        if (!over) {
          over = true;
          pipe.endWithin(patience);
        }
      }
    }
  }

  public synchronized boolean isOpen() {
    return !kept.isEmpty();
  }

  public synchronized void close() {
    kept.forEach(one -> one.turns.endOf(one.pipe));
    kept.clear();
  }

  /** Ends them in the middle of what they do. */
  public synchronized void giveUp() {
    kept.forEach(Kept::close);
    kept.clear();
  }

  /**
   * Owners are ours; modes as they are told, or as this account makes files: alike for a transfer.
   */
  private static String options(TransferItem like) {
    return "-xio"
        + (like.mode() == null ? "" : "p")
        + (like.modified() == TransferItem.OF_ARRIVAL ? "m" : "");
  }

  /** Starts a program more, so that it is there when the loads are. */
  public void open(TransferItem like) throws IOException {
    start(like, false);
  }

  private Kept start(TransferItem like, boolean compressed) throws IOException {
    // Each load is a stream of its own to gzip, which would keep back the end of one that goes on.
    // What feeds tar is not waited for (see TarDownloadProcess).
    String script =
        "cd "
            + ShellWords.quote(context.base())
            + " && "
            + (compressed
                ? "{ { while read -r n; do head -c \"$n\" | gzip -dc || exit; done; }"
                    + " <&4 4<&- 2> /dev/null & } 4<&0 | exec tar "
                : "exec tar ")
            + options(like)
            + "f - --warning=no-timestamp 2>&1";
    Kept made = new Kept(context.channels().commands().pipe(script), compressed);
    synchronized (this) {
      kept.add(made);
    }
    return made;
  }

  /** The one with the least to do. */
  private Kept free(TransferItem like, boolean compressed) throws IOException {
    Kept best = least(compressed);
    if (best != null && isEnough(best)) {
      return best;
    }
    synchronized (starting) {
      Kept started = least(compressed);
      return started != null && isEnough(started) ? started : start(like, compressed);
    }
  }

  /** Whether no other program should be started beside those that have something to do. */
  private boolean isEnough(Kept best) throws IOException {
    int most = context.strategy().channelsUp();
    synchronized (this) {
      return best.turns.waiting() == 0 || kept.size() >= most;
    }
  }

  private synchronized @Nullable Kept least(boolean compressed) {
    return kept.stream()
        .filter(one -> one.compressed == compressed)
        .min(Comparator.comparingLong(one -> one.turns.waiting()))
        .orElse(null);
  }

  /**
   * Waits until it has ended, so that it writes no more when what it left is taken away.
   *
   * @return whether this is the first load to find it so
   */
  private boolean broken(Kept stream) {
    boolean first;
    synchronized (this) {
      first = kept.remove(stream);
    }
    stream.endWithin(TO_END);
    return first;
  }

  /**
   * Gives each its failure, if it had one.
   *
   * @return false when the server's program did not do it; if it ran, their temporary names are
   *     spoilt
   */
  public boolean write(List<ArrivingFile> waiting, Cancellation stop) throws IOException {
    Kept stream;
    try {
      stream = free(waiting.get(0).smallFile.item, isToBeCompressed(waiting));
    } catch (RemoteFailure e) {
      throw e;
    } catch (IOException e) {
      context.strategy().noRoom();
      return false;
    }
    List<String> complaints;
    try {
      complaints = carry(stream, waiting, stop);
    } catch (IOException e) {
      // Others may be writing to it, whom only its end wakes: first that, then its status.
      boolean first = broken(stream);
      boolean couldNotRun =
          e instanceof EOFException && TarDownloadProcess.couldNotRun(stream.pipe);
      // By their names, which nothing else has; on a lost line this says so, and is no fault of
      // tar. It may still write some of them after that.
      for (ArrivingFile one : waiting) {
        one.isSpoilt = true;
        context.leave(one.part);
      }
      context.files().batch().removeFiles(waiting.stream().map(one -> one.part).toList());
      if (couldNotRun) {
        context.strategy().giveUpPrograms(CarrierPhrase.TAR_UNUSABLE);
      } else if (first) {
        context.strategy().noRoom();
      }
      if (stream.compressed) {
        compression.cannot();
      }
      return false;
    }
    lookAt(waiting, complaints);
    return true;
  }

  private boolean isToBeCompressed(List<ArrivingFile> waiting) throws IOException {
    if (!context.strategy().compresses()) {
      return false;
    }
    ByteArrayOutputStream some = new ByteArrayOutputStream();
    for (ArrivingFile one : waiting) {
      if (some.size() < SAMPLE) {
        some.writeBytes(one.smallFile.content);
      }
    }
    compression.sample(some.toByteArray());
    boolean pays = compression.pays();
    if (pays) {
      context.strategy().compressed();
    }
    return pays;
  }

  /** Returns what the program complained of. */
  private List<String> carry(Kept stream, List<ArrivingFile> waiting, Cancellation stop)
      throws IOException {
    compression.begins();
    long bytes = 0;
    try {
      long turn;
      long sent = 0;
      synchronized (stream) {
        stop.throwIfStopped();
        turn = stream.turns.take();
        OutputStream out = new BufferedOutputStream(stream.pipe.in(), BUFFER);
        if (stream.compressed) {
          byte[] load = TarBatchWriter.compressed(waiting, end(turn));
          sent = load.length;
          out.write((load.length + "\n").getBytes(StandardCharsets.US_ASCII));
          out.write(load);
          out.flush();
        } else {
          sent = waiting.stream().mapToLong(one -> one.smallFile.bytes().length).sum();
          TarBatchWriter.write(waiting, end(turn), out);
        }
      }
      List<String> complaints = complaints(stream, turn);
      bytes = sent;
      return complaints;
    } finally {
      compression.ends(bytes);
    }
  }

  private static String end(long turn) {
    return "zander-load-" + turn;
  }

  /** What the program said while it unpacked a load; waits for its end. */
  private static List<String> complaints(Kept stream, long turn) throws IOException {
    stream.turns.await(turn);
    List<String> complaints = new ArrayList<>();
    String end = SAYS + end(turn) + ": ";
    int said = 0;
    for (String line; !(line = line(stream.told)).startsWith(end); ) {
      said += line.length() + 1;
      if (!line.startsWith(SAYS) || said > MOST_SAID) {
        throw new IOException("tar says what it should not");
      }
      complaints.add(line);
    }
    stream.turns.done();
    return complaints;
  }

  private static String line(InputStream in) throws IOException {
    StringBuilder line = new StringBuilder();
    for (int b; (b = in.read()) != '\n'; line.append((char) b)) {
      if (b < 0) {
        throw new EOFException("tar ended");
      }
      if (line.length() > LONGEST_LINE) {
        throw new IOException("tar says too much");
      }
    }
    return line.toString();
  }

  /**
   * Not all was well: what is whole is told by its size and, where the program named it, by its
   * time, which it sets last. Times alone tell nothing: some file systems keep none that they are
   * given.
   */
  private void lookAt(List<ArrivingFile> waiting, List<String> complaints) throws IOException {
    if (complaints.isEmpty()) {
      return;
    }
    List<RemoteAttributes> found =
        context.files().batch().look(waiting.stream().map(one -> one.part).toList());
    for (int i = 0; i < waiting.size(); i++) {
      ArrivingFile one = waiting.get(i);
      RemoteAttributes is = found.get(i);
      String said = about(one, complaints);
      long time = said.isEmpty() ? -1 : one.smallFile.timeThere();
      if (!isWhole(is, one.smallFile.bytes().length, time)) {
        one.smallFile.failure = failure(one, said);
      }
    }
  }

  /**
   * Whether something is a file as it was sent.
   *
   * @param is what is there; {@code null} for nothing
   * @param time what it should have been given, in seconds; -1 for none
   */
  static boolean isWhole(RemoteAttributes is, long size, long time) {
    return is != null
        && is.size() == size
        && (time < 0 || Math.abs(is.modified() - time) <= COARSEST_TIME);
  }

  /** By the mark in its temporary name, because other letters may be told in another form. */
  private static String about(ArrivingFile one, List<String> complaints) {
    String mark = one.partPath.substring(one.partPath.lastIndexOf(TemporaryName.MARK));
    return complaints.stream()
        .filter(line -> line.contains(mark + ":") || line.contains(mark + "'"))
        .collect(Collectors.joining("\n"));
  }

  private static RemoteFailure failure(ArrivingFile one, String said) {
    return new RemoteFailure(
        ToolErrors.reason(said), FileStep.CREATE, one.target, WireName.toText(said.strip()), null);
  }
}
