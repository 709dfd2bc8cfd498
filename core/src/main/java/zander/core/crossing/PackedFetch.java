package zander.core.crossing;

import java.io.BufferedInputStream;
import java.io.EOFException;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ThreadLocalRandom;
import org.apache.commons.compress.archivers.tar.TarArchiveEntry;
import org.apache.commons.compress.archivers.tar.TarArchiveInputStream;
import zander.core.connect.Pipe;
import zander.core.connect.ShellWords;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteBatch;
import zander.core.files.RemoteFailure;
import zander.core.files.RemotePath;
import zander.core.files.WireName;

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
  private Kept kept;

  PackedFetch(RemoteSide side) {
    this.side = side;
  }

  /** The program, and whose turn it is to name files to it and to read them. */
  private static final class Kept {
    final Pipe pipe;
    final TarArchiveInputStream tar;
    final Turns turns = new Turns();
    final String mark =
        ".zander-end-" + Long.toHexString(ThreadLocalRandom.current().nextLong()) + "-";

    /** Of the ends of the load before, so many are still to come. */
    int endsBefore;

    Kept(Pipe pipe) {
      this.pipe = pipe;
      this.tar =
          new TarArchiveInputStream(
              new BufferedInputStream(pipe.out(), BUFFER), StandardCharsets.ISO_8859_1.name());
    }

    void close() {
      turns.end();
      pipe.close();
    }
  }

  /** Starts the program, so that it is there when the first load is. */
  void open() throws IOException {
    program();
  }

  private synchronized Kept program() throws IOException {
    if (kept == null) {
      String script =
          "cd "
              + ShellWords.quote(side.base())
              + " && exec tar -cf - --format=gnu --no-recursion --hard-dereference --null -T -";
      kept = new Kept(side.line().commands().pipe(script));
    }
    return kept;
  }

  synchronized boolean isOpen() {
    return kept != null;
  }

  synchronized void close() {
    if (kept != null) {
      kept.turns.endOf(kept.pipe);
      kept = null;
    }
  }

  /** Ends it in the middle of what it does. */
  synchronized void giveUp() {
    if (kept != null) {
      kept.close();
      kept = null;
    }
  }

  /** Whether this is the first load to find it so. */
  private synchronized boolean broken(Kept stream) {
    stream.close();
    boolean first = kept == stream;
    kept = first ? null : kept;
    return first;
  }

  /** Gives what could be read its content; the others are returned. */
  List<Parcel> fetch(List<Parcel> load) throws IOException {
    Kept stream;
    try {
      stream = program();
    } catch (RemoteFailure e) {
      throw e;
    } catch (IOException e) {
      side.carriers().noRoom();
      return load;
    }
    String complaints;
    try {
      long turn = name(stream, load);
      stream.turns.await(turn);
      read(stream, load);
      complaints = stream.pipe.errorsUntil(stream.mark + turn);
      stream.turns.done();
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

  private static long name(Kept stream, List<Parcel> load) throws IOException {
    StringBuilder names = new StringBuilder();
    for (Parcel parcel : load) {
      names.append("./").append(parcel.item.from()).append('\0');
    }
    synchronized (stream) {
      long turn = stream.turns.take();
      names.append(ASK_END).append("./").append(stream.mark).append(turn).append('\0');
      stream.pipe.in().write(WireName.bytes(names.toString()));
      stream.pipe.in().flush();
      return turn;
    }
  }

  private static void read(Kept stream, List<Parcel> load) throws IOException {
    Map<String, Parcel> byName = new HashMap<>();
    load.forEach(parcel -> byName.put("./" + parcel.item.from(), parcel));
    TarArchiveInputStream tar = stream.tar;
    while (true) {
      TarArchiveEntry entry = tar.getNextEntry();
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
      Parcel parcel = byName.get(entry.getName());
      // Only what was asked for, and only as a plain file: a server may lie.
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
