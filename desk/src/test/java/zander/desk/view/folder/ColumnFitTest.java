package zander.desk.view.folder;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import zander.desk.folder.Column;

class ColumnFitTest {
  private static Map<Column, Double> all() {
    Map<Column, Double> widths = new EnumMap<>(Column.class);
    for (Column column : Column.values()) {
      widths.put(column, 100.0);
    }
    return widths;
  }

  @Test
  void leavesOutInASaidOrderAndNeverTheName() {
    assertThat(ColumnFit.leftOut(all(), 700)).isEmpty();
    assertThat(ColumnFit.leftOut(all(), 699)).containsExactly(Column.GROUP);
    assertThat(ColumnFit.leftOut(all(), 500)).containsExactlyInAnyOrder(Column.GROUP, Column.OWNER);
    assertThat(ColumnFit.leftOut(all(), 10))
        .containsExactlyInAnyOrderElementsOf(ColumnFit.FOLDS)
        .doesNotContain(Column.NAME, Column.MODE, Column.NOTES);
  }

  @Test
  void whatAPersonHidAnywayTakesNoRoom() {
    Map<Column, Double> widths = all();
    widths.remove(Column.GROUP);
    assertThat(ColumnFit.leftOut(widths, 600)).isEmpty();
    assertThat(ColumnFit.leftOut(widths, 590)).containsExactly(Column.OWNER);
  }

  @Test
  void noTextIsCutWithinItsBounds() {
    double web = ColumnFit.width(List.of("web"), 62, 190);
    double longer = ColumnFit.width(List.of("web", "www-data-north"), 62, 190);
    assertThat(web).isEqualTo(62);
    assertThat(longer).isBetween(100.0, 190.0);
    assertThat(ColumnFit.width(List.of("w".repeat(200)), 62, 190)).isEqualTo(190);
  }
}
