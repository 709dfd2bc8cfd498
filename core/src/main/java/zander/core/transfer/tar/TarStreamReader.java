package zander.core.transfer.tar;

import java.io.BufferedInputStream;
import java.io.EOFException;
import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import org.apache.commons.compress.archivers.tar.TarArchiveEntry;
import org.apache.commons.compress.archivers.tar.TarArchiveInputStream;
import org.apache.commons.compress.compressors.gzip.GzipCompressorInputStream;
import org.jspecify.annotations.Nullable;
import zander.core.files.RemoteBatch;

/**
 * What a server's {@code tar} writes of the files that it is named, with ends in between. For one
 * thread at a time.
 *
 * <p>The end of some is the folder itself, which is asked for once, and then as often as there are
 * blocks in the record that the program keeps back until it is full. Compressed, some are an
 * archive of their own.
 */
final class TarStreamReader {
  private static final int BUFFER = 64 * 1024;

  /** Blocks of a record, as the program writes them without being told (tar manual, 9.4). */
  private static final int RECORD = 20;

  /** What is asked for at the end of some, and what the program calls it. */
  static final String ASK_END = "./.\0".repeat(RECORD + 1);

  private static final String END = "././";

  /** Another end, which can be told from it. */
  static final String ASK_LAST = "././.\0".repeat(RECORD + 1);

  private static final String LAST = "./././";

  private final CountedStream in;

  /** {@code null} where some are an archive of their own. */
  private final @Nullable TarArchiveInputStream tar;

  /** Of the end before, so much is still to come. */
  private int endsBefore;

  TarStreamReader(InputStream in, boolean compressed) {
    this.in = new CountedStream(new BufferedInputStream(in, BUFFER));
    this.tar = compressed ? null : archive(this.in);
  }

  private static TarArchiveInputStream archive(InputStream in) {
    return new TarArchiveInputStream(in, StandardCharsets.ISO_8859_1.name());
  }

  /** Counts what is read. */
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

  /** Bytes that came over the line. */
  long count() {
    return in.count;
  }

  /** A file as it came. */
  interface Came {
    /**
     * @param name as it was named to the program
     * @param modified seconds since 1970-01-01 UTC
     * @throws IOException when it is not to be read on
     */
    void file(String name, byte[] content, long modified) throws IOException;
  }

  /**
   * Reads to the next end.
   *
   * @return whether it was the other one
   * @throws EOFException when the program ended before it
   */
  boolean read(Came came) throws IOException {
    if (tar == null) {
      readArchive(came);
      return false;
    }
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
        return name.equals(LAST);
      } else {
        endsBefore--;
      }
    }
  }

  private void readArchive(Came came) throws IOException {
    // One member of RFC 1952; what comes after it is the next archive's.
    GzipCompressorInputStream one =
        GzipCompressorInputStream.builder()
            .setInputStream(in)
            .setDecompressConcatenated(false)
            .get();
    TarArchiveInputStream archive = archive(one);
    for (TarArchiveEntry entry; (entry = archive.getNextEntry()) != null; ) {
      take(archive, entry, came);
    }
    one.transferTo(OutputStream.nullOutputStream());
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
}
