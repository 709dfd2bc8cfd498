package zander.core.journal;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
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

/** Replaced contents, each once and packed, in files named by their SHA-256. */
final class KeptContents {
  private static final String END = ".gz";

  private final Path folder;

  KeptContents(Path folder) throws IOException {
    this.folder = folder;
    Files.createDirectories(
        folder, PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString("rwx------")));
  }

  /** Keeps a content, synced before this returns, and gives its digest. */
  String keep(byte[] content) throws IOException {
    String id = digest(content);
    Path kept = folder.resolve(id + END);
    if (!Files.exists(kept)) {
      ByteArrayOutputStream packed = new ByteArrayOutputStream();
      try (GZIPOutputStream out = new GZIPOutputStream(packed)) {
        out.write(content);
      }
      Path part = Files.createTempFile(folder, id, ".part");
      try (FileChannel out = FileChannel.open(part, Set.of(StandardOpenOption.WRITE))) {
        out.write(ByteBuffer.wrap(packed.toByteArray()));
        out.force(true);
      }
      Files.move(part, kept, StandardCopyOption.ATOMIC_MOVE);
    }
    return id;
  }

  /** The content, or {@code null} when it is not kept any more. */
  byte[] read(String id) throws IOException {
    Path kept = folder.resolve(id + END);
    if (!Files.exists(kept)) {
      return null;
    }
    try (GZIPInputStream in =
        new GZIPInputStream(new ByteArrayInputStream(Files.readAllBytes(kept)))) {
      return in.readAllBytes();
    }
  }

  /** The bytes that a content takes here; 0 when it is not kept. */
  long size(String id) throws IOException {
    Path kept = folder.resolve(id + END);
    return Files.exists(kept) ? Files.size(kept) : 0;
  }

  /** Lets go of all but these, and of what a crash left half written. */
  void retain(Set<String> ids) throws IOException {
    List<Path> all;
    try (Stream<Path> files = Files.list(folder)) {
      all = files.toList();
    }
    for (Path file : all) {
      String name = file.getFileName().toString();
      boolean wanted = name.endsWith(END) && ids.contains(name.substring(0, name.length() - 3));
      if (!wanted) {
        Files.deleteIfExists(file);
      }
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
