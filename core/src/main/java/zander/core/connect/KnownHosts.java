package zander.core.connect;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.ArrayList;
import java.util.List;
import zander.core.work.BlockingCalls;

/**
 * The user's {@code known_hosts} (sshd manual page, SSH_KNOWN_HOSTS FILE FORMAT): read afresh for
 * each question, so that a line another program added counts; added to by appending one line.
 *
 * <p>Waits for the disk. Lines that cannot be read are left alone and ignored.
 */
public final class KnownHosts {
  private final Path file;

  public KnownHosts(Path file) {
    this.file = file;
  }

  public Path file() {
    return file;
  }

  /** What the file says of a host and a key it showed. */
  public enum Standing {
    /** The key is the one that is known. */
    KNOWN,
    /** No key of this host is known. */
    FIRST_CONTACT,
    /** Other keys of this host are known, of the same type or only of other types. */
    CHANGED,
    /** The file says that this key must not be trusted. */
    REVOKED
  }

  /**
   * @param known the keys of this host that the file has
   */
  public record Finding(Standing standing, List<HostKey> known) {}

  public Finding find(ServerAddress address, HostKey shown) throws IOException {
    String host = address.knownHostsName();
    List<HostKey> known = new ArrayList<>();
    boolean revoked = false;
    for (KnownHostsLine line : lines()) {
      // A revoked key is bad wherever it shows up, whatever the host part of its line says.
      if (line.isRevoked()) {
        revoked |= line.key().equals(shown);
      } else if (!line.isAuthority() && line.matches(host)) {
        known.add(line.key());
      }
    }
    Standing standing =
        revoked
            ? Standing.REVOKED
            : known.contains(shown)
                ? Standing.KNOWN
                : known.isEmpty() ? Standing.FIRST_CONTACT : Standing.CHANGED;
    return new Finding(standing, known);
  }

  /** The key types known for a host, to be asked for first when the keys are exchanged. */
  public List<String> typesFor(ServerAddress address) throws IOException {
    String host = address.knownHostsName();
    return lines().stream()
        .filter(line -> !line.isRevoked() && !line.isAuthority() && line.matches(host))
        .map(line -> line.key().type())
        .distinct()
        .toList();
  }

  private List<KnownHostsLine> lines() throws IOException {
    BlockingCalls.check("reading known hosts");
    List<KnownHostsLine> lines = new ArrayList<>();
    if (Files.exists(file)) {
      for (String text : Files.readString(file, StandardCharsets.ISO_8859_1).split("\n")) {
        KnownHostsLine.parse(text).ifPresent(lines::add);
      }
    }
    return lines;
  }

  /** Remembers the key of a host, on a line of its own that other tools read. */
  public synchronized void remember(ServerAddress address, HostKey key) throws IOException {
    BlockingCalls.check("writing known hosts");
    Path folder = file.toAbsolutePath().getParent();
    if (!Files.isDirectory(folder)) {
      Files.createDirectories(
          folder,
          PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString("rwx------")));
    }
    boolean lineOpen = false;
    if (Files.exists(file)) {
      byte[] before = Files.readAllBytes(file);
      lineOpen = before.length > 0 && before[before.length - 1] != '\n';
    }
    String line =
        (lineOpen ? "\n" : "")
            + address.knownHostsName()
            + " "
            + key.type()
            + " "
            + key.base64()
            + "\n";
    try (FileChannel out =
        FileChannel.open(
            file,
            java.util.Set.of(StandardOpenOption.CREATE, StandardOpenOption.APPEND),
            PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString("rw-------")))) {
      out.write(ByteBuffer.wrap(line.getBytes(StandardCharsets.US_ASCII)));
      out.force(true);
    }
  }
}
