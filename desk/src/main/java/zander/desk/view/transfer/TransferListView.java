package zander.desk.view.transfer;

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
import zander.core.transfer.endpoint.Direction;
import zander.core.transfer.progress.Progress.Problem;
import zander.core.transfer.resume.ResumeLogFile;
import zander.desk.model.DeskModel;
import zander.desk.sheet.Texts;
import zander.desk.transfer.TransferListModel;
import zander.desk.transfer.TransferModel;
import zander.desk.transfer.TransferState;
import zander.desk.transfer.TransferWords;
import zander.desk.view.part.Parts;
import zander.desk.view.part.QuestionStrip;
import zander.desk.view.part.RelativeTimes;
import zander.desk.view.part.Repeating;
import zander.desk.view.part.SheetView;
import zander.desk.words.Phrases;
import zander.desk.words.Words;

/** The list of transfers: what runs, waits, asks, failed and is done, and what can be done. */
public final class TransferListView extends VBox implements SheetView {
  private static final Words WORDS = Words.of(TransferListView.class);

  private static final int MOST_PROBLEMS = 8;
  private static final long MEGA = 1_000_000;

  private final DeskModel desk;
  private final TransferListModel model;
  private final VBox list = new VBox();
  private final List<Card> cards = new ArrayList<>();

  public TransferListView(DeskModel desk, TransferListModel model) {
    this.desk = desk;
    this.model = model;
    getStyleClass().add("sheet");
    ChoiceBox<Integer> atOnce = new ChoiceBox<>();
    atOnce.getItems().addAll(1, 2, 3, 4);
    atOnce.setId("at-once");
    atOnce.setValue(model.queue().atOnceProperty().get());
    atOnce.setOnAction(event -> model.queue().atOnceProperty().set(atOnce.getValue()));
    Button clear = Parts.button(WORDS.say("clearFinished"), "clear-over", model.queue()::clearOver);
    HBox bar =
        Parts.row(
            "sheet-bar", Parts.label(WORDS.say("atTheSameTime")), atOnce, Parts.spring(), clear);
    list.getStyleClass().add("transfer-list");
    ScrollPane scroll = new ScrollPane(list);
    scroll.setFitToWidth(true);
    scroll.getStyleClass().add("book-panel");
    VBox.setVgrow(scroll, Priority.ALWAYS);
    getChildren().addAll(bar, new QuestionStrip(model.questionProperty()), scroll);
    model.queue().all().addListener((ListChangeListener<TransferModel>) change -> build());
    model.beforeProperty().addListener((observed, old, now) -> build());
    model.sealedProperty().addListener((observed, old, now) -> build());
    Repeating.whileShown(
        this, Duration.ofMillis(200), model.queue().moves(), () -> cards.forEach(Card::look));
    build();
  }

  private void build() {
    cards.clear();
    list.getChildren().clear();
    List<TransferModel> all = new ArrayList<>(model.queue().all());
    java.util.Collections.reverse(all);
    for (TransferModel transfer : all) {
      Card card = new Card(transfer, cards.size());
      cards.add(card);
      list.getChildren().add(card);
    }
    if (!model.beforeProperty().get().isEmpty()) {
      list.getChildren().add(Parts.label(WORDS.say("earlier"), "field-title"));
      int number = 0;
      for (ResumeLogFile log : model.beforeProperty().get()) {
        list.getChildren().add(earlier(log, number++));
      }
    }
    int sealed = model.sealedProperty().get();
    if (sealed > 0) {
      list.getChildren()
          .add(
              Parts.row(
                  "choices",
                  Parts.label(
                      WORDS.say("sealedOfThisServer", Texts.count(sealed, "earlierTransferIs"))),
                  Parts.button(WORDS.say("openTheVault"), "open-sealed", model::openSealed)));
    }
    if (list.getChildren().isEmpty()) {
      list.getChildren().add(Parts.label(WORDS.say("noTransfersYetSelect"), "quiet"));
    }
  }

  private static String arrow(Direction direction) {
    return switch (direction) {
      case SEND_UP -> WORDS.say("up");
      case BRING_DOWN -> WORDS.say("down");
      case ACROSS -> WORDS.say("across");
    };
  }

  private static List<String> style(TransferState state) {
    return switch (state) {
      case DONE_IN_PART, INTERRUPTED -> List.of("tag", "danger");
      case DONE -> List.of("tag", "good");
      case ASKS, UNFINISHED, OFFLINE -> List.of("tag", "look");
      case WAITS, UNDER_WAY, PAUSED, STOPPED -> List.of("tag", "plain-tag");
    };
  }

  private VBox earlier(ResumeLogFile log, int number) {
    var transfer = log.transfer();
    Label state = new Label(model.stateWords(log));
    state.getStyleClass().setAll(style(model.state(log)));
    HBox head =
        Parts.row(
            "card-head",
            Parts.label(arrow(transfer.direction()), "card-way"),
            Parts.label(model.what(log), "strong-word"),
            state,
            Parts.spring(),
            RelativeTimes.label(transfer.at() / 1000, "", "quiet"));
    VBox card =
        new VBox(head, Parts.label(transfer.from() + "  →  " + transfer.to(), "mono", "quiet"));
    card.getStyleClass().add("transfer-card");
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
                  Parts.button(
                      WORDS.say("continue"), "go-on-" + number, () -> model.goOn(log), "strong"),
                  Parts.label(WORDS.say("filesThatAreThere"), "quiet")));
    }
    return card;
  }

  private static void problems(List<Problem> problems, VBox into) {
    for (Problem problem : problems.subList(0, Math.min(MOST_PROBLEMS, problems.size()))) {
      Label path = Parts.label(problem.path(), "mono");
      Label why =
          Parts.label(
              Phrases.say(problem.why()) + (problem.arrived() ? WORDS.say("butItIsThere") : ""),
              "problem");
      path.setMinWidth(0);
      why.setMinWidth(USE_PREF_SIZE);
      into.getChildren().add(Parts.row("card-problem", path, why));
    }
    if (problems.size() > MOST_PROBLEMS) {
      into.getChildren()
          .add(
              Parts.label(
                  WORDS.say("andMore", Texts.count(problems.size() - MOST_PROBLEMS)), "quiet"));
    }
  }

  /** One transfer of this run, kept up to date while it is shown. */
  private final class Card extends VBox {
    private final TransferModel transfer;
    private final TransferWords words;
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

    Card(TransferModel transfer, int number) {
      this.transfer = transfer;
      this.words = transfer.words();
      getStyleClass().add("transfer-card");
      pause =
          Parts.button(
              WORDS.say("pause"),
              "card-pause-" + number,
              () -> transfer.pause(!transfer.isPaused()));
      stop = Parts.button(WORDS.say("stop"), "card-stop-" + number, transfer::stop);
      retry =
          Parts.button(
              WORDS.say("tryAgainWhatFailed"),
              "card-retry-" + number,
              () -> desk.transfers().retry(transfer),
              "strong");
      sooner =
          Parts.button(
              WORDS.say("moveUp"), "card-sooner-" + number, () -> model.queue().sooner(transfer));
      export =
          Parts.button(
              WORDS.say("writeTheLogHere"),
              "card-export-" + number,
              () ->
                  model.export(
                      transfer.route().from() + " -> " + transfer.route().to(),
                      transfer.progress().problems(),
                      words.line(),
                      desk.local().folder()));
      limit.getItems().addAll(WORDS.say("asFastAsIt"), "1 MB/s", "5 MB/s", "20 MB/s");
      limit.setId("card-limit-" + number);
      limit.getSelectionModel().select(0);
      limit.setOnAction(
          event -> {
            long[] rates = {0, MEGA, 5 * MEGA, 20 * MEGA};
            transfer.limit(rates[limit.getSelectionModel().getSelectedIndex()]);
          });
      bar.setMaxWidth(Double.MAX_VALUE);
      detail.setWrapText(true);
      HBox head =
          Parts.row(
              "card-head",
              Parts.label(arrow(transfer.direction()), "card-way"),
              Parts.label(words.what(), "strong-word"),
              state,
              Parts.spring(),
              rate,
              export);
      choices = Parts.row("choices", retry, pause, stop, sooner, limit);
      getChildren()
          .addAll(
              head,
              Parts.label(transfer.route().way(), "mono", "quiet"),
              bar,
              sums,
              detail,
              problems,
              choices);
      look();
    }

    void look() {
      transfer.look();
      state.setText(words.stateWords());
      state.getStyleClass().setAll(style(words.state()));
      boolean over = transfer.isOver();
      boolean waits = transfer.isWaiting();
      sums.setText(over ? words.line() : words.sums());
      rate.setText(words.rate() + (words.left().isEmpty() ? "" : "  ·  " + words.left()));
      bar.setProgress(words.part());
      Parts.show(bar, !over && !waits);
      detail.setText(words.detail());
      Parts.show(detail, !words.detail().isEmpty());
      pause.setText(transfer.isPaused() ? WORDS.say("resume") : WORDS.say("pause"));
      Parts.show(pause, !over && !waits);
      Parts.show(stop, !over);
      Parts.show(sooner, waits);
      Parts.show(limit, !over);
      Parts.show(retry, over && transfer.progress().failed() > 0);
      Parts.show(export, over);
      Parts.show(choices, !over || transfer.progress().failed() > 0);
      List<Problem> told = transfer.progress().problems();
      if (told.size() != shownProblems) {
        shownProblems = told.size();
        problems.getChildren().clear();
        problems(told, problems);
      }
    }
  }

  @Override
  public void takeFocus() {
    requestFocus();
  }
}
