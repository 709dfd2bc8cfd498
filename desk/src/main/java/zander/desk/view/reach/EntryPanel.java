package zander.desk.view.reach;

import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;
import zander.core.book.MarkedFolder;
import zander.core.book.ServerEntry;
import zander.core.book.SignIn;
import zander.desk.model.AppModel;
import zander.desk.reach.BookModel.Row;
import zander.desk.view.part.Parts;
import zander.desk.words.Words;

/** What the book has about one server, and what can be done with it. */
final class EntryPanel extends VBox {
  private static final Words WORDS = Words.of(EntryPanel.class);

  EntryPanel(AppModel model, Row row) {
    getStyleClass().add("page");
    ServerEntry entry = row.entry();
    HBox head = Parts.row("page-head", Parts.label(entry.name(), "page-title"));
    head.getChildren().addAll(BookList.tags(entry));
    GridPane facts = new GridPane();
    facts.getStyleClass().add("entry-facts");
    fact(facts, WORDS.say("address"), entry.address().toString(), true);
    fact(facts, WORDS.say("jumpHosts"), String.join(WORDS.say("then"), entry.jump()), false);
    fact(facts, WORDS.say("signsInBy"), ways(entry.signIn()), false);
    fact(
        facts,
        WORDS.say("startFolder"),
        entry.landing() == null ? WORDS.say("home") : entry.landing(),
        entry.landing() != null);
    fact(facts, WORDS.say("localFolder"), entry.local(), true);
    fact(facts, WORDS.say("servedBy"), entry.service(), false);
    fact(facts, WORDS.say("note"), entry.note(), false);
    getChildren().addAll(head, actions(model, row), facts);
    if (!entry.folders().isEmpty()) {
      GridPane folders = new GridPane();
      folders.getStyleClass().add("entry-facts");
      for (MarkedFolder folder : entry.folders()) {
        String with =
            (folder.local() == null ? "" : WORDS.say("with", folder.local()))
                + (folder.address() == null ? "" : WORDS.say("seenAt", folder.address()));
        fact(folders, folder.name(), folder.path() + with, true);
      }
      getChildren().addAll(Parts.label(WORDS.say("markedFolders"), "field-title"), folders);
    }
  }

  private static HBox actions(AppModel model, Row row) {
    Button open =
        Parts.button(WORDS.say("open"), "open-entry", () -> model.open(row.entry()), "main");
    Button duplicate =
        Parts.button(WORDS.say("duplicate"), "duplicate-entry", () -> model.book().duplicate(row));
    return switch (row.source()) {
      case REMOVED ->
          Parts.row(
              "choices",
              Parts.button(
                  WORDS.say("putBack"), "put-back", () -> model.book().putBack(row), "main"));
      case CONFIG ->
          Parts.row(
              "choices",
              open,
              Parts.button(
                  WORDS.say("copyIntoTheBook"), "edit-entry", () -> model.book().edit(row)));
      default ->
          Parts.row(
              "choices",
              open,
              Parts.button(WORDS.say("edit"), "edit-entry", () -> model.book().edit(row)),
              duplicate,
              Parts.spring(),
              Parts.button(WORDS.say("remove"), "remove-entry", () -> model.book().remove(row)));
    };
  }

  static String ways(SignIn signIn) {
    StringBuilder text = new StringBuilder();
    if (signIn.keyFile() != null) {
      text.append(WORDS.say("key")).append(signIn.keyFile());
    }
    if (signIn.certificate() != null) {
      text.append(WORDS.say("certificate")).append(signIn.certificate());
    }
    if (signIn.triesAgent()) {
      text.append(
          text.length() == 0 ? WORDS.say("theAgentsKeys") : WORDS.say("thenTheAgentsOther"));
    }
    if (signIn.triesPassword()) {
      text.append(
          text.length() == 0
              ? WORDS.say("passwordOrQuestions")
              : WORDS.say("thenPasswordOrQuestions"));
    }
    return text.length() == 0 ? WORDS.say("nothingYetChooseA") : text.toString();
  }

  private static void fact(GridPane grid, String name, @Nullable String value, boolean mono) {
    if (value == null || value.isBlank()) {
      return;
    }
    Label shown = Parts.label(value, mono ? "mono" : "plain");
    shown.setWrapText(true);
    grid.addRow(grid.getRowCount(), Parts.label(name, "quiet"), shown);
  }
}
