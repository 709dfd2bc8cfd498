package zander.desk.view.part;

import java.util.function.Supplier;
import java.util.stream.Collectors;
import javafx.beans.binding.Bindings;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.StringProperty;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import zander.core.listing.Narrowing;
import zander.desk.words.Phrases;
import zander.desk.words.Words;

/** The field that narrows a table, and the line that says what was understood. */
public final class NarrowField extends TextField {
  private static final Words WORDS = Words.of(NarrowField.class);

  private static final String FORMS = WORDS.say("textConfOwnerRoot");

  private final ReadOnlyObjectProperty<Narrowing> narrowing;
  private final Supplier<String> counts;
  private final Label explained = Parts.label("", "explained");

  /**
   * @param counts how many of how many are shown
   */
  public NarrowField(
      String id,
      StringProperty typed,
      ReadOnlyObjectProperty<Narrowing> narrowing,
      Supplier<String> counts) {
    this.narrowing = narrowing;
    this.counts = counts;
    setId(id);
    setPromptText(WORDS.say("narrowTheList"));
    textProperty().bindBidirectional(typed);
    prefWidthProperty()
        .bind(
            Bindings.when(focusedProperty().or(textProperty().isNotEmpty()))
                .then(300)
                .otherwise(150));
    setMinWidth(110);
    explained.setMaxWidth(Double.MAX_VALUE);
    narrowing.addListener((observed, old, now) -> explain());
    focusedProperty().addListener((observed, old, now) -> explain());
    explain();
  }

  public Label explained() {
    return explained;
  }

  public void explain() {
    Narrowing now = narrowing.get();
    boolean asking = isFocused() && now.isEmpty();
    Parts.show(explained, asking || !now.isEmpty());
    Tables.mark(explained, "problem", !asking && now.problem() != null);
    if (asking) {
      explained.setText(FORMS);
    } else if (now.problem() != null) {
      explained.setText(Phrases.say(now.problem()));
    } else {
      explained.setText(
          WORDS.say(
              "onlyWhatFitsAll",
              now.meanings().stream().map(Phrases::say).collect(Collectors.joining("  ·  ")),
              counts.get()));
    }
  }
}
