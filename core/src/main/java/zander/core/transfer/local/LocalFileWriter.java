package zander.core.transfer.local;

import static java.util.concurrent.TimeUnit.SECONDS;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.SeekableByteChannel;
import java.nio.file.FileSystems;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.BasicFileAttributeView;
import java.nio.file.attribute.FileTime;
import java.nio.file.attribute.PosixFilePermissions;
import java.time.Instant;
import java.util.Arrays;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import zander.core.phrase.Phrase;
import zander.core.rights.Mode;
import zander.core.transfer.endpoint.Endpoint;
import zander.core.transfer.endpoint.Target;
import zander.core.transfer.endpoint.TransferItem;

/** A file that is arriving on this computer. Runs of zeros become holes. */
final class LocalFileWriter implements Target.Incoming {
  private static final int HOLE = 64 * 1024;
  private static final byte[] ZEROS = new byte[HOLE];
  private static final Mode CLOSED = new Mode(0600);

  private final LocalEndpoint side;
  private final TransferItem item;
  private final Path target;
  private final String partPath;
  private final Path part;
  private final SeekableByteChannel out;
  private long at;
  private boolean holeAtEnd;
  private boolean kept;

  /** Whether it was made with its mode, so that none needs to be set. */
  private boolean born;

  LocalFileWriter(LocalEndpoint side, TransferItem item, Target.@Nullable Part begun)
      throws IOException {
    this.side = side;
    this.item = item;
    this.target = side.at(item.to());
    this.partPath = begun == null ? side.partPath(item.to()) : begun.path();
    this.part = side.at(partPath);
    if (begun != null) {
      out = Files.newByteChannel(part, StandardOpenOption.WRITE, LinkOption.NOFOLLOW_LINKS);
      out.truncate(begun.size());
      out.position(begun.size());
      at = begun.size();
    } else if (item.mode() == null) {
      out = Files.newByteChannel(part, StandardOpenOption.CREATE_NEW, StandardOpenOption.WRITE);
    } else {
      // Never open to more than it will be: it may be a secret.
      born = side.umask().lets(item.mode());
      out =
          Files.newByteChannel(
              part,
              Set.of(StandardOpenOption.CREATE_NEW, StandardOpenOption.WRITE),
              PosixFilePermissions.asFileAttribute(
                  PosixFilePermissions.fromString((born ? item.mode() : CLOSED).letters())));
    }
  }

  @Override
  public void write(byte[] bytes, int offset, int length) throws IOException {
    for (int done = 0; done < length; ) {
      int count = (int) Math.min(HOLE - at % HOLE, length - done);
      int from = offset + done;
      holeAtEnd = count == HOLE && Arrays.equals(bytes, from, from + count, ZEROS, 0, count);
      if (holeAtEnd) {
        out.position(at + count);
      } else {
        for (ByteBuffer left = ByteBuffer.wrap(bytes, from, count); left.hasRemaining(); ) {
          out.write(left);
        }
      }
      at += count;
      done += count;
    }
  }

  @Override
  public Target.Part part() {
    return new Target.Part(partPath, at);
  }

  @Override
  public @Nullable Phrase arrive(long modified, @Nullable String digest) throws IOException {
    if (holeAtEnd) {
      out.position(at - 1);
      out.write(ByteBuffer.wrap(new byte[1]));
    }
    out.close();
    if (digest != null && !digest.equals(side.digest(partPath, -1))) {
      throw new Endpoint.NotTheSame();
    }
    if (item.mode() != null && !born) {
      Files.setAttribute(part, "unix:mode", Umask.plain(item.mode()));
    }
    if (modified != TransferItem.OF_ARRIVAL) {
      setTime(modified);
    }
    if (item.there() == null) {
      side.place(part, target);
    } else {
      Files.move(part, target, StandardCopyOption.ATOMIC_MOVE);
    }
    kept = true;
    return null;
  }

  private void setTime(long modified) throws IOException {
    // The old call opens no file, which for thousands of small ones is much of the work.
    boolean set =
        modified >= 0
            && part.getFileSystem() == FileSystems.getDefault()
            && part.toFile().setLastModified(SECONDS.toMillis(modified));
    if (!set) {
      // Both times at once: for one alone the system is asked for the other.
      Files.getFileAttributeView(part, BasicFileAttributeView.class)
          .setTimes(FileTime.from(modified, SECONDS), FileTime.from(Instant.now()), null);
    }
  }

  @Override
  public void leave() {
    kept = true;
    closeQuietly();
  }

  private void closeQuietly() {
    try {
      out.close();
    } catch (IOException e) {
      // A disk that refuses this has refused the writing too, and that is being told.
    }
  }

  @Override
  public void close() {
    closeQuietly();
    if (!kept) {
      try {
        Files.deleteIfExists(part);
      } catch (IOException e) {
        // As above.
      }
    }
  }
}
