package zander.desk.model;

import java.nio.file.Path;
import java.util.List;
import zander.core.crossing.Direction;
import zander.core.crossing.LocalSide;
import zander.core.crossing.OwnLine;
import zander.core.crossing.RemoteSide;
import zander.core.crossing.SavedCrossing;
import zander.core.files.FileKind;
import zander.core.files.RemotePath;
import zander.desk.crossing.Route;

/** The ways that crossings of one desk go. */
final class Routes {
  private final DeskModel desk;

  Routes(DeskModel desk) {
    this.desk = desk;
  }

  Route up(Path from, List<String> names) {
    return up(from, desk.folder().path(), names);
  }

  private Route up(Path from, RemotePath to, List<String> names) {
    return new Route(
        Direction.SEND_UP,
        marks -> new LocalSide(from, marks),
        marks -> remote(desk, to).marked(marks),
        from.toString(),
        to.text(),
        names,
        desk.personHome());
  }

  Route down(List<String> names) {
    return down(desk.folder().path(), desk.local().folder(), names);
  }

  Route down(RemotePath from, Path to, List<String> names) {
    boolean folders =
        from.equals(desk.folder().path())
            && desk.folder().selection().stream()
                .anyMatch(row -> row.attributes().kind() == FileKind.FOLDER);
    return new Route(
        Direction.BRING_DOWN,
        marks -> folders ? remote(desk, from).withFolders() : remote(desk, from),
        marks -> new LocalSide(to, marks),
        from.text(),
        to.toString(),
        names,
        desk.personHome());
  }

  /**
   * @param whyNotStraight {@code null} when a key may be lent for it
   */
  Route across(
      DeskModel other, RemotePath from, RemotePath to, List<String> names, String whyNotStraight) {
    return new Route(
        Direction.ACROSS,
        marks -> whyNotStraight == null ? remote(desk, from).straight() : remote(desk, from),
        marks ->
            whyNotStraight == null
                ? remote(other, to).marked(marks)
                : remote(other, to).marked(marks).around(whyNotStraight),
        before(desk) + from.text(),
        before(other) + to.text(),
        names,
        desk.personHome());
  }

  private static RemoteSide remote(DeskModel on, RemotePath at) {
    return new RemoteSide(
        new OwnLine(on::connection, on.entry().name()), at, on.journal(), on.home());
  }

  private static String before(DeskModel on) {
    return on.entry().name() + ":";
  }

  /** The way of one that was saved, between this desk and this computer. */
  Route saved(SavedCrossing saved) {
    return saved.direction() == Direction.SEND_UP
        ? up(Path.of(saved.from()), RemotePath.of(saved.to()), saved.names())
        : down(RemotePath.of(saved.from()), Path.of(saved.to()), saved.names());
  }

  /** The desk that one which was saved went to; {@code null} when it is not open. */
  DeskModel otherOf(SavedCrossing saved, List<DeskModel> open) {
    return open.stream()
        .filter(other -> other != desk && saved.to().startsWith(before(other) + "/"))
        .findFirst()
        .orElse(null);
  }

  Route savedAcross(SavedCrossing saved, DeskModel other, String whyNotStraight) {
    return across(
        other,
        RemotePath.of(saved.from().substring(before(desk).length())),
        RemotePath.of(saved.to().substring(before(other).length())),
        saved.names(),
        whyNotStraight);
  }
}
