package zander.desk.waterline;

import static java.util.Objects.requireNonNull;

import java.io.IOException;
import java.util.List;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;
import zander.core.connect.Connection;
import zander.core.files.WireName;
import zander.core.phrase.Phrase;
import zander.desk.line.DeskServer;
import zander.desk.sheet.OpenDesk;
import zander.desk.sheet.Question;
import zander.desk.sheet.Texts;
import zander.desk.words.Phrases;
import zander.desk.words.Words;
import zander.desk.work.Message;

/**
 * The way from one desk to another: straight, which one server needs a key for that only the person
 * can lend, or through this computer.
 */
final class ServerToServer {
  private static final Words WORDS = Words.of(ServerToServer.class);

  private final OpenDesk desk;
  private final DeskServer from;
  private final DeskServer to;

  /**
   * @param desk the desk of the server copied from, where the question stands
   */
  ServerToServer(OpenDesk desk, DeskServer from, DeskServer to) {
    this.desk = desk;
    this.from = from;
    this.to = to;
  }

  /** Which server would sign in at which. */
  private record Loan(DeskServer borrower, DeskServer goal) {}

  /** That, or why neither can. */
  private record Found(@Nullable Loan loan, @Nullable Phrase whyNot) {}

  /**
   * Asks in the folder's sheet, if there is a choice.
   *
   * @param chosen told why it does not go straight, or {@code null} when it may; not called when
   *     the person gives up
   */
  void choose(List<String> names, Consumer<@Nullable Phrase> chosen) {
    desk.background()
        .run(
            this::look,
            found -> {
              if (found.loan() == null) {
                chosen.accept(found.whyNot());
              } else {
                ask(names, found.loan(), chosen);
              }
            },
            failure -> chosen.accept(Phrase.quoted(WORDS.say("itCouldNotBe", from.name()))));
  }

  /** The source first; the other way round where it cannot. */
  private Found look() throws IOException {
    Phrase first = whyNot(from, to);
    if (first == null) {
      return new Found(new Loan(from, to), null);
    }
    Phrase second = whyNot(to, from);
    return second == null ? new Found(new Loan(to, from), null) : new Found(null, first);
  }

  private static @Nullable Phrase whyNot(DeskServer borrower, DeskServer goal) throws IOException {
    Connection at = borrower.connection();
    return at.whyNotLend(goal.connection(), borrower.name(), goal.name());
  }

  private void ask(List<String> names, Loan loan, Consumer<@Nullable Phrase> chosen) {
    String what =
        names.size() == 1
            ? WireName.toText(names.get(0))
            : WORDS.say("entries", Texts.count(names.size()));
    Connection goal = loan.goal().connection();
    Question.Choice straight =
        new Question.Choice(
            WORDS.say("lendTheKeyGo"),
            ticked -> {
              desk.openSheets().first().dismissQuestion();
              chosen.accept(null);
            });
    Question.Choice around =
        new Question.Choice(
            WORDS.say("throughThisComputer"),
            ticked -> {
              desk.openSheets().first().dismissQuestion();
              chosen.accept(Phrase.quoted(WORDS.say("youChoseSo")));
            });
    desk.openSheets()
        .askInFront(
            new Question(
                new Message(
                    WORDS.say("copyStraightFromTo", what, from.name(), to.name()),
                    WORDS.say(
                        "wouldSignInAt",
                        loan.borrower().name(),
                        loan.goal().name(),
                        goal.address().account(),
                        Phrases.say(requireNonNull(goal.keyName(), "a key is lent")),
                        loan.borrower().name())),
                List.of(),
                false,
                List.of(
                    straight,
                    around,
                    new Question.Choice(
                        WORDS.say("doNotCopy"),
                        ticked -> desk.openSheets().first().dismissQuestion())),
                null));
  }
}
