package zander.desk.view;

import java.util.List;
import javafx.beans.property.SimpleStringProperty;
import javafx.beans.property.StringProperty;
import zander.desk.sheet.Question;
import zander.desk.sheet.Sheet;
import zander.desk.words.Words;
import zander.desk.work.Message;
import zander.desk.work.Settings;

/** Asks for how long another account may be acted as without anything being done. */
record ActingTime(Settings settings, Sheet sheet) {
  private static final Words WORDS = Words.of(ActingTime.class);

  private static final int LONGEST = 24 * 60;

  void ask() {
    long minutes = settings.get(Settings.ACTING_SECONDS) / 60;
    StringProperty typed = new SimpleStringProperty(Long.toString(minutes));
    sheet.ask(
        Question.asking(
            new Message(WORDS.say("stopActingAsAnother"), WORDS.say("afterThisManyMinutes")),
            List.of(new Question.Input("strip-name", WORDS.say("minutes"), typed, "")),
            new Question.Choice(WORDS.say("set"), ticked -> set(typed.get().strip())),
            new Question.Choice(WORDS.say("cancel"), ticked -> sheet.dismissQuestion())));
  }

  private void set(String typed) {
    if (!typed.matches("\\d{1,4}") || Integer.parseInt(typed) > LONGEST) {
      sheet.tellFailure(new Message(WORDS.say("enterANumberOf"), WORDS.say("from0To", LONGEST)));
      return;
    }
    settings.set(Settings.ACTING_SECONDS, Long.parseLong(typed) * 60);
    sheet.dismissQuestion();
  }
}
