package zander.desk.view.part;

import java.util.EnumMap;
import java.util.Map;
import javafx.scene.control.Button;
import javafx.scene.layout.HBox;
import zander.desk.reach.KeepSecret;
import zander.desk.words.Words;

/** How long a secret is kept: three words of which one is in force. */
public final class KeepChoice extends HBox {
  private static final Words WORDS = Words.of(KeepChoice.class);

  private final Map<KeepSecret, Button> buttons = new EnumMap<>(KeepSecret.class);
  private KeepSecret chosen;

  public KeepChoice(KeepSecret preset) {
    getStyleClass().add("marks");
    getChildren().add(Parts.label(WORDS.say("remember"), "quiet"));
    for (KeepSecret keep : KeepSecret.values()) {
      String words =
          switch (keep) {
            case NOW -> WORDS.say("no");
            case DESK -> WORDS.say("whileTheDeskIs");
            case VAULT -> WORDS.say("inTheVault");
          };
      Button button =
          Parts.button(
              words,
              "keep-" + keep.name().toLowerCase(java.util.Locale.ROOT),
              () -> choose(keep),
              "box",
              "keep");
      buttons.put(keep, button);
      getChildren().add(button);
    }
    choose(preset);
  }

  private void choose(KeepSecret keep) {
    chosen = keep;
    buttons.forEach(
        (one, button) -> {
          button.getStyleClass().remove("on");
          if (one == keep) {
            button.getStyleClass().add("on");
          }
        });
  }

  public KeepSecret chosen() {
    return chosen;
  }
}
