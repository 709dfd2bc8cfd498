package zander.desk.view;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import org.kordamp.ikonli.feather.Feather;
import zander.desk.file.FileModel;
import zander.desk.model.DeskModel;
import zander.desk.sheet.Sheet;
import zander.desk.sheet.TabNames;
import zander.desk.view.part.Parts;
import zander.desk.view.part.TabStrip;
import zander.desk.view.part.Tables;
import zander.desk.words.Words;

/**
 * The tabs of a desk's sheets. A tab is made once for what it says and kept while it says that:
 * tabs that are made anew are styled anew, which a person with many sheets would wait for.
 */
final class SheetTabs {
  private static final Words WORDS = Words.of(SheetTabs.class);

  private record Made(String words, boolean unsaved, HBox node, Label name, Button button) {}

  private final DeskModel model;
  private final TabStrip strip = new TabStrip("all-sheets", WORDS.say("allSheets"), 4);
  private final HBox row = Parts.row("sheet-tabs", strip);
  private Map<Sheet, Made> shown = new HashMap<>();

  SheetTabs(DeskModel model) {
    this.model = model;
    HBox.setHgrow(strip, Priority.ALWAYS);
  }

  Node row() {
    return row;
  }

  void show() {
    List<Sheet> seen = new ArrayList<>(model.sheets());
    seen.removeAll(model.shells().shells());
    List<String> names =
        TabNames.apart(
            seen.stream().map(sheet -> sheet.titleProperty().get()).toList(),
            seen.stream().map(SheetTabs::longer).toList());
    Map<Sheet, Made> now = new HashMap<>();
    List<TabStrip.Tab> tabs = new ArrayList<>();
    for (int i = 0; i < seen.size(); i++) {
      Sheet sheet = seen.get(i);
      Made made = tab(sheet, names.get(i));
      now.put(sheet, made);
      boolean current = sheet == model.currentProperty().get();
      Tables.mark(made.button, "current", current);
      tabs.add(new TabStrip.Tab(made.node, made.name, current, () -> choose(sheet)));
    }
    shown = now;
    strip.show(tabs);
  }

  private void choose(Sheet sheet) {
    model.currentProperty().set(sheet);
  }

  /** Two files of one name are told apart by their folders. */
  private static String longer(Sheet sheet) {
    return sheet instanceof FileModel file
        ? file.path().parent().name() + "/" + file.path().name()
        : sheet.titleProperty().get();
  }

  private Made tab(Sheet sheet, String words) {
    boolean unsaved = sheet.unsavedProperty().get();
    Made before = shown.get(sheet);
    return before != null && before.words.equals(words) && before.unsaved == unsaved
        ? before
        : make(sheet, words, unsaved);
  }

  private Made make(Sheet sheet, String words, boolean unsaved) {
    Label name = Parts.label(words);
    HBox content = Parts.row("tab-content", name);
    if (unsaved) {
      Label tag = Parts.label(WORDS.say("unsaved"), "tag", "look");
      tag.setMinWidth(HBox.USE_PREF_SIZE);
      content.getChildren().add(tag);
    }
    Button tab = Parts.button("", null, () -> choose(sheet), "sheet-tab");
    tab.setGraphic(content);
    tab.setAccessibleText(words);
    HBox all = Parts.row("tab-with-close", tab);
    if (sheet != model.folder()) {
      all.getChildren()
          .add(
              Parts.iconButton(
                  Feather.X,
                  WORDS.say("closeNamed", words),
                  () -> model.close(sheet),
                  "tab-close"));
    }
    return new Made(words, unsaved, all, name, tab);
  }
}
