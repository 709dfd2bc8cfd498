package zander.desk.sheet;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;
import zander.desk.sheet.TabNames.Cut;

class TabNamesTest {
  @Test
  void equalNamesAreToldByWhatDiffers() {
    assertThat(
            TabNames.apart(
                List.of("127.0.0.1", "127.0.0.1", "lab-box", "127.0.0.1"),
                List.of("a@127.0.0.1", "a@127.0.0.1:2222", "warden@lab-box", "a@127.0.0.1")))
        .containsExactly("a@127.0.0.1", "a@127.0.0.1:2222", "lab-box", "a@127.0.0.1 2");
    assertThat(TabNames.apart(List.of("levels", "levels"), List.of("a@levels", "a@levels")))
        .containsExactly("levels", "levels 2");
  }

  @Test
  void aNameIsCutWhereTheOthersAreAlike() {
    assertThat(TabNames.cut(List.of("short", "levels-web-one"), 0, 8)).isEqualTo(Cut.END);
    List<String> ends = List.of("levels-web-one", "levels-web-two");
    assertThat(TabNames.cut(ends, 0, 8)).isEqualTo(Cut.START);
    List<String> fronts = List.of("one-levels-web", "two-levels-web");
    assertThat(TabNames.cut(fronts, 1, 8)).isEqualTo(Cut.END);
    List<String> both = List.of("one-levels-a", "one-levels-b", "two-levels-a", "two-levels-b");
    assertThat(TabNames.cut(both, 2, 9)).isEqualTo(Cut.MIDDLE);
  }
}
