package zander.desk.view;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;
import zander.desk.sheet.Action;

/** The order of what the go-to field offers. */
class GotoViewTest {
  private static final List<Action> OFFERS =
      List.of(
          new Action("/srv/levels/site", "", () -> {}),
          new Action("Save to server", "Ctrl+S", () -> {}, () -> "nothing is unsaved in front"),
          new Action("Send up", "Ctrl+Up", () -> {}),
          new Action("Server levels-web", "", () -> {}));

  private static List<String> names(String typed, String... recent) {
    return GotoView.matching(OFFERS, List.of(recent), typed).stream().map(Action::name).toList();
  }

  @Test
  void recentFirstAndImpossibleLast() {
    assertThat(names("", "Server levels-web", "Send up"))
        .containsExactly("Server levels-web", "Send up", "/srv/levels/site", "Save to server");
  }

  @Test
  void lettersInTheirOrderTheBetterMatchFirst() {
    assertThat(names("ser")).containsExactly("Server levels-web", "Save to server");
    assertThat(names("seup")).containsExactly("Send up");
    assertThat(names("zzz")).isEmpty();
  }
}
