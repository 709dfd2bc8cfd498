package zander.desk.model;

import zander.core.connect.Connection;
import zander.desk.file.FileSheets;
import zander.desk.folder.FolderModel;
import zander.desk.folder.action.DeleteActions;
import zander.desk.history.RecoveryModel;
import zander.desk.sheet.OpenDesk;
import zander.desk.words.Words;
import zander.desk.work.Message;

/** What a desk does first, once one is signed in. */
final class Arrival {
  private static final Words WORDS = Words.of(Arrival.class);

  private Arrival() {}

  /**
   * Shows the first folder and what the server says, and offers what was left from before.
   *
   * @param name of the server
   */
  static void begin(
      OpenDesk desk, FolderModel folder, FileSheets files, String name, Connection connection) {
    folder.land(connection.landing());
    if (!connection.banner().isEmpty()) {
      folder.tell(new Message(WORDS.say("says", name), connection.banner()));
    }
    RecoveryModel.look(desk, true);
    new DeleteActions(folder).tidyHeld();
    files.offerLeft();
  }
}
