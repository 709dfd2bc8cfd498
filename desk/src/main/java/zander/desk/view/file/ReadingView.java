package zander.desk.view.file;

import java.time.Duration;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.regex.PatternSyntaxException;
import java.util.stream.Collectors;
import javafx.application.Platform;
import javafx.beans.binding.Bindings;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyCombination;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseEvent;
import javafx.scene.input.ScrollEvent;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import org.fxmisc.flowless.VirtualizedScrollPane;
import org.fxmisc.richtext.CodeArea;
import org.fxmisc.richtext.model.ReadOnlyStyledDocument;
import org.fxmisc.richtext.model.SegmentOps;
import org.fxmisc.richtext.util.UndoUtils;
import org.fxmisc.wellbehaved.event.EventPattern;
import org.fxmisc.wellbehaved.event.InputMap;
import org.fxmisc.wellbehaved.event.Nodes;
import org.jspecify.annotations.Nullable;
import zander.core.find.SearchText;
import zander.core.find.TextPlaces;
import zander.desk.edit.Language;
import zander.desk.edit.Languages;
import zander.desk.reading.LineFilter;
import zander.desk.reading.ReadingModel;
import zander.desk.reading.Row;
import zander.desk.reading.RowFollower;
import zander.desk.reading.RowWindow;
import zander.desk.sheet.Texts;
import zander.desk.view.part.Parts;
import zander.desk.view.part.QuestionStrip;
import zander.desk.view.part.Repeating;
import zander.desk.view.part.SheetView;
import zander.desk.words.Words;

/** A file of any size to read, and what comes to its end. */
public final class ReadingView extends VBox
    implements SheetView, RowWindow.Shown, ReadingBar.Place {
  private static final Words WORDS = Words.of(ReadingView.class);

  private static final Duration LOOK_EVERY = Duration.ofMillis(500);

  /** With fewer rows beyond what is in sight, more are read. */
  private static final int NEAR = 60;

  /** Of the rows in sight, so that some stay in sight. */
  private static final double PAGE_SHARE = 0.9;

  /** Marks that are looked for in what is in sight. */
  private static final int MOST_MARKS = 2000;

  /** Frames after which new rows are laid out. */
  private static final int SETTLED = 2;

  private final ReadingModel model;
  private final RowFollower follower;
  private final CodeArea area = new CodeArea();
  private final ReadingBar bar;
  private final PlaceBar placeBar;
  private final Highlighter highlighter;
  private boolean unsettled;

  public ReadingView(ReadingModel model) {
    this.model = model;
    this.follower = model.follower();
    this.placeBar = new PlaceBar(model, this::firstInSight);
    getStyleClass().add("sheet");
    area.setId("reading");
    area.getStyleClass().addAll("editor", "reading");
    area.setEditable(false);
    area.setUndoManager(UndoUtils.noOpUndoManager());
    Language language = Languages.of(model.path(), "");
    if (language == Languages.PLAIN) {
      language = Languages.named("log").orElseThrow();
    }
    highlighter = new Highlighter(area, language, this::found, () -> null, line -> List.of());
    bar = new ReadingBar(model, this);
    Nodes.addInputMap(
        area,
        InputMap.sequence(
            InputMap.consume(
                EventPattern.keyPressed(KeyCode.END, KeyCombination.SHORTCUT_DOWN),
                event -> model.goToEnd()),
            // The component's own take the cursor along, and fail before rows are laid out.
            InputMap.consume(EventPattern.keyPressed(KeyCode.PAGE_UP), event -> page(-1)),
            InputMap.consume(EventPattern.keyPressed(KeyCode.PAGE_DOWN), event -> page(1)),
            InputMap.consume(
                EventPattern.keyPressed(KeyCode.HOME, KeyCombination.SHORTCUT_DOWN),
                event -> model.goToStart())));
    VirtualizedScrollPane<CodeArea> scroll =
        new VirtualizedScrollPane<>(
            area, ScrollPane.ScrollBarPolicy.AS_NEEDED, ScrollPane.ScrollBarPolicy.NEVER);
    HBox.setHgrow(scroll, Priority.ALWAYS);
    HBox text = new HBox(scroll, placeBar);
    VBox.setVgrow(text, Priority.ALWAYS);
    getChildren()
        .addAll(top(), new QuestionStrip(model.questionProperty(), area::requestFocus), bar, text);
    model.window().shownBy(this);
    area.addEventFilter(ScrollEvent.ANY, event -> Platform.runLater(this::scrolled));
    area.addEventFilter(KeyEvent.KEY_PRESSED, event -> Platform.runLater(this::scrolled));
    area.addEventFilter(MouseEvent.MOUSE_DRAGGED, event -> Platform.runLater(this::scrolled));
    area.viewportDirtyEvents().subscribe(event -> placeBar.update());
    area.heightProperty().addListener((observed, old, now) -> keepEnd());
    Repeating.whileShown(this, LOOK_EVERY, follower::look);
    show(-1);
  }

  private HBox top() {
    Label name = Parts.label(model.path().text(), "mono");
    Label state = Parts.label("", "tag", "good");
    state.setId("reading-state");
    state.setMinWidth(USE_PREF_SIZE);
    state
        .textProperty()
        .bind(
            Bindings.createStringBinding(
                this::state,
                follower.followsProperty(),
                follower.belowProperty(),
                follower.inSightProperty(),
                model.doingProperty(),
                model.openProperty()));
    Label size = Parts.label("", "quiet", "figures");
    size.setId("reading-size");
    size.setMinWidth(USE_PREF_SIZE);
    size.textProperty()
        .bind(
            Bindings.createStringBinding(
                () ->
                    follower.sizeProperty().get() < 0
                        ? ""
                        : Texts.size(follower.sizeProperty().get()),
                follower.sizeProperty()));
    Button stop =
        small(WORDS.say("stop"), "reading-stop", WORDS.say("endsWhatIsUnder"), model::stop);
    stop.visibleProperty().bind(model.doingProperty().isNotEmpty().and(model.openProperty()));
    stop.managedProperty().bind(stop.visibleProperty());
    Button pause =
        small(WORDS.say("pause"), "reading-pause", WORDS.say("stopsLookingForNew"), this::pause);
    pause
        .textProperty()
        .bind(
            Bindings.when(follower.followsProperty())
                .then(WORDS.say("pause"))
                .otherwise(WORDS.say("follow")));
    Button end =
        small(WORDS.say("newestLines"), "reading-end", WORDS.say("goesToTheEnd"), this::toEnd);
    end.disableProperty().bind(follower.inSightProperty());
    Button only =
        small(
            WORDS.say("filter"),
            "reading-filter",
            WORDS.say("showsOnlySomeLines"),
            this::openFilter);
    pause.disableProperty().bind(model.openProperty().not());
    only.disableProperty().bind(model.openProperty().not());
    return Parts.row("sheet-bar", name, Parts.spring(), stop, state, size, only, pause, end);
  }

  private static Button small(String words, String id, String hint, Runnable action) {
    Button button = Parts.hint(Parts.button(words, id, action), hint);
    button.setMinWidth(USE_PREF_SIZE);
    button.setFocusTraversable(false);
    return button;
  }

  private String state() {
    if (!model.doingProperty().get().isEmpty()) {
      return model.doingProperty().get();
    }
    if (!model.openProperty().get()) {
      return WORDS.say("notOpen");
    }
    if (!follower.followsProperty().get()) {
      return WORDS.say("paused");
    }
    long below = follower.belowProperty().get();
    if (below > 0 && !follower.inSightProperty().get()) {
      return WORDS.say("below", Texts.count(below, "newLine"));
    }
    return WORDS.say("following");
  }

  private void page(int by) {
    area.scrollYBy(by * area.getHeight() * PAGE_SHARE);
  }

  private void toEnd() {
    model.goToEnd();
    takeFocus();
  }

  void pause() {
    follower.followsProperty().set(!follower.followsProperty().get());
  }

  void find() {
    bar.openFinding(area.getSelectedText());
  }

  void openFilter() {
    bar.openFiltering();
  }

  void askForPlace() {
    model.search().askForPlace();
  }

  void wrapOrNot() {
    area.setWrapText(!area.isWrapText());
  }

  @Override
  public void find(boolean forwards) {
    SearchText wanted = bar.wanted();
    if (wanted == null) {
      find();
      return;
    }
    model.search().find(wanted, forwards, from(forwards), this::showFound);
  }

  /** The row that the next one is looked for from: the cursor's while that is in sight. */
  private @Nullable Row from(boolean forwards) {
    List<Row> rows = model.window().rows();
    if (rows.isEmpty()) {
      return null;
    }
    int first = firstInSight();
    int last = lastInSight();
    int caret = area.getCurrentParagraph();
    boolean seen = caret >= first && caret <= last && area.getSelection().getLength() > 0;
    int index = seen ? caret : forwards ? first : last;
    return rows.get(Math.max(0, Math.min(index, rows.size() - 1)));
  }

  private void showFound() {
    Row row = model.search().found();
    int index = row == null ? -1 : model.window().rows().indexOf(row);
    SearchText wanted = bar.wanted();
    if (row == null || index < 0 || wanted == null) {
      return;
    }
    List<TextPlaces.Place> places = TextPlaces.atOnce(row.text(), wanted, 1);
    int from = places.isEmpty() ? 0 : places.get(0).start();
    int to = places.isEmpty() ? 0 : places.get(0).end();
    area.selectRange(index, from, index, to);
    // Behind what shows the rows themselves, which is due at the next frame.
    Platform.runLater(
        () -> {
          area.showParagraphAtCenter(index);
          Platform.runLater(this::scrolled);
        });
  }

  @Override
  public void filter(LineFilter now) {
    List<Row> rows = model.window().rows();
    int first = firstInSight();
    model.filter(now, first < rows.size() ? rows.get(first) : null);
  }

  @Override
  public void marksChanged() {
    highlighter.marksChanged();
  }

  private List<TextPlaces.Place> found(int from, int to) {
    SearchText wanted = bar.wanted();
    if (wanted == null) {
      return List.of();
    }
    try {
      List<TextPlaces.Place> places = new ArrayList<>();
      String text = area.getText(from, to);
      TextPlaces.atOnce(text, wanted, MOST_MARKS)
          .forEach(place -> places.add(place.moved(0, from)));
      return places;
    } catch (PatternSyntaxException e) {
      return List.of();
    }
  }

  @Override
  public void changed(int from, int removed, List<Row> added) {
    // By now the model has them: how many there were before is told by what was exchanged.
    int before = model.window().rows().size() - added.size() + removed;
    String text = added.stream().map(Row::text).collect(Collectors.joining("\n"));
    if (removed == before) {
      replace(0, area.getLength(), text);
    } else if (from + removed < before) {
      int start = area.getAbsolutePosition(from, 0);
      int end = area.getAbsolutePosition(from + removed, 0);
      replace(start, end, added.isEmpty() ? "" : text + "\n");
    } else {
      int start = area.getAbsolutePosition(from - 1, area.getParagraphLength(from - 1));
      replace(start, area.getLength(), added.isEmpty() ? "" : "\n" + text);
    }
    unsettled = true;
    Parts.later(SETTLED, () -> unsettled = false);
    for (int i = 0; i < added.size(); i++) {
      String style = style(from + i);
      if (!style.isEmpty()) {
        area.setParagraphStyle(from + i, List.of(style));
      }
    }
  }

  private String style(int index) {
    List<Row> rows = model.window().rows();
    if (rows.get(index).isNotice()) {
      return "notice";
    }
    boolean goesOn = index > 0 && rows.get(index - 1).line().goesOn();
    return goesOn && rows.get(index - 1).line().end() == rows.get(index).line().from()
        ? "goes-on"
        : "";
  }

  /** The cursor and what is selected stay with their text, which the area's own does not do. */
  private void replace(int start, int end, String text) {
    area.getContent()
        .replace(
            start,
            end,
            ReadOnlyStyledDocument.fromString(
                text, List.of(), List.of(), SegmentOps.<Collection<String>>styledTextOps()));
  }

  @Override
  public void show(int index) {
    if (area.getParagraphs().isEmpty()) {
      return;
    }
    if (index < 0) {
      area.showParagraphAtBottom(area.getParagraphs().size() - 1);
    } else {
      area.moveTo(Math.min(index, area.getParagraphs().size() - 1), 0);
      area.showParagraphAtTop(index);
    }
    placeBar.update();
  }

  private void keepEnd() {
    if (follower.inSightProperty().get()) {
      Platform.runLater(() -> show(-1));
    }
  }

  private int firstInSight() {
    return area.getVisibleParagraphs().isEmpty()
        ? 0
        : Math.max(0, area.firstVisibleParToAllParIndex());
  }

  private int lastInSight() {
    return area.getVisibleParagraphs().isEmpty() ? 0 : area.lastVisibleParToAllParIndex();
  }

  /** The person went elsewhere: more is read near the ends of what is held. */
  private void scrolled() {
    if (unsettled) {
      // What is in sight is known once the rows that have come are laid out.
      Parts.later(SETTLED, this::scrolled);
      return;
    }
    int count = model.window().rows().size();
    boolean isLast = lastInSight() >= count - 1;
    follower.inSightProperty().set(isLast);
    if (isLast) {
      follower.belowProperty().set(0);
    }
    if (firstInSight() < NEAR) {
      model.moreBefore();
    } else if (lastInSight() > count - NEAR && !follower.reachesEnd()) {
      model.moreAfter();
    }
  }

  @Override
  public void takeFocus() {
    area.requestFocus();
  }

  @Override
  public void dispose() {
    highlighter.stop();
  }
}
