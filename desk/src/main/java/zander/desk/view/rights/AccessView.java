package zander.desk.view.rights;

import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import zander.core.access.AccessStep;
import zander.core.access.Deed;
import zander.core.rights.AccessList.Answer;
import zander.desk.rights.AccessModel;
import zander.desk.view.part.NameCompletion;
import zander.desk.view.part.Parts;
import zander.desk.view.part.Tables;
import zander.desk.words.Words;

/**
 * Who can reach what is selected: account, deed, the chain that decides, and what would open it.
 */
final class AccessView extends VBox {
  private static final Words WORDS = Words.of(AccessView.class);

  private final AccessModel model;
  private final Button open;
  private final VBox inner = new VBox();

  /** Widths of the column of places and of one letter in it, in pixels. */
  private static final double LEAST_PLACE = 84;

  private static final double MOST_PLACE = 120;
  private static final double LETTER = 7.3;

  private final ComboBox<String> account = new ComboBox<>();
  private final Map<Deed, Button> deeds = new EnumMap<>(Deed.class);
  private final Label answer = Parts.label("", "access-answer");
  private final Label unseen = Parts.label("", "quiet");
  private final Label groups = Parts.label("", "quiet");
  private final VBox chain = new VBox();
  private final VBox cures = new VBox();
  private final AccessListView list;
  private boolean showing;

  /**
   * @param names of the server
   */
  AccessView(AccessModel model, NameCompletion.Names names) {
    this.model = model;
    this.list = new AccessListView(model.list(), names, this::show);
    getStyleClass().add("access");
    open = Parts.button("", "access-open", () -> model.open(!model.openProperty().get()), "small");
    Parts.hint(open, WORDS.say("whoCanReadWrite"));
    account.setId("access-account");
    account.setVisibleRowCount(12);
    account.setOnAction(
        event -> {
          if (!showing) {
            model.ask(account.getValue());
          }
        });
    HBox asked = Parts.row("access-asked");
    for (Deed deed : Deed.values()) {
      Button button =
          Parts.button(
              "",
              "access-" + deed.name().toLowerCase(java.util.Locale.ROOT),
              () -> model.ask(deed),
              "small",
              "deed");
      button.setMinWidth(USE_PREF_SIZE);
      deeds.put(deed, button);
      asked.getChildren().add(button);
    }
    answer.setId("access-answer");
    answer.setWrapText(true);
    answer.setMinHeight(USE_PREF_SIZE);
    for (Label label : List.of(unseen, groups)) {
      label.setWrapText(true);
      label.setMinHeight(USE_PREF_SIZE);
    }
    groups.setId("access-groups");
    chain.getStyleClass().add("access-chain");
    cures.getStyleClass().add("access-cures");
    inner.getStyleClass().add("access-inner");
    inner.getChildren().addAll(account, groups, asked, answer, unseen, chain, cures, list);
    HBox head =
        Parts.row(
            "access-head",
            Parts.label(WORDS.say("whoCanReachIt"), "field-title"),
            Parts.spring(),
            open);
    getChildren().addAll(head, inner);
    model.changesProperty().addListener((observed, old, now) -> show());
    show();
  }

  private void show() {
    showing = true;
    Parts.show(this, model.mayAsk());
    boolean shown = model.openProperty().get();
    open.setText(shown ? WORDS.say("hide") : WORDS.say("show"));
    Parts.show(inner, shown);
    if (shown) {
      List<String> accounts = model.accounts();
      if (!account.getItems().equals(accounts)) {
        account.getItems().setAll(accounts);
      }
      account.setValue(model.account());
      deeds.forEach(
          (deed, button) -> {
            button.setText(model.words(deed));
            Tables.mark(button, "on", deed == model.deed());
          });
      answer.setText(model.answerWords());
      unseen.setText(model.unseenWords());
      groups.setText(model.groupWords());
      Parts.show(groups, !groups.getText().isEmpty());
      Parts.show(unseen, !unseen.getText().isEmpty());
      Tables.mark(answer, "good", model.answerNow() == Answer.YES);
      Tables.mark(answer, "bad", model.answerNow() == Answer.NO);
      showChain();
      showCures();
      list.show(model.isBusy());
    }
    showing = false;
  }

  private void showChain() {
    chain.getChildren().clear();
    int longest =
        model.steps().stream().mapToInt(step -> model.place(step).length()).max().orElse(0);
    double width = Math.max(LEAST_PLACE, Math.min(longest * LETTER, MOST_PLACE));
    for (AccessStep step : model.steps()) {
      Label place = Parts.label(model.place(step), "mono", "access-place");
      place.setTooltip(new Tooltip(place.getText()));
      place.setMinWidth(width);
      place.setMaxWidth(width);
      Label words = Parts.label(model.words(step), "access-words");
      words.setWrapText(true);
      words.setMinHeight(USE_PREF_SIZE);
      HBox.setHgrow(words, Priority.ALWAYS);
      HBox row = Parts.row("access-step", place, words);
      Tables.mark(row, "stops", step.answer() == Answer.NO);
      Tables.mark(row, "not-known", step.answer() == Answer.UNKNOWN);
      chain.getChildren().add(row);
    }
    Parts.show(chain, !chain.getChildren().isEmpty());
  }

  private void showCures() {
    cures.getChildren().clear();
    int number = 0;
    for (AccessModel.CureRow cure : model.cures()) {
      Label what = Parts.label(cure.what());
      Label effect = Parts.label(cure.effect(), "quiet");
      for (Label label : List.of(what, effect)) {
        label.setWrapText(true);
        label.setMinHeight(USE_PREF_SIZE);
      }
      VBox words = new VBox(what, effect);
      HBox.setHgrow(words, Priority.ALWAYS);
      HBox row = Parts.row("access-cure", words);
      int mine = number++;
      if (!cure.button().isEmpty()) {
        Button set =
            Parts.button(cure.button(), "access-cure-" + mine, () -> model.cure(mine), "small");
        set.setMinWidth(USE_PREF_SIZE);
        set.setDisable(model.isBusy());
        row.getChildren().add(set);
      }
      cures.getChildren().add(row);
    }
    if (number > 0) {
      cures.getChildren().add(0, Parts.label(WORDS.say("whatWouldOpenIt"), "field-title"));
    }
    Parts.show(cures, number > 0);
  }
}
