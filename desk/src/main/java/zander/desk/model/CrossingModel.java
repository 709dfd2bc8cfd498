package zander.desk.model;

import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.function.BooleanSupplier;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import zander.core.crossing.Crossing;
import zander.core.crossing.Direction;
import zander.core.crossing.ExistsTalk;
import zander.core.crossing.Node;
import zander.core.crossing.Progress;
import zander.core.crossing.Side;
import zander.core.crossing.WhenExists;
import zander.core.files.FileKind;
import zander.core.work.Cancellation;
import zander.desk.sheet.Question;
import zander.desk.sheet.Question.Choice;
import zander.desk.sheet.Question.Fact;
import zander.desk.sheet.Texts;
import zander.desk.work.Background;
import zander.desk.work.Said;

/** One crossing as the waterline shows it: where it stands, its question, a way to stop it. */
public final class CrossingModel {
  private final Background background;
  private final Direction direction;
  private final List<String> names;
  private final Cancellation cancellation = new Cancellation();
  private final ReadOnlyObjectWrapper<Progress> progress = new ReadOnlyObjectWrapper<>();
  private final ReadOnlyObjectWrapper<Question> question = new ReadOnlyObjectWrapper<>();
  private final Crossing crossing;
  private final Pace pace = new Pace();
  private volatile long started;
  private volatile long ended;

  CrossingModel(
      Background background,
      Direction direction,
      Side source,
      Side target,
      List<String> names,
      WhenExists rule,
      BooleanSupplier lineBack) {
    this.background = background;
    this.direction = direction;
    this.names = List.copyOf(names);
    this.crossing =
        new Crossing(
            source,
            target,
            zander.core.crossing.Rules.of(rule),
            this::ask,
            cancellation,
            () -> awaitLine(lineBack),
            zander.core.crossing.Trace.NONE);
    progress.set(crossing.progress());
  }

  /** Starts carrying; told on the interface thread when it is over. */
  void start(Runnable over) {
    started = System.nanoTime();
    background.run(
        () -> crossing.run(names),
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

  /** Takes a look at where it stands; called a few times a second while it runs. */
  public void look() {
    if (ended == 0) {
      Progress now = crossing.progress();
      pace.add(System.nanoTime(), now.bytes());
      progress.set(now);
    }
  }

  /** Waits, on a crossing's thread, for the person's answer. */
  private ExistsTalk.Answer ask(ExistsTalk.Question asked) {
    CompletableFuture<ExistsTalk.Answer> answer = new CompletableFuture<>();
    cancellation.onStop(() -> answer.complete(null));
    background.show(() -> question.set(words(asked, answer)));
    return answer.join();
  }

  private Question words(ExistsTalk.Question asked, CompletableFuture<ExistsTalk.Answer> answer) {
    Node coming = asked.coming();
    Node there = asked.there();
    java.time.Clock clock = java.time.Clock.systemDefaultZone();
    List<Fact> facts =
        List.of(
            new Fact("", "coming", "there now"),
            new Fact("Size", size(coming), size(there)),
            new Fact(
                "Changed",
                Texts.when(coming.modified(), clock),
                Texts.when(there.modified(), clock)),
            new Fact("Owner", coming.owner(), there.owner()),
            new Fact("Mode", coming.mode().letters(), there.mode().letters()));
    String newer =
        coming.modified() == there.modified()
            ? "Both were changed at the same time."
            : coming.modified() > there.modified()
                ? "The one coming is newer."
                : "The one there is newer.";
    Choice skip = choice("Skip", WhenExists.SKIP, answer);
    Choice both = choice("Keep both", WhenExists.KEEP_BOTH, answer);
    List<Choice> choices =
        asked.mayReplace()
            ? List.of(choice("Replace", WhenExists.REPLACE, answer), both, skip)
            : List.of(both, skip);
    String where =
        direction == Direction.BRING_DOWN
            ? "on this computer"
            : direction == Direction.ACROSS ? "on the other server" : "on the server";
    return new Question(
        new Said(
            asked.path() + " exists " + where, newer + " The crossing goes on with your answer."),
        facts,
        false,
        choices,
        "The same for the rest of this crossing");
  }

  private static String size(Node node) {
    return node.kind() == FileKind.FILE
        ? Texts.size(node.size())
        : node.kind() == FileKind.FOLDER ? "a folder" : "a link";
  }

  private Choice choice(
      String words, WhenExists choice, CompletableFuture<ExistsTalk.Answer> answer) {
    return new Choice(
        words,
        ticked -> {
          question.set(null);
          answer.complete(
              new ExistsTalk.Answer(choice, ticked ? ExistsTalk.For.REST : ExistsTalk.For.THIS));
        });
  }

  /** Waits, on a crossing's thread, for the line or for being stopped. */
  private boolean awaitLine(BooleanSupplier lineBack) {
    CompletableFuture<Boolean> answer = new CompletableFuture<>();
    cancellation.onStop(() -> answer.complete(false));
    background.run(() -> answer.complete(lineBack.getAsBoolean()));
    return answer.join();
  }

  public void stop() {
    cancellation.stop();
  }

  public Direction direction() {
    return direction;
  }

  public boolean isOver() {
    return ended != 0;
  }

  /** What it carries, in a word: the name, or how many. */
  public String what() {
    return names.size() == 1
        ? zander.core.files.WireName.toText(names.get(0))
        : Texts.count(names.size()) + " entries";
  }

  private String verb() {
    return switch (direction) {
      case SEND_UP -> "sent up";
      case BRING_DOWN -> "brought down";
      case ACROSS -> "copied through this computer";
    };
  }

  /** One line for the waterline. */
  public String line() {
    Progress now = progress.get();
    String verb = verb();
    return switch (now.phase()) {
      case COUNTING ->
          what() + "  ·  counting, " + Texts.count(now.filesInAll(), "file") + " so far";
      case CARRYING, PAUSED ->
          what()
              + "  ·  "
              + Texts.count(now.files())
              + " of "
              + Texts.count(now.filesInAll(), "file")
              + "  ·  "
              + Texts.size(now.bytes())
              + " of "
              + Texts.size(now.bytesInAll());
      case AWAY ->
          what()
              + "  ·  "
              + Texts.count(now.files())
              + " of "
              + Texts.count(now.filesInAll(), "file")
              + "  ·  goes on when the connection is back";
      case DONE ->
          what()
              + " "
              + verb
              + ": "
              + Texts.count(now.files() - now.skipped(), "file")
              + ", "
              + Texts.size(now.bytes())
              + " in "
              + Texts.timeLeft((ended - started) / 1_000_000_000)
              + (now.skipped() > now.failed()
                  ? ", " + (now.skipped() - now.failed()) + " skipped"
                  : "")
              + (now.failed() > 0 ? ", " + now.failed() + " did not make it" : "");
      case STOPPED ->
          what()
              + " stopped: "
              + Texts.count(now.files() - now.skipped(), "file")
              + " of "
              + Texts.count(now.filesInAll())
              + " "
              + verb
              + ", each whole";
      case BROKEN -> what() + ": the connection broke after " + Texts.count(now.files(), "file");
    };
  }

  /** The time left in words; empty while it cannot be told. */
  public String left() {
    Progress now = progress.get();
    if (now.phase() != Progress.Phase.CARRYING || question.get() != null) {
      return "";
    }
    long seconds = pace.secondsFor(now.bytesInAll() - now.bytes());
    return seconds < 0 ? "" : Texts.timeLeft(seconds) + " left";
  }

  /** The part that is done, 0 to 1; by bytes and files in equal parts. */
  public double part() {
    Progress now = progress.get();
    if (now.phase() == Progress.Phase.COUNTING || now.filesInAll() == 0) {
      return now.phase() == Progress.Phase.DONE ? 1 : 0;
    }
    double files = (double) now.files() / now.filesInAll();
    double bytes = now.bytesInAll() <= 0 ? files : (double) now.bytes() / now.bytesInAll();
    return Math.max(0, Math.min(1, (files + bytes) / 2));
  }

  public Progress progress() {
    return progress.get();
  }

  public ReadOnlyObjectProperty<Question> questionProperty() {
    return question.getReadOnlyProperty();
  }
}
