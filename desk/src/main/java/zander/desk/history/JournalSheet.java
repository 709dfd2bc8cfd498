package zander.desk.history;

import zander.core.journal.JournalEntry;
import zander.desk.sheet.OpenDesk;

/** What is done with the journal from elsewhere on a desk. */
public final class JournalSheet {
  private JournalSheet() {}

  /** Shows the journal of the server; one sheet is enough. */
  public static void open(OpenDesk desk) {
    if (desk.openSheets().bringToFront(JournalModel.class).isEmpty()) {
      desk.openSheets().show(new JournalModel(desk));
    }
  }

  /** Puts one entry back; what stands against it is told in front. */
  public static void putBack(OpenDesk desk, JournalEntry entry) {
    new JournalModel(desk).putBack(entry, false, desk.openSheets().front());
  }
}
