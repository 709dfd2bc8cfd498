package zander.desk.model;

import java.util.List;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.beans.property.SimpleObjectProperty;
import zander.core.crossing.Direction;
import zander.core.crossing.LocalSide;
import zander.core.crossing.OwnLine;
import zander.core.crossing.RemoteSide;
import zander.core.crossing.Side;
import zander.core.crossing.WhenExists;
import zander.desk.sheet.Question;
import zander.desk.work.Said;

/** What goes over the waterline of one desk: one crossing at a time, and the rule in force. */
public final class Crossings {
  private final DeskModel desk;
  private final ObjectProperty<WhenExists> whenExists = new SimpleObjectProperty<>(WhenExists.ASK);
  private Runnable whenOver = () -> {};
  private final ReadOnlyObjectWrapper<CrossingModel> current = new ReadOnlyObjectWrapper<>();

  Crossings(DeskModel desk) {
    this.desk = desk;
  }

  /** Sends what is selected below the waterline up into the folder shown. */
  public void sendUp() {
    List<String> names = desk.local().selection().stream().map(row -> row.node().name()).toList();
    if (names.isEmpty()) {
      tell("Nothing is selected on this computer", "Select files or folders below the waterline.");
      return;
    }
    cross(
        Direction.SEND_UP,
        new LocalSide(desk.local().folder()),
        new RemoteSide(
            new OwnLine(desk::connection), desk.folder().path(), desk.journal(), desk.home()),
        names);
  }

  /** Sends files up that were dropped; those of one folder, which is that of the first. */
  public void sendUp(List<java.nio.file.Path> paths) {
    if (paths.isEmpty()) {
      return;
    }
    java.nio.file.Path from = paths.get(0).toAbsolutePath().getParent();
    List<String> names =
        paths.stream()
            .filter(path -> path.toAbsolutePath().getParent().equals(from))
            .map(path -> zander.core.files.WireName.fromText(path.getFileName().toString()))
            .toList();
    cross(
        Direction.SEND_UP,
        new LocalSide(from),
        new RemoteSide(
            new OwnLine(desk::connection), desk.folder().path(), desk.journal(), desk.home()),
        names);
  }

  /** Brings what is selected on the server down into this computer's folder. */
  public void bringDown() {
    List<String> names =
        desk.folder().selection().stream().map(row -> row.path().wireName()).toList();
    if (names.isEmpty()) {
      tell("Nothing is selected on the server", "Select files or folders above the waterline.");
      return;
    }
    cross(
        Direction.BRING_DOWN,
        new RemoteSide(
            new OwnLine(desk::connection), desk.folder().path(), desk.journal(), desk.home()),
        new LocalSide(desk.local().folder()),
        names);
  }

  /** Copies what is selected into the folder of another desk, as a stream through this computer. */
  public void copyTo(DeskModel other) {
    List<String> names =
        desk.folder().selection().stream().map(row -> row.path().wireName()).toList();
    if (names.isEmpty()) {
      tell("Nothing is selected on the server", "Select files or folders above the waterline.");
      return;
    }
    cross(
        Direction.ACROSS,
        new RemoteSide(new OwnLine(desk::connection), desk.folder().path(), desk.journal(), null),
        new RemoteSide(
            new OwnLine(other::connection), other.folder().path(), other.journal(), other.home()),
        names);
    whenOver = () -> other.folder().refresh();
  }

  private void tell(String headline, String detail) {
    desk.currentProperty().set(desk.folder());
    desk.folder().ask(Question.notice(new Said(headline, detail), false, desk.folder().dismiss()));
  }

  private void cross(Direction direction, Side source, Side target, List<String> names) {
    if (current.get() != null && !current.get().isOver()) {
      tell("A crossing is under way", "One at a time for now: wait for it, or stop it.");
      return;
    }
    CrossingModel started =
        new CrossingModel(
            desk.background(),
            direction,
            source,
            target,
            names,
            whenExists.get(),
            () -> desk.line().awaitBack());
    started
        .questionProperty()
        .addListener(
            (observed, old, now) -> {
              if (now != null) {
                desk.currentProperty().set(desk.folder());
                desk.folder().ask(now);
              } else if (desk.folder().questionProperty().get() == old) {
                desk.folder().dismissQuestion();
              }
            });
    current.set(started);
    started.start(
        () -> {
          if (!desk.line().awayProperty().get()) {
            desk.folder().refresh();
            desk.changed(List.of());
          }
          desk.local().refresh();
          whenOver.run();
          whenOver = () -> {};
          showProblems(started);
          desk.checkLine();
        });
  }

  private void showProblems(CrossingModel over) {
    var problems = over.progress().problems();
    if (problems.isEmpty()) {
      return;
    }
    StringBuilder list = new StringBuilder();
    problems.stream()
        .limit(6)
        .forEach(p -> list.append(p.path()).append(": ").append(p.why()).append('\n'));
    if (problems.size() > 6) {
      list.append("and ").append(problems.size() - 6).append(" more");
    }
    desk.folder()
        .ask(
            Question.notice(
                new Said(over.line(), list.toString().strip()), true, desk.folder().dismiss()));
  }

  public void stop() {
    if (current.get() != null) {
      current.get().stop();
    }
  }

  /** The rule for names that are taken, for crossings begun from now on. */
  public ObjectProperty<WhenExists> whenExistsProperty() {
    return whenExists;
  }

  /** The last crossing that was begun; {@code null} before the first. */
  public ReadOnlyObjectProperty<CrossingModel> currentProperty() {
    return current.getReadOnlyProperty();
  }

  public CrossingModel current() {
    return current.get();
  }
}
