package zander.core.journal;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.EOFException;
import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.PosixFilePermissions;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;
import java.util.List;
import java.util.Set;
import java.util.stream.Stream;
import java.util.zip.GZIPInputStream;
import java.util.zip.GZIPOutputStream;
import java.util.zip.ZipException;
import org.jspecify.annotations.Nullable;
import zander.core.seal.ContentSeal;
import zander.core.seal.StillSealed;

/**
 * Replaced contents, each once and packed, in files named by their SHA-256. They are sealed where
 * there is a vault; where there is none, those that were closed to others on the server are sealed
 * for this run of the program alone.
 */
final class KeptContents {
  private static final String CLEAR = ".gz";
  private static final String SEALED = ".sealed";
  private static final int HEAD = 1024;

  private final Path folder;
  private final ContentSeal seal;

  KeptContents(Path folder, ContentSeal seal) throws IOException {
    this.folder = folder;
    this.seal = seal;
    Files.createDirectories(
        folder, PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString("rwx------")));
  }

  private Path clear(String id) {
    return folder.resolve(id + CLEAR);
  }

  private Path sealed(String id) {
    return folder.resolve(id + SEALED);
  }

  private static String about(String id) {
    return "replaced content " + id;
  }

  /**
   * Keeps a content, synced before this returns, and gives its digest. One that is here already is
   * read again first, because a damaged one could not be put back: it is kept anew, as is one that
   * only the vault could open.
   *
   * @param closed whether others may not read it on the server: it is never kept in clear
   */
  String keep(byte[] content, boolean closed) throws IOException {
    String id = digest(content);
    boolean lasts = seal.lasts();
    // In clear only what somebody else's file has in the open too.
    boolean kept =
        isSealedToLast(id) || (!lasts && (Files.exists(clear(id)) || (closed && isSealed(id))));
    Path here = !lasts && Files.exists(clear(id)) ? clear(id) : sealed(id);
    if (!kept || !isWhole(here, id)) {
      byte[] packed = pack(content);
      if (closed || lasts) {
        write(id, seal.seal(packed, about(id)), sealed(id));
      } else {
        write(id, packed, clear(id));
      }
    }
    if (lasts) {
      Files.deleteIfExists(clear(id));
    }
    return id;
  }

  private static byte[] pack(byte[] content) throws IOException {
    ByteArrayOutputStream packed = new ByteArrayOutputStream();
    try (GZIPOutputStream out = new GZIPOutputStream(packed)) {
      out.write(content);
    }
    return packed.toByteArray();
  }

  private void write(String id, byte[] bytes, Path kept) throws IOException {
    Path part = Files.createTempFile(folder, id, ".part");
    try (FileChannel out = FileChannel.open(part, Set.of(StandardOpenOption.WRITE))) {
      for (ByteBuffer left = ByteBuffer.wrap(bytes); left.hasRemaining(); ) {
        out.write(left);
      }
      out.force(true);
    }
    Files.move(part, kept, StandardCopyOption.ATOMIC_MOVE);
  }

  private byte @Nullable [] head(String id) throws IOException {
    if (!Files.exists(sealed(id))) {
      return null;
    }
    try (InputStream in = Files.newInputStream(sealed(id))) {
      return in.readNBytes(HEAD);
    }
  }

  private boolean isSealed(String id) throws IOException {
    byte[] head = head(id);
    return head != null && !seal.isLost(head);
  }

  private boolean isSealedToLast(String id) throws IOException {
    byte[] head = head(id);
    return head != null && !ContentSeal.endsWithItsRun(head);
  }

  /** Whether it is here, and not sealed with a key that is gone. */
  boolean has(String id) throws IOException {
    return Files.exists(clear(id)) || isSealed(id);
  }

  /** Whether it can be put back by this run alone. */
  boolean endsWithItsRun(String id) throws IOException {
    return !Files.exists(clear(id)) && isSealed(id) && !isSealedToLast(id);
  }

  /**
   * The content, or {@code null} when it is not kept any more.
   *
   * @param mayAsk whether the person may be asked to open the vault
   */
  byte @Nullable [] read(String id, boolean mayAsk) throws IOException {
    for (Path file : List.of(clear(id), sealed(id))) {
      if (Files.exists(file)) {
        return read(file, id, mayAsk);
      }
    }
    return null;
  }

  private byte[] read(Path file, String id, boolean mayAsk) throws IOException {
    byte[] bytes = Files.readAllBytes(file);
    byte[] packed = file.equals(sealed(id)) ? seal.open(bytes, about(id), mayAsk) : bytes;
    try (GZIPInputStream in = new GZIPInputStream(new ByteArrayInputStream(packed))) {
      byte[] content = in.readAllBytes();
      if (digest(content).equals(id)) {
        return content;
      }
      throw new StillSealed(StillSealed.Reason.DAMAGED, null);
    } catch (ZipException | EOFException e) {
      throw new StillSealed(StillSealed.Reason.DAMAGED, e);
    }
  }

  private boolean isWhole(Path file, String id) {
    try {
      return read(file, id, false) != null;
    } catch (IOException e) {
      return false;
    }
  }

  /** The bytes that a content takes here; 0 when it is not kept. */
  long size(String id) throws IOException {
    Path kept = Files.exists(sealed(id)) ? sealed(id) : clear(id);
    return Files.exists(kept) ? Files.size(kept) : 0;
  }

  private List<Path> all() throws IOException {
    try (Stream<Path> files = Files.list(folder)) {
      return files.toList();
    }
  }

  /** What a file keeps; {@code null} for one that keeps nothing. */
  private static @Nullable String idOf(Path file) {
    String name = file.getFileName().toString();
    for (String end : List.of(CLEAR, SEALED)) {
      if (name.endsWith(end)) {
        return name.substring(0, name.length() - end.length());
      }
    }
    return null;
  }

  /** Lets go of all but these, of what nobody can open, and of what a crash left half written. */
  void retain(Set<String> ids) throws IOException {
    for (Path file : all()) {
      String id = idOf(file);
      if (id == null || !ids.contains(id) || (file.equals(sealed(id)) && !isSealed(id))) {
        Files.deleteIfExists(file);
      }
    }
  }

  /** Once there is a vault: seals for it what was kept in clear, or for this run alone. */
  void sealAll() throws IOException {
    if (!seal.lasts()) {
      return;
    }
    for (Path file : all()) {
      String id = idOf(file);
      if (id == null || !has(id) || (isSealedToLast(id) && !Files.exists(clear(id)))) {
        continue;
      }
      if (!isSealedToLast(id)) {
        byte[] packed =
            Files.exists(clear(id))
                ? Files.readAllBytes(clear(id))
                : seal.open(Files.readAllBytes(sealed(id)), about(id), false);
        write(id, seal.seal(packed, about(id)), sealed(id));
      }
      Files.deleteIfExists(clear(id));
    }
  }

  static String digest(byte[] content) {
    try {
      return HexFormat.of().formatHex(MessageDigest.getInstance("SHA-256").digest(content));
    } catch (NoSuchAlgorithmException e) {
      throw new IllegalStateException(e);
    }
  }
}
