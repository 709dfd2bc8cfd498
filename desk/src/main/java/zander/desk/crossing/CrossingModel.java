package zander.desk.crossing;

import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.function.BooleanSupplier;
import java.util.function.Consumer;
import java.util.function.Function;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import zander.core.crossing.Crossing;
import zander.core.crossing.CrossingLog;
import zander.core.crossing.Direction;
import zander.core.crossing.ExistsTalk;
import zander.core.crossing.FullDisk;
import zander.core.crossing.Leftovers;
import zander.core.crossing.PartNames;
import zander.core.crossing.Progress;
import zander.core.crossing.Progress.Phase;
import zander.core.crossing.Rules;
import zander.core.crossing.SavedCrossing;
import zander.core.crossing.Side;
import zander.core.edit.LineDifference;
import zander.core.work.Cancellation;
import zander.desk.sheet.Question;
import zander.desk.work.Background;

/** One crossing: waiting its turn, running with its questions, or over. Interface thread only. */
public final class CrossingModel {
  private final Background background;
  private final Route route;
  private final Rules rules;
  private final Path folder;
  private final CrossingLog before;
  private final String desk;
  private final BooleanSupplier lineBack;
  private final Cancellation cancellation = new Cancellation();
  private final ReadOnlyObjectWrapper<Progress> progress = new ReadOnlyObjectWrapper<>();
  private final ReadOnlyObjectWrapper<Question> question = new ReadOnlyObjectWrapper<>();
  private final Pace pace = new Pace();
  private final Object oneQuestion = new Object();
  private volatile Crossing crossing;
  private volatile CrossingLog log;
  private volatile boolean paused;
  private volatile long limit;
  private volatile long started;
  private volatile long ended;

  /**
   * @param folder where the list of crossings is kept
   * @param before what an earlier try left, to go on with; {@code null} for a new one
   * @param lineBack waits for the line; false when there is none any more
   */
  public CrossingModel(
      Background background,
      Route route,
      Rules rules,
      Path folder,
      CrossingLog before,
      String desk,
      BooleanSupplier lineBack) {
    this.background = background;
    this.route = route;
    this.rules = rules;
    this.folder = folder;
    this.before = before;
    this.desk = desk;
    this.lineBack = lineBack;
    progress.set(Progress.NOTHING);
  }

  /** Starts carrying; told on the interface thread when it is over. */
  public void start(Runnable over) {
    started = System.nanoTime();
    background.run(
        this::run,
        last -> {
          ended = System.nanoTime();
          question.set(null);
          progress.set(last);
          over.run();
        },
        failure -> {
          ended = System.nanoTime();
          over.run();
          throw new IllegalStateException(failure);
        });
  }

  private Progress run() throws IOException {
    PartNames names = before == null ? new PartNames() : new PartNames(before.crossing().mark());
    log = before == null ? CrossingLog.begin(folder, saved(names)) : before;
    Side source = route.source().apply(names);
    Side target = route.target().apply(names);
    Crossing made =
        new Crossing(
            source,
            target,
            rules,
            asked -> ask(asked, source, target),
            cancellation,
            this::awaitLine,
            log);
    made.whenFull(this::askForRoom);
    // First seen, then told: what the person chooses in between is told by one of both.
    crossing = made;
    made.gate().pause(paused);
    made.gate().limit(limit);
    Progress last = made.run(route.names());
    if (before != null && last.phase() == Phase.DONE) {
      sweep(route.target().apply(names), names);
    }
    log.ended(last);
    log.close();
    return last;
  }

  /** The earlier try may have left small files that it had no time to write down. */
  private void sweep(Side target, PartNames names) {
    try {
      Leftovers.remove(target, route.names(), names, cancellation);
    } catch (IOException e) {
      // All has arrived; what is left has a name that says what it is.
    }
  }

  private SavedCrossing saved(PartNames names) {
    long now = System.currentTimeMillis();
    return new SavedCrossing(
        now + "-" + names.mark(),
        now,
        desk,
        route.direction(),
        route.from(),
        route.to(),
        route.names(),
        names.mark(),
        SavedCrossing.Kept.of(rules));
  }

  /** Takes a look at where it stands; called a few times a second while it runs. */
  public void look() {
    Crossing running = crossing;
    if (ended == 0 && running != null) {
      Progress now = running.progress();
      pace.add(System.nanoTime(), now.bytes());
      progress.set(now);
    }
  }

  private ExistsTalk.Answer ask(ExistsTalk.Question asked, Side source, Side target) {
    List<LineDifference.Line> difference = ExistsWords.difference(asked, source, target);
    return answerTo(
        given -> ExistsWords.of(asked, route.direction(), difference, given),
        (ExistsTalk.Answer) null);
  }

  private FullDisk.Answer askForRoom(FullDisk.Question full) {
    return answerTo(given -> FullWords.of(full, route.direction(), given), FullDisk.Answer.STOP);
  }

  /**
   * Waits, on a crossing's thread, for the person's answer; one question at a time.
   *
   * @param atStop the answer when the crossing is stopped meanwhile
   */
  private <A> A answerTo(Function<Consumer<A>, Question> asked, A atStop) {
    synchronized (oneQuestion) {
      CompletableFuture<A> answer = new CompletableFuture<>();
      cancellation.onStop(() -> answer.complete(atStop));
      background.show(
          () ->
              question.set(
                  asked.apply(
                      given -> {
                        question.set(null);
                        answer.complete(given);
                      })));
      return answer.join();
    }
  }

  /** Waits, on a crossing's thread, for the line or for being stopped. */
  private boolean awaitLine() {
    CompletableFuture<Boolean> answer = new CompletableFuture<>();
    cancellation.onStop(() -> answer.complete(false));
    background.run(() -> answer.complete(lineBack.getAsBoolean()));
    return answer.join();
  }

  public void stop() {
    cancellation.stop();
    if (started == 0) {
      ended = System.nanoTime();
      Progress none = progress.get();
      progress.set(none.stopped());
    }
  }

  /** Holds it, or lets it go on. */
  public void pause(boolean wanted) {
    paused = wanted;
    if (crossing != null) {
      crossing.gate().pause(wanted);
    }
    look();
  }

  public boolean isPaused() {
    return paused;
  }

  /**
   * @param bytesASecond 0 for as many as the line takes
   */
  public void limit(long bytesASecond) {
    limit = bytesASecond;
    if (crossing != null) {
      crossing.gate().limit(bytesASecond);
    }
  }

  public Route route() {
    return route;
  }

  public Rules rules() {
    return rules;
  }

  public Direction direction() {
    return route.direction();
  }

  /** Whether it waits for a person's answer. */
  public boolean isAsking() {
    return question.get() != null;
  }

  public boolean isWaiting() {
    return started == 0 && ended == 0;
  }

  public boolean isOver() {
    return ended != 0;
  }

  /** Seconds it took, or has taken so far. */
  public double seconds() {
    long end = ended == 0 ? System.nanoTime() : ended;
    return started == 0 ? 0 : (end - started) / 1e9;
  }

  /** Its file on this computer; {@code null} before it has one. */
  public Path file() {
    return log == null ? null : log.file();
  }

  public CrossingWords words() {
    return new CrossingWords(this, pace);
  }

  public Progress progress() {
    return progress.get();
  }

  public ReadOnlyObjectProperty<Question> questionProperty() {
    return question.getReadOnlyProperty();
  }
}
