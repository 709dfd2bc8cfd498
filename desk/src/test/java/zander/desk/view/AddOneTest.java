package zander.desk.view;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.stream.Collectors;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import zander.desk.Window;
import zander.desk.sheet.Action;
import zander.desk.sheet.Sheet;
import zander.desk.view.part.SheetView;

/**
 * One of each is added in one place: an action to the list of actions, a kind of sheet to that of
 * views. A setting is added in {@code SettingsTest}.
 */
class AddOneTest {
  private static final Path README = Path.of("../README.md");
  private static final String BEGIN = "see docs/CONTRIBUTING.md -->\n";
  private static final String END = "<!-- end of keys -->";

  @TempDir Path folder;
  private Window window;
  private MainView main;

  @BeforeEach
  void open() throws Exception {
    window = new Window(folder);
    main = (MainView) window.stage.getScene().getRoot();
    window.openLevelsWeb();
  }

  @AfterEach
  void close() throws Exception {
    window.close();
  }

  @Test
  void anActionHasItsKeyAndIsFoundByItsName() throws Exception {
    AtomicInteger floods = new AtomicInteger();
    AtomicInteger never = new AtomicInteger();
    Window.inWindow(
        () -> {
          main.actions().add(new Action("Raise the alarm", "Ctrl+F9", floods::incrementAndGet));
          main.actions()
              .add(
                  new Action(
                      "Raise nothing", "", never::incrementAndGet, () -> "the river is low"));
          return null;
        });
    window.push(KeyCode.CONTROL, KeyCode.F9);
    window.until("its key does it", () -> floods.get() == 1);
    window.push(KeyCode.CONTROL, KeyCode.G);
    window.write("raise the al");
    window.push(KeyCode.ENTER);
    window.until("its name does it", () -> floods.get() == 2);
    window.push(KeyCode.CONTROL, KeyCode.G);
    window.write("raise nothing");
    window.until(
        "why not is told",
        () ->
            window.lookup(".label").queryAllAs(Label.class).stream()
                .anyMatch(label -> label.getText().contains("the river is low")));
    window.push(KeyCode.ENTER);
    window.push(KeyCode.ESCAPE);
    assertThat(never).hasValue(0);
  }

  private static final class GaugeSheet extends Sheet {
    GaugeSheet() {
      setTitle("Gauge");
    }
  }

  private record GaugeView(Label node) implements SheetView {
    @Override
    public void takeFocus() {}
  }

  @Test
  void aKindOfSheetIsShownInItsView() throws Exception {
    GaugeSheet gauge = new GaugeSheet();
    Window.inWindow(
        () -> {
          main.view(window.desk())
              .sheetViews()
              .shows(GaugeSheet.class, sheet -> new GaugeView(new Label("2.48 m at Long Reach")));
          window.desk().openSheets().show(gauge);
          return null;
        });
    window.until("it is shown", () -> isShown("2.48 m at Long Reach"));
    assertThat(isShown("Gauge")).as("its tab").isTrue();
    window.push(KeyCode.CONTROL, KeyCode.W);
    window.until("it is closed", () -> !window.desk().sheets().contains(gauge));
    assertThat(window.desk().currentProperty().get()).isSameAs(window.desk().folder());
  }

  private boolean isShown(String words) {
    return window.lookup(".label").queryAllAs(Label.class).stream()
        .filter(Node::isVisible)
        .anyMatch(label -> label.getText().equals(words));
  }

  /** The table of keys in the README is the list of actions. */
  @Test
  void theReadmeHasEveryKey() throws Exception {
    String table = Window.inWindow(() -> table(main.actions().all()));
    String readme = Files.readString(README);
    int begin = readme.indexOf(BEGIN) + BEGIN.length();
    int end = readme.indexOf(END);
    if (Boolean.getBoolean("readme.write")) {
      Files.writeString(README, readme.substring(0, begin) + table + readme.substring(end));
    } else {
      assertThat(readme.substring(begin, end)).isEqualTo(table);
    }
  }

  /** In two columns, so that it is not twice as long. */
  private static String table(List<Action> actions) {
    List<String> cells =
        actions.stream()
            .filter(action -> !action.key().isEmpty())
            .map(action -> action.key() + " | " + lower(action.name()))
            .collect(Collectors.toCollection(ArrayList::new));
    int half = (cells.size() + 1) / 2;
    StringBuilder table = new StringBuilder("| key | does | key | does |\n|---|---|---|---|\n");
    for (int i = 0; i < half; i++) {
      String right = half + i < cells.size() ? cells.get(half + i) : " | ";
      table.append("| ").append(cells.get(i)).append(" | ").append(right).append(" |\n");
    }
    return table.toString();
  }

  private static String lower(String name) {
    return Character.toLowerCase(name.charAt(0)) + name.substring(1);
  }
}
