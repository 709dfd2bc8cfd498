package zander.desk.line;

import java.io.IOException;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.Map;
import zander.core.journal.FileJournal;
import zander.core.journal.JournalRules;
import zander.desk.work.Background;

/** The journals of the open desks: one for a server, shared by its desks, closed with the last. */
public final class Journals {
  private final Path folder;
  private final Background background;
  private final Map<String, Shared> open = new HashMap<>();

  private static final class Shared {
    private final FileJournal journal;
    private int desks;

    Shared(FileJournal journal) {
      this.journal = journal;
    }
  }

  public Journals(Path folder, Background background) {
    this.folder = folder;
    this.background = background;
  }

  /**
   * Opens it, or gives the open one. Waits for the disk.
   *
   * @param name of its folder
   * @param desk the name that new entries carry
   */
  public synchronized FileJournal open(String name, String desk, JournalRules rules)
      throws IOException {
    Shared shared = open.get(name);
    if (shared == null) {
      shared = new Shared(new FileJournal(folder.resolve(name), desk, rules));
      open.put(name, shared);
    }
    shared.desks++;
    return shared.journal;
  }

  /** A desk needs it no more. */
  public void close(String name) {
    background.run(
        () -> {
          try {
            closeNow(name);
          } catch (IOException e) {
            // All that was to be kept is on the disk: each entry went there as it was made.
          }
        });
  }

  private synchronized void closeNow(String name) throws IOException {
    Shared shared = open.get(name);
    if (--shared.desks == 0) {
      open.remove(name);
      shared.journal.close();
    }
  }
}
