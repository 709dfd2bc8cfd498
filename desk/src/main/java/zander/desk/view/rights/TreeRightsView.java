package zander.desk.view.rights;

import java.nio.file.Path;
import java.util.List;
import java.util.function.Supplier;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TableCell;
import javafx.scene.control.TableColumn;
import javafx.scene.control.TableView;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import zander.core.change.rights.PlanGroup.Fate;
import zander.core.change.rights.TreeOutcome;
import zander.core.change.rights.TreePlan;
import zander.core.rights.RightsDanger;
import zander.desk.rights.kept.KeptRequest;
import zander.desk.rights.tree.PlanRow;
import zander.desk.rights.tree.TreeRequest;
import zander.desk.rights.tree.TreeRightsModel;
import zander.desk.rights.tree.TreeRightsModel.Stage;
import zander.desk.sheet.Texts;
import zander.desk.view.part.Parts;
import zander.desk.view.part.QuestionStrip;
import zander.desk.view.part.SheetView;
import zander.desk.view.part.Tables;
import zander.desk.words.Words;

/** The rights of all that is in folders: what is asked, what would change, what became of it. */
public final class TreeRightsView extends VBox implements SheetView {
  private static final Words WORDS = Words.of(TreeRightsView.class);

  private static final double NARROW = 640;

  private final TreeRightsModel model;
  private final Label heading = Parts.label("", "sheet-heading");
  private final Label asks = Parts.label("", "quiet");
  private final Label status = Parts.label("", "plan-sums");
  private final Button look;
  private final Button change;
  private final Button set;
  private final Button stop;
  private final Button back;
  private final Button goOn;
  private final RequestForm form;
  private final ScrollPane asking;
  private final TableView<PlanRow> plan = new TableView<>();
  private final TableView<TreePlan.Planned> entries = new TableView<>();
  private final TableView<TreeOutcome.Left> left = new TableView<>();
  private final Label each = Parts.label("", "field-title");

  /**
   * @param here the folder of this computer that is shown
   */
  public TreeRightsView(TreeRightsModel model, Supplier<Path> here) {
    this.model = model;
    getStyleClass().add("sheet");
    look = Parts.button(WORDS.say("lookWhatWouldChange"), "tree-look", model::look, "main");
    change = Parts.button(WORDS.say("changeWhatIsAsked"), "tree-change", model::askAgain);
    set = Parts.button(WORDS.say("set"), "tree-set", model::set, "main");
    stop = Parts.button(WORDS.say("stop"), "tree-stop", model::stop);
    back = Parts.button(WORDS.say("putBack"), "tree-put-back", model::putBack);
    goOn = Parts.button(WORDS.say("goOn"), "tree-go-on", model::goOn, "main");
    for (Button button : List.of(look, change, set, stop, back, goOn)) {
      button.setMinWidth(USE_PREF_SIZE);
    }
    status.setId("tree-status");
    status.setWrapText(true);
    status.setMinHeight(USE_PREF_SIZE);
    asks.setId("tree-asks");
    asks.setWrapText(true);
    asks.setMinHeight(USE_PREF_SIZE);
    Region asked = asked(here);
    form = (RequestForm) asked;
    asking = new ScrollPane(asked);
    asking.setFitToWidth(true);
    asking.setFitToHeight(asked instanceof KeptRightsForm);
    asking.getStyleClass().add("tree-asking");
    buildPlan();
    buildEntries();
    buildLeft();
    for (TableView<?> table : List.of(plan, entries, left)) {
      VBox.setVgrow(table, Priority.ALWAYS);
    }
    VBox.setVgrow(asking, Priority.ALWAYS);
    VBox head = new VBox(asks, status);
    head.getStyleClass().add("plan-head");
    each.getStyleClass().add("tree-each");
    getChildren()
        .addAll(
            Parts.row("sheet-bar", heading, Parts.spring(), stop, change, look, back, goOn, set),
            new QuestionStrip(model.questionProperty()),
            head,
            asking,
            plan,
            each,
            entries,
            left);
    model
        .stageProperty()
        .addListener(
            (observed, old, now) -> {
              show();
              if (now == Stage.PLANNED && old == Stage.LOOKING) {
                plan.getSelectionModel().selectFirst();
                plan.requestFocus();
              } else if (now == Stage.DONE && old == Stage.SETTING) {
                (back.isVisible() ? back : change).requestFocus();
              }
            });
    model.statusProperty().addListener((observed, old, now) -> show());
    model
        .choice()
        .changesProperty()
        .addListener(
            (observed, old, now) -> {
              plan.refresh();
              show();
            });
    model.choice().shown().addListener((javafx.collections.ListChangeListener<Object>) c -> show());
    show();
  }

  private Region asked(Supplier<Path> here) {
    if (model.request() instanceof KeptRequest kept) {
      return new KeptRightsForm(kept, here);
    }
    return model.request() instanceof TreeRequest typed
        ? new TreeRequestForm(typed, model::namesOf, model::look)
        : new NothingToAsk();
  }

  /** What is wanted is known already. */
  private static final class NothingToAsk extends Region implements RequestForm {
    @Override
    public void takeFocus() {
      requestFocus();
    }
  }

  private void buildPlan() {
    plan.setId("tree-plan");
    for (TableView<?> table : List.of(plan, entries, left)) {
      table.setPlaceholder(Parts.label("", "quiet"));
    }
    TableColumn<PlanRow, PlanRow> chosen = Tables.column("", 40, row -> row, ChosenCell::new);
    chosen.setMinWidth(34);
    TableColumn<PlanRow, String> count =
        Tables.numbers(
            Tables.column(
                WORDS.say("entries"),
                84,
                row -> Texts.count(row.group().count()),
                () -> Tables.text(text -> text, Pos.CENTER_RIGHT, "figures")));
    TableColumn<PlanRow, String> what =
        Tables.column(
            WORDS.say("whatBecomesOfThem"),
            380,
            row -> model.texts().of(row),
            () -> Tables.text(text -> text, Pos.CENTER_LEFT, "plain"));
    TableColumn<PlanRow, PlanRow> example =
        Tables.column(WORDS.say("forExample"), 230, row -> row, ExampleCell::new);
    plan.getColumns().addAll(List.of(chosen, count, what, example));
    // What becomes of them gets the room that is left.
    Runnable fit =
        () -> {
          double width = plan.getWidth() - plan.getInsets().getLeft() - plan.getInsets().getRight();
          example.setPrefWidth(width < NARROW ? 170 : 250);
          double rest = width - chosen.getWidth() - count.getWidth() - example.getPrefWidth() - 4;
          what.setPrefWidth(Math.max(210, rest));
        };
    plan.widthProperty().addListener((observed, old, now) -> fit.run());
    count.widthProperty().addListener((observed, old, now) -> fit.run());
    Tables.open(
        plan,
        model.choice()::show,
        row -> row.itemProperty().addListener((observed, old, now) -> mark(row, now)));
    plan.setItems(model.choice().rows());
    plan.getSelectionModel()
        .selectedItemProperty()
        .addListener(
            (observed, old, now) -> {
              if (now != null) {
                model.choice().show(now);
              }
            });
    plan.addEventFilter(
        javafx.scene.input.KeyEvent.KEY_PRESSED,
        event -> {
          PlanRow one = plan.getSelectionModel().getSelectedItem();
          if (event.getCode() == javafx.scene.input.KeyCode.SPACE && one != null) {
            flip(one);
            event.consume();
          }
        });
  }

  private static void flip(PlanRow row) {
    if (row.mayBeChosen()) {
      row.chosenProperty().set(!row.chosenProperty().get());
    }
  }

  private static void mark(javafx.scene.Node row, PlanRow now) {
    RightsDanger grave = now == null ? null : now.group().danger();
    boolean danger = grave != null;
    boolean bad = grave != null && grave.isGrave();
    boolean cannot =
        now != null
            && (now.group().fate() == Fate.NOT_ALLOWED || now.group().fate() == Fate.UNREADABLE);
    Tables.mark(row, "row-danger", bad);
    Tables.mark(row, "row-look", danger && !bad);
    Tables.mark(row, "row-refused", cannot);
    Tables.mark(row, "row-quiet", now != null && !now.mayBeChosen() && !cannot);
  }

  /** The tick of a row that can be set. */
  private final class ChosenCell extends TableCell<PlanRow, PlanRow> {
    private final CheckBox box = new CheckBox();

    ChosenCell() {
      box.setFocusTraversable(false);
      box.setOnAction(event -> flip(getItem()));
      setAlignment(Pos.CENTER);
    }

    @Override
    protected void updateItem(PlanRow row, boolean empty) {
      super.updateItem(row, empty);
      boolean shows = !empty && row != null && row.mayBeChosen();
      setGraphic(shows ? box : null);
      if (shows) {
        box.setSelected(row.chosenProperty().get());
        box.setAccessibleText(model.texts().of(row));
      }
    }
  }

  /** An example, and what root may do about it. */
  private final class ExampleCell extends TableCell<PlanRow, PlanRow> {
    private final Label path = Parts.label("", "mono", "quiet");
    private final Button asRoot =
        Parts.button(WORDS.say("lookAsRoot"), "tree-as-root", model::asRoot, "small");

    ExampleCell() {
      asRoot.setMinWidth(USE_PREF_SIZE);
      asRoot.setFocusTraversable(false);
    }

    @Override
    protected void updateItem(PlanRow row, boolean empty) {
      super.updateItem(row, empty);
      if (empty || row == null) {
        setGraphic(null);
        return;
      }
      path.setText(model.texts().example(row));
      boolean root = model.mayRootHelp(row);
      if (!root) {
        setGraphic(path);
        return;
      }
      // The path shrinks, and the button stays whole.
      HBox both = Parts.row("tree-example", path, asRoot);
      both.prefWidthProperty().bind(widthProperty().subtract(18));
      setGraphic(both);
    }
  }

  private void buildEntries() {
    entries.setId("tree-entries");
    TableColumn<TreePlan.Planned, TreePlan.Planned> chosen =
        Tables.column("", 40, one -> one, EntryCell::new);
    chosen.setMinWidth(34);
    TableColumn<TreePlan.Planned, String> path =
        Tables.column(
            WORDS.say("entry"),
            330,
            one -> model.texts().below(one.path()),
            () -> Tables.text(text -> text, Pos.CENTER_LEFT, "mono"));
    TableColumn<TreePlan.Planned, String> what =
        Tables.column(
            WORDS.say("change"),
            360,
            row -> model.texts().of(row),
            () -> Tables.text(text -> text, Pos.CENTER_LEFT, "plain"));
    entries.getColumns().addAll(List.of(chosen, path, what));
    Tables.open(entries, one -> {}, row -> {});
    entries.setItems(model.choice().shown());
  }

  /** The tick of one entry; without it, it is left out. */
  private final class EntryCell extends TableCell<TreePlan.Planned, TreePlan.Planned> {
    private final CheckBox box = new CheckBox();

    EntryCell() {
      box.setFocusTraversable(false);
      box.setOnAction(event -> model.choice().leaveOut(getItem().path(), !box.isSelected()));
      setAlignment(Pos.CENTER);
    }

    @Override
    protected void updateItem(TreePlan.Planned one, boolean empty) {
      super.updateItem(one, empty);
      setGraphic(empty || one == null ? null : box);
      if (!empty && one != null) {
        box.setSelected(!model.choice().isLeftOut(one.path()));
      }
    }
  }

  private void buildLeft() {
    left.setId("tree-left");
    TableColumn<TreeOutcome.Left, String> path =
        Tables.column(
            WORDS.say("notSet"),
            330,
            one -> model.texts().below(one.path()),
            () -> Tables.text(text -> text, Pos.CENTER_LEFT, "mono"));
    TableColumn<TreeOutcome.Left, String> why =
        Tables.column(
            WORDS.say("why"),
            400,
            one -> model.texts().of(one),
            () -> Tables.text(text -> text, Pos.CENTER_LEFT, "plain"));
    left.getColumns().addAll(List.of(path, why));
    Tables.open(left, one -> {}, row -> {});
    left.setItems(model.left());
  }

  private void show() {
    Stage stage = model.stageProperty().get();
    boolean planned = stage == Stage.PLANNED || stage == Stage.SETTING || stage == Stage.CUT;
    heading.setText(model.heading());
    asks.setText(model.asks());
    Parts.show(asks, !asks.getText().isEmpty());
    status.setText(model.statusProperty().get());
    Parts.show(status, !status.getText().isEmpty());
    Parts.show(asking, stage == Stage.ASKING || stage == Stage.LOOKING);
    asking.getContent().setDisable(stage == Stage.LOOKING);
    Parts.show(plan, planned);
    boolean ones = planned && !model.choice().shown().isEmpty();
    each.setText(WORDS.say("oneByOne"));
    Parts.show(each, ones);
    Parts.show(entries, ones);
    Parts.show(left, stage == Stage.DONE && !model.left().isEmpty());
    Parts.show(stop, stage == Stage.LOOKING || stage == Stage.SETTING);
    boolean over = stage == Stage.PLANNED || stage == Stage.DONE;
    Parts.show(change, over && model.request().isTyped());
    Parts.show(look, stage == Stage.ASKING || stage == Stage.LOOKING || stage == Stage.PLANNED);
    look.setText(
        stage == Stage.PLANNED ? WORDS.say("lookAgain") : WORDS.say("lookWhatWouldChange"));
    Tables.mark(look, "main", stage == Stage.ASKING);
    look.setDisable(stage == Stage.LOOKING || (stage == Stage.ASKING && !model.mayLook()));
    Parts.show(set, stage == Stage.PLANNED);
    set.setText(WORDS.say("setOn", Texts.count(model.choice().count(), "entry")));
    set.setDisable(model.choice().count() == 0);
    Parts.show(back, stage == Stage.DONE && model.mayPutBack());
    Parts.show(goOn, stage == Stage.CUT);
  }

  @Override
  public void takeFocus() {
    if (model.stageProperty().get() == Stage.ASKING) {
      form.takeFocus();
    } else {
      plan.requestFocus();
    }
  }
}
