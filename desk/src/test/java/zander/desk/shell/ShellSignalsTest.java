package zander.desk.shell;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayDeque;
import java.util.Queue;
import org.junit.jupiter.api.Test;
import zander.desk.sheet.Sheet;
import zander.desk.work.Background;

/** What a program tells without end costs the interface thread no more than what it tells once. */
class ShellSignalsTest {
  private final Queue<Runnable> shown = new ArrayDeque<>();
  private final ShellSignals signals =
      new ShellSignals(new Sheet() {}, new Background(shown::add), bytes -> {});

  private void show() {
    while (!shown.isEmpty()) {
      shown.remove().run();
    }
  }

  @Test
  void aFloodIsShownOnce() {
    for (int i = 0; i < 1_000; i++) {
      signals.bell();
      signals.title("gauge " + i);
      signals.clipboard("level " + i);
    }
    assertThat(shown).hasSize(3);
    show();
    assertThat(signals.titleProperty().get()).isEqualTo("gauge 999");
    assertThat(signals.rangProperty().get()).isTrue();
    signals.title("over");
    show();
    assertThat(signals.titleProperty().get()).isEqualTo("over");
  }

  @Test
  void anAnswerWaitsOnlyWhileLittleDoes() {
    WaitingAnswers answers = new WaitingAnswers();
    for (int i = 0; i < WaitingAnswers.MOST / 1024; i++) {
      assertThat(answers.begin(1024)).isTrue();
    }
    assertThat(answers.begin(1)).isFalse();
    answers.done(1024);
    assertThat(answers.begin(1024)).isTrue();
    assertThat(answers.begin(1)).isFalse();
  }

  @Test
  void theFolderIsThatOfTheFirstComputer() {
    signals.folder("levels-web", "/srv");
    signals.folder("tide-desk", "/home/ingest");
    assertThat(signals.folder()).isEqualTo("/srv");
    signals.folder("levels-web", "/etc");
    assertThat(signals.folder()).isEqualTo("/etc");
  }
}
