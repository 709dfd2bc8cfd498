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
import java.util.Objects;
import java.util.concurrent.ThreadLocalRandom;
import java.util.stream.Stream;
import org.apache.commons.compress.archivers.tar.TarArchiveEntry;
import org.apache.commons.compress.archivers.tar.TarArchiveInputStream;
import org.apache.commons.compress.compressors.gzip.GzipCompressorInputStream;
import zander.core.connect.Pipe;
import zander.core.connect.ShellWords;
import zander.core.files.RemoteBatch;
import zander.core.files.WireName;
import zander.core.work.Cancellation;

/**
 * A {@code tar} of the server that is given the names of files, load by load, and writes what they
 * are. For several threads, each with a load of its own.
 *
 * <p>After the names of a load the folder itself is asked for, once, and then as often as there are
 * blocks in the record that the program keeps back until it is full; and then a name that is not
 * there, which ends the load in its error stream: the two streams are not in step.
 */
final class FetchProgram {
  private static final int BUFFER = 64 * 1024;

  /** Blocks of a record, as the program writes them without being told (tar manual, 9.4). */
  private static final int RECORD = 20;

  private static final String TAR =
      "tar -cf - --format=gnu --no-recursion --hard-dereference --null -T -";

  /** What is asked for at the end of a load, and what the program calls it. */
  private static final String ASK_END = "./.\0".repeat(RECORD + 1);

  private static final String END = "././";

  /** The same at the end of all that the server names itself. */
  private static final String ASK_LAST = "././.\0".repeat(RECORD + 1);

  private static final String LAST = "./././";
  private static final String EARLY = "early";

  final boolean compressed;

  /** Where nothing is named by the server, it is over from the beginning. */
  final EarlyFiles early;

  private final Pipe pipe;
  private final Squeeze squeeze;
  private final String mark;
  private final CountedStream out;

  /** {@code null} where each load is an archive of its own. */
  private final TarArchiveInputStream tar;

  private final Turns turns = new Turns();

  /** Of the ends of the load before, so many are still to come. */
  private int endsBefore;

  private FetchProgram(
      Pipe pipe, Squeeze squeeze, boolean compressed, EarlyFiles early, String mark) {
    this.pipe = pipe;
    this.squeeze = squeeze;
    this.compressed = compressed;
    this.early = early;
    this.mark = mark;
    this.out = new CountedStream(new BufferedInputStream(pipe.out(), BUFFER));
    this.tar = compressed ? null : archive(out);
    if (!early.isOver()) {
      turns.take();
    }
  }

  /** Starts one that writes what it is asked for, and before it what the server names itself. */
  static FetchProgram start(RemoteSide side, EarlyFiles early) throws IOException {
    String mark = mark();
    String script =
        early.isOver()
            ? "exec " + TAR
            : fed(early.script(ASK_END + endMark(mark, EARLY), ASK_LAST + endMark(mark, EARLY)));
    return start(side, script, false, early, mark);
  }

  /**
   * What some commands write, and then what comes, are the names for tar. Nothing but tar keeps the
   * output open, and nothing is waited for but tar, so that its end is seen whatever feeds it.
   */
  private static String fed(String commands) {
    return "{ exec 3>&1 4<&0 > /dev/null; { "
        + commands
        + "; exec cat; } <&4 3>&- 4<&- 2> /dev/null | "
        + TAR
        + " >&3 3>&- 4<&- & exec 3>&- 4<&-; wait $!; }";
  }

  /** Starts one that compresses what it writes. */
  static FetchProgram startCompressed(RemoteSide side) throws IOException {
    // Each load is a stream of its own to gzip, which would keep back the end of one that goes on.
    String script = "while read -r n; do head -c \"$n\" | " + TAR + " | gzip -1c || exit; done";
    return start(side, script, true, EarlyFiles.NONE, mark());
  }

  private static FetchProgram start(
      RemoteSide side, String script, boolean compressed, EarlyFiles early, String mark)
      throws IOException {
    Pipe pipe =
        side.line().commands().pipe("cd " + ShellWords.quote(side.base()) + " && " + script);
    return new FetchProgram(
        pipe, side.line().squeeze(Direction.BRING_DOWN), compressed, early, mark);
  }

  private static String mark() {
    return ".zander-end-" + Long.toHexString(ThreadLocalRandom.current().nextLong()) + "-";
  }

  private static String endMark(String mark, Object load) {
    return "./" + mark + load + "\0";
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

  /** Lets it come to its end if it has nothing to do, and ends it otherwise. */
  void end() {
    turns.endOf(pipe);
  }

  /** Ends it in the middle of what it does. */
  void close() {
    turns.end();
    pipe.close();
  }

  boolean couldNotRun() {
    return couldNotRun(pipe);
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

  /**
   * Reads a load: gives each its content, as far as it comes.
   *
   * @return what the program complained of meanwhile; empty when all is well
   */
  String read(List<Parcel> load, Cancellation stop) throws IOException {
    long turn = name(load, stop);
    early.readAll(this, stop);
    if (early.isGivenUp()) {
      throw new IOException("ended, because the line is slow");
    }
    turns.await(turn);
    String complaints = counted(Long.toString(turn), () -> readLoad(load));
    sample(load.stream().map(parcel -> parcel.content).filter(Objects::nonNull));
    turns.done();
    return complaints;
  }

  private long name(List<Parcel> load, Cancellation stop) throws IOException {
    StringBuilder names = new StringBuilder();
    for (Parcel parcel : load) {
      names.append("./").append(parcel.item.from()).append('\0');
    }
    synchronized (this) {
      stop.throwIfStopped();
      long turn = turns.take();
      names.append(compressed ? "" : ASK_END).append(endMark(mark, turn));
      String before = compressed ? names.length() + "\n" : "";
      pipe.in().write(WireName.bytes(before + names));
      pipe.in().flush();
      return turn;
    }
  }

  private void sample(Stream<byte[]> contents) {
    contents.filter(content -> content.length > 0).findFirst().ifPresent(squeeze::sample);
  }

  private interface Reading {
    void run() throws IOException;
  }

  /**
   * What the line takes for a load is the time until its last word, which may come on the other of
   * the two streams.
   */
  private String counted(String load, Reading reading) throws IOException {
    long before = out.count;
    squeeze.begins();
    try {
      reading.run();
      return pipe.errorsUntil(mark + load);
    } finally {
      squeeze.ends(out.count - before);
    }
  }

  private void readLoad(List<Parcel> load) throws IOException {
    Map<String, Parcel> byName = new HashMap<>();
    load.forEach(parcel -> byName.put("./" + parcel.item.from(), parcel));
    if (compressed) {
      readCompressed(byName);
    } else {
      readToEnd((name, content, modified) -> give(byName.get(name), content, modified));
    }
  }

  /** Only what was asked for: a server may lie. */
  private static void give(Parcel parcel, byte[] content, long modified) {
    if (parcel != null) {
      parcel.read(content, modified);
    }
  }

  private void readCompressed(Map<String, Parcel> byName) throws IOException {
    // One member of RFC 1952; what comes after it is the next load's.
    GzipCompressorInputStream one = new GzipCompressorInputStream(out, false);
    TarArchiveInputStream archive = archive(one);
    for (TarArchiveEntry entry; (entry = archive.getNextEntry()) != null; ) {
      take(archive, entry, (name, content, at) -> give(byName.get(name), content, at));
    }
    one.transferTo(OutputStream.nullOutputStream());
  }

  /** A file as it came. */
  interface Came {
    /**
     * @param name as it was named to the program
     * @param modified seconds since 1970-01-01 UTC
     */
    void file(String name, byte[] content, long modified);
  }

  /** Returns the name of the end. */
  private String readToEnd(Came came) throws IOException {
    while (true) {
      TarArchiveEntry entry = tar.getNextEntry();
      if (entry == null) {
        throw new EOFException("tar ended");
      }
      String name = entry.getName();
      if (!name.equals(END) && !name.equals(LAST)) {
        take(tar, entry, came);
      } else if (endsBefore == 0) {
        endsBefore = RECORD;
        return name;
      } else {
        endsBefore--;
      }
    }
  }

  /** Plain files alone, whatever the server sends. */
  private static void take(TarArchiveInputStream tar, TarArchiveEntry entry, Came came)
      throws IOException {
    if (entry.isFile()
        && !entry.isLink()
        && !entry.isSymbolicLink()
        && entry.getSize() <= RemoteBatch.LARGEST) {
      byte[] content = tar.readNBytes((int) entry.getSize());
      if (content.length == entry.getSize()) {
        came.file(entry.getName(), content, entry.getModTime().getTime() / 1000);
      }
    }
  }

  /** Some of the files that the server named itself, for one thread at a time. */
  record EarlyPart(String complaints, boolean last) {}

  EarlyPart readEarly(Came came) throws IOException {
    String[] end = {null};
    List<byte[]> contents = new ArrayList<>();
    String complaints =
        counted(
            EARLY,
            () ->
                end[0] =
                    readToEnd(
                        (name, content, modified) -> {
                          contents.add(content);
                          came.file(name, content, modified);
                        }));
    sample(contents.stream());
    boolean last = LAST.equals(end[0]);
    if (last) {
      turns.done();
    }
    return new EarlyPart(complaints, last);
  }
}
