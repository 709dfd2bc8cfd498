package zander.core.crossing;

import java.io.BufferedInputStream;
import java.io.EOFException;
import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CancellationException;
import java.util.concurrent.ThreadLocalRandom;
import java.util.function.Consumer;
import org.apache.commons.compress.archivers.tar.TarArchiveEntry;
import org.apache.commons.compress.archivers.tar.TarArchiveInputStream;
import org.apache.commons.compress.compressors.gzip.GzipCompressorInputStream;
import zander.core.connect.Pipe;
import zander.core.connect.ShellWords;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteBatch;
import zander.core.files.RemoteFailure;
import zander.core.files.RemotePath;
import zander.core.files.WireName;
import zander.core.work.Cancellation;

/**
 * Reads the files of loads by one stream out of the server's {@code tar}, which stays open for the
 * whole crossing and is given exactly their names as they come. What it cannot read, or what
 * changed while it read, is left to requests.
 *
 * <p>After the names of a load the folder itself is asked for, once, and then as often as there are
 * blocks in the record that the program keeps back until it is full; and then a name that is not
 * there, which ends the load in its error stream: the two streams are not in step.
 */
final class PackedFetch {
  private static final int BUFFER = 64 * 1024;

  /** Blocks of a record, as the program writes them without being told (tar manual, 9.4). */
  private static final int RECORD = 20;

  private static final String ASK_END = "./.\0".repeat(RECORD + 1);
  private static final String END = "././";

  private final RemoteSide side;
  private final Squeeze squeeze;

  /** One that writes as it is, and one that compresses what it writes. */
  private final Kept[] kept = new Kept[2];

  PackedFetch(RemoteSide side) {
    this.side = side;
    this.squeeze = side.line().squeeze(Direction.BRING_DOWN);
  }

  /** A program, and whose turn it is to name files to it and to read them. */
  private static final class Kept {
    final boolean compressed;
    final Pipe pipe;
    final CountedStream out;

    /** {@code null} where each load is an archive of its own. */
    final TarArchiveInputStream tar;

    final Turns turns = new Turns();
    final String mark =
        ".zander-end-" + Long.toHexString(ThreadLocalRandom.current().nextLong()) + "-";

    /** Of the ends of the load before, so many are still to come. */
    int endsBefore;

    Kept(Pipe pipe, boolean compressed) {
      this.compressed = compressed;
      this.pipe = pipe;
      this.out = new CountedStream(new BufferedInputStream(pipe.out(), BUFFER));
      this.tar = compressed ? null : archive(out);
    }

    void close() {
      turns.end();
      pipe.close();
    }
  }

  private static TarArchiveInputStream archive(InputStream in) {
    return new TarArchiveInputStream(in, StandardCharsets.ISO_8859_1.name());
  }

  /** Counts what is read. For one thread at a time. */
  private static final class CountedStream extends FilterInputStream {
    volatile long count;

    CountedStream(InputStream in) {
      super(in);
    }

    @Override
    public int read() throws IOException {
      int b = super.read();
      count += b < 0 ? 0 : 1;
      return b;
    }

    @Override
    public int read(byte[] into, int offset, int length) throws IOException {
      int read = super.read(into, offset, length);
      count += Math.max(0, read);
      return read;
    }
  }

  /** Starts the program, so that it is there when the first load is. */
  void open() throws IOException {
    program(false);
  }

  private synchronized Kept program(boolean compressed) throws IOException {
    int which = compressed ? 1 : 0;
    if (kept[which] == null) {
      String tar = "tar -cf - --format=gnu --no-recursion --hard-dereference --null -T -";
      // Each load is a stream of its own to gzip, which would keep back the end of one that goes
      // on.
      String script =
          "cd "
              + ShellWords.quote(side.base())
              + " && "
              + (compressed
                  ? "while read -r n; do head -c \"$n\" | " + tar + " | gzip -1c || exit; done"
                  : "exec " + tar);
      kept[which] = new Kept(side.line().commands().pipe(script), compressed);
    }
    return kept[which];
  }

  synchronized boolean isOpen() {
    return kept[0] != null || kept[1] != null;
  }

  synchronized void close() {
    end(one -> one.turns.endOf(one.pipe));
  }

  /** Ends it in the middle of what it does. */
  synchronized void giveUp() {
    end(Kept::close);
  }

  private void end(Consumer<Kept> how) {
    for (int i = 0; i < kept.length; i++) {
      if (kept[i] != null) {
        how.accept(kept[i]);
        kept[i] = null;
      }
    }
  }

  /** Whether this is the first load to find it so. */
  private synchronized boolean broken(Kept stream) {
    stream.close();
    int which = stream.compressed ? 1 : 0;
    if (stream.compressed) {
      squeeze.cannot();
    }
    boolean first = kept[which] == stream;
    kept[which] = first ? null : kept[which];
    return first;
  }

  private boolean isToBeCompressed() throws IOException {
    boolean pays = side.carriers().compresses() && squeeze.pays();
    if (pays) {
      side.carriers().compressed();
    }
    return pays;
  }

  /** Gives what could be read its content; the others are returned. */
  List<Parcel> fetch(List<Parcel> load, Cancellation stop) throws IOException {
    Kept stream;
    try {
      stream = program(isToBeCompressed());
    } catch (RemoteFailure e) {
      throw e;
    } catch (IOException e) {
      side.carriers().noRoom();
      return load;
    }
    String complaints;
    try {
      long turn = name(stream, load, stop);
      stream.turns.await(turn);
      complaints = readCounted(stream, load, turn);
      stream.turns.done();
    } catch (CancellationException e) {
      throw e;
    } catch (IOException | RuntimeException e) {
      // What it writes is no archive, or it ended early. It may write for ever: not waited for.
      boolean couldNotRun = e instanceof EOFException && couldNotRun(stream.pipe);
      boolean first = broken(stream);
      // A lost line says so here, and is no fault of tar.
      side.files().batch().look(List.of(side.base()));
      if (couldNotRun) {
        side.carriers().giveUpPrograms("its tar could not be run");
      } else if (first) {
        side.carriers().noRoom();
      }
      return checked(load);
    }
    return complaints.isEmpty() ? unread(load) : checked(load);
  }

  /** Of a program that ended: whether it never began. */
  static boolean couldNotRun(Pipe ended) {
    try {
      int exit = ended.finish().exit();
      return exit == 126 || exit == 127;
    } catch (IOException e) {
      // Without a status the line went, which the next request will tell.
      return false;
    }
  }

  private static List<Parcel> unread(List<Parcel> load) {
    return load.stream().filter(parcel -> parcel.content == null).toList();
  }

  private List<Parcel> checked(List<Parcel> load) throws IOException {
    forgetChanged(load);
    return unread(load);
  }

  private static long name(Kept stream, List<Parcel> load, Cancellation stop) throws IOException {
    StringBuilder names = new StringBuilder();
    for (Parcel parcel : load) {
      names.append("./").append(parcel.item.from()).append('\0');
    }
    synchronized (stream) {
      stop.throwIfStopped();
      long turn = stream.turns.take();
      names
          .append(stream.compressed ? "" : ASK_END)
          .append("./")
          .append(stream.mark)
          .append(turn)
          .append('\0');
      String before = stream.compressed ? names.length() + "\n" : "";
      stream.pipe.in().write(WireName.bytes(before + names));
      stream.pipe.in().flush();
      return turn;
    }
  }

  /**
   * What the line takes for a load is the time until its last word, which may come on the other of
   * the two streams.
   *
   * @return complaints
   */
  private String readCounted(Kept stream, List<Parcel> load, long turn) throws IOException {
    String complaints;
    long before = stream.out.count;
    squeeze.begins();
    try {
      if (stream.compressed) {
        readCompressed(stream, load);
      } else {
        read(stream, load);
      }
      complaints = stream.pipe.errorsUntil(stream.mark + turn);
    } finally {
      squeeze.ends(stream.out.count - before);
    }
    load.stream()
        .filter(parcel -> parcel.content != null && parcel.content.length > 0)
        .findFirst()
        .ifPresent(parcel -> squeeze.sample(parcel.content));
    return complaints;
  }

  private static Map<String, Parcel> byName(List<Parcel> load) {
    Map<String, Parcel> byName = new HashMap<>();
    load.forEach(parcel -> byName.put("./" + parcel.item.from(), parcel));
    return byName;
  }

  private static void readCompressed(Kept stream, List<Parcel> load) throws IOException {
    Map<String, Parcel> byName = byName(load);
    // One member of RFC 1952; what comes after it is the next load's.
    GzipCompressorInputStream one = new GzipCompressorInputStream(stream.out, false);
    TarArchiveInputStream tar = archive(one);
    for (TarArchiveEntry entry; (entry = tar.getNextEntry()) != null; ) {
      take(tar, entry, byName.get(entry.getName()));
    }
    one.transferTo(OutputStream.nullOutputStream());
  }

  private static void read(Kept stream, List<Parcel> load) throws IOException {
    Map<String, Parcel> byName = byName(load);
    while (true) {
      TarArchiveEntry entry = stream.tar.getNextEntry();
      if (entry == null) {
        throw new EOFException("tar ended");
      }
      if (entry.getName().equals(END)) {
        if (stream.endsBefore == 0) {
          stream.endsBefore = RECORD;
          return;
        }
        stream.endsBefore--;
        continue;
      }
      take(stream.tar, entry, byName.get(entry.getName()));
    }
  }

  /** Only what was asked for, and only as a plain file: a server may lie. */
  private static void take(TarArchiveInputStream tar, TarArchiveEntry entry, Parcel parcel)
      throws IOException {
    if (parcel != null
        && entry.isFile()
        && !entry.isLink()
        && !entry.isSymbolicLink()
        && entry.getSize() <= RemoteBatch.LARGEST) {
      byte[] content = tar.readNBytes((int) entry.getSize());
      if (content.length == entry.getSize()) {
        parcel.read(content, entry.getModTime().getTime() / 1000);
      }
    }
  }

  /**
   * A file that was cut short while it was read is filled up with zeros, and told by the status.
   */
  private void forgetChanged(List<Parcel> load) throws IOException {
    List<Parcel> read = load.stream().filter(parcel -> parcel.content != null).toList();
    List<RemotePath> paths = new ArrayList<>();
    for (Parcel parcel : read) {
      paths.add(side.at(parcel.item.from()));
    }
    List<RemoteAttributes> now = side.files().batch().look(paths);
    for (int i = 0; i < read.size(); i++) {
      RemoteAttributes is = now.get(i);
      Parcel parcel = read.get(i);
      if (is == null || is.size() != parcel.content.length || is.modified() != parcel.modified) {
        parcel.content = null;
      }
    }
  }
}
