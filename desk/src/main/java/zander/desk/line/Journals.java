package zander.desk.line;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import zander.core.journal.FileJournal;
import zander.core.journal.JournalRules;
import zander.core.seal.ContentSeal;
import zander.desk.work.Background;

/** The journals of the open desks: one for a server, shared by its desks, closed with the last. */
public final class Journals {
  private final Path folder;
  private final Background background;
  private final ContentSeal seal;
  private final Map<String, Shared> open = new HashMap<>();

  private static final class Shared {
    private final FileJournal journal;
    private int desks;

    Shared(FileJournal journal) {
      this.journal = journal;
    }
  }

  /**
   * @param seal seals what they keep of contents
   */
  public Journals(Path folder, Background background, ContentSeal seal) {
    this.folder = folder;
    this.seal = seal;
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
      shared = new Shared(new FileJournal(folder.resolve(name), desk, rules, seal));
      open.put(name, shared);
    }
    shared.desks++;
    return shared.journal;
  }

  /** The names of all, open or not. Waits for the disk. */
  public List<String> names() throws IOException {
    if (!Files.isDirectory(folder)) {
      return List.of();
    }
    try (Stream<Path> all = Files.list(folder)) {
      return all.filter(Files::isDirectory).map(path -> path.getFileName().toString()).toList();
    }
  }

  /** Once there is a vault: seals for it what the open ones keep. Waits for the disk. */
  public synchronized void sealKept() throws IOException {
    for (Shared shared : open.values()) {
      shared.journal.sealKept();
    }
  }

  /**
   * Empties one, open or not; see {@link FileJournal#empty}. Waits for the disk.
   *
   * @return whether it was done
   */
  public boolean empty(String name, boolean historyToo, JournalRules rules) throws IOException {
    FileJournal journal = open(name, "", rules);
    try {
      return journal.empty(historyToo);
    } finally {
      closeNow(name);
    }
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
    if (shared != null && --shared.desks == 0) {
      open.remove(name);
      shared.journal.close();
    }
  }
}
