package zander.desk.model;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import zander.core.transfer.rules.ConflictRule;
import zander.core.transfer.rules.TransferRules;
import zander.desk.sheet.Question;
import zander.desk.sheet.Sheet;
import zander.desk.transfer.TransferListModel;
import zander.desk.transfer.TransferModel;
import zander.desk.work.Message;

/** A transfer's question is never lost, whatever else is told or asked, and stops no other. */
class TransferQuestionsTest {
  private static final String TRIAL = "/home/warden/trial";

  @TempDir Path folder;
  private ModelDesk work;
  private DeskModel desk;
  private Path local;

  @BeforeEach
  void start() throws Exception {
    work = new ModelDesk(folder);
    local = Files.createDirectories(folder.resolve("home/up"));
    desk = work.openLabBox(TRIAL, local);
    work.on(
        () -> {
          desk.transfers().rules().change(TransferRules.of(ConflictRule.REPLACE));
          return null;
        });
    for (String name : List.of("one.html", "two.html", "three.html")) {
      Files.writeString(local.resolve(name), "first");
      send(name);
      TransferModel first = last();
      work.until(name + " is there", first::isOver);
      Files.writeString(local.resolve(name), "second, longer");
    }
    work.on(
        () -> {
          desk.transfers().rules().change(TransferRules.of(ConflictRule.ASK));
          return null;
        });
  }

  @AfterEach
  void stop() throws Exception {
    work.close();
  }

  private void send(String name) throws Exception {
    work.on(
        () -> {
          desk.transfers().sendUp(List.of(local.resolve(name)));
          return null;
        });
  }

  private TransferModel last() throws Exception {
    return work.on(
        () -> {
          List<TransferModel> all = desk.transfers().queue().all();
          return all.get(all.size() - 1);
        });
  }

  /** Takes the first answer of what a sheet shows. */
  private void answer(Sheet sheet) throws Exception {
    work.on(
        () -> {
          Question asked = sheet.questionProperty().get();
          asked.choices().get(0).chosen().accept(false);
          return null;
        });
  }

  @Test
  void questionsStandUntilTheyAreAnsweredAndHoldUpNobody() throws Exception {
    send("one.html");
    send("two.html");
    work.until("both ask", () -> desk.transfers().asking() == 2);
    Question first = work.on(() -> desk.folder().questionProperty().get());

    // Going elsewhere, a notice, and its end: none of them takes the question's place.
    work.on(
        () -> {
          desk.folder().go(desk.home());
          return null;
        });
    work.until("it is there", () -> desk.home().equals(desk.folder().path()));
    work.on(
        () -> {
          desk.folder().ask(Question.notice(new Message("Something else", ""), false));
          return null;
        });
    assertThat(work.on(() -> desk.folder().questionProperty().get())).isSameAs(first);
    work.on(
        () -> {
          desk.folder().dismissQuestion();
          return null;
        });
    assertThat(work.on(() -> desk.folder().questionProperty().get())).isSameAs(first);

    // Two may run at the same time, and both of them only wait: a third goes.
    Files.writeString(local.resolve("new.html"), "new");
    send("new.html");
    TransferModel third = last();
    work.until("the third is done", third::isOver);
    assertThat(work.on(() -> desk.transfers().asking())).isEqualTo(2);

    // The list shows the same question; answered there, the next stands in both places.
    TransferListModel list =
        work.on(
            () -> {
              desk.transfers().openList();
              return (TransferListModel) desk.currentProperty().get();
            });
    assertThat(work.on(() -> list.questionProperty().get())).isSameAs(first);
    answer(list);
    work.until("one is left", () -> desk.transfers().asking() == 1);
    Question second = work.on(() -> desk.folder().questionProperty().get());
    assertThat(second).isNotNull().isNotSameAs(first);
    assertThat(work.on(() -> list.questionProperty().get())).isSameAs(second);
    answer(desk.folder());
    work.until("all are over", () -> !desk.transfers().queue().isBusy());
    assertThat(work.on(() -> desk.transfers().asking())).isZero();
    assertThat(work.on(() -> list.questionProperty().get())).isNull();
  }
}
