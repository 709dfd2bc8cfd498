package zander.core.crossing;

import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.util.List;
import org.apache.commons.compress.archivers.tar.TarArchiveEntry;
import org.apache.commons.compress.archivers.tar.TarArchiveOutputStream;
import zander.core.connect.ExecResult;
import zander.core.connect.Pipe;
import zander.core.connect.ShellWords;
import zander.core.crossing.RemoteDelivery.Arriving;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFailure.Reason;
import zander.core.files.WireName;
import zander.core.rights.Mode;

/**
 * Writes the temporary files of a load by one stream into the server's {@code tar}: no round trip
 * for a file. The format is POSIX.1-1988 ustar with the GNU tar manual's long names, which carry
 * names as bytes.
 */
final class PackedDelivery {
  private static final int BUFFER = 64 * 1024;
  private static final Mode NEW_FILE = new Mode(0666);

  private final RemoteSide side;

  PackedDelivery(RemoteSide side) {
    this.side = side;
  }

  /**
   * Gives each its failure, if it had one.
   *
   * @return false when the server did not run it at all; nothing was written then
   */
  boolean write(List<Arriving> waiting) throws IOException {
    Item first = waiting.get(0).parcel.item;
    // Owners are ours; modes as they are told, or as this account makes files.
    String options = "-xo" + (first.mode() == null ? "" : "p") + (first.modified() < 0 ? "m" : "");
    String script = "cd " + ShellWords.quote(side.base()) + " && exec tar " + options + "f -";
    ExecResult result;
    try (Pipe pipe = side.line().commands().pipe(script)) {
      try {
        send(waiting, pipe.in());
      } catch (IOException e) {
        // It may have ended early, and says why; a lost line says nothing.
      }
      result = pipe.finish();
    } catch (RemoteFailure e) {
      throw e;
    } catch (IOException e) {
      side.carriers().noRoom();
      return false;
    }
    if (result.exit() == 126 || result.exit() == 127) {
      side.carriers().giveUpPrograms("its tar could not be run");
      return false;
    }
    if (result.exit() != 0) {
      lookAt(waiting, result);
    }
    return true;
  }

  private static void send(List<Arriving> waiting, OutputStream to) throws IOException {
    TarArchiveOutputStream tar =
        new TarArchiveOutputStream(
            new BufferedOutputStream(to, BUFFER), StandardCharsets.ISO_8859_1.name());
    tar.setLongFileMode(TarArchiveOutputStream.LONGFILE_GNU);
    tar.setBigNumberMode(TarArchiveOutputStream.BIGNUMBER_STAR);
    for (Arriving one : waiting) {
      Parcel parcel = one.parcel;
      TarArchiveEntry entry = new TarArchiveEntry("./" + one.partPath);
      Mode mode = parcel.item.mode() == null ? NEW_FILE : parcel.item.mode();
      entry.setMode(mode.bits());
      entry.setModTime(parcel.modified * 1000);
      entry.setSize(parcel.content.length);
      tar.putArchiveEntry(entry);
      tar.write(parcel.content);
      tar.closeArchiveEntry();
    }
    // Its last block is only written by closing it, which ends the program's input too.
    tar.close();
  }

  /** Not all was well: what is whole is told by its size and, being set last, its time. */
  private void lookAt(List<Arriving> waiting, ExecResult result) throws IOException {
    List<RemoteAttributes> found =
        side.files().batch().look(waiting.stream().map(one -> one.part).toList());
    String said = WireName.fromBytes(result.errors());
    for (int i = 0; i < waiting.size(); i++) {
      Arriving one = waiting.get(i);
      RemoteAttributes is = found.get(i);
      boolean whole =
          is != null
              && is.size() == one.parcel.content.length
              && (one.parcel.timeThere() < 0 || is.modified() == one.parcel.timeThere());
      if (!whole) {
        one.parcel.failure = failure(one, said);
      }
    }
  }

  private static RemoteFailure failure(Arriving one, String said) {
    String name = one.part.wireName();
    String about =
        said.lines().filter(line -> line.contains(name)).findFirst().orElse(said.strip());
    Reason reason =
        about.contains("No space left") || about.contains("quota exceeded")
            ? Reason.NO_SPACE
            : about.contains("Permission denied") ? Reason.PERMISSION_DENIED : Reason.FAILED;
    return new RemoteFailure(reason, "create", one.target, WireName.toText(about), null);
  }
}
