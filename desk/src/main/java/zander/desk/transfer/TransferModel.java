package zander.desk.transfer;

import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.function.BooleanSupplier;
import java.util.function.Consumer;
import java.util.function.Function;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import org.jspecify.annotations.Nullable;
import zander.core.edit.LineDifference;
import zander.core.transfer.Transfer;
import zander.core.transfer.endpoint.Direction;
import zander.core.transfer.endpoint.PartialNames;
import zander.core.transfer.endpoint.Source;
import zander.core.transfer.endpoint.Target;
import zander.core.transfer.progress.Progress;
import zander.core.transfer.progress.Progress.Phase;
import zander.core.transfer.resume.LeftoverFiles;
import zander.core.transfer.resume.ResumeFolder;
import zander.core.transfer.resume.ResumeLogFile;
import zander.core.transfer.resume.SavedTransfer;
import zander.core.transfer.rules.ConflictPrompt;
import zander.core.transfer.rules.DiskFullPrompt;
import zander.core.transfer.rules.KeptModes;
import zander.core.transfer.rules.TransferRules;
import zander.core.work.Cancellation;
import zander.desk.sheet.Question;
import zander.desk.work.Background;

/** One transfer: waiting its turn, running with its questions, or over. Interface thread only. */
public final class TransferModel {
  private final Background background;
  private final TransferRoute route;
  private volatile @Nullable KeptModes keptModes;
  private final TransferRules rules;
  private final ResumeFolder folder;
  private final @Nullable ResumeLogFile before;
  private final String desk;
  private final BooleanSupplier lineBack;
  private final Cancellation cancellation = new Cancellation();
  private final ReadOnlyObjectWrapper<Progress> progress = new ReadOnlyObjectWrapper<>();
  private final ReadOnlyObjectWrapper<Question> question = new ReadOnlyObjectWrapper<>();
  private final TransferRate pace = new TransferRate();
  private final Object oneQuestion = new Object();
  private volatile @Nullable Transfer transfer;
  private volatile @Nullable ResumeLogFile log;
  private volatile boolean paused;
  private volatile long limit;
  private volatile long started;
  private volatile long ended;

  /**
   * What a transfer needs of the desk it is on.
   *
   * @param desk the name of its server
   * @param folder where the list of transfers is kept
   * @param lineBack waits for the line; false when there is none any more
   */
  public record Host(
      Background background, String desk, ResumeFolder folder, BooleanSupplier lineBack) {}

  /**
   * @param before what an earlier try left, to go on with; {@code null} for a new one
   */
  public TransferModel(
      Host host, TransferRoute route, TransferRules rules, @Nullable ResumeLogFile before) {
    this.background = host.background();
    this.desk = host.desk();
    this.folder = host.folder();
    this.lineBack = host.lineBack();
    this.route = route;
    this.rules = rules;
    this.before = before;
    progress.set(Progress.NOTHING);
  }

  /** The modes that the target keeps; before {@link #start}. */
  public void keepModes(@Nullable KeptModes modes) {
    keptModes = modes;
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
    PartialNames names =
        before == null ? new PartialNames() : new PartialNames(before.transfer().mark());
    log = before == null ? folder.begin(saved(names)) : before;
    Source source = route.source().apply(names);
    Target target = route.target().apply(names);
    Transfer made =
        new Transfer(source, target, rules, asked -> ask(asked, source, target), cancellation, log);
    made.whenLineBreaks(this::awaitLine).whenFull(this::askForRoom).keepModes(keptModes);
    // First seen, then told: what the person chooses in between is told by one of both.
    transfer = made;
    made.limiter().pause(paused);
    made.limiter().limit(limit);
    Progress last = made.run(route.names());
    if (before != null && last.phase() == Phase.DONE) {
      sweep(route.target().apply(names), names);
    }
    log.ended(last);
    log.close();
    return last;
  }

  /** The earlier try may have left small files that it had no time to write down. */
  private void sweep(Target target, PartialNames names) {
    try {
      LeftoverFiles.remove(target, route.names(), names, cancellation);
    } catch (IOException e) {
      // All has arrived; what is left has a name that says what it is.
    }
  }

  private SavedTransfer saved(PartialNames names) {
    long now = System.currentTimeMillis();
    return new SavedTransfer(
        now + "-" + names.mark(),
        now,
        desk,
        route.direction(),
        route.from(),
        route.to(),
        route.names(),
        names.mark(),
        SavedTransfer.Kept.of(rules));
  }

  /** Takes a look at where it stands; called a few times a second while it runs. */
  public void look() {
    Transfer running = transfer;
    if (ended == 0 && running != null) {
      Progress now = running.progress();
      pace.add(System.nanoTime(), now.bytes());
      progress.set(now);
    }
  }

  private ConflictPrompt.Answer ask(ConflictPrompt.Question asked, Source source, Target target) {
    List<LineDifference.Line> difference = ConflictWords.difference(asked, source, target);
    return answerTo(
        given -> ConflictWords.of(asked, route.direction(), difference, given),
        (ConflictPrompt.Answer) null);
  }

  private DiskFullPrompt.Answer askForRoom(DiskFullPrompt.Question full) {
    return answerTo(
        given -> DiskFullWords.of(full, route.direction(), given), DiskFullPrompt.Answer.STOP);
  }

  /**
   * Waits, on a transfer's thread, for the person's answer; one question at a time.
   *
   * @param atStop the answer when the transfer is stopped meanwhile
   */
  private <A> A answerTo(Function<Consumer<A>, Question> asked, @Nullable A atStop) {
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

  /** Waits, on a transfer's thread, for the line or for being stopped. */
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
    if (transfer != null) {
      transfer.limiter().pause(wanted);
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
    if (transfer != null) {
      transfer.limiter().limit(bytesASecond);
    }
  }

  public TransferRoute route() {
    return route;
  }

  /** The same for those at the top in which something failed; for all where that is not known. */
  public TransferRoute routeOfFailed() {
    List<String> names =
        progress().problems().stream()
            .filter(problem -> !problem.arrived() && !problem.top().isEmpty())
            .map(Progress.Problem::top)
            .distinct()
            .toList();
    return names.isEmpty() ? route : route.names(names);
  }

  public TransferRules rules() {
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
  public @Nullable Path file() {
    return log == null ? null : log.file();
  }

  public TransferWords words() {
    return new TransferWords(this, pace);
  }

  public Progress progress() {
    return progress.get();
  }

  public ReadOnlyObjectProperty<Question> questionProperty() {
    return question.getReadOnlyProperty();
  }
}
