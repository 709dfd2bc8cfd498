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
import zander.desk.work.Background;
import zander.desk.work.FailureWords;
import zander.desk.work.Message;

/** What lies on this computer of servers and their files, to be seen and emptied. */
public final class KeptModel {
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
      case VERSIONS -> "Versions before your changes";
      case HISTORY -> "Journals";
      case DRAFTS -> "Unsaved texts";
      case TRANSFERS -> "Transfers";
    };
  }

  private static String purpose(Kind kind) {
    return switch (kind) {
      case VERSIONS -> "Contents of files on servers, so that a change can be put back.";
      case HISTORY -> "What you changed on which server, and when. No contents.";
      case DRAFTS -> "What you typed and did not save, so that a crash loses none of it.";
      case TRANSFERS -> "What was transferred, and how far, so that it can be continued.";
    };
  }

  private static String words(Kind kind, Amount amount) {
    if (amount.bytes() == 0) {
      return "none";
    }
    String count =
        switch (kind) {
          case VERSIONS -> Texts.count(amount.count(), "version");
          case HISTORY -> "of " + Texts.count(amount.count(), "server");
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
        ? ", sealed"
        : amount.sealed() == 0 ? ", not sealed" : ", " + Texts.count(amount.sealed()) + " sealed";
  }

  /** Asks whether to remove all of a kind. */
  public void askToEmpty(Row row) {
    Kind kind = Kind.valueOf(row.id().toUpperCase(java.util.Locale.ROOT));
    question.set(
        Question.notice(
            new Message("Delete: " + row.name() + " (" + row.amount() + ")?", cost(kind)),
            true,
            new Question.Choice("Delete them", ticked -> empty(kind)),
            new Question.Choice("Cancel", ticked -> question.set(null))));
  }

  private static String cost(Kind kind) {
    return switch (kind) {
      case VERSIONS ->
          "Saves and replaced files can then not be put back. The journals stay, and nothing on a"
              + " server is changed.";
      case HISTORY ->
          "Nothing that was done so far can then be put back, and the versions go too. What is held"
              + " on servers stays there. Nothing on a server is changed.";
      case DRAFTS -> "Texts that are open stay open. Nothing on a server is changed.";
      case TRANSFERS ->
          "Transfers of earlier runs can then not be continued; those under way go on.";
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
                    "Another Zander has a journal open: " + String.join(", ", left),
                    "It was left as it is. Close the desk there, then delete it here."));
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
        Question.notice(said, true, new Question.Choice("Close", ticked -> question.set(null))));
  }

  /** What there is, when last looked. */
  public ReadOnlyObjectProperty<List<Row>> rowsProperty() {
    return rows.getReadOnlyProperty();
  }

  public ReadOnlyObjectProperty<Question> questionProperty() {
    return question.getReadOnlyProperty();
  }
}
