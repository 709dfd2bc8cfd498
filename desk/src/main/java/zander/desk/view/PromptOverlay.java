package zander.desk.view;

import java.util.Arrays;
import java.util.concurrent.CompletableFuture;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.PasswordField;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.HBox;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import zander.core.trust.WireKey;
import zander.core.connect.ServerAddress;
import zander.desk.model.ServerTalk;

/** The two questions that stand over everything else: a host key, and a secret. */
final class PromptOverlay extends StackPane implements ServerTalk.Prompts {
  private static final int GROUP = 8;

  private javafx.scene.Node focusBefore;

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

  private void open(VBox card, javafx.scene.Node focus) {
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
  }

  @Override
  public void hostKey(ServerAddress address, WireKey shown, CompletableFuture<Boolean> answer) {
    Label explain =
        Parts.label(
            "First contact with "
                + address.host()
                + (address.port() == ServerAddress.USUAL_PORT ? "" : " port " + address.port())
                + ". Compare this fingerprint with what whoever runs the server gives you, or with"
                + " its console. If it is not the same, somebody may be in between.");
    explain.setWrapText(true);
    explain.setMaxWidth(520);
    TextField print = new TextField(shown.fingerprint());
    print.setId("fingerprint");
    print.setEditable(false);
    print.getStyleClass().addAll("mono", "fingerprint");
    Label groups = Parts.label(grouped(shown.fingerprint()), "mono", "quiet");
    Button yes =
        Parts.button(
            "It is the same: remember it",
            "prompt-yes",
            () -> {
              close();
              answer.complete(true);
            },
            "main");
    Button no =
        Parts.button(
            "Do not connect",
            "prompt-no",
            () -> {
              close();
              answer.complete(false);
            });
    HBox buttons = Parts.row("choices", yes, no);
    VBox card =
        new VBox(
            Parts.label("Is this the right server?", "page-title"),
            explain,
            Parts.label("Host key, " + shown.shortType(), "field-title"),
            print,
            groups,
            Parts.label("No secret has been sent yet.", "quiet"),
            buttons);
    // The harmless answer has the focus: a stray Enter must not trust anybody.
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
  public void secret(String headline, String detail, CompletableFuture<char[]> answer) {
    PasswordField field = new PasswordField();
    field.setId("secret");
    field.setPrefColumnCount(28);
    Runnable give =
        () -> {
          char[] secret = take(field);
          close();
          answer.complete(secret);
        };
    field.setOnAction(event -> give.run());
    Button yes = Parts.button("Go on", "prompt-yes", give, "main");
    Button no =
        Parts.button(
            "Give up",
            "prompt-no",
            () -> {
              Arrays.fill(take(field), '\0');
              close();
              answer.complete(null);
            });
    Label explain = Parts.label(detail, "quiet");
    explain.setWrapText(true);
    open(
        new VBox(
            Parts.label(headline, "page-title"), field, explain, Parts.row("choices", yes, no)),
        field);
  }

  /** The field's letters; the field itself is emptied. */
  private static char[] take(PasswordField field) {
    CharSequence letters = field.getCharacters();
    char[] secret = new char[letters.length()];
    for (int i = 0; i < secret.length; i++) {
      secret[i] = letters.charAt(i);
    }
    field.clear();
    return secret;
  }
}
