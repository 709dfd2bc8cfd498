package zander.core.transfer.remote;

import java.io.IOException;
import java.io.InputStream;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Executor;
import java.util.function.Consumer;
import java.util.function.LongConsumer;
import org.jspecify.annotations.Nullable;
import zander.core.files.DiskSpace;
import zander.core.files.FileKind;
import zander.core.files.RemoteBatch.Got;
import zander.core.files.RemoteBatch.Wanted;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.journal.Journal;
import zander.core.phrase.CarrierPhrase;
import zander.core.phrase.Phrase;
import zander.core.transfer.direct.DirectTransfer;
import zander.core.transfer.endpoint.DirectRoute;
import zander.core.transfer.endpoint.PartialNames;
import zander.core.transfer.endpoint.SmallFile;
import zander.core.transfer.endpoint.Source;
import zander.core.transfer.endpoint.Target;
import zander.core.transfer.endpoint.TransferItem;
import zander.core.transfer.endpoint.TreeEntry;
import zander.core.transfer.server.RemoteContext;
import zander.core.transfer.server.RemoteLookup;
import zander.core.transfer.server.ServerChannels;
import zander.core.transfer.server.TransferStrategy;
import zander.core.transfer.server.TransferStrategy.Wish;
import zander.core.transfer.tar.TarDownload;
import zander.core.transfer.tar.TarUpload;
import zander.core.work.Cancellation;

/** A folder on a server. What is replaced or made there is written down in the journal. */
public final class RemoteEndpoint implements Source, Target {
  private final RemoteContext context;
  private final RemoteLookup lookup;
  private final TransferStrategy strategy;
  private final RemoteFolders folders;
  private final RemoteDigests digests;
  private final TarUpload tarUpload;
  private final TarDownload tarDownload;
  private @Nullable DirectTransfer direct;
  private boolean allowsDirect;
  private boolean hasFolders;
  private @Nullable Phrase whyViaLocal;

  public RemoteEndpoint(RemoteFiles files, RemotePath base, Journal journal) {
    this(ServerChannels.of(files), base, journal, null);
  }

  /**
   * @param home where what is replaced is held, if that is on the same file system; {@code null}
   *     for not at all
   */
  public RemoteEndpoint(
      ServerChannels channels, RemotePath base, Journal journal, @Nullable RemotePath home) {
    this(new RemoteContext(channels, base, journal, home, new PartialNames(), Wish.BEST));
  }

  private RemoteEndpoint(RemoteContext context) {
    this.context = context;
    this.lookup = context.lookup();
    this.strategy = context.strategy();
    this.folders = new RemoteFolders(context);
    this.digests = new RemoteDigests(context);
    this.tarUpload = new TarUpload(context);
    this.tarDownload = new TarDownload(context);
  }

  /** Uses nothing but requests to the file service, as for an account without a shell. */
  public RemoteEndpoint byFilesAlone() {
    return new RemoteEndpoint(context.with(context.partialNames(), Wish.FILES));
  }

  /** The same with the temporary names of a transfer that is continued. */
  public RemoteEndpoint marked(PartialNames names) {
    return new RemoteEndpoint(context.with(names, Wish.BEST));
  }

  /**
   * The person lets one of two servers sign in at the other with a key of theirs, for one transfer.
   */
  public RemoteEndpoint allowDirect() {
    allowsDirect = true;
    return this;
  }

  /**
   * What comes here comes from another server and through this computer.
   *
   * @param why it does not come directly
   */
  public RemoteEndpoint viaLocal(Phrase why) {
    whyViaLocal = why;
    return this;
  }

  /**
   * Whole folders are transferred from here, as whoever chose them saw: what they need is started
   * before they are looked at, which saves a round trip.
   */
  public RemoteEndpoint withFolders() {
    hasFolders = true;
    return this;
  }

  @Override
  public boolean hasFolders() {
    return hasFolders;
  }

  @Override
  public @Nullable DirectRoute directRouteFrom(Source source, LongConsumer carried) {
    if (source instanceof RemoteEndpoint other && other.allowsDirect) {
      direct = new DirectTransfer(other.context, context, carried);
      return new RemoteDirectRoute(direct, context, folders, digests);
    }
    return null;
  }

  @Override
  public void giveTo(String owner, String group) {
    context.giveTo(owner, group);
  }

  @Override
  public void tidyUp() throws IOException {
    context.removeLeftovers();
  }

  @Override
  public void expectToRead(List<String> early, @Nullable Executor elsewhere) {
    tarDownload.expect(early);
    starting(
        elsewhere,
        () -> {
          if (strategy.packsDown(0, true)) {
            tarDownload.open();
          }
        });
  }

  @Override
  public void expectToWrite(TransferItem like, boolean many, @Nullable Executor elsewhere) {
    starting(
        elsewhere,
        () -> {
          if (strategy.packsUp(0, true) && (!many || strategy.isFar())) {
            tarUpload.open(like);
          }
        });
  }

  private interface Starting {
    void run() throws IOException;
  }

  private static void starting(@Nullable Executor elsewhere, Starting starting) {
    if (elsewhere == null) {
      return;
    }
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
    tarUpload.giveUp();
    tarDownload.giveUp();
  }

  @Override
  public void end() {
    tarUpload.close();
    tarDownload.close();
    folders.end();
  }

  private RemotePath at(String path) throws NameNotPossible {
    return lookup.at(path);
  }

  private RemoteFiles files() throws IOException {
    return context.files();
  }

  @Override
  public String show(String path) {
    return lookup.show(path);
  }

  @Override
  public List<TreeEntry> list(String folder) throws IOException {
    return lookup.list(folder);
  }

  @Override
  public void list(String folder, Consumer<List<TreeEntry>> portion) throws IOException {
    lookup.list(folder, portion);
  }

  @Override
  public @Nullable TreeEntry look(String path) throws IOException {
    return lookup.look(path);
  }

  @Override
  public List<TreeEntry> lookAll(List<String> paths) throws IOException {
    return lookup.lookAll(paths);
  }

  @Override
  public List<TreeEntry> lookThroughAll(List<String> links) throws IOException {
    return lookup.lookThroughAll(links);
  }

  @Override
  public boolean mayWrite(TreeEntry folder) {
    return lookup.mayWrite(folder);
  }

  @Override
  public Phrase why(IOException failure) {
    return lookup.why(failure);
  }

  @Override
  public void fetch(List<SmallFile> load, Cancellation stop) throws IOException {
    boolean packed = strategy.packsDown(load.size(), tarDownload.isOpen());
    List<SmallFile> wanted = packed ? tarDownload.fetch(load, stop) : load;
    List<Wanted> files = new ArrayList<>();
    for (SmallFile smallFile : wanted) {
      files.add(new Wanted(at(smallFile.item.from()), smallFile.item.node().size()));
    }
    List<Got> got = files().batch().get(files, stop);
    for (int i = 0; i < got.size(); i++) {
      SmallFile smallFile = wanted.get(i);
      Got one = got.get(i);
      if (one.content() != null && one.attributes() != null) {
        smallFile.read(one.content(), one.attributes().modified());
      } else {
        smallFile.failure = one.failure();
      }
    }
  }

  @Override
  public InputStream read(TransferItem item, long from) throws IOException {
    RemotePath file = at(item.from());
    if (strategy.streamsDown(item.node().size() - from)) {
      InputStream stream = ShellFileStreams.read(context, file, from);
      if (stream != null) {
        return stream;
      }
    }
    return files().read(file, from, List.of());
  }

  @Override
  public byte @Nullable [] content(String path, int limit) throws IOException {
    try (InputStream in = files().read(at(path))) {
      byte[] content = in.readNBytes(limit + 1);
      return content.length > limit ? null : content;
    }
  }

  @Override
  public void deliver(List<SmallFile> load, Runnable placed, Cancellation stop) throws IOException {
    new RemoteBatchWriter(context, folders, digests, tarUpload, direct).write(load, placed, stop);
  }

  @Override
  public Incoming create(TransferItem item, @Nullable Part part) throws IOException {
    return new RemoteFileWriter(context, folders, digests, item, part, null);
  }

  @Override
  public @Nullable Part part(String path) throws IOException {
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

  @Override
  public List<IOException> makeFolders(List<TransferItem> made) throws IOException {
    return folders.make(made);
  }

  @Override
  public void makeLink(TransferItem link) throws IOException {
    RemoteLinks.make(context, folders, link);
  }

  @Override
  public List<IOException> finishFolders(List<TransferItem> filled) throws IOException {
    return folders.finish(filled);
  }

  @Override
  public long free() throws IOException {
    DiskSpace space = files().space(context.base());
    return space == null ? -1 : space.free();
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
  public @Nullable Phrase carrier() {
    if (direct != null) {
      return direct.carrier();
    }
    Phrase so = strategy.carrier();
    return so == null || whyViaLocal == null ? so : CarrierPhrase.VIA_LOCAL_SO.of(whyViaLocal, so);
  }

  @Override
  public boolean isLost(IOException failure) {
    return RemoteContext.isLost(failure);
  }

  @Override
  public boolean isOwn(IOException failure) {
    return failure instanceof RemoteFailure;
  }

  @Override
  public boolean isFull(IOException failure) {
    return failure instanceof RemoteFailure remote
        && switch (remote.reason()) {
          case NO_SPACE, NO_INODES, QUOTA -> true;
          default -> false;
        };
  }
}
