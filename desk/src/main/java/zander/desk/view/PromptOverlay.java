package zander.desk.view;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Deque;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.PasswordField;
import javafx.scene.control.TextArea;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.HBox;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;
import zander.core.connect.address.ServerAddress;
import zander.core.connect.signin.SignInPrompt.Challenge;
import zander.core.connect.signin.SignInPrompt.Prompt;
import zander.core.trust.WireKey;
import zander.desk.reach.KeepSecret;
import zander.desk.reach.Prompts;
import zander.desk.view.part.KeepChoice;
import zander.desk.view.part.Parts;
import zander.desk.view.reach.SecretFields;
import zander.desk.words.Words;

/** The two questions that stand over everything else: a host key, and a secret. */
final class PromptOverlay extends StackPane implements Prompts {
  private static final Words WORDS = Words.of(PromptOverlay.class);

  private static final int GROUP = 8;

  private final Deque<Runnable> waiting = new ArrayDeque<>();
  private javafx.scene.@Nullable Node focusBefore;

  PromptOverlay() {
    getStyleClass().add("overlay");
    Parts.show(this, false);
    addEventFilter(
        javafx.scene.input.KeyEvent.KEY_PRESSED,
        event -> {
          if (event.getCode() == KeyCode.ESCAPE && lookup("#prompt-no") instanceof Button no) {
            no.fire();
            event.consume();
          }
        });
  }

  /** One question at a time: a second one waits until the first is answered. */
  private void open(VBox card, javafx.scene.Node focus) {
    if (isVisible()) {
      waiting.add(() -> open(card, focus));
      return;
    }
    card.getStyleClass().add("card");
    card.setMaxSize(USE_PREF_SIZE, USE_PREF_SIZE);
    StackPane.setAlignment(card, Pos.CENTER);
    focusBefore = getScene().getFocusOwner();
    getChildren().setAll(card);
    Parts.show(this, true);
    focus.requestFocus();
  }

  private void close() {
    getChildren().clear();
    Parts.show(this, false);
    if (focusBefore != null) {
      focusBefore.requestFocus();
    }
    if (!waiting.isEmpty()) {
      waiting.remove().run();
    }
  }

  @Override
  public void hostKey(ServerAddress address, WireKey shown, CompletableFuture<Boolean> answer) {
    Label explain =
        Parts.label(
            WORDS.say(
                "firstContactWithCompare",
                address.host(),
                address.port() == ServerAddress.USUAL_PORT
                    ? ""
                    : WORDS.say("port", address.port())));
    explain.setWrapText(true);
    explain.setMaxWidth(520);
    TextField print = new TextField(shown.fingerprint());
    print.setId("fingerprint");
    print.setEditable(false);
    print.getStyleClass().addAll("mono", "fingerprint");
    Label groups = Parts.label(grouped(shown.fingerprint()), "mono", "quiet");
    Button yes = answering(WORDS.say("itIsTheSame"), "prompt-yes", true, answer);
    Button no = answering(WORDS.say("doNotConnect"), "prompt-no", false, answer);
    yes.getStyleClass().add("main");
    HBox buttons = Parts.row("choices", yes, no);
    VBox card =
        new VBox(
            Parts.label(WORDS.say("isThisTheRight"), "page-title"),
            explain,
            Parts.label(WORDS.say("hostKey", shown.shortType()), "field-title"),
            print,
            groups,
            Parts.label(WORDS.say("noSecretHasBeen"), "quiet"),
            buttons);
    // The harmless answer has the focus: a stray Enter must not trust anybody.
    open(card, no);
  }

  private Button answering(
      String words, String id, boolean given, CompletableFuture<Boolean> answer) {
    return Parts.button(
        words,
        id,
        () -> {
          close();
          answer.complete(given);
        });
  }

  @Override
  public void command(ServerAddress address, String command, CompletableFuture<Boolean> answer) {
    Label explain = Parts.label(WORDS.say("yourOpenSSHConfiguration", address.host()));
    explain.setWrapText(true);
    explain.setMaxWidth(520);
    TextArea text = new TextArea(command);
    text.setId("proxy-command");
    text.setEditable(false);
    text.setWrapText(true);
    text.setPrefRowCount(3);
    text.setMaxWidth(520);
    text.getStyleClass().add("mono");
    Button yes = answering(WORDS.say("runIt"), "prompt-yes", true, answer);
    Button no = answering(WORDS.say("doNotConnect"), "prompt-no", false, answer);
    yes.getStyleClass().add("main");
    VBox card =
        new VBox(
            Parts.label(WORDS.say("runThisCommandTo", address.host()), "page-title"),
            explain,
            text,
            Parts.row("choices", yes, no));
    open(card, no);
  }

  /** In groups of letters, which are easier to compare aloud. */
  private static String grouped(String fingerprint) {
    String body = fingerprint.substring(fingerprint.indexOf(':') + 1);
    StringBuilder text = new StringBuilder();
    for (int i = 0; i < body.length(); i += GROUP) {
      text.append(body, i, Math.min(body.length(), i + GROUP)).append("  ");
    }
    return text.toString().strip();
  }

  @Override
  public void secret(Ask ask, CompletableFuture<Given> answer) {
    PasswordField field = new PasswordField();
    field.setId("secret");
    field.setPrefColumnCount(28);
    KeepChoice keep = new KeepChoice(ask.preset());
    Runnable give =
        () -> {
          char[] secret = SecretFields.take(field);
          close();
          answer.complete(new Given(secret, ask.mayKeep() ? keep.chosen() : KeepSecret.NOW));
        };
    field.setOnAction(event -> give.run());
    Button yes = Parts.button(WORDS.say("continue"), "prompt-yes", give, "main");
    Button no =
        Parts.button(
            ask.mayKeep() ? WORDS.say("cancel") : WORDS.say("notNow"),
            "prompt-no",
            () -> {
              Arrays.fill(SecretFields.take(field), '\0');
              close();
              answer.complete(null);
            });
    VBox card = new VBox(Parts.label(ask.headline(), "page-title"), field);
    addDetail(card, ask.detail(), ask.wrong() ? "problem" : "quiet");
    if (ask.mayKeep()) {
      card.getChildren().add(keep);
    }
    card.getChildren().add(Parts.row("choices", yes, no));
    open(card, field);
  }

  private static void addDetail(VBox card, String detail, String style) {
    if (!detail.isEmpty()) {
      Label explain = Parts.label(detail, style);
      explain.setWrapText(true);
      explain.setMaxWidth(460);
      card.getChildren().add(explain);
    }
  }

  @Override
  public void questions(
      Challenge challenge, String detail, CompletableFuture<List<char[]>> answer) {
    VBox card = new VBox(Parts.label(WORDS.say("asks", challenge.address()), "page-title"));
    addDetail(card, challenge.title(), "quiet");
    addDetail(card, challenge.instruction(), "quiet");
    List<TextField> fields = new ArrayList<>();
    int number = 1;
    for (Prompt prompt : challenge.prompts()) {
      TextField field = prompt.shown() ? new TextField() : new PasswordField();
      field.setId("answer-" + number++);
      fields.add(field);
      card.getChildren().addAll(Parts.label(prompt.text(), "field-title"), field);
    }
    addDetail(card, detail, "problem");
    Runnable give =
        () -> {
          List<char[]> letters = fields.stream().map(SecretFields::take).toList();
          close();
          answer.complete(letters);
        };
    for (int i = 0; i < fields.size(); i++) {
      TextField next = i + 1 < fields.size() ? fields.get(i + 1) : null;
      fields
          .get(i)
          .setOnAction(
              event -> {
                if (next == null) {
                  give.run();
                } else {
                  next.requestFocus();
                }
              });
    }
    Button yes = Parts.button(WORDS.say("continue"), "prompt-yes", give, "main");
    Button no =
        Parts.button(
            WORDS.say("cancel"),
            "prompt-no",
            () -> {
              fields.forEach(field -> Arrays.fill(SecretFields.take(field), '\0'));
              close();
              answer.complete(null);
            });
    card.getChildren().add(Parts.row("choices", yes, no));
    open(card, fields.get(0));
  }
}
