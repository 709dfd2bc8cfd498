package zander.core.transfer.tar;

import java.io.EOFException;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CancellationException;
import java.util.function.BooleanSupplier;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteFailure;
import zander.core.files.RemotePath;
import zander.core.phrase.CarrierPhrase;
import zander.core.transfer.endpoint.Direction;
import zander.core.transfer.endpoint.SmallFile;
import zander.core.transfer.server.CompressionPolicy;
import zander.core.transfer.server.RemoteContext;
import zander.core.work.Cancellation;

/**
 * Reads the files of loads by one stream out of the server's {@code tar}, which stays open for the
 * whole transfer and is given exactly their names as they come. What it cannot read, or what
 * changed while it read, is left to requests.
 */
public final class TarDownload {
  private final RemoteContext context;
  private final CompressionPolicy compression;

  /** One that writes as it is, and one that compresses what it writes. */
  private final TarDownloadProcess[] kept = new TarDownloadProcess[2];

  /** None until something was said. */
  private @Nullable List<String> expected;

  public TarDownload(RemoteContext context) {
    this.context = context;
    this.compression = context.channels().compression(Direction.BRING_DOWN);
  }

  /**
   * Says what the program is to send without being asked for each, when it is started; only what is
   * said first counts.
   *
   * @param early files and folders, relative to the side, whose small files are wanted
   */
  public synchronized void expect(List<String> early) {
    if (expected == null) {
      expected = List.copyOf(early);
    }
  }

  /** Starts the program, so that it is there when the first load is. */
  public synchronized void open() throws IOException {
    if (kept[0] == null) {
      List<String> early = expected == null ? List.of() : expected;
      expected = List.of();
      boolean compresses = context.strategy().compresses();
      BooleanSupplier slow = () -> compresses && compression.pays();
      EagerFiles files = slow.getAsBoolean() ? EagerFiles.NONE : new EagerFiles(early, slow);
      kept[0] = TarDownloadProcess.start(context, files);
    }
  }

  private synchronized TarDownloadProcess program(boolean compressed) throws IOException {
    if (!compressed) {
      open();
    } else if (kept[1] == null) {
      kept[1] = TarDownloadProcess.startCompressed(context);
    }
    return kept[compressed ? 1 : 0];
  }

  public synchronized boolean isOpen() {
    return kept[0] != null || kept[1] != null;
  }

  public synchronized void close() {
    end(TarDownloadProcess::end);
  }

  /** Ends it in the middle of what it does. */
  public synchronized void giveUp() {
    end(TarDownloadProcess::close);
  }

  private void end(Consumer<TarDownloadProcess> how) {
    for (int i = 0; i < kept.length; i++) {
      if (kept[i] != null) {
        how.accept(kept[i]);
        kept[i] = null;
      }
    }
  }

  /** Whether this is the first to end it. */
  private synchronized boolean ended(TarDownloadProcess program) {
    program.close();
    int which = program.compressed ? 1 : 0;
    boolean first = kept[which] == program;
    kept[which] = first ? null : kept[which];
    return first;
  }

  private boolean isToBeCompressed() throws IOException {
    boolean pays = context.strategy().compresses() && compression.pays();
    if (pays) {
      context.strategy().compressed();
    }
    return pays;
  }

  /**
   * Gives what could be read its content; the others are returned.
   *
   * @throws CancellationException when it was stopped
   */
  public List<SmallFile> fetch(List<SmallFile> load, Cancellation stop) throws IOException {
    List<SmallFile> left = load;
    TarDownloadProcess early = withEarlyFiles();
    if (early != null) {
      left = attempt(early, load, () -> early.early.take(load, early, stop));
      if (early.early.isGivenUp()) {
        ended(early);
      }
    }
    if (left.isEmpty()) {
      return left;
    }
    TarDownloadProcess program;
    try {
      program = program(isToBeCompressed());
    } catch (RemoteFailure e) {
      throw e;
    } catch (IOException e) {
      context.strategy().noRoom();
      return left;
    }
    List<SmallFile> asked = left;
    return attempt(program, asked, () -> program.read(asked, stop).isEmpty() ? List.of() : asked);
  }

  /** The first load may be here before the program was started elsewhere. */
  private synchronized @Nullable TarDownloadProcess withEarlyFiles() {
    if (kept[0] == null && expected != null && !expected.isEmpty()) {
      try {
        open();
      } catch (IOException e) {
        // Tried once more for what is asked for by name, and told there.
        return null;
      }
    }
    return kept[0] == null || kept[0].early.isEmpty() ? null : kept[0];
  }

  private interface Reading {
    /** Returns those that are to be looked at once more, because something was not well. */
    List<SmallFile> run() throws IOException;
  }

  /** Returns those that got no content. */
  private List<SmallFile> attempt(TarDownloadProcess program, List<SmallFile> load, Reading reading)
      throws IOException {
    List<SmallFile> unsure;
    try {
      unsure = reading.run();
    } catch (CancellationException e) {
      throw e;
    } catch (IOException | RuntimeException e) {
      // What it writes is no archive, or it ended early. It may write for ever: not waited for.
      unsure = load;
      broken(program, e instanceof EOFException && program.couldNotRun());
    }
    forgetChanged(unsure);
    return load.stream().filter(smallFile -> smallFile.content == null).toList();
  }

  private void broken(TarDownloadProcess program, boolean couldNotRun) throws IOException {
    boolean first = ended(program);
    if (program.compressed) {
      compression.cannot();
    }
    // A lost line says so here, and is no fault of tar.
    context.files().batch().look(List.of(context.base()));
    if (couldNotRun) {
      context.strategy().giveUpPrograms(CarrierPhrase.TAR_UNUSABLE);
    } else if (first) {
      context.strategy().noRoom();
    }
  }

  /**
   * A file that was cut short while it was read is filled up with zeros, and told by the status.
   */
  private void forgetChanged(List<SmallFile> load) throws IOException {
    List<SmallFile> read = load.stream().filter(smallFile -> smallFile.content != null).toList();
    List<RemotePath> paths = new ArrayList<>();
    for (SmallFile smallFile : read) {
      paths.add(context.at(smallFile.item.from()));
    }
    List<RemoteAttributes> now = context.files().batch().look(paths);
    for (int i = 0; i < read.size(); i++) {
      RemoteAttributes is = now.get(i);
      SmallFile smallFile = read.get(i);
      if (is == null
          || is.size() != smallFile.bytes().length
          || is.modified() != smallFile.modified) {
        smallFile.content = null;
      }
    }
  }
}
