package zander.desk.view.rights;

import java.util.List;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.TableCell;
import javafx.scene.control.TableColumn;
import javafx.scene.control.TableView;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import zander.core.change.rights.look.FindingKind;
import zander.core.change.rights.look.TreeFindings.Finding;
import zander.desk.rights.FindingsModel;
import zander.desk.sheet.Texts;
import zander.desk.view.part.Parts;
import zander.desk.view.part.QuestionStrip;
import zander.desk.view.part.SheetView;
import zander.desk.view.part.Tables;
import zander.desk.words.Words;

/** Rights below a folder that are wider than they should be: how many of each kind, and which. */
public final class FindingsView extends VBox implements SheetView {
  private static final Words WORDS = Words.of(FindingsView.class);

  private final FindingsModel model;
  private final TableView<FindingKind> kinds = new TableView<>();
  private final TableView<Finding> entries = new TableView<>();
  private final Label status = Parts.label("", "plan-sums");
  private final ComboBox<String> account = new ComboBox<>();
  private final Label nothing = Parts.label("", "quiet");

  public FindingsView(FindingsModel model) {
    this.model = model;
    getStyleClass().add("sheet");
    account.getItems().setAll(model.accounts());
    account.setValue(model.account());
    account.setId("findings-account");
    account.setOnAction(event -> model.ask(account.getValue()));
    Button again = Parts.button(WORDS.say("lookAgain"), "findings-again", model::look);
    Button stop = Parts.button(WORDS.say("stop"), "findings-stop", model::stop);
    for (Button button : List.of(again, stop)) {
      button.setMinWidth(USE_PREF_SIZE);
    }
    status.setId("findings-status");
    status.setWrapText(true);
    status.setMinHeight(USE_PREF_SIZE);
    VBox head = new VBox(status);
    head.getStyleClass().add("plan-head");
    buildKinds();
    buildEntries();
    VBox.setVgrow(kinds, Priority.ALWAYS);
    VBox.setVgrow(entries, Priority.ALWAYS);
    getChildren()
        .addAll(
            Parts.row(
                "sheet-bar",
                Parts.label(WORDS.say("rightsToLookAt"), "sheet-heading"),
                account,
                Parts.label(WORDS.say("canWrite"), "sheet-heading"),
                Parts.spring(),
                stop,
                again),
            new QuestionStrip(model.questionProperty()),
            head,
            kinds,
            entries);
    status.textProperty().bind(model.statusProperty());
    model.runningProperty().addListener((observed, old, now) -> show(stop, now));
    show(stop, model.runningProperty().get());
  }

  private void show(Button stop, boolean running) {
    Parts.show(stop, running);
    nothing.setText(!running && model.isLooked() ? WORDS.say("nothingWasFound") : "");
    if (!running && !model.kinds().isEmpty()) {
      kinds.getSelectionModel().selectFirst();
    }
  }

  private void buildKinds() {
    kinds.setId("findings-kinds");
    kinds.setPlaceholder(nothing);
    TableColumn<FindingKind, String> count =
        Tables.numbers(
            Tables.column(
                WORDS.say("entries"),
                84,
                kind -> Texts.count(model.count(kind)),
                () -> Tables.text(text -> text, Pos.CENTER_RIGHT, "figures")));
    TableColumn<FindingKind, String> what =
        Tables.column(
            WORDS.say("whatIsWithThem"),
            330,
            model::words,
            () -> Tables.text(text -> text, Pos.CENTER_LEFT, "plain"));
    TableColumn<FindingKind, FindingKind> example =
        Tables.column(WORDS.say("forExample"), 300, kind -> kind, ExampleCell::new);
    kinds.getColumns().addAll(List.of(count, what, example));
    Tables.open(
        kinds,
        model::show,
        row ->
            row.itemProperty()
                .addListener(
                    (observed, old, now) ->
                        Tables.mark(row, "row-danger", now != null && model.isGrave(now))));
    kinds.setItems(model.kinds());
    kinds
        .getSelectionModel()
        .selectedItemProperty()
        .addListener(
            (observed, old, now) -> {
              if (now != null) {
                model.show(now);
              }
            });
  }

  /** An example, and what mends all of them. */
  private final class ExampleCell extends TableCell<FindingKind, FindingKind> {
    private final Label path = Parts.label("", "mono", "quiet");
    private final Button mend =
        Parts.button(
            WORDS.say("lookWhatWouldMend"), "findings-mend", () -> model.mend(getItem()), "small");

    ExampleCell() {
      mend.setMinWidth(USE_PREF_SIZE);
      mend.setFocusTraversable(false);
    }

    @Override
    protected void updateItem(FindingKind kind, boolean empty) {
      super.updateItem(kind, empty);
      if (empty || kind == null) {
        setGraphic(null);
        return;
      }
      path.setText(model.example(kind));
      setGraphic(model.mayMend(kind) ? Parts.row("tree-example", path, mend) : path);
    }
  }

  private void buildEntries() {
    entries.setId("findings-entries");
    entries.setPlaceholder(Parts.label("", "quiet"));
    TableColumn<Finding, String> path =
        Tables.column(
            WORDS.say("entry"),
            380,
            model::below,
            () -> Tables.text(text -> text, Pos.CENTER_LEFT, "mono"));
    TableColumn<Finding, String> owner =
        Tables.column(
            WORDS.say("ownerAndGroup"),
            160,
            model::owner,
            () -> Tables.text(text -> text, Pos.CENTER_LEFT, "plain"));
    TableColumn<Finding, String> mode =
        Tables.column(
            WORDS.say("mode"),
            150,
            model::mode,
            () -> Tables.text(text -> text, Pos.CENTER_LEFT, "mono"));
    entries.getColumns().addAll(List.of(path, owner, mode));
    Tables.open(entries, model::goTo, row -> {});
    entries.setItems(model.shown());
  }

  @Override
  public void takeFocus() {
    kinds.requestFocus();
  }
}
