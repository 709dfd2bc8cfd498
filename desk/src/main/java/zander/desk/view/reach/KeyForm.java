package zander.desk.view.reach;

import java.util.Arrays;
import java.util.Locale;
import java.util.function.Consumer;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.PasswordField;
import javafx.scene.control.TextField;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;
import zander.core.connect.keys.KeyMaker;
import zander.core.connect.keys.KeyStrength;
import zander.core.work.SecretBytes;
import zander.desk.reach.KeysModel;
import zander.desk.view.part.Parts;
import zander.desk.words.Words;
import zander.desk.work.Message;

/** Making a key pair. */
final class KeyForm extends VBox {
  private static final Words WORDS = Words.of(KeyForm.class);

  private final KeysModel keys;
  private final TextField name = new TextField("id_ed25519");
  private final TextField comment =
      new TextField(System.getProperty("user.name") + "@" + hostName());
  private final PasswordField passphrase = new PasswordField();
  private final PasswordField again = new PasswordField();
  private final Label strength = Parts.label("", "quiet");
  private final Label problem = Parts.label("", "problem");
  private KeyMaker.Kind kind = KeyMaker.Kind.ED25519;

  KeyForm(KeysModel keys, Consumer<KeysModel.Row> made, Runnable cancelled) {
    this.keys = keys;
    getStyleClass().addAll("page", "form");
    name.setId("key-name");
    comment.setId("key-comment");
    passphrase.setId("key-passphrase");
    again.setId("key-again");
    passphrase.setPromptText(WORDS.say("emptyNone"));
    passphrase.textProperty().addListener(observed -> rate());
    GridPane grid = new GridPane();
    grid.getStyleClass().add("form-grid");
    row(grid, WORDS.say("kind"), kinds(), Parts.label(WORDS.say("ed25519IsRightUnless"), "quiet"));
    row(
        grid,
        WORDS.say("file"),
        name,
        Parts.label(WORDS.say("in", keys.shown(keys.folder())), "mono", "quiet"));
    row(grid, WORDS.say("comment"), comment, Parts.label(WORDS.say("tellsYouLaterWhose"), "quiet"));
    row(grid, WORDS.say("passphrase"), passphrase, strength);
    row(grid, WORDS.say("again"), again, null);
    Button make = Parts.button(WORDS.say("createKey"), "make-it", () -> make(made), "main");
    make.disableProperty().bind(keys.busyProperty());
    getChildren()
        .addAll(
            Parts.label(WORDS.say("newKey"), "page-title"),
            grid,
            problem,
            Parts.row("choices", make, Parts.button(WORDS.say("cancel"), "cancel-key", cancelled)));
    keys.noticeProperty().addListener((observed, old, now) -> tell(now));
    rate();
  }

  private static String hostName() {
    String host = System.getenv("HOSTNAME");
    return host == null || host.isBlank() ? "desk" : host;
  }

  private static void row(GridPane grid, String words, Node field, @Nullable Node beside) {
    int at = grid.getRowCount();
    grid.add(Parts.label(words, "quiet"), 0, at);
    grid.add(field, 1, at);
    if (beside != null) {
      grid.add(beside, 2, at);
    }
  }

  private HBox kinds() {
    HBox kinds = Parts.row("marks");
    for (KeyMaker.Kind one : KeyMaker.Kind.values()) {
      String word = one.name().toLowerCase(Locale.ROOT);
      Button button = Parts.button(word, "kind-" + word, () -> choose(one, kinds), "box", "wide");
      button.setUserData(one);
      kinds.getChildren().add(button);
    }
    choose(kind, kinds);
    return kinds;
  }

  private void choose(KeyMaker.Kind chosen, HBox kinds) {
    String before = "id_" + kind.name().toLowerCase(Locale.ROOT);
    kind = chosen;
    if (name.getText().equals(before)) {
      name.setText("id_" + kind.name().toLowerCase(Locale.ROOT));
    }
    for (Node button : kinds.getChildren()) {
      button.getStyleClass().remove("on");
      if (button.getUserData() == kind) {
        button.getStyleClass().add("on");
      }
    }
  }

  private void rate() {
    char[] letters = SecretFields.letters(passphrase);
    strength.setText(
        switch (KeyStrength.of(letters)) {
          case NONE -> WORDS.say("noneWhoeverHasThe");
          case WEAK -> WORDS.say("weakGuessedQuickly");
          case FAIR -> WORDS.say("fairAFewWords");
          case GOOD -> WORDS.say("good");
          case STRONG -> WORDS.say("strong");
        });
    SecretBytes.wipe(letters);
  }

  private void make(Consumer<KeysModel.Row> made) {
    char[] first = SecretFields.letters(passphrase);
    char[] second = SecretFields.letters(again);
    boolean same = Arrays.equals(first, second);
    SecretBytes.wipe(second);
    if (!same) {
      SecretBytes.wipe(first);
      problem.setText(WORDS.say("theTwoPassphrasesAre"));
      return;
    }
    problem.setText("");
    passphrase.clear();
    again.clear();
    keys.make(kind, comment.getText(), first, name.getText().strip(), made);
  }

  private void tell(Message said) {
    problem.setText(said == null ? "" : said.headline() + ". " + said.detail());
  }
}
