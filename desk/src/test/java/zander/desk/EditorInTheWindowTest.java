package zander.desk;

import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.List;
import java.util.Set;
import javafx.scene.Node;
import javafx.scene.control.Labeled;
import javafx.scene.input.KeyCode;
import org.fxmisc.richtext.CodeArea;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import zander.core.files.RemotePath;
import zander.desk.file.FileModel;
import zander.standin.world.Caller;
import zander.standin.world.World;

/** Editing in place, by the keyboard. */
class EditorInTheWindowTest {
  private static final String CSS = "/srv/levels/site/notes.css";
  private static final String TEXT =
      "body {\n  margin: 1px;\n}\n.level {\n  margin: 2px;\n  color: blue;\n}\n.river {\n"
          + "  margin: 3px;\n}\n";

  @TempDir Path folder;
  private Window window;

  @BeforeEach
  void open() throws Exception {
    window = new Window(folder);
    window.openLevelsWeb();
    write(TEXT);
  }

  @AfterEach
  void close() throws Exception {
    window.close();
  }

  /** As somebody else on the server. */
  private void write(String content) throws Exception {
    write(content.getBytes(UTF_8));
  }

  private void write(byte[] content) throws Exception {
    Caller deploy = new Caller(1002, 1002, Set.of(1002, 33));
    window
        .world("levels-web")
        .open(deploy, CSS, new World.Open(false, true, true, false, true, 0664))
        .write(0, content, 0, content.length);
  }

  private CodeArea openText() {
    window.push(KeyCode.F5);
    window.choose("#server-table", "notes.css");
    window.push(KeyCode.ENTER);
    window.until("the text has the keyboard", this::textHasKeyboard);
    return (CodeArea) window.shown("#editor");
  }

  private boolean textHasKeyboard() {
    Node focus = window.stage.getScene().getFocusOwner();
    return focus != null && "editor".equals(focus.getId());
  }

  private FileModel file() {
    return (FileModel) window.desk().currentProperty().get();
  }

  private void untilText(String text) {
    window.until("the text is " + text, () -> file().text().equals(text));
  }

  private void untilCount(String words) {
    window.until(
        words + " is told",
        () -> words.equals(((Labeled) window.shown("#file-find-count")).getText()));
  }

  @Test
  void whatIsTypedRightAfterOpeningIsInTheText() {
    openText();
    window.write("x");
    untilText("x" + TEXT);
    // An answer in the strip, and going to another sheet and back, leave the keyboard in it.
    window.push(KeyCode.ALT, KeyCode.G);
    window.until("a line is asked", () -> window.shownOrNull("#file-line") != null);
    window.write("5:3");
    window.push(KeyCode.ENTER);
    window.until("the text has the keyboard", this::textHasKeyboard);
    window.write("y");
    untilText("x" + TEXT.replace("  margin: 2px", "  ymargin: 2px"));
    assertThat(window.text("#file-place")).isEqualTo("5:4");
    window.push(KeyCode.CONTROL, KeyCode.PAGE_UP);
    window.push(KeyCode.CONTROL, KeyCode.PAGE_DOWN);
    window.until("the text has the keyboard", this::textHasKeyboard);
    window.write("z");
    untilText("x" + TEXT.replace("  margin: 2px", "  yzmargin: 2px"));
    assertThat(window.shownOrNull("#local-table")).isNull();
  }

  @Test
  void oneIsReplacedAnotherSkippedAndTheRestReplacedInOneStep() {
    CodeArea editor = openText();
    window.push(KeyCode.CONTROL, KeyCode.H);
    window.until("it is asked", () -> window.shownOrNull("#file-find") != null);
    window.fill("#file-find", "MARGIN: ([0-9])px");
    untilCount("no matches");
    window.clickOn("#file-find-expression");
    untilCount("3 matches");
    window.fill("#file-replacement", "gap: $1em");
    window.clickOn("#file-find");
    window.push(KeyCode.ENTER);
    untilCount("1 of 3");
    window.press("#file-skip");
    untilCount("2 of 3");
    assertThat(editor.getSelectedText()).isEqualTo("margin: 2px");
    window.press("#file-replace-rest");
    untilText(TEXT.replace("margin: 2px", "gap: 2em").replace("margin: 3px", "gap: 3em"));
    window.push(KeyCode.ESCAPE);
    window.until("the text has the keyboard", this::textHasKeyboard);
    assertThat(window.shownOrNull("#file-find")).isNull();
    window.push(KeyCode.CONTROL, KeyCode.Z);
    untilText(TEXT);
    // In what is selected only, as whole words with their case.
    window.interact(() -> editor.selectRange(0, TEXT.indexOf(".river")));
    window.push(KeyCode.CONTROL, KeyCode.F);
    window.clickOn("#file-find-expression");
    window.fill("#file-find", "margin");
    untilCount("1 of 2");
    window.push(KeyCode.ESCAPE);
    window.push(KeyCode.F3);
    untilCount("2 of 3");
  }

  @Test
  void linesAreIndentedCommentedMovedAndTakenBack() {
    CodeArea editor = openText();
    window.push(KeyCode.DOWN);
    window.push(KeyCode.END);
    window.push(KeyCode.ENTER);
    window.write("top: 0;");
    untilText(TEXT.replace("1px;\n", "1px;\n  top: 0;\n"));
    window.push(KeyCode.ALT, KeyCode.SHIFT, KeyCode.UP);
    untilText(TEXT.replace("  margin: 1px;\n", "  top: 0;\n  margin: 1px;\n"));
    window.push(KeyCode.ALT, KeyCode.SHIFT, KeyCode.C);
    untilText(TEXT.replace("  margin: 1px;\n", "  /* top: 0; */\n  margin: 1px;\n"));
    window.push(KeyCode.TAB);
    window.until("it was changed", () -> file().unsavedProperty().get());
    window.push(KeyCode.CONTROL, KeyCode.Z);
    window.push(KeyCode.ALT, KeyCode.SHIFT, KeyCode.K);
    untilText(TEXT);
    window.interact(() -> editor.moveTo(4, 0));
    window.push(KeyCode.ALT, KeyCode.SHIFT, KeyCode.D);
    untilText(TEXT.replace("  margin: 2px;\n", "  margin: 2px;\n  margin: 2px;\n"));
    window.interact(() -> editor.moveTo(0, 0));
    window.write("/* first */\n");
    window.until("two lines are marked", () -> changedLines() == 2);
    window.push(KeyCode.UP);
    window.push(KeyCode.ALT, KeyCode.SHIFT, KeyCode.Z);
    untilText(TEXT.replace("  margin: 2px;\n", "  margin: 2px;\n  margin: 2px;\n"));
  }

  private int changedLines() {
    return file().changes().marksProperty().get().lines().cardinality();
  }

  @Test
  void whatAnotherChangedMeanwhileIsToldAndMerged() throws Exception {
    CodeArea editor = openText();
    window.interact(() -> editor.replaceText(TEXT.replace("blue", "navy").replace("1px", "4px")));
    write(TEXT.replace("blue", "teal").replace("3px", "9px"));
    window.press("#choice-merge-both");
    window.press("#choice-take-mine");
    String merged = TEXT.replace("blue", "navy").replace("1px", "4px").replace("3px", "9px");
    untilText(merged);
    assertThat(window.content(CSS)).contains("teal");
    window.push(KeyCode.CONTROL, KeyCode.S);
    window.until("it is saved", () -> !file().isUnsaved());
    assertThat(window.content(CSS)).isEqualTo(merged);
    assertThat(file().path()).isEqualTo(RemotePath.of(CSS));
    // What was merged is not put into what is loaded later.
    String longer = TEXT.repeat(4000);
    write(longer);
    window.interact(() -> file().loadTheirs());
    window.until("it is loaded", () -> file().text().equals(longer) && editor.isEditable());
    assertThat(editor.getLength()).isEqualTo(longer.length());
    assertThat(file().isUnsaved()).isFalse();
  }

  @Test
  void whatACheckRefusesIsNotSavedAndStandsAtItsLine() throws Exception {
    CodeArea editor = openText();
    window.interact(() -> file().askForRules());
    window.until("a command is asked", () -> window.shownOrNull("#rules-check") != null);
    window.fill("#rules-check", "levelsd --check {file}");
    window.press("#choice-keep");
    window.interact(() -> editor.replaceText(TEXT.replace("margin: 2px;", "margin: 2px")));
    window.push(KeyCode.CONTROL, KeyCode.S);
    window.until("it is refused", () -> window.shownOrNull("#choice-change-the-check-") != null);
    assertThat(window.content(CSS)).isEqualTo(TEXT);
    assertThat(((Labeled) window.shown(".strip-detail")).getText())
        .startsWith("levelsd: " + CSS + ":5: a ; is missing at the end of the line");
    window.until("its line is gone to", () -> editor.getCurrentParagraph() >= 4);
    window.press("#choice-keep-editing");
    window.interact(() -> editor.replaceText(TEXT.replace("2px", "8px")));
    window.push(KeyCode.CONTROL, KeyCode.S);
    window.until("it is saved", () -> !file().isUnsaved());
    assertThat(file().stateProperty().get()).startsWith("saved to the server, checked");
    assertThat(window.content(CSS)).isEqualTo(TEXT.replace("2px", "8px"));
    window.until("it is remembered", () -> isRemembered());
  }

  @Test
  void whatTheWholeRefusesIsPutBackAndWhatWorksIsRunWhenAsked() throws Exception {
    CodeArea editor = openText();
    window.interact(() -> file().askForRules());
    window.until("commands are asked", () -> window.shownOrNull("#rules-after") != null);
    window.fill("#rules-after", "levelsd --check " + CSS);
    window.fill("#rules-effect", "levelsd --reload " + CSS);
    window.fill("#rules-seconds", "5");
    window.until("too short", () -> window.shown("#choice-keep").isDisabled());
    window.interact(
        () -> ((javafx.scene.control.TextField) window.shown("#rules-seconds")).clear());
    window.press("#choice-keep");
    String wrong = TEXT.replace("margin: 2px;", "margin: 2px");
    window.interact(() -> editor.replaceText(wrong));
    window.push(KeyCode.CONTROL, KeyCode.S);
    window.until("it is refused", () -> window.shownOrNull("#choice-change-the-check-") != null);
    assertThat(((Labeled) window.shown(".strip-headline")).getText())
        .isEqualTo("Put back: levelsd refused the new content");
    assertThat(window.content(CSS)).isEqualTo(TEXT);
    assertThat(file().text()).isEqualTo(wrong);
    window.until("its line is gone to", () -> editor.getCurrentParagraph() >= 4);
    window.press("#choice-keep-editing");
    window.interact(() -> editor.replaceText(TEXT.replace("2px", "8px")));
    window.push(KeyCode.CONTROL, KeyCode.S);
    window.until("it is asked", () -> window.shownOrNull("#choice-run-it") != null);
    assertThat(window.content(CSS)).isEqualTo(TEXT.replace("2px", "8px"));
    window.press("#choice-run-it-with-each-save");
    window.until("it ran", () -> file().stateProperty().get().endsWith("worked"));
    // It stops working: one key puts the version before back.
    window.interact(() -> file().askForRules());
    window.until("commands are asked", () -> window.shownOrNull("#rules-after") != null);
    window.interact(() -> ((javafx.scene.control.TextField) window.shown("#rules-after")).clear());
    window.press("#choice-keep");
    window.interact(() -> editor.replaceText(wrong));
    window.push(KeyCode.CONTROL, KeyCode.S);
    window.until(
        "it fails", () -> window.shownOrNull("#choice-put-the-version-before-back") != null);
    assertThat(window.content(CSS)).isEqualTo(wrong);
    window.press("#choice-put-the-version-before-back");
    window.until("it is back", () -> file().stateProperty().get().startsWith("put back"));
    assertThat(window.content(CSS)).isEqualTo(TEXT.replace("2px", "8px"));
    untilText(wrong);
    assertThat(file().isUnsaved()).isTrue();
  }

  @Test
  void anEncodingThatIsOnlyLikelySaysSoAndCanBeTold() throws Exception {
    byte[] old = "/* k\u0105t */\n".getBytes("windows-1250");
    write(old);
    openText();
    assertThat(file().facts()).contains("guessed");
    assertThat(file().text()).isNotEqualTo("/* k\u0105t */\n");
    window.interact(() -> file().typed().askForEncoding());
    window.until("an encoding is asked", () -> window.shownOrNull("#file-encoding") != null);
    window.fill("#file-encoding", "no such one");
    window.until("it cannot be", () -> window.shown("#choice-read-it-again").isDisabled());
    window.fill("#file-encoding", "windows-1250");
    window.press("#choice-read-it-again");
    untilText("/* k\u0105t */\n");
    assertThat(file().facts()).startsWith("windows-1250   ");
    window.interact(() -> file().loadTheirs());
    window.until("it is read again", () -> !file().busyProperty().get());
    assertThat(file().text()).isEqualTo("/* k\u0105t */\n");
    window.interact(() -> file().typed().askForLanguage());
    window.until("a language is asked", () -> window.shownOrNull("#file-language") != null);
    window.fill("#file-language", "nginx");
    window.press("#choice-colour-it");
    window.interact(() -> window.desk().close(file()));
    openText();
    assertThat(file().text()).as("both are kept for the next time").isEqualTo("/* k\u0105t */\n");
    assertThat(file().languageProperty().get().name()).isEqualTo("nginx");
  }

  @Test
  void hiddenCharactersAreMarkedNamedAndGoneToAndLineEndsAreChanged() throws Exception {
    write(TEXT.replace("1px", "1\u00a0px").replace("blue", "bl\u200bue"));
    CodeArea editor = openText();
    assertThat(file().facts()).endsWith("   2 hidden characters");
    window.until(
        "they are marked",
        () ->
            editor.getStyleOfChar(1, 11).contains("hidden-character")
                && editor.getStyleOfChar(5, 10).contains("hidden-character"));
    goTo("hidden character");
    window.until("it is gone to", () -> "\u00a0".equals(editor.getSelectedText()));
    assertThat(window.text("#file-place")).isEqualTo("2:13 no-break space");
    window.push(KeyCode.DELETE);
    goTo("hidden character");
    window.until("the next", () -> "\u200b".equals(editor.getSelectedText()));
    window.push(KeyCode.DELETE);
    untilText(TEXT);
    goTo("hidden character");
    window.until("there is none", () -> file().questionProperty().get() != null);
    window.press("#choice-close");
    window.push(KeyCode.CONTROL, KeyCode.S);
    window.until("it is saved", () -> !file().isUnsaved());
    goTo("change line ends");
    window.press("#choice-crlf-as-on-windows");
    assertThat(file().isUnsaved()).isTrue();
    window.push(KeyCode.CONTROL, KeyCode.S);
    window.until("it is saved", () -> !file().isUnsaved());
    assertThat(window.content(CSS)).isEqualTo(TEXT.replace("\n", "\r\n"));
  }

  @Test
  void otherVersionsAreComparedOneAfterTheOtherAndPutIn() throws Exception {
    String old = TEXT.replace("blue", "grey");
    Caller deploy = new Caller(1002, 1002, Set.of(1002, 33));
    byte[] backup = old.getBytes(UTF_8);
    window
        .world("levels-web")
        .open(deploy, CSS + ".bak", new World.Open(false, true, true, false, true, 0664))
        .write(0, backup, 0, backup.length);
    CodeArea editor = openText();
    window.interact(() -> editor.replaceText(TEXT.replace("3px", "4px")));
    window.push(KeyCode.CONTROL, KeyCode.S);
    window.until("it is saved", () -> !file().isUnsaved());
    window.push(KeyCode.ALT, KeyCode.SHIFT, KeyCode.V);
    window.until("two are found", () -> window.shownOrNull("#choice-the-next-one") != null);
    Set<String> seen = new java.util.TreeSet<>(List.of(headline().split("[, ]")[0]));
    nextVersion();
    seen.add(headline().split("[, ]")[0]);
    assertThat(seen).containsExactly("The", "notes.css.bak");
    if (headline().startsWith("The")) {
      nextVersion();
    }
    window.press("#choice-put-its-text-here");
    untilText(old);
    assertThat(file().isUnsaved()).isTrue();
    window.until("the text has the keyboard", this::textHasKeyboard);
    window.push(KeyCode.CONTROL, KeyCode.Z);
    untilText(TEXT.replace("3px", "4px"));
  }

  @Test
  void aLanguageIsChosenByHand() throws Exception {
    CodeArea editor = openText();
    window.until("words are coloured", () -> editor.getStyleOfChar(0, 0).contains("code-word"));
    goTo("colour as another");
    window.until("it is asked", () -> window.shownOrNull("#file-language") != null);
    window.fill("#file-language", "nginy");
    window.until("there is none", () -> window.shown("#choice-colour-it").isDisabled());
    window.fill("#file-language", "NGINX");
    window.press("#choice-colour-it");
    window.until(
        "others are coloured",
        () ->
            editor.getStyleOfChar(3, 0).isEmpty()
                && editor.getStyleOfChar(0, 0).contains("code-word"));
    window.push(KeyCode.CONTROL, KeyCode.HOME);
    window.push(KeyCode.ALT, KeyCode.SHIFT, KeyCode.C);
    untilText("# " + TEXT);
  }

  private String headline() {
    return ((Labeled) window.shown(".strip-headline")).getText();
  }

  private void nextVersion() {
    String before = headline();
    window.press("#choice-the-next-one");
    window.until("another is shown", () -> !headline().equals(before));
  }

  private void goTo(String action) {
    window.push(KeyCode.CONTROL, KeyCode.G);
    window.until("it is asked", () -> window.shownOrNull("#goto-field") != null);
    window.write(action).push(KeyCode.ENTER);
  }

  private boolean isRemembered() {
    Path kept = window.setup.places().state().resolve("checks.json");
    try {
      return java.nio.file.Files.exists(kept)
          && java.nio.file.Files.readString(kept).contains("levelsd --check");
    } catch (java.io.IOException e) {
      return false;
    }
  }
}
