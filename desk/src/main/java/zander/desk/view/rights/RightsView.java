package zander.desk.view.rights;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import javafx.geometry.HPos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.layout.ColumnConstraints;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import zander.core.files.RemoteEntry;
import zander.core.journal.JournalEntry;
import zander.core.rights.Mode;
import zander.core.rights.Mode.May;
import zander.core.rights.Mode.Who;
import zander.desk.history.EntryWords;
import zander.desk.history.JournalModel;
import zander.desk.history.JournalSheet;
import zander.desk.model.DeskModel;
import zander.desk.rights.RightsModel;
import zander.desk.rights.RightsModel.Bit;
import zander.desk.sheet.Texts;
import zander.desk.view.part.Parts;
import zander.desk.view.part.RelativeTimes;

/** The panel at the right: the rights of what is selected, edited in place, and its journal. */
public final class RightsView extends VBox {
  private final DeskModel desk;
  private final RightsModel model;
  private final Label name = Parts.label("", "panel-name");
  private final Label where = Parts.label("", "mono", "quiet");
  private final Map<Integer, Button> boxes = new HashMap<>();
  private final Map<Who, Label> sums = new HashMap<>();
  private final TextField octal = new TextField();
  private final TextField symbolic = new TextField();
  private final TextField owner = new TextField();
  private final TextField group = new TextField();
  private final Label ownerNumber = Parts.label("", "quiet");
  private final Label groupNumber = Parts.label("", "quiet");
  private final Label problem = Parts.label("", "problem");
  private final Label outcome = Parts.label("", "outcome");
  private final Button set;
  private final VBox form = new VBox();
  private final VBox history = new VBox();
  private final Label nothing =
      Parts.label("Select files to see and change their permissions.", "quiet");
  private boolean showing;

  public RightsView(DeskModel desk) {
    this.desk = desk;
    this.model = desk.rights();
    getStyleClass().add("panel");
    set = Parts.button("Set rights", "set-rights", this::setOrStop, "main");
    Parts.hint(set, "Set on the server and read back (Ctrl+R)");
    nothing.setWrapText(true);
    form.getStyleClass().add("rights-form");
    problem.setWrapText(true);
    problem.setId("rights-problem");
    outcome.setWrapText(true);
    outcome.setId("rights-outcome");
    problem.textProperty().bind(model.problemProperty());
    outcome.textProperty().bind(model.outcomeProperty());
    form.getChildren()
        .addAll(owners(), boxGrid(), special(), notations(), problem, outcome, new HBox(set));
    history.getStyleClass().add("history");
    VBox inner = new VBox(name, where, nothing, form, history);
    inner.getStyleClass().add("panel-inner");
    ScrollPane scroll = new ScrollPane(inner);
    scroll.setFitToWidth(true);
    scroll.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
    VBox.setVgrow(scroll, Priority.ALWAYS);
    getChildren().add(scroll);
    owner.textProperty().bindBidirectional(model.ownerProperty());
    group.textProperty().bindBidirectional(model.groupProperty());
    model.changesProperty().addListener((observed, old, now) -> show());
    model.busyProperty().addListener((observed, old, now) -> show());
    model.problemProperty().addListener((observed, old, now) -> show());
    desk.historyProperty().addListener((observed, old, now) -> showHistory(now));
    show();
    showHistory(desk.historyProperty().get());
  }

  private HBox owners() {
    owner.setId("owner");
    group.setId("group");
    HBox both =
        new HBox(
            field("Owner", Parts.row("with-number", owner, ownerNumber)),
            field("Group", Parts.row("with-number", group, groupNumber)));
    both.getStyleClass().add("side-by-side");
    return both;
  }

  private static VBox field(String title, javafx.scene.Node control) {
    VBox box = new VBox(Parts.label(title, "field-title"), control);
    box.getStyleClass().add("field");
    HBox.setHgrow(box, Priority.ALWAYS);
    return box;
  }

  private GridPane boxGrid() {
    GridPane grid = new GridPane();
    grid.getStyleClass().add("boxes");
    ColumnConstraints last = new ColumnConstraints();
    last.setHgrow(Priority.ALWAYS);
    last.setHalignment(HPos.RIGHT);
    grid.getColumnConstraints()
        .addAll(
            new ColumnConstraints(54),
            new ColumnConstraints(44),
            new ColumnConstraints(44),
            new ColumnConstraints(44),
            last);
    grid.addRow(
        0,
        Parts.label(""),
        Parts.label("read 4", "box-head"),
        Parts.label("write 2", "box-head"),
        Parts.label("run 1", "box-head"));
    int row = 1;
    for (Who who : Who.values()) {
      grid.add(Parts.label(title(who)), 0, row);
      int column = 1;
      for (May may : May.values()) {
        int bit = new Mode(0).with(who, may, true).bits();
        grid.add(
            box(
                bit,
                String.valueOf(may.letter()),
                who.letter() + may.letter(),
                title(who) + ": " + may.name().toLowerCase(java.util.Locale.ROOT)),
            column++,
            row);
      }
      Label sum = Parts.label("", "sum");
      sum.setId("sum-" + who.letter());
      sums.put(who, sum);
      grid.add(sum, column, row++);
    }
    return grid;
  }

  private static String title(Who who) {
    return switch (who) {
      case OWNER -> "Owner";
      case GROUP -> "Group";
      case OTHERS -> "Others";
    };
  }

  private Button box(int bit, String letter, String id, String hint) {
    Button box = Parts.button(letter, "box-" + id, () -> model.press(bit), "box");
    Parts.hint(box, hint);
    box.setAccessibleText(hint);
    boxes.put(bit, box);
    return box;
  }

  private HBox special() {
    HBox row =
        Parts.row(
            "special",
            box(Mode.SET_UID, "set-uid 4", "set-uid", "A program runs as the file's owner"),
            box(
                Mode.SET_GID,
                "set-gid 2",
                "set-gid",
                "A program runs as the group; in a folder, new files get its group"),
            box(Mode.STICKY, "sticky 1", "sticky", "In a folder, only owners remove their files"));
    row.getChildren().forEach(box -> box.getStyleClass().add("wide"));
    return row;
  }

  private HBox notations() {
    octal.setId("octal");
    symbolic.setId("symbolic");
    octal.getStyleClass().add("mono");
    symbolic.getStyleClass().add("mono");
    octal.setPrefColumnCount(5);
    octal
        .textProperty()
        .addListener(
            (observed, old, now) -> {
              if (!showing && !now.isBlank()) {
                model.typeOctal(now);
              }
            });
    symbolic
        .textProperty()
        .addListener(
            (observed, old, now) -> {
              if (!showing && !now.isBlank()) {
                model.typeSymbolic(now);
              }
            });
    // What is half typed is left alone; when the field is left it shows the whole again.
    octal.focusedProperty().addListener((observed, old, now) -> show());
    symbolic.focusedProperty().addListener((observed, old, now) -> show());
    octal.setOnAction(event -> model.apply());
    symbolic.setOnAction(event -> model.apply());
    VBox first = field("Octal", octal);
    HBox.setHgrow(first, Priority.NEVER);
    first.setPrefWidth(84);
    first.setMinWidth(84);
    HBox both = new HBox(first, field("Symbolic", symbolic));
    both.getStyleClass().add("side-by-side");
    return both;
  }

  private void show() {
    List<RemoteEntry> entries = model.entries();
    Parts.show(form, !entries.isEmpty());
    Parts.show(nothing, entries.isEmpty());
    Parts.show(name, !entries.isEmpty());
    Parts.show(where, !entries.isEmpty());
    if (entries.isEmpty()) {
      return;
    }
    showing = true;
    boolean one = entries.size() == 1;
    name.setText(one ? entries.get(0).name() : Texts.count(entries.size()) + " selected");
    where.setText(one ? entries.get(0).path().parent().text() : names(entries));
    boxes.forEach(this::showBox);
    sums.forEach((who, label) -> label.setText(sumOf(who)));
    fill(octal, model.octal());
    fill(symbolic, model.symbolic());
    owner.setPromptText("several");
    group.setPromptText("several");
    ownerNumber.setText(number(model.uidOf(owner.getText())));
    groupNumber.setText(number(model.gidOf(group.getText())));
    Parts.show(problem, !problem.getText().isEmpty());
    Parts.show(outcome, !outcome.getText().isEmpty() && problem.getText().isEmpty());
    boolean stops = model.busyProperty().get() && !one;
    set.setDisable(
        !stops
            && (model.busyProperty().get() || !problem.getText().isEmpty() || !model.isChanged()));
    set.setText(
        stops ? "Stop" : one ? "Set rights" : "Set rights of " + Texts.count(entries.size()));
    showing = false;
  }

  /** While those of many are being set, the button ends that. */
  private void setOrStop() {
    if (model.busyProperty().get()) {
      model.stop();
    } else {
      model.apply();
    }
  }

  private static String names(List<RemoteEntry> entries) {
    String first =
        entries.stream().limit(3).map(RemoteEntry::name).reduce((a, b) -> a + ", " + b).orElse("");
    return entries.size() > 3 ? first + " …" : first;
  }

  private String sumOf(Who who) {
    String sum = model.sum(who);
    return sum.isEmpty() ? "mixed" : sum;
  }

  private void fill(TextField field, String text) {
    field.setPromptText("mixed");
    if (!field.isFocused()) {
      field.setText(text);
    }
  }

  private static String number(java.util.OptionalInt id) {
    return id.isPresent() ? Integer.toUnsignedString(id.getAsInt()) : "";
  }

  private void showBox(int bit, Button box) {
    Bit state = model.bit(bit);
    box.getStyleClass().removeAll("on", "mixed");
    if (state == Bit.ON) {
      box.getStyleClass().add("on");
    } else if (state == Bit.MIXED) {
      box.getStyleClass().add("mixed");
    }
  }

  private void showHistory(List<JournalEntry> entries) {
    history.getChildren().clear();
    Parts.show(history, !entries.isEmpty());
    if (entries.isEmpty()) {
      return;
    }
    history.getChildren().add(Parts.label("History", "field-title"));
    int[] number = {0};
    entries.stream()
        .limit(8)
        .forEach(
            entry -> {
              Label line =
                  RelativeTimes.label(
                      entry.at() / 1000,
                      "  " + EntryWords.what(entry, desk.files().names()),
                      "history-line");
              line.setWrapText(true);
              Label was =
                  Parts.label(EntryWords.state(entry, desk.journal().isPutBack(entry)), "quiet");
              was.setWrapText(true);
              Parts.show(was, !was.getText().isEmpty());
              HBox end = Parts.row("history-end", was);
              if (JournalModel.mayPutBack(entry, desk.journal())) {
                Button back =
                    Parts.button(
                        "Put back",
                        "put-back-" + number[0]++,
                        () -> JournalSheet.putBack(desk, entry));
                back.getStyleClass().add("small");
                end.getChildren().add(back);
              }
              history.getChildren().addAll(line, end);
            });
  }
}
