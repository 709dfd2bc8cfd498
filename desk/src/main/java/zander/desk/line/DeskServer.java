package zander.desk.line;

import java.nio.file.Path;
import zander.core.book.ServerEntry;
import zander.core.connect.Connection;
import zander.core.files.RemotePath;
import zander.core.journal.Journal;

/**
 * The server of one desk: its entry in the book, the line to it, its journal, and where on this
 * computer its entry's folders are looked for.
 *
 * @param personHome the home of the person on this computer
 */
public record DeskServer(ServerEntry entry, LineKeeper line, Journal journal, Path personHome) {
  public String name() {
    return entry.name();
  }

  /** The connection there is now: another one after the line broke and came back. */
  public Connection connection() {
    return line.connection();
  }

  /** The home of the account on the server. */
  public RemotePath home() {
    return connection().whoAmI().home();
  }
}
