package zander.desk.view;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.Deque;
import java.util.List;
import java.util.Locale;
import java.util.function.Supplier;
import javafx.geometry.Pos;
import javafx.scene.control.Label;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;
import zander.desk.sheet.Action;
import zander.desk.view.part.Parts;
import zander.desk.view.part.Tables;
import zander.desk.words.Words;

/** One field to go anywhere: paths, servers and actions by a few letters of their names. */
final class GotoView extends StackPane {
  private static final Words WORDS = Words.of(GotoView.class);

  private final TextField field = new TextField();
  private final ListView<Action> list = new ListView<>();
  private final Supplier<List<Action>> offers;
  private final java.util.function.Function<String, Action> typedPath;
  private javafx.scene.@Nullable Node focusBefore;

  private static final int MOST_RECENT = 6;

  /** Names of what was chosen here, the last first. */
  private final Deque<String> recent = new ArrayDeque<>();

  /**
   * @param offers all that can be gone to or done now
   * @param typedPath what a typed path leads to, or {@code null}
   */
  GotoView(Supplier<List<Action>> offers, java.util.function.Function<String, Action> typedPath) {
    this.offers = offers;
    this.typedPath = typedPath;
    getStyleClass().add("overlay");
    field.setId("goto-field");
    field.setPromptText(WORDS.say("aPathAServer"));
    list.setId("goto-list");
    list.setPrefHeight(330);
    list.setFixedCellSize(30);
    list.setFocusTraversable(false);
    list.setCellFactory(view -> new Row());
    VBox card = new VBox(field, list);
    card.getStyleClass().addAll("card", "goto");
    card.setMaxSize(560, USE_PREF_SIZE);
    StackPane.setAlignment(card, Pos.TOP_CENTER);
    getChildren().add(card);
    field.textProperty().addListener((observed, old, now) -> match(now));
    field.addEventFilter(KeyEvent.KEY_PRESSED, this::key);
    list.setOnMouseClicked(event -> choose());
    setOnMousePressed(
        event -> {
          if (event.getTarget() == this) {
            close();
          }
        });
    Parts.show(this, false);
  }

  void open() {
    focusBefore = getScene().getFocusOwner();
    Parts.show(this, true);
    field.clear();
    match("");
    field.requestFocus();
  }

  private void close() {
    Parts.show(this, false);
    if (focusBefore != null) {
      focusBefore.requestFocus();
    }
  }

  private void key(KeyEvent event) {
    int at = list.getSelectionModel().getSelectedIndex();
    switch (event.getCode()) {
      case DOWN -> select(at + 1);
      case UP -> select(at - 1);
      case ENTER -> choose();
      case ESCAPE -> close();
      default -> {
        return;
      }
    }
    event.consume();
  }

  private void select(int at) {
    if (at >= 0 && at < list.getItems().size()) {
      list.getSelectionModel().select(at);
      list.scrollTo(Math.max(0, at - 5));
    }
  }

  private void choose() {
    Action chosen = list.getSelectionModel().getSelectedItem();
    if (chosen != null && !chosen.applies()) {
      return;
    }
    close();
    if (chosen != null) {
      recent.remove(chosen.name());
      recent.addFirst(chosen.name());
      if (recent.size() > MOST_RECENT) {
        recent.removeLast();
      }
      chosen.run().run();
    }
  }

  private void match(String typed) {
    Action path = typedPath.apply(typed.strip());
    list.getItems().setAll(matching(offers.get(), List.copyOf(recent), typed));
    if (path != null) {
      list.getItems().add(0, path);
    }
    list.getSelectionModel().selectFirst();
  }

  /**
   * Those that have the letters in their order: what cannot be done now comes last, the better
   * match before the worse, and of equals what was chosen last.
   *
   * @param recent names, the last first
   */
  static List<Action> matching(List<Action> offers, List<String> recent, String typed) {
    String wanted = typed.strip().toLowerCase(Locale.ROOT);
    List<Match> matches = new ArrayList<>();
    for (Action action : offers) {
      int score = score(action.name().toLowerCase(Locale.ROOT), wanted);
      if (score >= 0) {
        int last = recent.indexOf(action.name());
        matches.add(
            new Match(action, action.applies(), score, last < 0 ? Integer.MAX_VALUE : last));
      }
    }
    matches.sort(
        Comparator.comparing((Match match) -> !match.applies)
            .thenComparingInt(match -> match.score)
            .thenComparingInt(match -> match.last));
    return matches.stream().map(match -> match.action).toList();
  }

  /**
   * @param last its place among what was chosen, the last first
   */
  private record Match(Action action, boolean applies, int score, int last) {}

  /** Lower is better: gaps between the letters found, words' beginnings favoured; -1 for none. */
  static int score(String name, String wanted) {
    int score = 0;
    int at = -1;
    for (char c : wanted.toCharArray()) {
      int next = name.indexOf(c, at + 1);
      if (next < 0) {
        return -1;
      }
      boolean wordStart = next == 0 || !Character.isLetterOrDigit(name.charAt(next - 1));
      score += next == at + 1 ? 0 : wordStart ? 1 : 3 + next - at;
      at = next;
    }
    return score;
  }

  private static final class Row extends ListCell<Action> {
    @Override
    protected void updateItem(Action action, boolean empty) {
      super.updateItem(action, empty);
      if (empty || action == null) {
        setGraphic(null);
        return;
      }
      Label key = Parts.label(action.key(), "key");
      Parts.show(key, !action.key().isEmpty());
      Label name = Parts.label(action.name());
      Label whyNot = Parts.label(action.whyNot().get(), "quiet");
      Tables.mark(name, "quiet", !action.applies());
      setGraphic(Parts.row("goto-row", name, whyNot, Parts.spring(), key));
    }
  }
}
