package zander.desk.transfer;

import static zander.desk.sheet.Question.Fact.Kind.COMPARED;
import static zander.desk.sheet.Question.Fact.Kind.COMPARED_LETTERS;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import javafx.beans.property.SimpleIntegerProperty;
import org.jspecify.annotations.Nullable;
import zander.core.edit.LineDifference;
import zander.core.files.FileKind;
import zander.core.transfer.endpoint.Direction;
import zander.core.transfer.endpoint.Source;
import zander.core.transfer.endpoint.Target;
import zander.core.transfer.endpoint.TreeEntry;
import zander.core.transfer.rules.ConflictPrompt;
import zander.core.transfer.rules.ConflictRule;
import zander.desk.sheet.Question;
import zander.desk.sheet.Question.Choice;
import zander.desk.sheet.Question.Fact;
import zander.desk.sheet.Texts;
import zander.desk.words.Words;
import zander.desk.work.Message;

/** The question about a name that is taken: what is known of both, and for texts what differs. */
final class ConflictWords {
  private static final Words WORDS = Words.of(ConflictWords.class);

  private static final int LARGEST = 256 * 1024;
  private static final int MOST_LINES = 60;

  private ConflictWords() {}

  /** What differs in a text; empty for what is none, or too large. Waits for both sides. */
  static List<LineDifference.Line> difference(
      ConflictPrompt.Question asked, Source source, Target target) {
    boolean files = asked.coming().kind() == FileKind.FILE && asked.there().kind() == FileKind.FILE;
    if (!files || asked.coming().size() > LARGEST || asked.there().size() > LARGEST) {
      return List.of();
    }
    try {
      byte[] coming = source.content(asked.from(), LARGEST);
      byte[] there = target.content(asked.to(), LARGEST);
      if (!isText(coming) || !isText(there)) {
        return List.of();
      }
      List<LineDifference.Line> lines =
          LineDifference.of(
              new String(there, StandardCharsets.UTF_8),
              new String(coming, StandardCharsets.UTF_8));
      return lines.subList(0, Math.min(lines.size(), MOST_LINES));
    } catch (IOException e) {
      // The question is asked without it.
      return List.of();
    }
  }

  private static boolean isText(byte @Nullable [] content) {
    if (content == null) {
      return false;
    }
    for (byte b : content) {
      if (b == 0) {
        return false;
      }
    }
    return true;
  }

  static Question of(
      ConflictPrompt.Question asked,
      Direction direction,
      List<LineDifference.Line> difference,
      Consumer<ConflictPrompt.Answer> answer) {
    TreeEntry coming = asked.coming();
    TreeEntry there = asked.there();
    Clock clock = Clock.systemDefaultZone();
    List<Fact> facts =
        List.of(
            new Fact("", WORDS.say("coming"), WORDS.say("thereNow")),
            new Fact(WORDS.say("size"), size(coming), size(there), COMPARED),
            new Fact(
                WORDS.say("changed"),
                Texts.when(coming.modified(), clock),
                Texts.when(there.modified(), clock),
                COMPARED),
            new Fact(WORDS.say("owner"), coming.owner(), there.owner(), COMPARED),
            new Fact(
                WORDS.say("mode"),
                coming.mode().letters(),
                there.mode().letters(),
                COMPARED_LETTERS));
    String newer =
        coming.modified() == there.modified()
            ? WORDS.say("bothWereChangedAt")
            : coming.modified() > there.modified()
                ? WORDS.say("theOneComingIs")
                : WORDS.say("theOneThereIs");
    String more =
        asked.more() == 0
            ? WORDS.say("everythingElseGoesOn")
            : WORDS.say("moreWaitEverythingElse", Texts.count(asked.more()));
    String where =
        switch (direction) {
          case BRING_DOWN -> WORDS.say("onThisComputer");
          case ACROSS -> WORDS.say("onTheOtherServer");
          case SEND_UP -> WORDS.say("onTheServer");
        };
    List<String> scopes = new ArrayList<>(List.of(WORDS.say("forThisOne")));
    String ending = zander.core.files.WireName.toText(asked.ending());
    scopes.add(ending.isEmpty() ? WORDS.say("forAllWithoutAn") : WORDS.say("forAll", ending));
    scopes.add(WORDS.say("forTheRestOf"));
    Question.Scope scope = new Question.Scope(scopes, new SimpleIntegerProperty(0));
    Choice skip = choice(WORDS.say("skip"), ConflictRule.SKIP, scope, answer);
    Choice both = choice(WORDS.say("keepBoth"), ConflictRule.KEEP_BOTH, scope, answer);
    List<Choice> choices =
        asked.mayReplace()
            ? List.of(choice(WORDS.say("replace"), ConflictRule.REPLACE, scope, answer), both, skip)
            : List.of(both, skip);
    return new Question(
            new Message(WORDS.say("exists", asked.path(), where), newer + more),
            facts,
            false,
            choices,
            null)
        .withScope(scope)
        .withDifference(difference);
  }

  private static Choice choice(
      String words,
      ConflictRule choice,
      Question.Scope scope,
      Consumer<ConflictPrompt.Answer> answer) {
    return new Choice(
        words,
        ticked ->
            answer.accept(
                new ConflictPrompt.Answer(
                    choice, ConflictPrompt.For.values()[scope.chosen().get()])));
  }

  private static String size(TreeEntry node) {
    return node.kind() == FileKind.FILE
        ? Texts.size(node.size())
        : node.kind() == FileKind.FOLDER ? WORDS.say("aFolder") : WORDS.say("aLink");
  }
}
