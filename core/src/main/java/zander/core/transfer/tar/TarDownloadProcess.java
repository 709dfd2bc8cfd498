package zander.core.transfer.tar;

import java.io.IOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.concurrent.ThreadLocalRandom;
import java.util.stream.Stream;
import zander.core.connect.command.Pipe;
import zander.core.connect.command.ShellWords;
import zander.core.files.WireName;
import zander.core.transfer.endpoint.Direction;
import zander.core.transfer.endpoint.SmallFile;
import zander.core.transfer.server.CompressionPolicy;
import zander.core.transfer.server.RemoteContext;
import zander.core.work.Cancellation;

/**
 * A {@code tar} of the server that is given the names of files, load by load, and writes what they
 * are. For several threads, each with a load of its own.
 *
 * <p>After the names of a load comes what ends it in the output ({@link TarStreamReader}), and then
 * a name that is not there, which ends it in the error stream: the two streams are not in step.
 * Compressed, each load is an archive of its own, and the shell writes the second.
 */
final class TarDownloadProcess {
  private static final String TAR =
      "tar -cf - --format=gnu --no-recursion --hard-dereference --null -T -";

  private static final String EARLY = "early";

  final boolean compressed;

  /** Where nothing is named by the server, it is over from the beginning. */
  final EagerFiles early;

  private final Pipe pipe;
  private final CompressionPolicy compression;
  private final String mark;
  private final TarStreamReader files;
  private final ResponseOrder turns = new ResponseOrder();

  private TarDownloadProcess(
      Pipe pipe, CompressionPolicy compression, boolean compressed, EagerFiles early, String mark)
      throws IOException {
    this.pipe = pipe;
    this.compression = compression;
    this.compressed = compressed;
    this.early = early;
    this.mark = mark;
    this.files = new TarStreamReader(pipe.out(), compressed);
    if (!early.isOver()) {
      turns.take();
    }
  }

  /** Starts one that writes what it is asked for, and before it what the server names itself. */
  static TarDownloadProcess start(RemoteContext context, EagerFiles early) throws IOException {
    String mark = mark();
    String script =
        early.isOver()
            ? "exec " + TAR
            : fed(
                early.script(
                    TarStreamReader.ASK_END + endMark(mark, EARLY),
                    TarStreamReader.ASK_LAST + endMark(mark, EARLY)));
    return start(context, script, false, early, mark);
  }

  /**
   * What some commands write, and then what comes, are the names for tar. The shell waits for all
   * of a pipeline: what feeds tar is begun by a part of it that ends, so that tar's end is seen.
   */
  private static String fed(String commands) {
    return "{ { " + commands + "; exec cat; } <&4 4<&- 2> /dev/null & } 4<&0 | exec " + TAR;
  }

  /** Starts one that compresses what it writes. */
  static TarDownloadProcess startCompressed(RemoteContext context) throws IOException {
    // Each load is a stream of its own to gzip, which would keep back the end of one that goes on,
    // and has a tar of its own, whose end is told whatever it was.
    String mark = mark();
    String script =
        "{ i=0; while read -r n; do head -c \"$n\" | { "
            + TAR
            + "; s=$?; [ $s -le 2 ] || echo \"tar: $s\" >&2; echo "
            + mark
            + "$i >&2; } | gzip -1c || exit; i=$((i+1)); done; }";
    return start(context, script, true, EagerFiles.NONE, mark);
  }

  private static TarDownloadProcess start(
      RemoteContext context, String script, boolean compressed, EagerFiles early, String mark)
      throws IOException {
    Pipe pipe =
        context
            .channels()
            .commands()
            .pipe("cd " + ShellWords.quote(context.base()) + " && " + script);
    return new TarDownloadProcess(
        pipe, context.channels().compression(Direction.BRING_DOWN), compressed, early, mark);
  }

  private static String mark() {
    return ".zander-end-" + Long.toHexString(ThreadLocalRandom.current().nextLong()) + "-";
  }

  private static String endMark(String mark, Object load) {
    return "./" + mark + load + "\0";
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
  String read(List<SmallFile> load, Cancellation stop) throws IOException {
    long turn = name(load, stop);
    early.readAll(this, stop);
    if (early.isGivenUp()) {
      throw new IOException("ended, because the line is slow");
    }
    turns.await(turn);
    String complaints = counted(Long.toString(turn), () -> readLoad(load));
    sample(load.stream().map(smallFile -> smallFile.content).filter(Objects::nonNull));
    turns.done();
    return complaints;
  }

  private long name(List<SmallFile> load, Cancellation stop) throws IOException {
    StringBuilder names = new StringBuilder();
    for (SmallFile smallFile : load) {
      names.append("./").append(smallFile.item.from()).append('\0');
    }
    synchronized (this) {
      stop.throwIfStopped();
      long turn = turns.take();
      String ended = compressed ? "" : TarStreamReader.ASK_END + endMark(mark, turn);
      String before = compressed ? names.length() + "\n" : "";
      pipe.in().write(WireName.bytes(before + names + ended));
      pipe.in().flush();
      return turn;
    }
  }

  private void sample(Stream<byte[]> contents) {
    contents.filter(content -> content.length > 0).findFirst().ifPresent(compression::sample);
  }

  private interface Reading {
    void run() throws IOException;
  }

  /**
   * What the line takes for a load is the time until its last word, which may come on the other of
   * the two streams.
   */
  private String counted(String load, Reading reading) throws IOException {
    long before = files.count();
    compression.begins();
    try {
      reading.run();
      return pipe.errorsUntil(mark + load);
    } finally {
      compression.ends(files.count() - before);
    }
  }

  /** Takes only what was asked for: a server may lie. */
  private void readLoad(List<SmallFile> load) throws IOException {
    Map<String, SmallFile> byName = new HashMap<>();
    load.forEach(smallFile -> byName.put("./" + smallFile.item.from(), smallFile));
    files.read(
        (name, content, modified) -> {
          SmallFile smallFile = byName.get(name);
          if (smallFile != null) {
            smallFile.read(content, modified);
          }
        });
  }

  /** Some of the files that the server named itself, for one thread at a time. */
  record EarlyPart(String complaints, boolean last) {}

  EarlyPart readEarly(TarStreamReader.Came came) throws IOException {
    boolean[] last = {false};
    List<byte[]> contents = new ArrayList<>();
    String complaints =
        counted(
            EARLY,
            () ->
                last[0] =
                    files.read(
                        (name, content, modified) -> {
                          contents.add(content);
                          came.file(name, content, modified);
                        }));
    sample(contents.stream());
    if (last[0]) {
      turns.done();
    }
    return new EarlyPart(complaints, last[0]);
  }
}
