package zander.desk.waterline;

import java.io.IOException;
import java.util.List;
import java.util.function.Consumer;
import zander.core.connect.Connection;
import zander.core.files.WireName;
import zander.desk.line.DeskServer;
import zander.desk.sheet.OpenDesk;
import zander.desk.sheet.Question;
import zander.desk.sheet.Texts;
import zander.desk.work.Message;

/**
 * The way from one desk to another: straight, which one server needs a key for that only the person
 * can lend, or through this computer.
 */
final class ServerToServer {
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

  /** Which server would sign in at which, or why neither can. */
  private record Found(DeskServer borrower, DeskServer goal, String whyNot) {}

  /**
   * Asks in the folder's sheet, if there is a choice.
   *
   * @param chosen told why it does not go straight, or {@code null} when it may; not called when
   *     the person gives up
   */
  void choose(List<String> names, Consumer<String> chosen) {
    desk.background()
        .run(
            this::look,
            found -> {
              if (found.borrower() == null) {
                chosen.accept(found.whyNot());
              } else {
                ask(names, found, chosen);
              }
            },
            failure -> chosen.accept("it could not be asked what " + from.name() + " has"));
  }

  /** The source first; the other way round where it cannot. */
  private Found look() throws IOException {
    String first = whyNot(from, to);
    if (first == null) {
      return new Found(from, to, null);
    }
    String second = whyNot(to, from);
    return second == null ? new Found(to, from, null) : new Found(null, null, first);
  }

  private static String whyNot(DeskServer borrower, DeskServer goal) throws IOException {
    Connection at = borrower.connection();
    return at.whyNotLend(goal.connection(), borrower.name(), goal.name());
  }

  private void ask(List<String> names, Found found, Consumer<String> chosen) {
    String what =
        names.size() == 1 ? WireName.toText(names.get(0)) : Texts.count(names.size()) + " entries";
    Connection goal = found.goal().connection();
    Question.Choice straight =
        new Question.Choice(
            "Lend the key, go straight",
            ticked -> {
              desk.openSheets().first().dismissQuestion();
              chosen.accept(null);
            });
    Question.Choice around =
        new Question.Choice(
            "Through this computer",
            ticked -> {
              desk.openSheets().first().dismissQuestion();
              chosen.accept("you chose so");
            });
    desk.openSheets()
        .askInFront(
            new Question(
                new Message(
                    "Copy " + what + " straight from " + from.name() + " to " + to.name() + "?",
                    found.borrower().name()
                        + " would sign in at "
                        + found.goal().name()
                        + " as "
                        + goal.address().account()
                        + " with your key "
                        + goal.keyName()
                        + ". The key itself stays here: it signs for that server's host key alone, and"
                        + " no more once this copy has ended. Until then whoever is root on "
                        + found.borrower().name()
                        + " can do there what you can. Through this computer, no key is lent, and"
                        + " every byte goes over your line twice."),
                List.of(),
                false,
                List.of(
                    straight,
                    around,
                    new Question.Choice(
                        "Do not copy", ticked -> desk.openSheets().first().dismissQuestion())),
                null));
  }
}
