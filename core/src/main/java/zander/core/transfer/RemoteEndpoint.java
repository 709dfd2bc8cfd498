package zander.core.transfer;

import java.io.IOException;
import java.io.InputStream;
import java.util.ArrayList;
import java.util.List;
import java.util.Queue;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.Executor;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.Consumer;
import zander.core.change.HoldingFolder;
import zander.core.files.AccountNames;
import zander.core.files.DiskSpace;
import zander.core.files.FileKind;
import zander.core.files.RemoteBatch.Got;
import zander.core.files.RemoteBatch.Wanted;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFailure.Reason;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.journal.Journal;
import zander.core.work.Cancellation;

/** A folder on a server. What is replaced or made there is written down in the journal. */
public final class RemoteEndpoint implements Endpoint {
  static final String AROUND = "through this computer's memory, not its disk, because ";

  private final ServerChannels line;
  private final RemotePath base;
  private final RemoteLookup looks;
  private final Journal journal;
  private final RemotePath home;
  private final PartialNames partNames;
  private final TransferStrategy carriers;
  private final RemoteFolders madeFolders;
  private final RemoteDigests digests;
  private final TarUpload packedUp;
  private final TarDownload packedDown;
  private DirectTransfer straight;
  private boolean mayGoStraight;
  private boolean hasFolders;
  private String around = "";
  private String owner = "";
  private String ownerGroup = "";
  private long group;
  private RemotePath place;
  private int held;

  private final AtomicInteger nextChannel = new AtomicInteger();

  /** Temporary files that are to be removed at the end, because that was not possible before. */
  private final Queue<RemotePath> leftovers = new ConcurrentLinkedQueue<>();

  public RemoteEndpoint(RemoteFiles files, RemotePath base, Journal journal) {
    this(ServerChannels.of(files), base, journal, null);
  }

  /**
   * @param home where what is replaced is held, if that is on the same file system; {@code null}
   *     for not at all
   */
  public RemoteEndpoint(ServerChannels line, RemotePath base, Journal journal, RemotePath home) {
    this(line, base, journal, home, new PartialNames(), TransferStrategy.Wish.BEST);
  }

  RemoteEndpoint(
      ServerChannels line,
      RemotePath base,
      Journal journal,
      RemotePath home,
      PartialNames partNames,
      TransferStrategy.Wish wish) {
    this.line = line;
    this.base = base;
    this.looks = new RemoteLookup(line, base);
    this.journal = journal;
    this.home = home;
    this.partNames = partNames;
    this.carriers = new TransferStrategy(line, wish);
    this.madeFolders = new RemoteFolders(this);
    this.digests = new RemoteDigests(this);
    this.packedUp = new TarUpload(this);
    this.packedDown = new TarDownload(this);
  }

  /** Uses nothing but requests to the file service, as for an account without a shell. */
  public RemoteEndpoint byFilesAlone() {
    return new RemoteEndpoint(line, base, journal, home, partNames, TransferStrategy.Wish.FILES);
  }

  /** The same side with the temporary names of a transfer that is continued. */
  public RemoteEndpoint marked(PartialNames names) {
    return new RemoteEndpoint(line, base, journal, home, names, TransferStrategy.Wish.BEST);
  }

  /**
   * The person lets one of two servers sign in at the other with a key of theirs, for one transfer.
   */
  public RemoteEndpoint straight() {
    mayGoStraight = true;
    return this;
  }

  /**
   * What comes here comes from another server and through this computer.
   *
   * @param why it does not come straight
   */
  public RemoteEndpoint around(String why) {
    around = AROUND + why + ": ";
    return this;
  }

  /**
   * Whole folders cross from here, as whoever chose them saw: what they need is started before they
   * are looked at, which saves a round trip.
   */
  public RemoteEndpoint withFolders() {
    hasFolders = true;
    return this;
  }

  @Override
  public boolean hasFolders() {
    return hasFolders;
  }

  boolean mayGoStraight() {
    return mayGoStraight;
  }

  /** What comes to this side comes this way, where it can. */
  void comesBy(DirectTransfer way) {
    straight = way;
  }

  DirectTransfer way() {
    return straight;
  }

  /** Gives what arrives this owner and group, where that is allowed; empty to leave them. */
  void giveTo(String user, String toGroup) {
    owner = user;
    ownerGroup = toGroup;
  }

  int ownerUid() {
    return owner.isEmpty() ? -1 : names().uidOf(owner).orElse(-1);
  }

  int ownerGid() {
    return ownerGroup.isEmpty() ? -1 : names().gidOf(ownerGroup).orElse(-1);
  }

  private AccountNames names() {
    try {
      return files().names();
    } catch (IOException e) {
      return new AccountNames();
    }
  }

  /** What this transfer does belongs together in the journal. */
  synchronized long group() {
    if (group == 0) {
      group = journal.newGroup();
    }
    return group;
  }

  Journal journal() {
    return journal;
  }

  ServerChannels line() {
    return line;
  }

  RemotePath base() {
    return base;
  }

  PartialNames partNames() {
    return partNames;
  }

  TransferStrategy carriers() {
    return carriers;
  }

  RemoteFolders madeFolders() {
    return madeFolders;
  }

  RemoteFiles files() throws IOException {
    return line.files();
  }

  /** The next of the channels that loads go over in turn, where one would carry too little. */
  RemoteFiles filesForLoad() throws IOException {
    int channels = carriers.channelsUp();
    if (channels == 1) {
      return files();
    }
    List<RemoteFiles> all = new ArrayList<>(List.of(files()));
    all.addAll(line.lanes(channels - 1));
    return all.get(Math.floorMod(nextChannel.getAndIncrement(), all.size()));
  }

  void leave(RemotePath part) {
    leftovers.add(part);
  }

  /** A free name in the holding folder; {@code null} when nothing is or can be held. */
  synchronized RemotePath holdingName() throws IOException {
    if (home == null) {
      return null;
    }
    if (held == 0) {
      try {
        place = new HoldingFolder(files(), home).newPlace(base);
      } catch (RemoteFailure e) {
        if (e.reason() == Reason.LINE_LOST) {
          throw e;
        }
      }
    }
    held++;
    return place == null ? null : place.child(Integer.toString(held));
  }

  /** Whether what is replaced is to be held on the server. */
  boolean holds() {
    return home != null;
  }

  @Override
  public void tidyUp() throws IOException {
    List<RemotePath> left = List.copyOf(leftovers);
    if (left.isEmpty()) {
      // A line that went at the very end is nobody's concern then.
      return;
    }
    // What cannot be removed has a name that says what it is.
    files().batch().removeFiles(left);
    leftovers.removeAll(left);
  }

  @Override
  public void expectToRead(List<String> early, Executor elsewhere) {
    starting(
        elsewhere,
        () -> {
          if (carriers.packsDown(0, true)) {
            packedDown.open(early);
          }
        });
  }

  @Override
  public void expectToWrite(TransferItem like, boolean many, Executor elsewhere) {
    starting(
        elsewhere,
        () -> {
          if (carriers.packsUp(0, true) && (!many || carriers.isFar())) {
            packedUp.open(like);
          }
        });
  }

  private interface Starting {
    void run() throws IOException;
  }

  private static void starting(Executor elsewhere, Starting starting) {
    elsewhere.execute(
        () -> {
          try {
            starting.run();
          } catch (IOException e) {
            // The first load tries it again, and tells what is wrong.
          }
        });
  }

  @Override
  public void giveUp() {
    packedUp.giveUp();
    packedDown.giveUp();
  }

  TarUpload packedUp() {
    return packedUp;
  }

  @Override
  public void end() {
    packedUp.close();
    packedDown.close();
    madeFolders.end();
  }

  RemotePath at(String path) throws NameNotPossible {
    return looks.at(path);
  }

  @Override
  public String show(String path) {
    return looks.show(path);
  }

  @Override
  public List<TreeEntry> list(String folder) throws IOException {
    return looks.list(folder);
  }

  @Override
  public void list(String folder, Consumer<List<TreeEntry>> portion) throws IOException {
    looks.list(folder, portion);
  }

  @Override
  public TreeEntry look(String path) throws IOException {
    return looks.look(path);
  }

  @Override
  public List<TreeEntry> lookAll(List<String> paths) throws IOException {
    return looks.lookAll(paths);
  }

  @Override
  public TreeEntry lookThrough(String link) throws IOException {
    return looks.lookThrough(link);
  }

  @Override
  public boolean mayWrite(TreeEntry folder) {
    return looks.mayWrite(folder);
  }

  @Override
  public String why(IOException failure) {
    return looks.why(failure);
  }

  @Override
  public void fetch(List<SmallFile> load, Cancellation stop) throws IOException {
    boolean packed = carriers.packsDown(load.size(), packedDown.isOpen());
    List<SmallFile> wanted = packed ? packedDown.fetch(load, stop) : load;
    List<Wanted> files = new ArrayList<>();
    for (SmallFile parcel : wanted) {
      files.add(new Wanted(at(parcel.item.from()), parcel.item.node().size()));
    }
    List<Got> got = files().batch().get(files, stop);
    for (int i = 0; i < got.size(); i++) {
      SmallFile parcel = wanted.get(i);
      if (got.get(i).failure() == null) {
        parcel.read(got.get(i).content(), got.get(i).attributes().modified());
      } else {
        parcel.failure = got.get(i).failure();
      }
    }
  }

  @Override
  public InputStream read(TransferItem item, long from) throws IOException {
    RemotePath file = at(item.from());
    if (carriers.streamsDown(item.node().size() - from)) {
      InputStream stream = ShellFileStreams.read(this, file, from);
      if (stream != null) {
        return stream;
      }
    }
    return files().read(file, from, List.of());
  }

  @Override
  public byte[] content(String path, int limit) throws IOException {
    try (InputStream in = files().read(at(path))) {
      byte[] content = in.readNBytes(limit + 1);
      return content.length > limit ? null : content;
    }
  }

  @Override
  public void deliver(List<SmallFile> load, Runnable placed, Cancellation stop) throws IOException {
    new RemoteBatchWriter(this, load, placed, stop).run();
  }

  @Override
  public Incoming create(TransferItem item, Part part) throws IOException {
    return new RemoteFileWriter(this, item, part, false);
  }

  @Override
  public Part part(String path) throws IOException {
    TreeEntry node = look(path);
    return node == null || node.kind() != FileKind.FILE ? null : new Part(path, node.size());
  }

  @Override
  public void remove(String part) throws IOException {
    files().removeFiles(List.of(at(part)));
  }

  @Override
  public String digest(String path, long length) throws IOException {
    return digests.of(at(path), length);
  }

  @Override
  public List<String> digests(List<String> paths) throws IOException {
    List<RemotePath> at = new ArrayList<>();
    for (String path : paths) {
      at.add(at(path));
    }
    return digests.of(at);
  }

  List<String> digestsOf(List<RemotePath> paths) throws IOException {
    return digests.of(paths);
  }

  @Override
  public List<IOException> makeFolders(List<TransferItem> folders) throws IOException {
    return madeFolders.make(folders);
  }

  @Override
  public void makeLink(TransferItem link) throws IOException {
    RemoteLinks.make(this, link);
  }

  @Override
  public List<IOException> finishFolders(List<TransferItem> folders) throws IOException {
    return madeFolders.finish(folders);
  }

  @Override
  public long free() throws IOException {
    DiskSpace space = files().space(base);
    return space == null ? -1 : space.free();
  }

  @Override
  public String cannotHold(String path) {
    try {
      at(path);
      return null;
    } catch (NameNotPossible e) {
      return e.getMessage();
    }
  }

  @Override
  public String carrier() {
    return straight != null ? straight.words() : around + carriers.words();
  }

  @Override
  public boolean isLost(IOException failure) {
    return failure instanceof RemoteFailure remote && remote.reason() == Reason.LINE_LOST;
  }
}
