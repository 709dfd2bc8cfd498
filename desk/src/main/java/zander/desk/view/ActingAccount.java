package zander.desk.view;

import java.util.List;
import javafx.beans.property.SimpleStringProperty;
import javafx.beans.property.StringProperty;
import zander.desk.model.DeskModel;
import zander.desk.sheet.Question;
import zander.desk.sheet.Sheet;
import zander.desk.words.Words;
import zander.desk.work.Message;

/** Asks for the account to act as: the one that serves what is in the folder is there already. */
record ActingAccount(DeskModel desk) {
  private static final Words WORDS = Words.of(ActingAccount.class);

  void ask() {
    Sheet sheet = desk.openSheets().front();
    StringProperty typed = new SimpleStringProperty(desk.serviceAccount());
    sheet.ask(
        Question.asking(
            new Message(WORDS.say("actAsAnotherAccount"), WORDS.say("opensThisFolderOn")),
            List.of(new Question.Input("strip-name", WORDS.say("account"), typed, "")),
            new Question.Choice(WORDS.say("actAsIt"), ticked -> act(sheet, typed.get().strip())),
            new Question.Choice(WORDS.say("cancel"), ticked -> sheet.dismissQuestion())));
  }

  private void act(Sheet sheet, String account) {
    // The portable names (POSIX XBD 3.437), and the dollar of machine accounts.
    if (!account.matches("[A-Za-z0-9_.][A-Za-z0-9_.@-]*\\$?")) {
      sheet.tellFailure(new Message(WORDS.say("thatIsNotThe"), WORDS.say("nothingWasDoneType")));
      return;
    }
    sheet.dismissQuestion();
    desk.actAs(account, desk.folderInFront(), other -> {});
  }
}
