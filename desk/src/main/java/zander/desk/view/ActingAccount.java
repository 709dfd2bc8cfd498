package zander.desk.view;

import java.util.List;
import javafx.beans.property.SimpleStringProperty;
import javafx.beans.property.StringProperty;
import zander.desk.model.DeskModel;
import zander.desk.sheet.Question;
import zander.desk.sheet.Sheet;
import zander.desk.work.Message;

/** Asks for the account to act as: the one that serves what is in the folder is there already. */
record ActingAccount(DeskModel desk) {
  void ask() {
    Sheet sheet = desk.openSheets().front();
    StringProperty typed = new SimpleStringProperty(desk.serviceAccount());
    sheet.ask(
        Question.asking(
            new Message(
                "Act as another account",
                "Opens this folder on a desk of its own. Everything on it is done as that account,"
                    + " as far as the server's rules let you."),
            List.of(new Question.Input("strip-name", "Account", typed, "")),
            new Question.Choice("Act as it", ticked -> act(sheet, typed.get().strip())),
            new Question.Choice("Cancel", ticked -> sheet.dismissQuestion())));
  }

  private void act(Sheet sheet, String account) {
    // The portable names (POSIX XBD 3.437), and the dollar of machine accounts.
    if (!account.matches("[A-Za-z0-9_.][A-Za-z0-9_.@-]*\\$?")) {
      sheet.tellFailure(
          new Message("That is not the name of an account", "Nothing was done. Type it again."));
      return;
    }
    sheet.dismissQuestion();
    desk.actAs(account, desk.folderInFront(), other -> {});
  }
}
