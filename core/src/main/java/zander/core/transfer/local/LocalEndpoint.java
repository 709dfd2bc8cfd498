package zander.core.transfer.local;

import java.io.IOException;
import java.io.InputStream;
import java.nio.channels.Channels;
import java.nio.channels.SeekableByteChannel;
import java.nio.file.FileSystemException;
import java.nio.file.Files;
import java.nio.file.InvalidPathException;
import java.nio.file.LinkOption;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.FileTime;
import java.nio.file.attribute.PosixFilePermissions;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import zander.core.files.FileKind;
import zander.core.files.RemoteBatch;
import zander.core.files.RemoteFailure;
import zander.core.files.WireName;
import zander.core.phrase.ExplainedException;
import zander.core.phrase.Phrase;
import zander.core.phrase.TransferPhrase;
import zander.core.rights.Mode;
import zander.core.transfer.endpoint.Endpoint;
import zander.core.transfer.endpoint.PartialNames;
import zander.core.transfer.endpoint.Sha256;
import zander.core.transfer.endpoint.SmallFile;
import zander.core.transfer.endpoint.Source;
import zander.core.transfer.endpoint.Target;
import zander.core.transfer.endpoint.TransferItem;
import zander.core.transfer.endpoint.TreeEntry;
import zander.core.work.BlockingCalls;
import zander.core.work.Cancellation;

/** A folder on this computer. Nothing is ever written outside it. */
public final class LocalEndpoint implements Source, Target {
  private static final Mode FILLING = new Mode(0700);

  private final Path base;
  private final PartialNames partNames;

  private final LocalLookup lookup = new LocalLookup();
  private final ExclusiveRename freePlaces = new ExclusiveRename();
  private final Umask umask = Umask.ofThisProgram();

  public LocalEndpoint(Path base) {
    this(base, new PartialNames());
  }

  /**
   * @param partNames the temporary names of the transfer
   */
  public LocalEndpoint(Path base, PartialNames partNames) {
    this.base = base.toAbsolutePath().normalize();
    this.partNames = partNames;
  }

  Path at(String path) throws NameNotPossible {
    Path at = base;
    if (path.isEmpty()) {
      return at;
    }
    for (String name : path.split("/")) {
      if (!WireName.isSafe(name)) {
        throw new NameNotPossible(TransferPhrase.NO_FILE_NAME.of(WireName.toText(name)));
      }
      if (!WireName.isUtf8(name)) {
        throw new NameNotPossible(TransferPhrase.NAME_NOT_UTF8.of(WireName.toText(name)));
      }
      try {
        at = at.resolve(new String(WireName.bytes(name), java.nio.charset.StandardCharsets.UTF_8));
      } catch (InvalidPathException e) {
        throw new NameNotPossible(TransferPhrase.NAME_NOT_HERE.of(WireName.toText(name)));
      }
    }
    return at;
  }

  Umask umask() {
    return umask;
  }

  void place(Path part, Path target) throws IOException {
    freePlaces.move(part, target);
  }

  /** The path of a temporary name beside a place, relative to the base. */
  String partPath(String place) {
    String name = partNames.of(Endpoint.nameOf(place));
    // Cutting a long name may have cut a letter in two.
    return Endpoint.join(
        Endpoint.folderOf(place), WireName.isUtf8(name) ? name : partNames.of("long"));
  }

  @Override
  public String show(String path) {
    return path.isEmpty() ? base.toString() : base + "/" + WireName.toText(path);
  }

  @Override
  public List<TreeEntry> list(String folder) throws IOException {
    BlockingCalls.check("listing a folder here");
    List<TreeEntry> nodes = new ArrayList<>();
    try (Stream<Path> paths = Files.list(at(folder))) {
      for (Path path : (Iterable<Path>) paths::iterator) {
        try {
          nodes.add(lookup.node(path, true));
        } catch (NoSuchFileException e) {
          // Gone since it was listed.
        }
      }
    }
    return nodes;
  }

  @Override
  public @Nullable TreeEntry look(String path) throws IOException {
    BlockingCalls.check("looking at a file here");
    try {
      return lookup.node(at(path), true);
    } catch (NoSuchFileException e) {
      return null;
    }
  }

  @Override
  public boolean isFree(List<String> paths) throws IOException {
    BlockingCalls.check("looking at files here");
    for (String path : paths) {
      if (!Files.notExists(at(path), LinkOption.NOFOLLOW_LINKS)) {
        return false;
      }
    }
    return true;
  }

  @Override
  public List<TreeEntry> lookAll(List<String> paths) throws IOException {
    List<TreeEntry> nodes = new ArrayList<>();
    for (String path : paths) {
      try {
        nodes.add(look(path));
      } catch (NameNotPossible | FileSystemException e) {
        nodes.add(null);
      }
    }
    return nodes;
  }

  @Override
  public List<TreeEntry> lookThroughAll(List<String> links) throws IOException {
    List<TreeEntry> nodes = new ArrayList<>();
    for (String link : links) {
      try {
        nodes.add(lookup.node(at(link), false));
      } catch (NameNotPossible | FileSystemException e) {
        nodes.add(null);
      }
    }
    return nodes;
  }

  private static SeekableByteChannel open(Path file, TransferItem item) throws IOException {
    // What is followed is followed on purpose; everything else must be what was scanned.
    return item.followed()
        ? Files.newByteChannel(file, StandardOpenOption.READ)
        : Files.newByteChannel(file, Set.of(StandardOpenOption.READ, LinkOption.NOFOLLOW_LINKS));
  }

  @Override
  public void fetch(List<SmallFile> load, Cancellation stop) throws IOException {
    BlockingCalls.check("reading files here");
    for (SmallFile smallFile : load) {
      stop.throwIfStopped();
      try {
        Path file = at(smallFile.item.from());
        try (SeekableByteChannel channel = open(file, smallFile.item)) {
          byte[] content = Channels.newInputStream(channel).readNBytes(RemoteBatch.LARGEST + 1);
          if (content.length > RemoteBatch.LARGEST) {
            throw new ExplainedException(TransferPhrase.GROWN_MEANWHILE.of());
          }
          smallFile.read(
              content,
              content.length == smallFile.item.node().size()
                  ? smallFile.item.node().modified()
                  : Files.getLastModifiedTime(file).toInstant().getEpochSecond());
        }
      } catch (IOException e) {
        smallFile.failure = e;
      }
    }
  }

  @Override
  public InputStream read(TransferItem item, long from) throws IOException {
    SeekableByteChannel channel = open(at(item.from()), item);
    channel.position(from);
    return Channels.newInputStream(channel);
  }

  @Override
  public byte @Nullable [] content(String path, int limit) throws IOException {
    BlockingCalls.check("reading a file here");
    try (InputStream in = Files.newInputStream(at(path), LinkOption.NOFOLLOW_LINKS)) {
      byte[] content = in.readNBytes(limit + 1);
      return content.length > limit ? null : content;
    }
  }

  @Override
  public void deliver(List<SmallFile> load, Runnable placed, Cancellation stop) throws IOException {
    for (SmallFile smallFile : load) {
      stop.throwIfStopped();
      if (smallFile.waits()) {
        try (Incoming incoming = create(smallFile.item, null)) {
          byte[] whole = smallFile.bytes();
          incoming.write(whole, 0, whole.length);
          incoming.arrive(smallFile.timeThere(), smallFile.digest);
          smallFile.arrived = true;
        } catch (IOException e) {
          smallFile.failure = e;
        }
      }
    }
  }

  @Override
  public Incoming create(TransferItem item, @Nullable Part part) throws IOException {
    BlockingCalls.check("writing a file here");
    return new LocalFileWriter(this, item, part);
  }

  @Override
  public @Nullable Part part(String path) throws IOException {
    TreeEntry node = look(path);
    return node == null || node.kind() != FileKind.FILE ? null : new Part(path, node.size());
  }

  @Override
  public void remove(String part) throws IOException {
    Files.deleteIfExists(at(part));
  }

  @Override
  public String digest(String path, long length) throws IOException {
    BlockingCalls.check("reading a file here");
    try (InputStream in = Files.newInputStream(at(path))) {
      return Sha256.of(in, length);
    }
  }

  @Override
  public List<String> digests(List<String> paths) throws IOException {
    List<String> digests = new ArrayList<>();
    for (String path : paths) {
      try {
        digests.add(digest(path, -1));
      } catch (NameNotPossible | FileSystemException e) {
        digests.add(null);
      }
    }
    return digests;
  }

  @Override
  public List<IOException> makeFolders(List<TransferItem> folders) throws IOException {
    BlockingCalls.check("making folders here");
    List<IOException> failures = new ArrayList<>();
    for (TransferItem folder : folders) {
      try {
        Path at = at(folder.to());
        if (folder.mode() == null) {
          Files.createDirectory(at);
        } else {
          Files.createDirectory(
              at,
              PosixFilePermissions.asFileAttribute(
                  PosixFilePermissions.fromString(FILLING.letters())));
        }
        failures.add(null);
      } catch (IOException e) {
        failures.add(e);
      }
    }
    return failures;
  }

  @Override
  public void makeLink(TransferItem link) throws IOException {
    Path at = at(link.to());
    String target = Objects.requireNonNull(link.node().target());
    if (!WireName.isUtf8(target)) {
      throw new NameNotPossible(TransferPhrase.TARGET_NOT_UTF8.of());
    }
    Path to = Path.of(new String(WireName.bytes(target), java.nio.charset.StandardCharsets.UTF_8));
    if (link.there() == null) {
      Files.createSymbolicLink(at, to);
      return;
    }
    Path part = at(partPath(link.to()));
    Files.createSymbolicLink(part, to);
    Files.move(part, at, StandardCopyOption.ATOMIC_MOVE);
  }

  @Override
  public List<IOException> finishFolders(List<TransferItem> folders) throws IOException {
    List<IOException> failures = new ArrayList<>();
    for (TransferItem folder : folders) {
      try {
        Path at = at(folder.to());
        if (Files.isDirectory(at, LinkOption.NOFOLLOW_LINKS)) {
          if (folder.modified() != TransferItem.OF_ARRIVAL) {
            Files.setLastModifiedTime(at, FileTime.from(Instant.ofEpochSecond(folder.modified())));
          }
          if (folder.mode() != null) {
            Files.setAttribute(at, "unix:mode", Umask.plain(folder.mode()));
          }
        }
        failures.add(null);
      } catch (IOException e) {
        failures.add(e);
      }
    }
    return failures;
  }

  @Override
  public long free() throws IOException {
    return Files.getFileStore(base).getUsableSpace();
  }

  @Override
  public @Nullable Phrase cannotHold(String path) {
    try {
      at(path);
      return null;
    } catch (NameNotPossible e) {
      return e.phrase();
    }
  }

  @Override
  public Phrase why(IOException failure) {
    return LocalFailures.why(failure);
  }

  @Override
  public boolean isLost(IOException failure) {
    return false;
  }

  @Override
  public boolean isOwn(IOException failure) {
    return !(failure instanceof RemoteFailure);
  }

  @Override
  public boolean isFull(IOException failure) {
    return isOwn(failure) && LocalFailures.isFull(failure);
  }
}
