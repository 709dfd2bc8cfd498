package zander.desk.transfer;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import javafx.beans.property.ReadOnlyIntegerProperty;
import javafx.beans.property.ReadOnlyIntegerWrapper;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import zander.core.seal.StillSealed;
import zander.core.transfer.progress.Progress.Problem;
import zander.core.transfer.resume.ResumeFolder;
import zander.core.transfer.resume.ResumeLogFile;
import zander.desk.sheet.OpenDesk;
import zander.desk.sheet.Question;
import zander.desk.sheet.Sheet;
import zander.desk.words.Phrases;
import zander.desk.words.Words;
import zander.desk.work.FailureWords;
import zander.desk.work.Message;

/**
 * The list of a desk's transfers: those of this run of the program, and what earlier runs left
 * written down, which can be gone on with.
 */
public final class TransferListModel extends Sheet {
  private static final Words WORDS = Words.of(TransferListModel.class);

  /** So many of earlier runs are shown; older ones are let go. */
  private static final int MOST_BEFORE = 100;

  private final OpenDesk desk;
  private final String deskName;
  private final TransferQueue queue;
  private final ResumeFolder folder;
  private final Consumer<ResumeLogFile> goOn;
  private final ReadOnlyObjectWrapper<List<ResumeLogFile>> before =
      new ReadOnlyObjectWrapper<>(List.of());
  private final ReadOnlyIntegerWrapper sealed = new ReadOnlyIntegerWrapper();

  /**
   * @param goOn begins a transfer again from what an earlier run left
   */
  public TransferListModel(
      OpenDesk desk,
      String deskName,
      TransferQueue queue,
      ResumeFolder folder,
      Consumer<ResumeLogFile> goOn) {
    this.desk = desk;
    this.deskName = deskName;
    this.queue = queue;
    this.folder = folder;
    this.goOn = goOn;
    setTitle(WORDS.say("transfers"));
    readBefore();
  }

  /** Reads what is written down, but for what this run of the program has in its queue. */
  public void readBefore() {
    read(false);
  }

  /** The same, and asks for the vault when some are sealed. */
  public void openSealed() {
    read(true);
  }

  private void read(boolean mayAsk) {
    List<Path> running =
        queue.all().stream().map(TransferModel::file).filter(file -> file != null).toList();
    desk.background()
        .run(
            () -> read(folder, deskName, running, mayAsk),
            found -> {
              sealed.set(found.sealed());
              before.set(found.logs());
            },
            failure -> before.set(List.of()));
  }

  /**
   * What is written down.
   *
   * @param sealed how many cannot be read while the vault is closed, of whatever server
   */
  private record Found(List<ResumeLogFile> logs, int sealed) {}

  private static Found read(
      ResumeFolder folder, String deskName, List<Path> without, boolean mayAsk) throws IOException {
    List<ResumeLogFile> logs = new ArrayList<>();
    int sealed = 0;
    boolean ask = mayAsk;
    for (Path file : folder.files()) {
      ResumeLogFile log = null;
      try {
        log = without.contains(file) ? null : folder.read(file, ask);
      } catch (StillSealed e) {
        // Who keeps the vault closed is asked once, not for each of them.
        ask = false;
        sealed += e.reason() == StillSealed.Reason.VAULT_CLOSED ? 1 : 0;
      }
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
    return new Found(logs, sealed);
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
    problems.forEach(problem -> lines.add(problem.path() + ": " + Phrases.say(problem.why())));
    desk.background()
        .run(
            () -> Files.write(file, lines),
            written ->
                ask(
                    Question.notice(
                        new Message(WORDS.say("writtenTo", file), ""),
                        false,
                        new Question.Choice(WORDS.say("close"), ticked -> dismissQuestion()))),
            failure ->
                ask(
                    Question.notice(
                        FailureWords.of(failure),
                        true,
                        new Question.Choice(WORDS.say("close"), ticked -> dismissQuestion()))));
  }

  public TransferQueue queue() {
    return queue;
  }

  /** How many of earlier runs are sealed and cannot be listed until the vault is open. */
  public ReadOnlyIntegerProperty sealedProperty() {
    return sealed.getReadOnlyProperty();
  }

  /** Those of earlier runs, newest first. */
  public ReadOnlyObjectProperty<List<ResumeLogFile>> beforeProperty() {
    return before.getReadOnlyProperty();
  }
}
