package zander.desk.view.file;

import java.time.Duration;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Objects;
import java.util.function.Consumer;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyCombination;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import org.fxmisc.flowless.VirtualizedScrollPane;
import org.fxmisc.richtext.CodeArea;
import org.fxmisc.richtext.model.PlainTextChange;
import org.fxmisc.richtext.model.ReadOnlyStyledDocument;
import org.fxmisc.richtext.model.SegmentOps;
import org.fxmisc.richtext.model.StyledDocument;
import org.fxmisc.richtext.model.TwoDimensional.Bias;
import org.fxmisc.richtext.util.UndoUtils;
import org.fxmisc.wellbehaved.event.EventPattern;
import org.fxmisc.wellbehaved.event.InputMap;
import org.fxmisc.wellbehaved.event.Nodes;
import org.jspecify.annotations.Nullable;
import zander.core.edit.Brackets;
import zander.core.edit.HiddenCharacters;
import zander.core.edit.TextFile;
import zander.core.files.RemotePath;
import zander.desk.file.FileModel;
import zander.desk.file.FileSheets;
import zander.desk.file.TypedQuestions;
import zander.desk.view.folder.PathBar;
import zander.desk.view.part.Parts;
import zander.desk.view.part.QuestionStrip;
import zander.desk.view.part.Repeating;
import zander.desk.view.part.SheetView;
import zander.desk.words.Words;

/** A text file of the server in the editor. */
public final class FileView extends VBox implements SheetView {
  private static final Words WORDS = Words.of(FileView.class);

  /** Longer texts are cut into lines on another thread, in characters. */
  private static final int LONG = 300_000;

  /** Others' changes are noticed within this time. */
  private static final Duration LOOK_EVERY = Duration.ofSeconds(4);

  /** In a narrower sheet its facts make room, in pixels. */
  private static final double FACTS_FROM = 640;

  private static final String STEADY = "-rtfx-blink-rate: 86400s;";

  private final FileModel model;
  private final CodeArea area = new CodeArea();
  private final Label facts = Parts.label("", "quiet");
  private final Label place = Parts.label("1:1", "quiet", "figures");
  private final LineCommands lines;
  private final PairTyping pairs;
  private final SnippetStops snippets;
  private final FileSheets sheets;
  private final FindBar findBar;
  private final FileColours colours;

  /** The brackets that were marked last. */
  private Brackets.@Nullable Pair paired;

  /** Whether the model's own text comes into the editor. */
  private boolean showing;

  public FileView(FileModel model, FileSheets sheets, Consumer<RemotePath> goTo) {
    this.model = model;
    this.sheets = sheets;
    getStyleClass().add("sheet");
    PathBar path =
        new PathBar("file-path", typed -> goTo.accept(model.path().parent().resolve(typed)));
    List<PathBar.Crumb> crumbs = new ArrayList<>();
    for (RemotePath part : model.path().chain()) {
      RemotePath to = part.equals(model.path()) ? part.parent() : part;
      crumbs.add(new PathBar.Crumb(part.name(), () -> goTo.accept(to)));
    }
    path.show(model.path().text(), crumbs);
    Label state = Parts.label("", "tag");
    state.setId("file-state");
    state.textProperty().bind(model.stateProperty());
    state.setMinWidth(javafx.scene.layout.Region.USE_PREF_SIZE);
    model.unsavedProperty().addListener((observed, old, now) -> mark(state, now));
    mark(state, model.unsavedProperty().get());
    facts.setMinWidth(javafx.scene.layout.Region.USE_PREF_SIZE);
    Button save = Parts.button(WORDS.say("saveToServer"), "save", model::save, "main");
    Parts.hint(
        save,
        model.isSavedInSteps()
            ? WORDS.say("writtenBesideTheOld")
            : WORDS.say("writtenBesideThenPut"));
    save.setMinWidth(javafx.scene.layout.Region.USE_PREF_SIZE);
    save.disableProperty().bind(model.busyProperty().or(model.unsavedProperty().not()));
    OwnProgramTag elsewhere = new OwnProgramTag(sheets.programs(), model);
    HBox bar = Parts.row("sheet-bar", path, elsewhere, state, place, facts, save);
    // Before the file's name would have no room.
    facts.managedProperty().bind(bar.widthProperty().greaterThanOrEqualTo(FACTS_FROM));
    facts.visibleProperty().bind(facts.managedProperty());

    area.setId("editor");
    area.getStyleClass().add("editor");
    new LineMarks(area, model.changes());
    lines = new LineCommands(area, model.languageProperty()::get);
    snippets = new SnippetStops(area);
    pairs = new PairTyping(area, model.languageProperty()::get);
    findBar = new FindBar(area, model.find());
    colours = new FileColours(area, model, pairs);
    Nodes.addInputMap(
        area,
        InputMap.sequence(
            InputMap.consume(EventPattern.keyPressed(KeyCode.ENTER), event -> lines.newLine()),
            InputMap.consume(
                EventPattern.keyPressed(KeyCode.TAB),
                event -> {
                  if (!snippets.next()) {
                    lines.tab();
                  }
                }),
            InputMap.consume(
                EventPattern.keyPressed(KeyCode.TAB, KeyCombination.SHIFT_DOWN),
                event -> lines.outdent())));
    place.setId("file-place");
    place.setMinWidth(USE_PREF_SIZE);
    area.caretPositionProperty().addListener((observed, old, now) -> tellPlace());
    load();
    model.loadedProperty().addListener((observed, old, now) -> load());
    model.draftedProperty().addListener((observed, old, now) -> takeDraft(now));
    takeDraft(model.draftedProperty().get());
    model.goal().lineProperty().addListener((observed, old, now) -> goToLine(now));
    goToLine(model.goal().lineProperty().get());
    VirtualizedScrollPane<CodeArea> scroll = new VirtualizedScrollPane<>(area);
    VBox.setVgrow(scroll, Priority.ALWAYS);
    getChildren()
        .addAll(
            bar, new QuestionStrip(model.questionProperty(), area::requestFocus), findBar, scroll);
    model.links().deadProperty().addListener((observed, old, now) -> facts.setText(model.facts()));
    new LinkMenu(area, model.links());
    Repeating.whileShown(this, LOOK_EVERY, model::lookForChanges);
  }

  private static void mark(Label state, boolean unsaved) {
    state.getStyleClass().removeAll("look", "good");
    state.getStyleClass().add(unsaved ? "look" : "good");
  }

  private void load() {
    TextFile loaded = model.loadedProperty().get();
    if (loaded.text().length() <= LONG) {
      show(Cut.of(loaded.text()));
      return;
    }
    area.setEditable(false);
    model.onAnotherThread(
        () -> Cut.of(loaded.text()),
        cut -> {
          if (loaded == model.loadedProperty().get()) {
            area.setEditable(true);
            show(cut);
            takeDraft(model.draftedProperty().get());
            goToLine(model.goal().lineProperty().get());
          }
        });
  }

  /** A text in lines, as the editor takes it, and whether there is a long one. */
  private record Cut(
      StyledDocument<Collection<String>, String, Collection<String>> lines, boolean hasLong) {

    static Cut of(String text) {
      boolean hasLong = false;
      for (int at = 0; at < text.length() && !hasLong; ) {
        int end = text.indexOf('\n', at);
        end = end < 0 ? text.length() : end;
        hasLong = end - at > Highlighter.LONG_LINE;
        at = end + 1;
      }
      return new Cut(
          ReadOnlyStyledDocument.fromString(
              text, List.of(), List.of(), SegmentOps.<Collection<String>>styledTextOps()),
          hasLong);
    }
  }

  private void show(Cut text) {
    boolean first = area.getLength() == 0;
    if (text.hasLong) {
      // Each blink draws the whole line again. By style: the style sheet overrides what is set.
      area.getCaretSelectionBind().getUnderlyingCaret().setStyle(STEADY);
    }
    if (first) {
      // Undo goes back to what was opened, never to an empty text; and it looks through all of it.
      area.setUndoManager(UndoUtils.noOpUndoManager());
    }
    showing = true;
    area.replace(0, area.getLength(), text.lines);
    showing = false;
    if (first) {
      area.setUndoManager(UndoUtils.defaultUndoManager(area));
    }
    if (!colours.haveBegun()) {
      listen();
    }
    area.moveTo(0);
    // The view stays with what followed the old text, which is the end; it is told before it looks.
    area.showParagraphAtTop(0);
    facts.setText(model.facts());
  }

  /** Once the text is there: to hear of it costs each listener a pass over it. */
  private void listen() {
    colours.begin();
    // Not the text's own property: listened to, it is made anew with every colour.
    var changes = area.multiPlainChanges();
    changes.subscribe(this::tell);
    changes
        .successionEnds(Duration.ofMillis(300))
        .subscribe(change -> facts.setText(model.facts()));
  }

  private void tell(List<PlainTextChange> changes) {
    if (!showing) {
      for (PlainTextChange change : changes) {
        int line = area.offsetToPosition(change.getPosition(), Bias.Forward).getMajor();
        model.replaced(line, change.getPosition(), change.getRemoved(), change.getInserted());
      }
    }
    model.edited(area.getText());
  }

  /** In the place of the server's text, as if typed: undo brings that back. */
  private void takeDraft(String text) {
    if (text != null && area.isEditable()) {
      replaceInOneStep(text);
    }
  }

  /** Undo takes it back alone, and not with what was typed before or behind. */
  private void replaceInOneStep(String text) {
    area.getUndoManager().preventMerge();
    replaceBy(text);
    area.getUndoManager().preventMerge();
  }

  /** Only what differs, so that the cursor and the lines around it stay. */
  private void replaceBy(String text) {
    String was = area.getText();
    int from = 0;
    int most = Math.min(was.length(), text.length());
    while (from < most && was.charAt(from) == text.charAt(from)) {
      from++;
    }
    int end = 0;
    while (end < most - from
        && was.charAt(was.length() - 1 - end) == text.charAt(text.length() - 1 - end)) {
      end++;
    }
    area.replaceText(from, was.length() - end, text.substring(from, text.length() - end));
  }

  private void goToLine(int number) {
    if (number > 0 && area.isEditable()) {
      int line = Math.min(number, area.getParagraphs().size()) - 1;
      area.moveTo(line, 0);
      if (model.goal().column() > 0) {
        area.moveTo(line, Math.min(model.goal().column() - 1, area.getParagraphLength(line)));
      } else {
        area.selectLine();
      }
      javafx.application.Platform.runLater(
          () -> {
            area.showParagraphAtCenter(line);
            area.requestFocus();
          });
    }
  }

  private void tellPlace() {
    String line = area.getParagraph(area.getCurrentParagraph()).getText();
    int column = Math.min(area.getCaretColumn(), line.length());
    HiddenCharacters.Hidden hidden =
        column == 0 ? null : HiddenCharacters.next(line, line.offsetByCodePoints(column, -1));
    place.setText(
        (area.getCurrentParagraph() + 1)
            + ":"
            + (column + 1)
            + (hidden != null && hidden.end() == column ? " " + hidden.name() : ""));
    Brackets.Pair beside = pairs.marked();
    if (!Objects.equals(beside, paired)) {
      colours.marksChanged();
    }
    paired = beside;
  }

  TypedQuestions typed() {
    return model.typed();
  }

  PairTyping pairs() {
    return pairs;
  }

  LineCommands lines() {
    return lines;
  }

  void find(boolean replaces) {
    findBar.open(replaces);
  }

  /**
   * @param by 1 or -1
   */
  void findNext(int by) {
    if (!findBar.isOpen()) {
      findBar.open(false);
    }
    if (by > 0) {
      findBar.next();
    } else {
      findBar.before();
    }
  }

  void insertSnippet() {
    sheets.snippetsFor(model).insert(text -> snippets.insert(text, lines.unit()));
  }

  void keepSnippet() {
    if (!area.getSelectedText().isBlank()) {
      sheets.snippetsFor(model).keep(area.getSelectedText());
    }
  }

  /** Opens the file that the link at the cursor leads to. */
  void openLink() {
    model
        .links()
        .open(area.getParagraph(area.getCurrentParagraph()).getText(), area.getCaretColumn());
  }

  /** From the cursor on, and from the start behind the last. */
  void goToHidden() {
    String text = area.getText();
    int caret = area.getCaretPosition();
    HiddenCharacters.Hidden next = HiddenCharacters.next(text, caret);
    next = next == null ? HiddenCharacters.next(text, 0) : next;
    if (next == null) {
      model.typed().tellNoHidden();
      return;
    }
    area.selectRange(next.start(), next.end());
    area.requestFollowCaret();
    area.requestFocus();
  }

  void askForRules() {
    model.askForRules();
  }

  void showChanges() {
    model.showChanges();
  }

  void showOtherVersions() {
    model.showOtherVersions();
  }

  /** The lines around the cursor that are not as on the server become so again; undo goes back. */
  void takeBackChange() {
    model.changes().withoutChangeAt(area.getCurrentParagraph(), this::replaceInOneStep);
  }

  void wrapOrNot() {
    area.setWrapText(!area.isWrapText());
  }

  @Override
  public void takeFocus() {
    // What is missing may have come while something else was in front.
    model.links().lookSoon();
    area.requestFocus();
  }

  @Override
  public void dispose() {
    colours.stop();
  }
}
