package zander.desk.kept;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Supplier;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import zander.core.journal.JournalRules;
import zander.desk.kept.KeptFiles.Amount;
import zander.desk.kept.KeptFiles.Kind;
import zander.desk.line.Journals;
import zander.desk.sheet.Question;
import zander.desk.sheet.Texts;
import zander.desk.words.Words;
import zander.desk.work.Background;
import zander.desk.work.FailureWords;
import zander.desk.work.Message;

/** What lies on this computer of servers and their files, to be seen and emptied. */
public final class KeptModel {
  private static final Words WORDS = Words.of(KeptModel.class);

  /**
   * One kind of it, in words.
   *
   * @param id for the test and the style of its button
   * @param amount how much there is, and whether it is sealed
   * @param purpose what it is good for
   */
  public record Row(String id, String name, String amount, String purpose, boolean empty) {}

  private final KeptFiles files;
  private final Background background;
  private final Supplier<JournalRules> rules;
  private final Supplier<List<Path>> running;
  private final ReadOnlyObjectWrapper<List<Row>> rows = new ReadOnlyObjectWrapper<>(List.of());
  private final ReadOnlyObjectWrapper<Question> question = new ReadOnlyObjectWrapper<>();
  private int looks;

  /**
   * @param state the folder that has it all
   * @param running the lists of transfers that are being written
   */
  public KeptModel(
      Path state,
      Journals journals,
      Background background,
      Supplier<JournalRules> rules,
      Supplier<List<Path>> running) {
    this.files = new KeptFiles(state, journals);
    this.background = background;
    this.rules = rules;
    this.running = running;
  }

  /** Looks what there is. */
  public void look() {
    int mine = ++looks;
    // A count that was begun before something was deleted may end after the one that was begun
    // then.
    background.run(
        this::count,
        counted -> {
          if (mine == looks) {
            rows.set(counted);
          }
        },
        this::tell);
  }

  private List<Row> count() throws java.io.IOException {
    List<Row> counted = new ArrayList<>();
    for (Kind kind : Kind.values()) {
      counted.add(row(kind, files.amount(kind)));
    }
    return counted;
  }

  private static Row row(Kind kind, Amount amount) {
    String id = kind.name().toLowerCase(java.util.Locale.ROOT);
    return new Row(id, name(kind), words(kind, amount), purpose(kind), amount.bytes() == 0);
  }

  private static String name(Kind kind) {
    return switch (kind) {
      case VERSIONS -> WORDS.say("versionsBeforeYourChanges");
      case HISTORY -> WORDS.say("journals");
      case DRAFTS -> WORDS.say("unsavedTexts");
      case TRANSFERS -> WORDS.say("transfers");
    };
  }

  private static String purpose(Kind kind) {
    return switch (kind) {
      case VERSIONS -> WORDS.say("contentsOfFilesOn");
      case HISTORY -> WORDS.say("whatYouChangedOn");
      case DRAFTS -> WORDS.say("whatYouTypedAnd");
      case TRANSFERS -> WORDS.say("whatWasTransferredAnd");
    };
  }

  private static String words(Kind kind, Amount amount) {
    if (amount.bytes() == 0) {
      return WORDS.say("none");
    }
    String count =
        switch (kind) {
          case VERSIONS -> Texts.count(amount.count(), "version");
          case HISTORY -> WORDS.say("of", Texts.count(amount.count(), "server"));
          case DRAFTS -> Texts.count(amount.count(), "text");
          case TRANSFERS -> Texts.count(amount.count(), "list");
        };
    return count + ", " + Texts.size(amount.bytes()) + sealed(kind, amount);
  }

  private static String sealed(Kind kind, Amount amount) {
    if (kind == Kind.HISTORY) {
      return "";
    }
    return amount.sealed() == amount.count()
        ? WORDS.say("sealed")
        : amount.sealed() == 0
            ? WORDS.say("notSealed")
            : WORDS.say("someSealed", Texts.count(amount.sealed()));
  }

  /** Asks whether to remove all of a kind. */
  public void askToEmpty(Row row) {
    Kind kind = Kind.valueOf(row.id().toUpperCase(java.util.Locale.ROOT));
    question.set(
        Question.notice(
            new Message(WORDS.say("delete", row.name(), row.amount()), cost(kind)),
            true,
            new Question.Choice(WORDS.say("deleteThem"), ticked -> empty(kind)),
            new Question.Choice(WORDS.say("cancel"), ticked -> question.set(null))));
  }

  private static String cost(Kind kind) {
    return switch (kind) {
      case VERSIONS -> WORDS.say("savesAndReplacedFiles");
      case HISTORY -> WORDS.say("nothingThatWasDone");
      case DRAFTS -> WORDS.say("textsThatAreOpen");
      case TRANSFERS -> WORDS.say("transfersOfEarlierRuns");
    };
  }

  private void empty(Kind kind) {
    question.set(null);
    List<Path> writing = running.get();
    JournalRules now = rules.get();
    background.run(
        () -> files.empty(kind, now, writing),
        left -> {
          if (!left.isEmpty()) {
            notice(
                new Message(
                    WORDS.say("anotherZanderHasA", String.join(", ", left)),
                    WORDS.say("itWasLeftAs")));
          }
          look();
        },
        this::tell);
  }

  private void tell(Throwable failure) {
    notice(FailureWords.of(failure));
  }

  private void notice(Message said) {
    question.set(
        Question.notice(
            said, true, new Question.Choice(WORDS.say("close"), ticked -> question.set(null))));
  }

  /** What there is, when last looked. */
  public ReadOnlyObjectProperty<List<Row>> rowsProperty() {
    return rows.getReadOnlyProperty();
  }

  public ReadOnlyObjectProperty<Question> questionProperty() {
    return question.getReadOnlyProperty();
  }
}
