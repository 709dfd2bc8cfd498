package zander.desk.view.reach;

import static java.util.Objects.requireNonNull;

import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.input.Clipboard;
import javafx.scene.input.ClipboardContent;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;
import zander.core.connect.address.ServerAddress;
import zander.core.connect.report.ConnectFailure;
import zander.core.connect.report.ConnectFailure.Reason;
import zander.core.connect.report.SignInNote;
import zander.desk.model.AppModel;
import zander.desk.reach.SignInModel;
import zander.desk.view.part.Parts;
import zander.desk.words.Words;
import zander.desk.work.Message;
import zander.desk.work.SignInWords;

/** A sign-in as its steps, while it happens and after it failed: at which step, and what helps. */
final class SignInPanel extends VBox {
  private static final Words WORDS = Words.of(SignInPanel.class);

  private static final int PROOF_LETTERS = 6;

  private final AppModel model;
  private final SignInModel signIn;
  private final GridPane steps = new GridPane();
  private final VBox end = new VBox();
  private boolean ended;

  SignInPanel(AppModel model, SignInModel signIn) {
    this.model = model;
    this.signIn = signIn;
    getStyleClass().add("page");
    steps.getStyleClass().add("steps");
    steps.setId("steps");
    end.getStyleClass().add("steps-end");
    getChildren()
        .addAll(Parts.label(WORDS.say("opening", signIn.server()), "page-title"), end, steps);
    signIn.changesProperty().addListener((observed, old, now) -> show());
    show();
  }

  private void show() {
    steps.getChildren().clear();
    ServerAddress last = null;
    boolean several = signIn.rows().stream().map(SignInModel.Row::hop).distinct().count() > 1;
    int at = 0;
    for (SignInModel.Row row : signIn.rows()) {
      if (several && !row.hop().equals(last)) {
        Label hop = Parts.label(row.hop().toString(), "mono", "strong-word", "step-hop");
        steps.add(hop, 0, at++, 4, 1);
      }
      last = row.hop();
      addRow(row, at++);
    }
    if (!ended) {
      showEnd();
    }
  }

  private void addRow(SignInModel.Row row, int at) {
    Region bar = new Region();
    String mark = row.mark().name().toLowerCase(java.util.Locale.ROOT).replace('_', '-');
    bar.getStyleClass().addAll("step-bar", mark);
    VBox facts = new VBox();
    facts.getStyleClass().add("step-facts");
    for (SignInNote note : row.notes()) {
      Label line = Parts.label(SignInWords.of(note), "mono");
      line.getStyleClass().add(note.kind() == SignInNote.Kind.REFUSED ? "problem" : "quiet");
      line.setWrapText(true);
      facts.getChildren().add(line);
    }
    String word =
        switch (row.mark()) {
          case DONE -> WORDS.say("done");
          case FAILED -> WORDS.say("failed");
          default -> signIn.isOver() ? "" : WORDS.say("underWay");
        };
    Label state = Parts.label(word, row.mark() == SignInModel.Mark.FAILED ? "problem" : "quiet");
    state.setMinWidth(USE_PREF_SIZE);
    Label time =
        Parts.label(
            row.mark() == SignInModel.Mark.UNDER_WAY ? "" : WORDS.say("ms", row.took().toMillis()),
            "mono",
            "quiet",
            "step-time");
    Label name = Parts.label(SignInWords.name(row.step()), "step-name");
    for (javafx.scene.Node node : new javafx.scene.Node[] {name, state, time}) {
      GridPane.setValignment(node, javafx.geometry.VPos.TOP);
    }
    steps.addRow(at, bar, name, facts, state, time);
  }

  private void showEnd() {
    end.getChildren().clear();
    Message said = signIn.said();
    if (said == null) {
      end.getChildren()
          .add(
              Parts.row("choices", Parts.button(WORDS.say("cancel"), "give-up", model::endSignIn)));
      return;
    }
    ended = true;
    VBox strip = new VBox();
    strip.setId("failure");
    strip.getStyleClass().addAll("strip", "danger");
    strip.getChildren().add(wrapped(said.headline(), "strip-headline"));
    strip.getChildren().add(wrapped(said.detail(), "strip-detail"));
    ConnectFailure failure = signIn.failure();
    if (failure != null) {
      // Fingerprints are compared letter by letter, so they stand in letters of one width.
      SignInWords.fingerprints(failure).forEach(f -> strip.getChildren().add(wrapped(f, "mono")));
    }
    signIn.cures().forEach(cure -> strip.getChildren().add(wrapped("•  " + cure, "strip-detail")));
    strip.getChildren().add(choices(failure));
    end.getChildren().add(strip);
    if (failure != null && failure.reason() == Reason.HOST_KEY_CHANGED) {
      end.getChildren().add(replacing(failure));
    }
  }

  private static Label wrapped(String text, String style) {
    Label label = Parts.label(text, style);
    label.setWrapText(true);
    label.setMinHeight(USE_PREF_SIZE);
    return label;
  }

  private HBox choices(@Nullable ConnectFailure failure) {
    HBox choices = Parts.row("choices");
    if (failure != null && failure.reason() == Reason.KEY_FILE_OPEN) {
      choices
          .getChildren()
          .add(
              Parts.button(
                  WORDS.say("makePrivateAndTry"),
                  "close-key",
                  () -> model.closeKeyFile(failure),
                  "strong"));
    }
    // Trying again is no advice where somebody may be in between.
    boolean alarm = failure != null && failure.reason().isAlarm();
    Button again =
        Parts.button(
            WORDS.say("tryAgain"),
            "sign-in-again",
            model::signInAgain,
            signIn.cures().isEmpty() || alarm ? "plain" : "main");
    Button close =
        Parts.button(
            WORDS.say("close"), "dismiss-failure", model::endSignIn, alarm ? "main" : "plain");
    choices
        .getChildren()
        .addAll(
            alarm ? close : again,
            Parts.button(WORDS.say("editTheEntry"), "edit-failed", model::editTried),
            Parts.button(WORDS.say("copyTheReport"), "copy-report", this::copy),
            alarm ? again : close);
    return choices;
  }

  private void copy() {
    ClipboardContent content = new ClipboardContent();
    content.putString(signIn.report());
    Clipboard.getSystemClipboard().setContent(content);
  }

  /** Deliberate: the end of the fingerprint is typed as somebody else gave it. */
  private VBox replacing(ConnectFailure failure) {
    String print = requireNonNull(failure.shown(), "another key was shown").fingerprint();
    String proof = print.substring(print.length() - PROOF_LETTERS);
    TextField typed = new TextField();
    typed.setId("replace-proof");
    typed.setPrefColumnCount(8);
    typed.getStyleClass().add("mono");
    Button replace =
        Parts.button(
            WORDS.say("replaceTheKnownKey"), "replace-key", () -> model.replaceHostKey(failure));
    replace.disableProperty().bind(typed.textProperty().isNotEqualTo(proof));
    VBox box =
        new VBox(
            Parts.label(WORDS.say("toTrustTheNew"), "field-title"),
            wrapped(WORDS.say("getTheNewFingerprint", PROOF_LETTERS), "quiet"),
            Parts.row("typed", typed, replace));
    box.getStyleClass().add("replacing");
    return box;
  }
}
