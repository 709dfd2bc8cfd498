package zander.core.crossing;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.channels.Channels;
import java.nio.file.AccessDeniedException;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.InvalidPathException;
import java.nio.file.LinkOption;
import java.nio.file.NoSuchFileException;
import java.nio.file.NotDirectoryException;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.FileAttribute;
import java.nio.file.attribute.FileTime;
import java.nio.file.attribute.PosixFileAttributes;
import java.nio.file.attribute.PosixFilePermissions;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Stream;
import zander.core.change.TemporaryName;
import zander.core.files.FileKind;
import zander.core.files.WireName;
import zander.core.rights.Mode;
import zander.core.work.BlockingCalls;

/** A folder on this computer. Nothing is ever written outside it. */
public final class LocalSide implements Side {
  private final Path base;

  public LocalSide(Path base) {
    this.base = base.toAbsolutePath().normalize();
  }

  private Path at(String path) throws NameNotPossible {
    Path at = base;
    if (path.isEmpty()) {
      return at;
    }
    for (String name : path.split("/")) {
      if (!WireName.isSafe(name)) {
        throw new NameNotPossible("'" + WireName.toText(name) + "' is not a file name");
      }
      if (!WireName.isUtf8(name)) {
        throw new NameNotPossible(
            "'" + WireName.toText(name) + "' is not UTF-8, which names on this computer are");
      }
      try {
        at = at.resolve(new String(WireName.bytes(name), java.nio.charset.StandardCharsets.UTF_8));
      } catch (InvalidPathException e) {
        throw new NameNotPossible("'" + WireName.toText(name) + "' cannot be on this computer");
      }
    }
    return at;
  }

  @Override
  public String show(String path) {
    return path.isEmpty() ? base.toString() : base + "/" + WireName.toText(path);
  }

  @Override
  public List<Node> list(String folder) throws IOException {
    BlockingCalls.check("listing a folder here");
    List<Node> nodes = new ArrayList<>();
    try (Stream<Path> paths = Files.list(at(folder))) {
      for (Path path : (Iterable<Path>) paths::iterator) {
        nodes.add(node(path));
      }
    }
    return nodes;
  }

  @Override
  public Node look(String path) throws IOException {
    BlockingCalls.check("looking at a file here");
    try {
      return node(at(path));
    } catch (NoSuchFileException e) {
      return null;
    }
  }

  private static Node node(Path path) throws IOException {
    Map<String, Object> unix = Files.readAttributes(path, "unix:*", LinkOption.NOFOLLOW_LINKS);
    int mode = (Integer) unix.get("mode");
    FileKind kind = FileKind.ofMode(mode);
    return new Node(
        WireName.fromText(path.getFileName().toString()),
        kind,
        kind == FileKind.FILE ? (Long) unix.get("size") : 0,
        ((FileTime) unix.get("lastModifiedTime")).toInstant().getEpochSecond(),
        Mode.ofStat(mode),
        kind == FileKind.LINK ? WireName.fromText(Files.readSymbolicLink(path).toString()) : null,
        unix.get("owner") + ":" + unix.get("group"));
  }

  @Override
  public InputStream read(String file) throws IOException {
    return Files.newInputStream(at(file), LinkOption.NOFOLLOW_LINKS);
  }

  @Override
  public Incoming create(String file, Node replacing) throws IOException {
    BlockingCalls.check("writing a file here");
    return new Arriving(at(file), replacing != null);
  }

  private static FileAttribute<?> permissions(Mode mode) {
    return PosixFilePermissions.asFileAttribute(
        PosixFilePermissions.fromString(new Mode(mode.bits() & 0777).letters()));
  }

  private static final class Arriving implements Incoming {
    private final Path target;
    private final Path part;
    private final OutputStream out;
    private final boolean replaces;
    private boolean arrived;

    Arriving(Path target, boolean replaces) throws IOException {
      this.target = target;
      this.replaces = replaces;
      this.part = target.resolveSibling(partNameOf(target));
      // Closed to others until it has its mode: it may be a secret.
      this.out =
          Channels.newOutputStream(
              Files.newByteChannel(
                  part,
                  Set.of(StandardOpenOption.CREATE_NEW, StandardOpenOption.WRITE),
                  permissions(new Mode(0600))));
    }

    private static String partNameOf(Path target) {
      String wire = TemporaryName.of(WireName.fromText(target.getFileName().toString()));
      // Cutting a long name may have cut a letter in two.
      return WireName.isUtf8(wire)
          ? new String(WireName.bytes(wire), java.nio.charset.StandardCharsets.UTF_8)
          : TemporaryName.of("long");
    }

    @Override
    public void write(byte[] bytes, int offset, int length) throws IOException {
      out.write(bytes, offset, length);
    }

    @Override
    public String arrive(Mode mode, long modified) throws IOException {
      out.close();
      Files.setAttribute(part, "unix:mode", mode.bits());
      Files.setLastModifiedTime(part, FileTime.from(Instant.ofEpochSecond(modified)));
      if (!replaces && Files.exists(target, LinkOption.NOFOLLOW_LINKS)) {
        throw new FileAlreadyExistsException(target.toString());
      }
      Files.move(part, target, StandardCopyOption.ATOMIC_MOVE);
      arrived = true;
      return null;
    }

    @Override
    public void close() {
      if (!arrived) {
        try {
          out.close();
          Files.deleteIfExists(part);
        } catch (IOException e) {
          // A disk that refuses this has refused the writing too, and that is being told.
        }
      }
    }
  }

  @Override
  public void makeFolder(String folder, Mode mode) throws IOException {
    Files.createDirectory(at(folder), permissions(mode));
  }

  @Override
  public void makeLink(String link, String target, boolean replace) throws IOException {
    Path at = at(link);
    if (!WireName.isUtf8(target)) {
      throw new NameNotPossible("the link's target is not UTF-8");
    }
    Path to = Path.of(new String(WireName.bytes(target), java.nio.charset.StandardCharsets.UTF_8));
    if (!replace) {
      Files.createSymbolicLink(at, to);
      return;
    }
    Path part = at.resolveSibling(Arriving.partNameOf(at));
    Files.createSymbolicLink(part, to);
    Files.move(part, at, StandardCopyOption.ATOMIC_MOVE);
  }

  @Override
  public void setFolderRights(String folder, Mode mode, long modified) throws IOException {
    Path at = at(folder);
    PosixFileAttributes now =
        Files.readAttributes(at, PosixFileAttributes.class, LinkOption.NOFOLLOW_LINKS);
    if (now.isDirectory()) {
      Files.setLastModifiedTime(at, FileTime.from(Instant.ofEpochSecond(modified)));
      Files.setAttribute(at, "unix:mode", mode.bits());
    }
  }

  @Override
  public String why(IOException failure) {
    if (failure instanceof AccessDeniedException) {
      return "no permission on this computer";
    }
    if (failure instanceof NoSuchFileException) {
      return "it is not there any more";
    }
    if (failure instanceof FileAlreadyExistsException) {
      return "the name was taken meanwhile";
    }
    if (failure instanceof NotDirectoryException) {
      return "a file is where a folder should be";
    }
    String said = String.valueOf(failure.getMessage());
    return said.contains("No space left") ? "the disk of this computer is full" : said;
  }

  @Override
  public boolean isLost(IOException failure) {
    return false;
  }
}
