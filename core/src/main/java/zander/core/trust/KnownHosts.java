package zander.core.trust;

import static java.nio.charset.StandardCharsets.ISO_8859_1;
import static java.nio.charset.StandardCharsets.US_ASCII;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.regex.Pattern;
import zander.core.phrase.ExplainedException;
import zander.core.phrase.KeptPhrase;
import zander.core.work.AtomicFile;
import zander.core.work.BlockingCalls;

/**
 * The user's {@code known_hosts} (sshd manual page, SSH_KNOWN_HOSTS FILE FORMAT): read afresh for
 * each question, so that a line another program added counts; added to by appending one line.
 *
 * <p>Waits for the disk. Lines that cannot be read are left alone and ignored.
 */
public final class KnownHosts {
  private static final String FILE_NAME = "known_hosts";

  /** Names, addresses with their zones, and {@code [name]:port}. */
  private static final Pattern PLAIN_HOST = Pattern.compile("[A-Za-z0-9._:%\\-\\[\\]]+");

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
  public record Finding(Standing standing, List<WireKey> known) {}

  /**
   * @param host as {@code known_hosts} writes it: the name, or {@code [name]:port}
   */
  public Finding find(String host, WireKey shown) throws IOException {
    List<WireKey> known = new ArrayList<>();
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
  public List<String> typesFor(String host) throws IOException {
    return lines().stream()
        .filter(line -> !line.isRevoked() && !line.isAuthority() && line.matches(host))
        .map(line -> line.key().type())
        .distinct()
        .toList();
  }

  /** Whether a key is one of those that may vouch for the keys of this host by certificates. */
  public boolean isAuthority(String host, WireKey authority) throws IOException {
    List<KnownHostsLine> lines = lines();
    boolean revoked =
        lines.stream().anyMatch(line -> line.isRevoked() && line.key().equals(authority));
    return !revoked
        && lines.stream()
            .anyMatch(l -> l.isAuthority() && l.matches(host) && l.key().equals(authority));
  }

  /** Whether certificates are of any use for this host. */
  public boolean hasAuthority(String host) throws IOException {
    return lines().stream().anyMatch(line -> line.isAuthority() && line.matches(host));
  }

  private List<KnownHostsLine> lines() throws IOException {
    BlockingCalls.check("reading known hosts");
    List<KnownHostsLine> lines = new ArrayList<>();
    if (Files.exists(file)) {
      for (String text : Files.readString(file, ISO_8859_1).split("\n")) {
        KnownHostsLine.parse(text).ifPresent(lines::add);
      }
    }
    return lines;
  }

  /** Remembers the key of a host, on a line of its own that other tools read. */
  public synchronized void remember(String host, WireKey key) throws IOException {
    BlockingCalls.check("writing known hosts");
    String line = line(host, key);
    makeFolder();
    boolean lineOpen = false;
    if (Files.exists(file)) {
      byte[] before = Files.readAllBytes(file);
      lineOpen = before.length > 0 && before[before.length - 1] != '\n';
    }
    try (FileChannel out =
        FileChannel.open(
            file,
            Set.of(StandardOpenOption.CREATE, StandardOpenOption.APPEND),
            PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString("rw-------")))) {
      out.write(ByteBuffer.wrap(((lineOpen ? "\n" : "") + line).getBytes(US_ASCII)));
      out.force(true);
    }
  }

  /**
   * What stands in a line is a pattern (sshd(8), "SSH_KNOWN_HOSTS FILE FORMAT"): a star, a question
   * mark or a comma in a name would vouch for other hosts as well.
   */
  private static String line(String host, WireKey key) throws IOException {
    if (!PLAIN_HOST.matcher(host).matches()) {
      throw new ExplainedException(KeptPhrase.NAME_NOT_WRITABLE.of(host, FILE_NAME));
    }
    return host + " " + key.type() + " " + key.base64() + "\n";
  }

  private void makeFolder() throws IOException {
    Path folder = file.toAbsolutePath().getParent();
    if (folder != null && !Files.isDirectory(folder)) {
      Files.createDirectories(
          folder,
          PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString("rwx------")));
    }
  }

  /**
   * Puts a new key in the place of those known for a host: a deliberate act, after somebody made
   * sure. Lines of other hosts stay byte by byte; a line that also names others loses only this
   * name. The file is written whole; the one before stays beside it under {@code .old}.
   */
  public synchronized void replace(String host, WireKey key) throws IOException {
    BlockingCalls.check("writing known hosts");
    String line = line(host, key);
    makeFolder();
    // A file behind a link is replaced where it lies.
    Path real = Files.exists(file) ? file.toRealPath() : file;
    String before = Files.exists(real) ? Files.readString(real, ISO_8859_1) : "";
    StringBuilder after = new StringBuilder();
    for (String text : before.split("(?<=\n)")) {
      if (!text.isEmpty()) {
        after.append(KnownHostsLine.withoutHost(text, host));
      }
    }
    if (after.length() > 0 && after.charAt(after.length() - 1) != '\n') {
      after.append('\n');
    }
    after.append(line);
    if (Files.exists(real)) {
      Files.copy(real, beside(real, ".old"), StandardCopyOption.REPLACE_EXISTING);
    }
    AtomicFile.write(real, after.toString().getBytes(ISO_8859_1));
  }

  private static Path beside(Path file, String ending) {
    return file.resolveSibling(file.getFileName() + ending);
  }
}
