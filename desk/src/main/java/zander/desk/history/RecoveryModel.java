package zander.desk.history;

import java.util.ArrayList;
import java.util.List;
import javafx.collections.FXCollections;
import javafx.collections.ObservableList;
import zander.core.change.Recovery;
import zander.core.change.Recovery.Finding;
import zander.core.change.Recovery.State;
import zander.core.files.RemotePath;
import zander.core.journal.JournalEntry;
import zander.desk.sheet.OpenDesk;
import zander.desk.sheet.Question;
import zander.desk.sheet.Sheet;
import zander.desk.words.Words;
import zander.desk.work.FailureWords;

/**
 * What was under way when the program ended or the line broke: what became of each change on the
 * server, and finishing it or taking its half away.
 */
public final class RecoveryModel extends Sheet {
  private static final Words WORDS = Words.of(RecoveryModel.class);

  /**
   * One change.
   *
   * @param ended what was done about it; empty while it waits
   */
  public record Row(Finding finding, String ended) {
    public boolean isOpen() {
      return ended.isEmpty();
    }
  }

  private final OpenDesk desk;
  private final ObservableList<Row> rows = FXCollections.observableArrayList();

  private RecoveryModel(OpenDesk desk, List<Row> found) {
    this.desk = desk;
    rows.setAll(found);
    setTitle(WORDS.say("unfinished"));
  }

  /**
   * Looks for changes whose end is not known. Those that were done, or not begun, are noted as such
   * at once; a sheet is shown when there is something to decide, or after a start of the program.
   *
   * @param afterStart whether to show what was noted as well
   */
  public static void look(OpenDesk desk, boolean afterStart) {
    desk.background()
        .run(
            () -> settlePlain(desk),
            rows -> {
              boolean open = rows.stream().anyMatch(Row::isOpen);
              if (afterStart && !rows.isEmpty()) {
                desk.openSheets().show(new RecoveryModel(desk, rows));
              } else if (open) {
                // Somebody may be typing: it waits behind what is in front.
                desk.openSheets().offer(new RecoveryModel(desk, rows));
              }
            },
            failure -> desk.checkLine());
  }

  private static Recovery recovery(OpenDesk desk) {
    return new Recovery(desk.files(), desk.commands(), desk.journal());
  }

  private static List<Row> settlePlain(OpenDesk desk) throws java.io.IOException {
    Recovery recovery = recovery(desk);
    List<Row> rows = new ArrayList<>();
    for (JournalEntry entry : desk.journal().unfinished()) {
      Finding finding = recovery.look(entry);
      if (finding.state() == State.DONE) {
        recovery.finish(finding);
        rows.add(new Row(finding, WORDS.say("notedAsDone")));
      } else if (finding.state() == State.NOT_DONE && !finding.mayFinish()) {
        recovery.undo(finding);
        rows.add(new Row(finding, WORDS.say("notedAsNotDone")));
      } else {
        rows.add(new Row(finding, ""));
      }
    }
    return rows;
  }

  private interface Deed {
    void on(Recovery recovery, Finding finding) throws java.io.IOException;
  }

  private void end(Row row, String words, Deed deed) {
    desk.background()
        .run(
            () -> {
              deed.on(recovery(desk), row.finding());
              return words;
            },
            done -> {
              rows.set(rows.indexOf(row), new Row(row.finding(), done));
              RemotePath path = row.finding().entry().path();
              desk.changed(List.of(path));
            },
            failure -> {
              ask(
                  Question.notice(
                      FailureWords.of(failure),
                      true,
                      new Question.Choice(WORDS.say("close"), ticked -> dismissQuestion())));
              desk.checkLine();
            });
  }

  public void finish(Row row) {
    end(row, WORDS.say("finished"), Recovery::finish);
  }

  public void undo(Row row) {
    end(row, WORDS.say("asItWasBefore"), Recovery::undo);
  }

  public void leave(Row row) {
    end(row, WORDS.say("leftAsItIs"), Recovery::leave);
  }

  public String what(Row row) {
    return EntryWords.what(row.finding().entry(), desk.files().names());
  }

  public ObservableList<Row> rows() {
    return rows;
  }
}
