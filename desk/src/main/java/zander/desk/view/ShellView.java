package zander.desk.view;

import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import zander.desk.model.ShellModel;
import zander.desk.term.TerminalView;

/** A shell: a thin bar with its folder and what can be done with it, and the terminal. */
final class ShellView extends VBox {
  private final TerminalView terminal;

  ShellView(ShellModel model, Runnable close) {
    terminal = new TerminalView(model.terminal());
    terminal.setId("terminal");
    getStyleClass().add("shell");
    Label title = Parts.label("", "shell-title");
    title.textProperty().bind(model.titleProperty().concat("  " + model.folder().text()));
    Label ended = Parts.label("", "shell-ended");
    ended.textProperty().bind(model.endedProperty());
    Button again = Parts.button("Start again here", "shell-again", model::start, "on-dark");
    Button place =
        Parts.button(
            "",
            "shell-place",
            () -> model.belowProperty().set(!model.belowProperty().get()),
            "on-dark");
    place
        .textProperty()
        .bind(
            javafx.beans.binding.Bindings.when(model.belowProperty())
                .then("Whole sheet")
                .otherwise("Below the sheets"));
    Button shut = Parts.button("Close", "shell-close", close, "on-dark");
    model.endedProperty().addListener((observed, old, now) -> Parts.show(again, !now.isEmpty()));
    Parts.show(again, !model.endedProperty().get().isEmpty());
    HBox bar = Parts.row("shell-bar", title, ended, Parts.spring(), again, place, shut);
    VBox.setVgrow(terminal, Priority.ALWAYS);
    getChildren().addAll(bar, terminal);
  }

  void focusTerminal() {
    terminal.requestFocus();
  }
}
