package zander.desk.model;

import java.nio.file.Path;
import java.util.List;
import zander.core.files.FileKind;
import zander.core.files.RemotePath;
import zander.core.transfer.endpoint.Direction;
import zander.core.transfer.local.LocalEndpoint;
import zander.core.transfer.remote.RemoteEndpoint;
import zander.core.transfer.resume.SavedTransfer;
import zander.core.transfer.server.SharedConnectionChannels;
import zander.desk.transfer.TransferRoute;

/** The ways that transfers of one desk go. */
final class TransferRoutes {
  private final DeskModel desk;

  TransferRoutes(DeskModel desk) {
    this.desk = desk;
  }

  TransferRoute up(Path from, List<String> names) {
    return up(from, desk.folder().path(), names);
  }

  private TransferRoute up(Path from, RemotePath to, List<String> names) {
    return new TransferRoute(
        Direction.SEND_UP,
        marks -> new LocalEndpoint(from, marks),
        marks -> remote(desk, to).marked(marks),
        from.toString(),
        to.text(),
        names,
        desk.personHome());
  }

  TransferRoute down(List<String> names) {
    return down(desk.folder().path(), desk.local().folder(), names);
  }

  TransferRoute down(RemotePath from, Path to, List<String> names) {
    boolean folders =
        from.equals(desk.folder().path())
            && desk.folder().selection().stream()
                .anyMatch(row -> row.attributes().kind() == FileKind.FOLDER);
    return new TransferRoute(
        Direction.BRING_DOWN,
        marks -> folders ? remote(desk, from).withFolders() : remote(desk, from),
        marks -> new LocalEndpoint(to, marks),
        from.text(),
        to.toString(),
        names,
        desk.personHome());
  }

  /**
   * @param whyNotDirect {@code null} when a key may be lent for it
   */
  TransferRoute across(
      DeskModel other, RemotePath from, RemotePath to, List<String> names, String whyNotDirect) {
    return new TransferRoute(
        Direction.ACROSS,
        marks -> whyNotDirect == null ? remote(desk, from).allowDirect() : remote(desk, from),
        marks ->
            whyNotDirect == null
                ? remote(other, to).marked(marks)
                : remote(other, to).marked(marks).viaLocal(whyNotDirect),
        before(desk) + from.text(),
        before(other) + to.text(),
        names,
        desk.personHome());
  }

  private static RemoteEndpoint remote(DeskModel on, RemotePath at) {
    return new RemoteEndpoint(
        new SharedConnectionChannels(on::connection, on.entry().name()),
        at,
        on.journal(),
        on.home());
  }

  private static String before(DeskModel on) {
    return on.entry().name() + ":";
  }

  /** The way of one that was saved, between this desk and this computer. */
  TransferRoute saved(SavedTransfer saved) {
    return saved.direction() == Direction.SEND_UP
        ? up(Path.of(saved.from()), RemotePath.of(saved.to()), saved.names())
        : down(RemotePath.of(saved.from()), Path.of(saved.to()), saved.names());
  }

  /** The desk that one which was saved went to; {@code null} when it is not open. */
  DeskModel otherOf(SavedTransfer saved, List<DeskModel> open) {
    return open.stream()
        .filter(other -> other != desk && saved.to().startsWith(before(other) + "/"))
        .findFirst()
        .orElse(null);
  }

  TransferRoute savedAcross(SavedTransfer saved, DeskModel other, String whyNotDirect) {
    return across(
        other,
        RemotePath.of(saved.from().substring(before(desk).length())),
        RemotePath.of(saved.to().substring(before(other).length())),
        saved.names(),
        whyNotDirect);
  }
}
