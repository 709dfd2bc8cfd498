package zander.desk.view.rights;

import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import zander.desk.rights.AccessListModel;
import zander.desk.view.part.NameCompletion;
import zander.desk.view.part.Parts;
import zander.desk.words.Words;

/** The access list of what is selected, with a line to add to it, and what else decides. */
final class AccessListView extends VBox {
  private static final Words WORDS = Words.of(AccessListView.class);

  private final AccessListModel model;
  private final Label title = Parts.label(WORDS.say("accessList"), "field-title");
  private final VBox rows = new VBox();
  private final VBox more = new VBox();
  private final Label mask = Parts.label("", "quiet");
  private final Label problem = Parts.label("", "problem");
  private final ComboBox<String> whose = new ComboBox<>();
  private final TextField name = new TextField();
  private final CheckBox[] bits = {new CheckBox("r"), new CheckBox("w"), new CheckBox("x")};
  private final CheckBox forNew = new CheckBox(WORDS.say("forNewEntriesIn"));
  private final CheckBox inside = new CheckBox(WORDS.say("allThatIsInside"));
  private final Button add;
  private final VBox adding;
  private final Runnable changed;

  /**
   * @param names what can be typed: of accounts, or of groups
   * @param changed after what was typed was not taken
   */
  AccessListView(AccessListModel model, NameCompletion.Names names, Runnable changed) {
    this.model = model;
    this.changed = changed;
    getStyleClass().add("access-cures");
    whose.getItems().setAll(WORDS.say("account"), WORDS.say("ofGroup"));
    whose.getSelectionModel().selectFirst();
    whose.setId("list-whose");
    name.setId("list-name");
    name.setPromptText(WORDS.say("nameHint"));
    HBox.setHgrow(name, Priority.ALWAYS);
    NameCompletion.on(name, () -> names.of(isOfGroup()));
    for (CheckBox bit : bits) {
      bit.setId("list-" + bit.getText());
      bit.setMinWidth(USE_PREF_SIZE);
    }
    bits[0].setSelected(true);
    forNew.setId("list-new");
    inside.setId("list-inside");
    Parts.hint(inside, WORDS.say("addedToOrRemoved"));
    add = Parts.button(WORDS.say("add"), "list-add", this::add, "small");
    add.setMinWidth(USE_PREF_SIZE);
    name.setOnAction(event -> add());
    adding =
        new VBox(
            Parts.row("list-adding", whose, name),
            Parts.row("list-adding", bits[0], bits[1], bits[2], Parts.spring(), add),
            forNew,
            inside);
    adding.getStyleClass().add("access-cures");
    for (Label label : new Label[] {mask, problem}) {
      label.setWrapText(true);
      label.setMinHeight(USE_PREF_SIZE);
    }
    more.getStyleClass().add("access-cures");
    getChildren().addAll(title, rows, mask, adding, problem, more);
  }

  private void add() {
    int wanted = 0;
    for (CheckBox bit : bits) {
      wanted = wanted << 1 | (bit.isSelected() ? 1 : 0);
    }
    if (!name.getText().isBlank()) {
      model.allow(
          name.getText(), isOfGroup(), wanted, forNew.isSelected() && model.isFolder(), isInside());
      if (model.problem().isEmpty()) {
        name.clear();
      }
      changed.run();
    }
  }

  private boolean isOfGroup() {
    return whose.getSelectionModel().getSelectedIndex() == 1;
  }

  private boolean isInside() {
    return inside.isSelected() && model.isFolder();
  }

  void show(boolean busy) {
    rows.getChildren().clear();
    int number = 0;
    for (AccessListModel.Row row : model.rows()) {
      HBox shown = Parts.row("access-cure", Parts.label(row.words(), "mono"), Parts.spring());
      int mine = number++;
      if (row.mayRemove()) {
        Button remove =
            Parts.button(
                WORDS.say("remove"),
                "access-remove-" + mine,
                () -> model.remove(row, isInside()),
                "small");
        remove.setMinWidth(USE_PREF_SIZE);
        remove.setDisable(busy);
        shown.getChildren().add(remove);
      }
      rows.getChildren().add(shown);
    }
    mask.setText(model.maskWords());
    problem.setText(model.problem());
    more.getChildren().clear();
    for (String line : model.more()) {
      Label label = Parts.label(line, "quiet");
      label.setWrapText(true);
      label.setMinHeight(USE_PREF_SIZE);
      more.getChildren().add(label);
    }
    Parts.show(title, model.mayChange() || number > 0);
    Parts.show(rows, number > 0);
    Parts.show(mask, !mask.getText().isEmpty());
    Parts.show(problem, !problem.getText().isEmpty());
    Parts.show(adding, model.mayChange());
    Parts.show(forNew, model.isFolder());
    Parts.show(inside, model.isFolder());
    add.setDisable(busy);
    Parts.show(more, !more.getChildren().isEmpty());
  }
}
