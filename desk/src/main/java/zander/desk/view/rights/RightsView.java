package zander.desk.view.rights;

import java.util.List;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import zander.core.files.AccountNames;
import zander.core.files.RemoteEntry;
import zander.core.journal.JournalEntry;
import zander.desk.history.EntryWords;
import zander.desk.history.JournalModel;
import zander.desk.history.JournalSheet;
import zander.desk.model.DeskModel;
import zander.desk.rights.RightsModel;
import zander.desk.sheet.Texts;
import zander.desk.view.part.NameCompletion;
import zander.desk.view.part.Parts;
import zander.desk.view.part.RelativeTimes;
import zander.desk.words.Words;

/** The panel at the right: the rights of what is selected, edited in place, and its journal. */
public final class RightsView extends VBox {
  private static final Words WORDS = Words.of(RightsView.class);

  private final DeskModel desk;
  private final RightsModel model;
  private final Label name = Parts.label("", "panel-name");
  private final Label where = Parts.label("", "mono", "quiet");
  private final ModeBoxes boxes;
  private final TextField owner = new TextField();
  private final TextField group = new TextField();
  private final Label ownerNumber = Parts.label("", "quiet");
  private final Label groupNumber = Parts.label("", "quiet");
  private final Label problem = Parts.label("", "problem");
  private final Label outcome = Parts.label("", "outcome");
  private final Button set;
  private final Button inside;
  private final VBox form = new VBox();
  private final VBox history = new VBox();
  private final Label nothing = Parts.label(WORDS.say("selectFilesToSee"), "quiet");

  public RightsView(DeskModel desk) {
    this.desk = desk;
    this.model = desk.rights();
    getStyleClass().add("panel");
    boxes = new ModeBoxes(model, "", model::apply);
    inside = Parts.button(WORDS.say("everythingInside"), "rights-inside", model::everythingInside);
    Parts.hint(inside, WORDS.say("rightsOfAllThat"));
    set = Parts.button(WORDS.say("setRights"), "set-rights", this::setOrStop, "main");
    Parts.hint(set, WORDS.say("setOnTheServer"));
    nothing.setWrapText(true);
    form.getStyleClass().add("rights-form");
    problem.setWrapText(true);
    problem.setId("rights-problem");
    outcome.setWrapText(true);
    outcome.setId("rights-outcome");
    problem.textProperty().bind(model.problemProperty());
    outcome.textProperty().bind(model.outcomeProperty());
    form.getChildren().addAll(owners(), boxes, problem, outcome, Parts.row("special", set, inside));
    history.getStyleClass().add("history");
    VBox inner =
        new VBox(name, where, nothing, new AccessView(model.access(), this::names), form, history);
    inner.getStyleClass().add("panel-inner");
    ScrollPane scroll = new ScrollPane(inner);
    scroll.setFitToWidth(true);
    scroll.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
    VBox.setVgrow(scroll, Priority.ALWAYS);
    getChildren().add(scroll);
    NameCompletion.on(owner, () -> names(false));
    NameCompletion.on(group, () -> names(true));
    owner.textProperty().bindBidirectional(model.ownerProperty());
    group.textProperty().bindBidirectional(model.groupProperty());
    model.changesProperty().addListener((observed, old, now) -> show());
    model.busyProperty().addListener((observed, old, now) -> show());
    model.problemProperty().addListener((observed, old, now) -> show());
    desk.historyProperty().addListener((observed, old, now) -> showHistory(now));
    show();
    showHistory(desk.historyProperty().get());
  }

  private List<String> names(boolean groups) {
    AccountNames all = desk.files().names();
    return groups ? all.groups() : all.accounts();
  }

  private HBox owners() {
    owner.setId("owner");
    group.setId("group");
    HBox both =
        new HBox(
            ModeBoxes.field(WORDS.say("owner"), Parts.row("with-number", owner, ownerNumber)),
            ModeBoxes.field(WORDS.say("group"), Parts.row("with-number", group, groupNumber)));
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
    boolean one = entries.size() == 1;
    name.setText(one ? entries.get(0).name() : WORDS.say("selected", Texts.count(entries.size())));
    where.setText(one ? entries.get(0).path().parent().text() : names(entries));
    boxes.show();
    Parts.show(inside, model.hasFolders());
    owner.setPromptText(WORDS.say("several"));
    group.setPromptText(WORDS.say("several"));
    ownerNumber.setText(number(model.uidOf(owner.getText())));
    groupNumber.setText(number(model.gidOf(group.getText())));
    Parts.show(problem, !problem.getText().isEmpty());
    Parts.show(outcome, !outcome.getText().isEmpty() && problem.getText().isEmpty());
    boolean stops = model.busyProperty().get() && !one;
    set.setDisable(
        !stops
            && (model.busyProperty().get() || !problem.getText().isEmpty() || !model.isChanged()));
    set.setText(
        stops
            ? WORDS.say("stop")
            : one ? WORDS.say("setRights") : WORDS.say("setRightsOf", Texts.count(entries.size())));
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

  private static String number(java.util.OptionalInt id) {
    return id.isPresent() ? Integer.toUnsignedString(id.getAsInt()) : "";
  }

  private void showHistory(List<JournalEntry> entries) {
    history.getChildren().clear();
    Parts.show(history, !entries.isEmpty());
    if (entries.isEmpty()) {
      return;
    }
    history.getChildren().add(Parts.label(WORDS.say("history"), "field-title"));
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
                        WORDS.say("putBack"),
                        "put-back-" + number[0]++,
                        () -> JournalSheet.putBack(desk, entry));
                back.getStyleClass().add("small");
                end.getChildren().add(back);
              }
              history.getChildren().addAll(line, end);
            });
  }
}
