package zander.desk.waterline;

import java.nio.file.Path;
import java.util.List;
import org.jspecify.annotations.Nullable;
import zander.core.files.FileKind;
import zander.core.files.RemotePath;
import zander.core.phrase.Phrase;
import zander.core.transfer.endpoint.Direction;
import zander.core.transfer.local.LocalEndpoint;
import zander.core.transfer.remote.RemoteEndpoint;
import zander.core.transfer.resume.SavedTransfer;
import zander.core.transfer.server.SharedConnectionChannels;
import zander.desk.folder.FolderModel;
import zander.desk.line.DeskServer;
import zander.desk.local.LocalModel;
import zander.desk.transfer.TransferRoute;

/** The ways that transfers of one desk go. */
final class TransferRoutes {
  private final DeskServer server;
  private final FolderModel folder;
  private final LocalModel local;

  TransferRoutes(DeskServer server, FolderModel folder, LocalModel local) {
    this.server = server;
    this.folder = folder;
    this.local = local;
  }

  TransferRoute up(Path from, List<String> names) {
    return up(from, folder.path(), names);
  }

  private TransferRoute up(Path from, RemotePath to, List<String> names) {
    return new TransferRoute(
        Direction.SEND_UP,
        marks -> new LocalEndpoint(from, marks),
        marks -> remote(server, to).marked(marks),
        from.toString(),
        to.text(),
        names,
        server.personHome());
  }

  TransferRoute down(List<String> names) {
    return down(folder.path(), local.folder(), names);
  }

  TransferRoute down(RemotePath from, Path to, List<String> names) {
    boolean folders =
        from.equals(folder.path())
            && folder.selection().stream()
                .anyMatch(row -> row.attributes().kind() == FileKind.FOLDER);
    return new TransferRoute(
        Direction.BRING_DOWN,
        marks -> folders ? remote(server, from).withFolders() : remote(server, from),
        marks -> new LocalEndpoint(to, marks),
        from.text(),
        to.toString(),
        names,
        server.personHome());
  }

  /**
   * @param whyNotDirect {@code null} when a key may be lent for it
   */
  TransferRoute across(
      DeskServer other, RemotePath from, RemotePath to, List<String> names, Phrase whyNotDirect) {
    return new TransferRoute(
        Direction.ACROSS,
        marks -> whyNotDirect == null ? remote(server, from).allowDirect() : remote(server, from),
        marks ->
            whyNotDirect == null
                ? remote(other, to).marked(marks)
                : remote(other, to).marked(marks).viaLocal(whyNotDirect),
        before(server) + from.text(),
        before(other) + to.text(),
        names,
        server.personHome());
  }

  private static RemoteEndpoint remote(DeskServer on, RemotePath at) {
    return new RemoteEndpoint(
        new SharedConnectionChannels(on::connection, on.name()), at, on.journal(), on.home());
  }

  private static String before(DeskServer on) {
    return on.name() + ":";
  }

  /** The same way between this desk's server and this computer. */
  TransferRoute like(TransferRoute other) {
    return other.direction() == Direction.SEND_UP
        ? up(Path.of(other.from()), RemotePath.of(other.to()), other.names())
        : down(RemotePath.of(other.from()), Path.of(other.to()), other.names());
  }

  /** The way of one that was saved, between this desk and this computer. */
  TransferRoute saved(SavedTransfer saved) {
    return saved.direction() == Direction.SEND_UP
        ? up(Path.of(saved.from()), RemotePath.of(saved.to()), saved.names())
        : down(RemotePath.of(saved.from()), Path.of(saved.to()), saved.names());
  }

  /** The server that one which was saved went to; {@code null} when it is not open. */
  @Nullable DeskServer otherOf(SavedTransfer saved, List<DeskServer> open) {
    return open.stream()
        .filter(other -> !other.equals(server) && saved.to().startsWith(before(other) + "/"))
        .findFirst()
        .orElse(null);
  }

  TransferRoute savedAcross(SavedTransfer saved, DeskServer other, Phrase whyNotDirect) {
    return across(
        other,
        RemotePath.of(saved.from().substring(before(server).length())),
        RemotePath.of(saved.to().substring(before(other).length())),
        saved.names(),
        whyNotDirect);
  }
}
