package zander.core.transfer.tar;

import java.io.ByteArrayOutputStream;
import java.io.FilterOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.zip.Deflater;
import java.util.zip.GZIPOutputStream;
import org.apache.commons.compress.archivers.tar.TarArchiveEntry;
import org.apache.commons.compress.archivers.tar.TarArchiveOutputStream;
import zander.core.rights.Mode;
import zander.core.transfer.endpoint.SmallFile;
import zander.core.transfer.server.ArrivingFile;

/**
 * A load of small files as one {@code tar} archive, under their temporary names. The format is
 * POSIX.1-1988 ustar with the GNU tar manual's long names, which carry names as bytes.
 */
final class TarBatchWriter {
  /**
   * The program reads records of this size and begins none before it is there (tar manual, 9.4).
   */
  private static final int RECORD = 20 * 512;

  private static final Mode NEW_FILE = new Mode(0666);

  /** GNU's type of an entry that begins in the archive's volume before. */
  private static final byte CONTINUED = (byte) 'M';

  private TarBatchWriter() {}

  /**
   * @param end the name of the last entry, which cannot be unpacked
   * @param out is flushed, and stays open
   */
  static void write(List<ArrivingFile> load, String end, OutputStream out) throws IOException {
    OutputStream open =
        new FilterOutputStream(out) {
          @Override
          public void write(byte[] bytes, int offset, int length) throws IOException {
            out.write(bytes, offset, length);
          }

          @Override
          public void close() throws IOException {
            flush();
          }
        };
    try (TarArchiveOutputStream tar =
        new TarArchiveOutputStream(open, RECORD, StandardCharsets.ISO_8859_1.name())) {
      tar.setLongFileMode(TarArchiveOutputStream.LONGFILE_GNU);
      tar.setBigNumberMode(TarArchiveOutputStream.BIGNUMBER_STAR);
      for (ArrivingFile one : load) {
        SmallFile smallFile = one.smallFile;
        TarArchiveEntry entry = new TarArchiveEntry("./" + one.partPath);
        Mode mode = smallFile.item.mode() == null ? NEW_FILE : smallFile.item.mode();
        entry.setMode(mode.bits());
        entry.setModTime(smallFile.modified * 1000);
        entry.setSize(smallFile.bytes().length);
        tar.putArchiveEntry(entry);
        tar.write(smallFile.bytes());
        tar.closeArchiveEntry();
      }
      tar.putArchiveEntry(new TarArchiveEntry(end, CONTINUED));
      tar.closeArchiveEntry();
    }
  }

  /** The same, compressed (RFC 1952). */
  static byte[] compressed(List<ArrivingFile> load, String end) throws IOException {
    ByteArrayOutputStream bytes = new ByteArrayOutputStream();
    try (OutputStream quick =
        new GZIPOutputStream(bytes) {
          {
            def.setLevel(Deflater.BEST_SPEED);
          }
        }) {
      write(load, end, quick);
    }
    return bytes.toByteArray();
  }
}
