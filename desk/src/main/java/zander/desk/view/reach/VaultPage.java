package zander.desk.view.reach;

import javafx.collections.ListChangeListener;
import javafx.scene.control.Label;
import javafx.scene.control.PasswordField;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import zander.desk.kept.VaultKey;
import zander.desk.reach.VaultModel;
import zander.desk.reach.VaultModel.State;
import zander.desk.view.part.Parts;
import zander.desk.words.Words;

/** The vault: what it is, whether it is open, and what is kept in it. */
final class VaultPage extends VBox {
  private static final Words WORDS = Words.of(VaultPage.class);

  private final VaultModel vault;

  VaultPage(VaultModel vault) {
    this.vault = vault;
    getStyleClass().add("page");
    vault.stateProperty().addListener((observed, old, now) -> show());
    vault.problemProperty().addListener((observed, old, now) -> show());
    vault.names().addListener((ListChangeListener<String>) change -> show());
    show();
  }

  private void show() {
    State state = vault.stateProperty().get();
    getChildren().clear();
    getChildren()
        .add(
            Parts.label(
                switch (state) {
                  case NONE -> WORDS.say("noVaultYet");
                  case LOCKED -> WORDS.say("theVaultIsLocked");
                  case OPEN -> WORDS.say("theVaultIsOpen");
                },
                "page-title"));
    getChildren().add(wrapped(WORDS.say("passwordsAndPassphrases")));
    getChildren().add(Parts.label(vault.file().toString(), "mono", "quiet"));
    if (state == State.OPEN) {
      showNames();
    } else {
      getChildren().add(opening(state));
    }
    if (!vault.problemProperty().get().isEmpty()) {
      getChildren().add(Parts.label(vault.problemProperty().get(), "problem"));
    }
  }

  private static Label wrapped(String text) {
    Label label = Parts.label(text, "quiet");
    label.setWrapText(true);
    return label;
  }

  private HBox opening(State state) {
    PasswordField master = new PasswordField();
    master.setId("master");
    master.setPrefColumnCount(24);
    master.setPromptText(WORDS.say("masterPassphrase"));
    HBox row = Parts.row("typed", master);
    Runnable open = () -> vault.open(SecretFields.take(master));
    if (state == State.NONE) {
      PasswordField again = new PasswordField();
      again.setId("master-again");
      again.setPrefColumnCount(24);
      again.setPromptText(WORDS.say("again"));
      row.getChildren().add(again);
      open = () -> vault.make(SecretFields.take(master), SecretFields.take(again));
      again.setOnAction(event -> vault.make(SecretFields.take(master), SecretFields.take(again)));
      master.setOnAction(event -> again.requestFocus());
    } else {
      master.setOnAction(event -> vault.open(SecretFields.take(master)));
    }
    String words = state == State.NONE ? WORDS.say("createVault") : WORDS.say("open");
    row.getChildren().add(Parts.button(words, "open-vault", open, "main"));
    return row;
  }

  private void showNames() {
    if (vault.names().stream().allMatch(VaultKey.NAME::equals)) {
      getChildren().add(wrapped(WORDS.say("noSecretIsKept")));
    }
    for (String name : vault.names()) {
      // What is sealed with it could never be opened again: that is emptied where it is kept.
      boolean mayGo = !name.equals(VaultKey.NAME);
      getChildren()
          .add(
              Parts.row(
                  "vault-row",
                  Parts.label(name, "mono"),
                  Parts.spring(),
                  mayGo
                      ? Parts.button(
                          WORDS.say("forget"), "forget-" + name, () -> vault.remove(name))
                      : Parts.label(WORDS.say("seeKeptHere"), "quiet")));
    }
    getChildren()
        .add(Parts.row("choices", Parts.button(WORDS.say("lock"), "lock-vault", vault::lock)));
  }
}
