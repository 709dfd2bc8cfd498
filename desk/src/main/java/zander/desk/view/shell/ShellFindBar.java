package zander.desk.view.shell;

import java.util.List;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.HBox;
import org.kordamp.ikonli.feather.Feather;
import zander.core.work.Cancellation;
import zander.desk.sheet.Texts;
import zander.desk.term.Found;
import zander.desk.term.TerminalView;
import zander.desk.view.part.Parts;
import zander.desk.words.Words;
import zander.desk.work.Background;
import zander.desk.work.FailureWords;

/** Finds text in a shell and in what has scrolled out of it, as it is typed, the newest first. */
final class ShellFindBar extends HBox {
  private static final Words WORDS = Words.of(ShellFindBar.class);

  private static final double LEAST_FIELD = 80;

  private final TerminalView terminal;
  private final Background background;
  private final TextField field = new TextField();
  private final Label count = Parts.label("", "shell-found");
  private Cancellation looking = new Cancellation();

  ShellFindBar(TerminalView terminal, Background background) {
    this.terminal = terminal;
    this.background = background;
    getStyleClass().add("shell-find");
    field.setId("shell-find");
    field.setPromptText(WORDS.say("findInThisShell"));
    field.setPrefColumnCount(24);
    field.setMinWidth(LEAST_FIELD);
    count.setMinWidth(USE_PREF_SIZE);
    field.textProperty().addListener((observed, old, now) -> look(now));
    field.addEventFilter(KeyEvent.KEY_PRESSED, this::pressed);
    getChildren()
        .addAll(
            field,
            Parts.iconButton(Feather.ARROW_UP, WORDS.say("foundBefore"), () -> step(1), "on-dark"),
            Parts.iconButton(
                Feather.ARROW_DOWN, WORDS.say("foundAfter"), () -> step(-1), "on-dark"),
            count,
            Parts.spring(),
            Parts.iconButton(Feather.X, WORDS.say("close"), this::close, "on-dark"));
    Parts.show(this, false);
  }

  void open() {
    Parts.show(this, true);
    field.requestFocus();
    field.selectAll();
    look(field.getText());
  }

  private void pressed(KeyEvent event) {
    if (event.getCode() == KeyCode.ENTER) {
      step(event.isShiftDown() ? -1 : 1);
      event.consume();
    } else if (event.getCode() == KeyCode.ESCAPE) {
      close();
      event.consume();
    }
  }

  private void close() {
    Parts.show(this, false);
    looking.stop();
    show(List.of());
    terminal.requestFocus();
  }

  /** Only the answer to what was typed last is shown. */
  private void look(String text) {
    looking.stop();
    Cancellation mine = new Cancellation();
    looking = mine;
    background.run(
        () -> terminal.found().look(text, mine),
        places -> {
          if (!mine.isStopped()) {
            show(places);
          }
        },
        failure -> count.setText(FailureWords.of(failure).headline()));
  }

  private void show(List<Found.Place> places) {
    terminal.found().show(places);
    tell();
    if (places.isEmpty()) {
      terminal.repaint();
    } else {
      terminal.showRow(places.get(0).row());
    }
  }

  private void step(int by) {
    Found.Place place = terminal.found().step(by);
    if (place != null) {
      terminal.showRow(place.row());
      tell();
    }
  }

  private void tell() {
    int all = terminal.found().count();
    count.setText(
        field.getText().isEmpty()
            ? ""
            : all == 0
                ? WORDS.say("nothingFound")
                : WORDS.say(
                    "of",
                    Texts.count(terminal.found().number()),
                    Texts.count(all),
                    terminal.found().isCut() ? WORDS.say("orMore") : ""));
  }
}
