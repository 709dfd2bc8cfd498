package zander.desk.view.reach;

import java.nio.file.Path;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.input.Clipboard;
import javafx.scene.input.ClipboardContent;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import zander.core.connect.keys.PublicKeyLine;
import zander.desk.model.AppModel;
import zander.desk.model.DeskModel;
import zander.desk.reach.KeyPlacing;
import zander.desk.reach.KeyPlacing.Stage;
import zander.desk.reach.KeysModel;
import zander.desk.view.part.Parts;
import zander.desk.words.Words;

/** One key: what it is, its public half to copy, and putting it on a server that is open. */
final class KeyPanel extends VBox {
  private static final Words WORDS = Words.of(KeyPanel.class);

  private final AppModel model;
  private final KeysModel.Row row;
  private final VBox placing = new VBox();

  KeyPanel(AppModel model, KeysModel.Row row) {
    this.model = model;
    this.row = row;
    getStyleClass().add("page");
    GridPane facts = new GridPane();
    facts.getStyleClass().add("entry-facts");
    if (row.line() != null) {
      fact(facts, WORDS.say("kind"), row.line().key().shortType(), false);
      fact(facts, WORDS.say("fingerprint"), row.line().key().fingerprint(), true);
      fact(facts, WORDS.say("comment"), row.line().comment(), false);
    }
    Path file = row.file();
    fact(facts, WORDS.say("privateHalf"), file == null ? "" : model.keys().shown(file), true);
    fact(facts, WORDS.say("kept"), row.where(), false);
    getChildren().addAll(Parts.label(row.name(), "page-title"), facts);
    if (!row.problem().isEmpty() && file != null) {
      getChildren()
          .add(
              Parts.row(
                  "choices",
                  Parts.label(row.problem(), "problem"),
                  Parts.button(
                      WORDS.say("makePrivateMode600"),
                      "close-key-file",
                      () -> model.keys().close(file, () -> {}))));
    }
    PublicKeyLine line = row.line();
    if (line != null) {
      getChildren().addAll(Parts.label(WORDS.say("publicHalf"), "field-title"), publicLine(line));
      placing.getStyleClass().add("placing");
      getChildren().addAll(Parts.label(WORDS.say("putItOnA"), "field-title"), placing);
      offerServers();
    }
  }

  private static void fact(GridPane grid, String name, String value, boolean mono) {
    if (!value.isBlank()) {
      Label shown = Parts.label(value, mono ? "mono" : "plain");
      shown.setWrapText(true);
      grid.addRow(grid.getRowCount(), Parts.label(name, "quiet"), shown);
    }
  }

  private static HBox publicLine(PublicKeyLine of) {
    TextField line = new TextField(of.text());
    line.setId("public-line");
    line.setEditable(false);
    line.setPrefColumnCount(40);
    line.getStyleClass().add("mono");
    HBox.setHgrow(line, javafx.scene.layout.Priority.ALWAYS);
    return Parts.row(
        "typed",
        line,
        Parts.button(
            WORDS.say("copy"),
            "copy-public",
            () -> {
              ClipboardContent content = new ClipboardContent();
              content.putString(of.text());
              Clipboard.getSystemClipboard().setContent(content);
            }));
  }

  private void offerServers() {
    placing.getChildren().clear();
    if (model.desks().isEmpty()) {
      placing.getChildren().add(Parts.label(WORDS.say("openTheServerFirst"), "quiet"));
      return;
    }
    HBox choices = Parts.row("choices");
    for (DeskModel desk : model.desks()) {
      if (desk.actsAs() != null) {
        continue;
      }
      String name = desk.entry().name();
      choices
          .getChildren()
          .add(
              Parts.button(
                  WORDS.say("onAs", name, desk.entry().account()),
                  "put-on-" + name,
                  () -> follow(desk.place(row))));
    }
    placing.getChildren().add(choices);
  }

  private void follow(KeyPlacing under) {
    under.stageProperty().addListener((observed, old, now) -> show(under));
    show(under);
  }

  private void show(KeyPlacing under) {
    placing.getChildren().clear();
    Stage stage = under.stageProperty().get();
    String server = under.entry().name();
    Label head =
        Parts.label(
            switch (stage) {
              case LOOKING -> WORDS.say("lookingAt", server);
              case PLANNED -> WORDS.say("whatWillBeDone", server, under.entry().account());
              case PUTTING -> WORDS.say("puttingTheKeyOn", server);
              case PROVING -> WORDS.say("signingInASecond");
              default -> under.saidProperty().get().headline();
            },
            stage == Stage.FAILED ? "problem" : "strong-word");
    head.setId("placing-stage");
    placing.getChildren().add(head);
    if (stage == Stage.PLANNED || stage == Stage.PUTTING || stage == Stage.PROVING) {
      for (String line : under.planProperty().get().split("\n")) {
        placing.getChildren().add(wrapped("•  " + line));
      }
    }
    if (stage == Stage.PLANNED) {
      placing
          .getChildren()
          .add(
              Parts.row(
                  "choices",
                  Parts.button(WORDS.say("continue"), "put-key", under::put, "main"),
                  Parts.button(WORDS.say("cancel"), "leave-key", this::offerServers)));
    }
    if (under.saidProperty().get() != null) {
      placing.getChildren().add(wrapped(under.saidProperty().get().detail()));
      placing
          .getChildren()
          .add(
              Parts.row(
                  "choices", Parts.button(WORDS.say("close"), "end-placing", this::offerServers)));
    }
  }

  private static Label wrapped(String text) {
    Label label = Parts.label(text, "plain");
    label.setWrapText(true);
    return label;
  }
}
