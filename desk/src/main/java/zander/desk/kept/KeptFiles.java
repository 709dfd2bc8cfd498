package zander.desk.kept;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.FileVisitResult;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.SimpleFileVisitor;
import java.nio.file.attribute.BasicFileAttributes;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import zander.core.journal.JournalRules;
import zander.core.seal.ContentSeal;
import zander.core.work.BlockingCalls;
import zander.desk.line.Journals;

/** The files behind what is kept here: counted, and removed. Waits for the disk. */
final class KeptFiles {
  /** What is kept. */
  enum Kind {
    VERSIONS,
    HISTORY,
    DRAFTS,
    TRANSFERS
  }

  /**
   * How much there is of a kind.
   *
   * @param count of files; of the history, of servers
   * @param sealed how many of them are sealed
   */
  record Amount(long count, long bytes, long sealed) {
    static final Amount NONE = new Amount(0, 0, 0);

    Amount and(long size, boolean isSealed) {
      return new Amount(count + 1, bytes + size, sealed + (isSealed ? 1 : 0));
    }
  }

  private static final int HEAD = 256;
  private static final String SEALED_LINE = "sealed ";
  private static final String SEALED_FIELD = "\"sealed\"";

  private final Path state;
  private final Journals journals;

  /**
   * @param state the folder that has them all
   */
  KeptFiles(Path state, Journals journals) {
    this.state = state;
    this.journals = journals;
  }

  Amount amount(Kind kind) throws IOException {
    BlockingCalls.check("counting what is kept");
    Amount amount = Amount.NONE;
    Set<Path> servers = new HashSet<>();
    for (Path file : files(kind)) {
      try {
        // A journal that was emptied, or not begun, is a line end.
        if (kind != Kind.HISTORY || Files.size(file) > 1) {
          amount = amount.and(Files.size(file), isSealed(file, kind));
          servers.add(file.getParent());
        }
      } catch (NoSuchFileException e) {
        // Others write there meanwhile: what has gone since it was listed is not counted.
      }
    }
    return kind == Kind.HISTORY ? new Amount(servers.size(), amount.bytes(), 0) : amount;
  }

  private List<Path> files(Kind kind) throws IOException {
    return switch (kind) {
      case VERSIONS -> below("journal", 3, "content/[^/]*[.](gz|sealed)");
      case HISTORY -> below("journal", 2, "journal-[0-9]+[.]log");
      case DRAFTS -> below("drafts", 2, "[^/]*[.]draft");
      case TRANSFERS -> below("transfers", 1, "[^/]*[.]log");
    };
  }

  private List<Path> below(String folder, int depth, String end) throws IOException {
    List<Path> found = new ArrayList<>();
    Files.walkFileTree(
        state.resolve(folder),
        Set.of(),
        depth,
        new SimpleFileVisitor<>() {
          @Override
          public FileVisitResult visitFile(Path file, BasicFileAttributes seen) {
            if (seen.isRegularFile() && file.toString().matches(".*/" + end)) {
              found.add(file);
            }
            return FileVisitResult.CONTINUE;
          }

          @Override
          public FileVisitResult visitFileFailed(Path file, IOException e) throws IOException {
            if (e instanceof NoSuchFileException) {
              return FileVisitResult.CONTINUE;
            }
            throw e;
          }
        });
    return found;
  }

  private static boolean isSealed(Path file, Kind kind) throws IOException {
    byte[] head;
    try (InputStream in = Files.newInputStream(file)) {
      head = kind == Kind.DRAFTS ? in.readAllBytes() : in.readNBytes(HEAD);
    }
    String text = new String(head, java.nio.charset.StandardCharsets.ISO_8859_1);
    return switch (kind) {
      case VERSIONS -> ContentSeal.isSealed(head);
      case HISTORY -> false;
      case DRAFTS -> text.contains(SEALED_FIELD);
      case TRANSFERS -> text.startsWith(SEALED_LINE);
    };
  }

  /**
   * Removes all of a kind, but for what is under way.
   *
   * @param running the lists of transfers that are being written
   * @return the servers whose journal another program has open, which was left as it is
   */
  List<String> empty(Kind kind, JournalRules rules, List<Path> running) throws IOException {
    BlockingCalls.check("removing what is kept");
    List<String> left = new ArrayList<>();
    switch (kind) {
      case VERSIONS, HISTORY -> {
        for (String name : journals.names()) {
          if (!journals.empty(name, kind == Kind.HISTORY, rules)) {
            left.add(name);
          }
        }
      }
      case DRAFTS, TRANSFERS -> {
        for (Path file : files(kind)) {
          if (!running.contains(file)) {
            Files.deleteIfExists(file);
          }
        }
      }
    }
    return left;
  }
}
