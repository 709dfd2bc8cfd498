package zander.core.edit;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import zander.core.edit.FieldText.Stop;

class FieldTextTest {
  @Test
  void fieldsAreFilledAndOtherBracesStay() {
    String text = "<title>{{title}}</title> {{date}} {{title}} {{ x }} {{$v}} {a} {{}}.";
    assertThat(FieldText.fields(text)).containsExactly("title", "date");
    assertThat(FieldText.fill(text, Map.of("title", "Alder $1 \\", "date", "2026-11-30")))
        .isEqualTo("<title>Alder $1 \\</title> 2026-11-30 Alder $1 \\ {{ x }} {{$v}} {a} .");
  }

  @Test
  void stopsAreWhereTheNamesStandAndTheCursorRestsLast() {
    FieldText.Placed placed =
        FieldText.place("location {{path}} {\n  {{}}\n  root {{folder}};\n}", "  ");
    assertThat(placed.text()).isEqualTo("location path {\n    \n    root folder;\n  }");
    assertThat(placed.stops())
        .isEqualTo(
            List.of(
                new Stop(placed.text().indexOf("path"), "path"),
                new Stop(placed.text().indexOf("folder"), "folder"),
                new Stop(placed.text().indexOf('\n') + 5, "")));
    assertThat(FieldText.place("plain", "").stops()).containsExactly(new Stop(5, ""));
  }
}
