package zander.desk.model;

import java.io.IOException;
import java.util.List;
import java.util.function.Consumer;
import zander.core.connect.Connection;
import zander.core.files.WireName;
import zander.desk.sheet.Question;
import zander.desk.sheet.Texts;
import zander.desk.work.Message;

/**
 * The way from one desk to another: straight, which one server needs a key for that only the person
 * can lend, or through this computer.
 */
final class ServerToServer {
  private final DeskModel from;
  private final DeskModel to;

  ServerToServer(DeskModel from, DeskModel to) {
    this.from = from;
    this.to = to;
  }

  /** Which server would sign in at which, or why neither can. */
  private record Found(DeskModel borrower, DeskModel goal, String whyNot) {}

  /**
   * Asks in the folder's sheet, if there is a choice.
   *
   * @param chosen told why it does not go straight, or {@code null} when it may; not called when
   *     the person gives up
   */
  void choose(List<String> names, Consumer<String> chosen) {
    from.background()
        .run(
            this::look,
            found -> {
              if (found.borrower() == null) {
                chosen.accept(found.whyNot());
              } else {
                ask(names, found, chosen);
              }
            },
            failure -> chosen.accept("it could not be asked what " + name(from) + " has"));
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

  private static String whyNot(DeskModel borrower, DeskModel goal) throws IOException {
    Connection at = borrower.connection();
    return at.whyNotLend(goal.connection(), name(borrower), name(goal));
  }

  private static String name(DeskModel desk) {
    return desk.entry().name();
  }

  private void ask(List<String> names, Found found, Consumer<String> chosen) {
    String what =
        names.size() == 1 ? WireName.toText(names.get(0)) : Texts.count(names.size()) + " entries";
    Connection goal = found.goal().connection();
    Question.Choice straight =
        new Question.Choice(
            "Lend the key, go straight",
            ticked -> {
              from.folder().dismissQuestion();
              chosen.accept(null);
            });
    Question.Choice around =
        new Question.Choice(
            "Through this computer",
            ticked -> {
              from.folder().dismissQuestion();
              chosen.accept("you chose so");
            });
    from.currentProperty().set(from.folder());
    from.folder()
        .ask(
            new Question(
                new Message(
                    "Copy " + what + " straight from " + name(from) + " to " + name(to) + "?",
                    name(found.borrower())
                        + " would sign in at "
                        + name(found.goal())
                        + " as "
                        + goal.address().account()
                        + " with your key "
                        + goal.keyName()
                        + ". The key itself stays here: it signs for that server's host key alone, and"
                        + " no more once this copy has ended. Through this computer, no key is lent,"
                        + " and every byte goes over your line twice."),
                List.of(),
                false,
                List.of(
                    straight,
                    around,
                    new Question.Choice("Do not copy", ticked -> from.folder().dismissQuestion())),
                null));
  }
}
