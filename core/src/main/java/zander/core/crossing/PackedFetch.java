package zander.core.crossing;

import java.io.BufferedInputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.apache.commons.compress.archivers.tar.TarArchiveEntry;
import org.apache.commons.compress.archivers.tar.TarArchiveInputStream;
import zander.core.connect.ExecResult;
import zander.core.connect.Pipe;
import zander.core.connect.ShellWords;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteBatch;
import zander.core.files.RemoteFailure;
import zander.core.files.RemotePath;
import zander.core.files.WireName;

/**
 * Reads the files of a load by one stream out of the server's {@code tar}, which is given exactly
 * their names. What it cannot read, or what changed while it read, is left to requests.
 */
final class PackedFetch {
  private static final int BUFFER = 64 * 1024;

  private final RemoteSide side;

  PackedFetch(RemoteSide side) {
    this.side = side;
  }

  /** Gives what could be read its content; the others are returned. */
  List<Parcel> fetch(List<Parcel> load) throws IOException {
    String script =
        "cd "
            + ShellWords.quote(side.base())
            + " && exec tar -cf - --format=gnu --no-recursion --hard-dereference --null -T -";
    ExecResult result;
    try (Pipe pipe = side.line().commands().pipe(script)) {
      try {
        name(load, pipe.in());
        read(load, pipe);
      } catch (IOException | RuntimeException e) {
        // What it writes is no archive, or it ended early. It may write for ever: not waited for.
        pipe.close();
        side.carriers().noRoom();
        return checked(load);
      }
      result = pipe.finish();
    } catch (RemoteFailure e) {
      throw e;
    } catch (IOException e) {
      side.carriers().noRoom();
      return load;
    }
    if (result.exit() == 126 || result.exit() == 127) {
      side.carriers().giveUpPrograms("its tar could not be run");
    }
    return result.exit() == 0 ? unread(load) : checked(load);
  }

  private static List<Parcel> unread(List<Parcel> load) {
    return load.stream().filter(parcel -> parcel.content == null).toList();
  }

  private List<Parcel> checked(List<Parcel> load) throws IOException {
    forgetChanged(load);
    return unread(load);
  }

  private static void name(List<Parcel> load, OutputStream to) throws IOException {
    StringBuilder names = new StringBuilder();
    for (Parcel parcel : load) {
      names.append("./").append(parcel.item.from()).append('\0');
    }
    to.write(WireName.bytes(names.toString()));
    to.flush();
    to.close();
  }

  private static void read(List<Parcel> load, Pipe pipe) throws IOException {
    Map<String, Parcel> byName = new HashMap<>();
    load.forEach(parcel -> byName.put("./" + parcel.item.from(), parcel));
    TarArchiveInputStream tar =
        new TarArchiveInputStream(
            new BufferedInputStream(pipe.out(), BUFFER), StandardCharsets.ISO_8859_1.name());
    for (TarArchiveEntry entry; (entry = tar.getNextEntry()) != null; ) {
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
    pipe.out().readAllBytes();
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
