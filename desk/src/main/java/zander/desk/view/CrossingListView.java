package zander.desk.view;

import java.time.Clock;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import javafx.collections.ListChangeListener;
import javafx.scene.control.Button;
import javafx.scene.control.ChoiceBox;
import javafx.scene.control.Label;
import javafx.scene.control.ProgressBar;
import javafx.scene.control.ScrollPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import zander.core.crossing.CrossingLog;
import zander.core.crossing.Direction;
import zander.core.crossing.Progress.Problem;
import zander.desk.crossing.CrossingListModel;
import zander.desk.crossing.CrossingModel;
import zander.desk.crossing.CrossingWords;
import zander.desk.model.DeskModel;
import zander.desk.sheet.Texts;

/** The list of crossings: what runs, waits, asks, failed and is done, and what can be done. */
final class CrossingListView extends VBox {
  private static final int MOST_PROBLEMS = 8;
  private static final long MEGA = 1_000_000;

  private final DeskModel desk;
  private final CrossingListModel model;
  private final VBox list = new VBox();
  private final List<Card> cards = new ArrayList<>();

  CrossingListView(DeskModel desk, CrossingListModel model) {
    this.desk = desk;
    this.model = model;
    getStyleClass().add("sheet");
    ChoiceBox<Integer> atOnce = new ChoiceBox<>();
    atOnce.getItems().addAll(1, 2, 3, 4);
    atOnce.setId("at-once");
    atOnce.setValue(model.queue().atOnceProperty().get());
    atOnce.setOnAction(event -> model.queue().atOnceProperty().set(atOnce.getValue()));
    Button clear =
        Parts.button("Take what is over off the list", "clear-over", model.queue()::clearOver);
    HBox bar =
        Parts.row("sheet-bar", Parts.label("So many at once"), atOnce, Parts.spring(), clear);
    list.getStyleClass().add("crossings");
    ScrollPane scroll = new ScrollPane(list);
    scroll.setFitToWidth(true);
    scroll.getStyleClass().add("book-panel");
    VBox.setVgrow(scroll, Priority.ALWAYS);
    getChildren().addAll(bar, new QuestionStrip(model.questionProperty()), scroll);
    model.queue().all().addListener((ListChangeListener<CrossingModel>) change -> build());
    model.beforeProperty().addListener((observed, old, now) -> build());
    Parts.whileShown(this, Duration.ofMillis(200), () -> cards.forEach(Card::look));
    build();
  }

  private void build() {
    cards.clear();
    list.getChildren().clear();
    List<CrossingModel> all = new ArrayList<>(model.queue().all());
    java.util.Collections.reverse(all);
    for (CrossingModel crossing : all) {
      Card card = new Card(crossing, cards.size());
      cards.add(card);
      list.getChildren().add(card);
    }
    if (!model.beforeProperty().get().isEmpty()) {
      list.getChildren().add(Parts.label("Earlier", "field-title"));
      int number = 0;
      for (CrossingLog log : model.beforeProperty().get()) {
        list.getChildren().add(earlier(log, number++));
      }
    }
    if (list.getChildren().isEmpty()) {
      list.getChildren()
          .add(
              Parts.label(
                  "Nothing crossed yet. Select files and send them up or bring them down.",
                  "quiet"));
    }
  }

  private static String arrow(Direction direction) {
    return switch (direction) {
      case SEND_UP -> "Up";
      case BRING_DOWN -> "Down";
      case ACROSS -> "Across";
    };
  }

  private static List<String> style(String state) {
    return state.endsWith("failed") || state.equals("broken off")
        ? List.of("tag", "danger")
        : state.equals("done")
            ? List.of("tag", "good")
            : state.equals("asks") || state.equals("unfinished") || state.equals("line away")
                ? List.of("tag", "look")
                : List.of("tag", "plain-tag");
  }

  private VBox earlier(CrossingLog log, int number) {
    var crossing = log.crossing();
    Label state = new Label(model.state(log));
    state.getStyleClass().setAll(style(model.state(log)));
    HBox head =
        Parts.row(
            "card-head",
            Parts.label(arrow(crossing.direction()), "card-way"),
            Parts.label(model.what(log), "strong-word"),
            state,
            Parts.spring(),
            Parts.label(Texts.when(crossing.at() / 1000, Clock.systemDefaultZone()), "quiet"));
    VBox card =
        new VBox(head, Parts.label(crossing.from() + "  →  " + crossing.to(), "mono", "quiet"));
    card.getStyleClass().add("crossing-card");
    if (log.end() != null) {
      card.getChildren()
          .add(
              Parts.label(
                  Texts.count(log.end().files(), "file") + ", " + Texts.size(log.end().bytes()),
                  "quiet"));
    }
    problems(log.problems(), card);
    if (log.isUnfinished()) {
      card.getChildren()
          .add(
              Parts.row(
                  "choices",
                  Parts.button("Go on with it", "go-on-" + number, () -> model.goOn(log), "strong"),
                  Parts.label(
                      "What has crossed is compared, and only the rest is carried.", "quiet")));
    }
    return card;
  }

  private static void problems(List<Problem> problems, VBox into) {
    for (Problem problem : problems.subList(0, Math.min(MOST_PROBLEMS, problems.size()))) {
      Label path = Parts.label(problem.path(), "mono");
      Label why =
          Parts.label(problem.why() + (problem.arrived() ? ", but it is there" : ""), "problem");
      path.setMinWidth(0);
      why.setMinWidth(USE_PREF_SIZE);
      into.getChildren().add(Parts.row("card-problem", path, why));
    }
    if (problems.size() > MOST_PROBLEMS) {
      into.getChildren()
          .add(
              Parts.label(
                  "and " + Texts.count(problems.size() - MOST_PROBLEMS) + " more", "quiet"));
    }
  }

  /** One crossing of this run, kept up to date while it is shown. */
  private final class Card extends VBox {
    private final CrossingModel crossing;
    private final CrossingWords words;
    private final Label state = new Label();
    private final Label sums = Parts.label("");
    private final Label rate = Parts.label("", "figures");
    private final Label detail = Parts.label("", "quiet");
    private final ProgressBar bar = new ProgressBar();
    private final VBox problems = new VBox();
    private final Button pause;
    private final Button stop;
    private final Button retry;
    private final Button sooner;
    private final Button export;
    private final ChoiceBox<String> limit = new ChoiceBox<>();
    private final HBox choices;
    private int shownProblems = -1;

    Card(CrossingModel crossing, int number) {
      this.crossing = crossing;
      this.words = crossing.words();
      getStyleClass().add("crossing-card");
      pause =
          Parts.button("Pause", "card-pause-" + number, () -> crossing.pause(!crossing.isPaused()));
      stop = Parts.button("Stop", "card-stop-" + number, crossing::stop);
      retry =
          Parts.button(
              "Try again what failed",
              "card-retry-" + number,
              () -> desk.crossings().retry(crossing),
              "strong");
      sooner =
          Parts.button("Sooner", "card-sooner-" + number, () -> model.queue().sooner(crossing));
      export =
          Parts.button(
              "Write the log here",
              "card-export-" + number,
              () ->
                  model.export(
                      crossing.route().from() + " -> " + crossing.route().to(),
                      crossing.progress().problems(),
                      words.line(),
                      desk.local().folder()));
      limit.getItems().addAll("as fast as it goes", "1 MB/s", "5 MB/s", "20 MB/s");
      limit.setId("card-limit-" + number);
      limit.getSelectionModel().select(0);
      limit.setOnAction(
          event -> {
            long[] rates = {0, MEGA, 5 * MEGA, 20 * MEGA};
            crossing.limit(rates[limit.getSelectionModel().getSelectedIndex()]);
          });
      bar.setMaxWidth(Double.MAX_VALUE);
      detail.setWrapText(true);
      HBox head =
          Parts.row(
              "card-head",
              Parts.label(arrow(crossing.direction()), "card-way"),
              Parts.label(words.what(), "strong-word"),
              state,
              Parts.spring(),
              rate,
              export);
      choices = Parts.row("choices", retry, pause, stop, sooner, limit);
      getChildren()
          .addAll(
              head,
              Parts.label(crossing.route().way(), "mono", "quiet"),
              bar,
              sums,
              detail,
              problems,
              choices);
      look();
    }

    void look() {
      crossing.look();
      String now = words.state();
      state.setText(now);
      state.getStyleClass().setAll(style(now));
      boolean over = crossing.isOver();
      boolean waits = crossing.isWaiting();
      sums.setText(over ? words.line() : words.sums());
      rate.setText(words.rate() + (words.left().isEmpty() ? "" : "  ·  " + words.left()));
      bar.setProgress(words.part());
      Parts.show(bar, !over && !waits);
      detail.setText(words.detail());
      Parts.show(detail, !words.detail().isEmpty());
      pause.setText(crossing.isPaused() ? "Go on" : "Pause");
      Parts.show(pause, !over && !waits);
      Parts.show(stop, !over);
      Parts.show(sooner, waits);
      Parts.show(limit, !over);
      Parts.show(retry, over && crossing.progress().failed() > 0);
      Parts.show(export, over);
      Parts.show(choices, !over || crossing.progress().failed() > 0);
      List<Problem> told = crossing.progress().problems();
      if (told.size() != shownProblems) {
        shownProblems = told.size();
        problems.getChildren().clear();
        problems(told, problems);
      }
    }
  }
}
