package zander.desk.view.reach;

import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.VBox;
import zander.desk.kept.KeptModel;
import zander.desk.reach.VaultModel;
import zander.desk.view.part.Parts;
import zander.desk.view.part.QuestionStrip;
import zander.desk.words.Words;

/** What lies on this computer of servers: how much, whether it is sealed, and emptying it. */
final class KeptPage extends VBox {
  private static final Words WORDS = Words.of(KeptPage.class);

  private final KeptModel kept;
  private final VaultModel vault;
  private final Label by = Parts.label("", "quiet");
  private final GridPane rows = new GridPane();

  KeptPage(KeptModel kept, VaultModel vault) {
    this.kept = kept;
    this.vault = vault;
    getStyleClass().add("page");
    by.setWrapText(true);
    rows.getStyleClass().add("kept-rows");
    getChildren()
        .addAll(
            Parts.label(WORDS.say("keptOnThisComputer"), "page-title"),
            by,
            new QuestionStrip(kept.questionProperty()),
            rows);
    kept.rowsProperty().addListener((observed, old, now) -> show());
    vault.stateProperty().addListener((observed, old, now) -> kept.look());
    sceneProperty()
        .addListener(
            (observed, old, now) -> {
              if (now != null) {
                kept.look();
              }
            });
    show();
  }

  private void show() {
    by.setText(
        vault.stateProperty().get() == VaultModel.State.NONE
            ? WORDS.say("withoutAVaultTexts")
            : WORDS.say("theVaultHasThe"));
    rows.getChildren().clear();
    int line = 0;
    for (KeptModel.Row row : kept.rowsProperty().get()) {
      Label purpose = Parts.label(row.purpose(), "quiet");
      purpose.setWrapText(true);
      VBox words = new VBox(Parts.label(row.name(), "strong-word"), purpose);
      Label amount = Parts.label(row.amount(), "figures");
      amount.setMinWidth(USE_PREF_SIZE);
      Button empty =
          Parts.button(WORDS.say("delete"), "empty-" + row.id(), () -> kept.askToEmpty(row));
      empty.setMinWidth(USE_PREF_SIZE);
      empty.setDisable(row.empty());
      rows.addRow(line++, words, amount, empty);
      GridPane.setHgrow(words, javafx.scene.layout.Priority.ALWAYS);
      GridPane.setValignment(amount, javafx.geometry.VPos.CENTER);
      GridPane.setHalignment(amount, javafx.geometry.HPos.LEFT);
    }
    rows.setAlignment(Pos.TOP_LEFT);
  }
}
