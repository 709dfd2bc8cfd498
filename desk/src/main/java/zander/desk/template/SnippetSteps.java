package zander.desk.template;

import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import javafx.beans.binding.Bindings;
import javafx.beans.property.SimpleStringProperty;
import javafx.beans.property.StringProperty;
import zander.desk.sheet.Question;
import zander.desk.sheet.Question.Choice;
import zander.desk.sheet.Question.Input;
import zander.desk.sheet.Sheet;
import zander.desk.words.Words;
import zander.desk.work.Message;

/** Pieces of text that are put into a file, or kept from it. Interface thread only. */
public final class SnippetSteps {
  private static final Words WORDS = Words.of(SnippetSteps.class);

  private final Templates templates;
  private final Sheet told;
  private final String language;

  /**
   * @param told the file in front
   * @param language of its text
   */
  public SnippetSteps(Templates templates, Sheet told, String language) {
    this.templates = templates;
    this.told = told;
    this.language = language;
  }

  /** Asks which to put in. */
  public void insert(Consumer<String> put) {
    Map<String, Templates.Snippet> all = templates.snippets(language);
    if (all.isEmpty()) {
      told.ask(
          Question.notice(
              new Message(WORDS.say("none", language), WORDS.say("keepOne")),
              false,
              new Choice(WORDS.say("close"), ticked -> told.dismissQuestion())));
      return;
    }
    StringProperty name = new SimpleStringProperty("");
    told.ask(
        Question.asking(
                new Message(WORDS.say("insert"), String.join(", ", all.keySet())),
                List.of(
                    new Input(
                        "snippet-name", WORDS.say("name"), name, all.keySet().iterator().next())),
                new Choice(
                    WORDS.say("putIn"),
                    ticked -> {
                      told.dismissQuestion();
                      Templates.Snippet meant = all.get(Templates.meant(all.keySet(), name.get()));
                      if (meant != null) {
                        put.accept(meant.text());
                      }
                    }),
                new Choice(WORDS.say("cancel"), ticked -> told.dismissQuestion()))
            .readyWhen(
                Bindings.createBooleanBinding(
                    () -> Templates.meant(all.keySet(), name.get()) != null, name)));
  }

  /** Keeps a piece of text by a name that is asked for. */
  public void keep(String text) {
    StringProperty name = new SimpleStringProperty("");
    Consumer<String> keep =
        of -> {
          Templates.Snippet made = new Templates.Snippet(of, text);
          if (templates.isTaken(name.get().strip())) {
            askToReplace(name.get().strip(), made);
          } else {
            templates.keep(name.get().strip(), made);
            told.dismissQuestion();
          }
        };
    told.ask(
        Question.asking(
                new Message(WORDS.say("keep"), WORDS.say("stopsAre")),
                List.of(new Input("snippet-name", WORDS.say("name"), name, "")),
                new Choice(WORDS.say("forLanguage", language), ticked -> keep.accept(language)),
                new Choice(WORDS.say("forAll"), ticked -> keep.accept("")),
                new Choice(WORDS.say("cancel"), ticked -> told.dismissQuestion()))
            .readyWhen(Bindings.createBooleanBinding(() -> !name.get().isBlank(), name)));
  }

  private void askToReplace(String name, Templates.Snippet made) {
    told.ask(
        Question.notice(
            new Message(WORDS.say("taken", name), WORDS.say("onlyKeptHere")),
            true,
            new Choice(
                WORDS.say("replaceIt"),
                ticked -> {
                  templates.keep(name, made);
                  told.dismissQuestion();
                }),
            told.dismiss()));
  }
}
