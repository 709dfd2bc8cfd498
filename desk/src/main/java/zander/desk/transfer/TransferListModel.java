package zander.desk.transfer;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.function.Consumer;
import java.util.stream.Stream;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import zander.core.transfer.progress.Progress.Problem;
import zander.core.transfer.resume.ResumeLogFile;
import zander.desk.sheet.OpenDesk;
import zander.desk.sheet.Question;
import zander.desk.sheet.Sheet;
import zander.desk.work.FailureWords;
import zander.desk.work.Message;

/**
 * The list of a desk's transfers: those of this run of the program, and what earlier runs left
 * written down, which can be gone on with.
 */
public final class TransferListModel extends Sheet {
  /** So many of earlier runs are shown; older ones are let go. */
  private static final int MOST_BEFORE = 100;

  private final OpenDesk desk;
  private final String deskName;
  private final TransferQueue queue;
  private final Path folder;
  private final Consumer<ResumeLogFile> goOn;
  private final ReadOnlyObjectWrapper<List<ResumeLogFile>> before =
      new ReadOnlyObjectWrapper<>(List.of());

  /**
   * @param goOn begins a transfer again from what an earlier run left
   */
  public TransferListModel(
      OpenDesk desk,
      String deskName,
      TransferQueue queue,
      Path folder,
      Consumer<ResumeLogFile> goOn) {
    this.desk = desk;
    this.deskName = deskName;
    this.queue = queue;
    this.folder = folder;
    this.goOn = goOn;
    setTitle("Transfers");
    readBefore();
  }

  /** Reads what is written down, but for what this run of the program has in its queue. */
  public void readBefore() {
    List<Path> running =
        queue.all().stream().map(TransferModel::file).filter(file -> file != null).toList();
    desk.background()
        .run(() -> read(folder, deskName, running), before::set, failure -> before.set(List.of()));
  }

  static List<ResumeLogFile> read(Path folder, String deskName, List<Path> without)
      throws IOException {
    if (!Files.isDirectory(folder)) {
      return List.of();
    }
    List<Path> files;
    try (Stream<Path> all = Files.list(folder)) {
      files =
          all.filter(file -> file.toString().endsWith(".log") && !without.contains(file))
              .sorted(Comparator.reverseOrder())
              .toList();
    }
    List<ResumeLogFile> logs = new ArrayList<>();
    for (Path file : files) {
      ResumeLogFile log = ResumeLogFile.read(file);
      if (log == null) {
        continue;
      }
      log.close();
      if (log.transfer().desk().equals(deskName)) {
        logs.add(log);
        if (logs.size() > MOST_BEFORE && !log.isUnfinished()) {
          Files.deleteIfExists(file);
        }
      }
    }
    return logs;
  }

  public String what(ResumeLogFile log) {
    return TransferWords.what(log.transfer().names());
  }

  public TransferState state(ResumeLogFile log) {
    return log.end() == null
        ? TransferState.UNFINISHED
        : TransferState.of(log.end().phase(), log.end().problems());
  }

  /** The state in one word or two. */
  public String stateWords(ResumeLogFile log) {
    return state(log).words(log.end() == null ? 0 : log.end().problems());
  }

  public void goOn(ResumeLogFile log) {
    before.set(before.get().stream().filter(one -> one != log).toList());
    goOn.accept(log);
  }

  /** Writes what happened to a text file in this computer's folder. */
  public void export(String name, List<Problem> problems, String headline, Path into) {
    Path file = into.resolve("transfer-" + System.currentTimeMillis() / 1000 + ".txt");
    List<String> lines = new ArrayList<>(List.of(name, headline, ""));
    problems.forEach(problem -> lines.add(problem.path() + ": " + problem.why()));
    desk.background()
        .run(
            () -> Files.write(file, lines),
            written ->
                ask(
                    Question.notice(
                        new Message("Written to " + file, ""),
                        false,
                        new Question.Choice("Close", ticked -> dismissQuestion()))),
            failure ->
                ask(
                    Question.notice(
                        FailureWords.of(failure),
                        true,
                        new Question.Choice("Close", ticked -> dismissQuestion()))));
  }

  public TransferQueue queue() {
    return queue;
  }

  /** Those of earlier runs, newest first. */
  public ReadOnlyObjectProperty<List<ResumeLogFile>> beforeProperty() {
    return before.getReadOnlyProperty();
  }
}
