package zander.desk.view.reach;

import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import zander.core.book.MarkedFolder;
import zander.core.book.ServerEntry;
import zander.core.book.SignIn;
import zander.desk.model.AppModel;
import zander.desk.reach.BookModel.Row;
import zander.desk.view.part.Parts;

/** What the book has about one server, and what can be done with it. */
final class EntryPanel extends VBox {
  EntryPanel(AppModel model, Row row) {
    getStyleClass().add("page");
    ServerEntry entry = row.entry();
    HBox head = Parts.row("page-head", Parts.label(entry.name(), "page-title"));
    head.getChildren().addAll(BookList.tags(entry));
    GridPane facts = new GridPane();
    facts.getStyleClass().add("entry-facts");
    fact(facts, "Address", entry.address().toString(), true);
    fact(facts, "Jump hosts", String.join(", then ", entry.jump()), false);
    fact(facts, "Signs in by", ways(entry.signIn()), false);
    fact(
        facts,
        "Start folder",
        entry.landing() == null ? "home" : entry.landing(),
        entry.landing() != null);
    fact(facts, "Local folder", entry.local(), true);
    fact(facts, "Served by", entry.service(), false);
    fact(facts, "Note", entry.note(), false);
    getChildren().addAll(head, actions(model, row), facts);
    if (!entry.folders().isEmpty()) {
      GridPane folders = new GridPane();
      folders.getStyleClass().add("entry-facts");
      for (MarkedFolder folder : entry.folders()) {
        String with =
            (folder.local() == null ? "" : "  with  " + folder.local())
                + (folder.address() == null ? "" : "  seen at  " + folder.address());
        fact(folders, folder.name(), folder.path() + with, true);
      }
      getChildren().addAll(Parts.label("Marked folders", "field-title"), folders);
    }
  }

  private static HBox actions(AppModel model, Row row) {
    Button open = Parts.button("Open", "open-entry", () -> model.open(row.entry()), "main");
    Button duplicate =
        Parts.button("Duplicate", "duplicate-entry", () -> model.book().duplicate(row));
    return switch (row.source()) {
      case REMOVED ->
          Parts.row(
              "choices",
              Parts.button("Put back", "put-back", () -> model.book().putBack(row), "main"));
      case CONFIG ->
          Parts.row(
              "choices",
              open,
              Parts.button("Copy into the book", "edit-entry", () -> model.book().edit(row)));
      default ->
          Parts.row(
              "choices",
              open,
              Parts.button("Edit", "edit-entry", () -> model.book().edit(row)),
              duplicate,
              Parts.spring(),
              Parts.button("Remove", "remove-entry", () -> model.book().remove(row)));
    };
  }

  static String ways(SignIn signIn) {
    StringBuilder text = new StringBuilder();
    if (signIn.keyFile() != null) {
      text.append("key ").append(signIn.keyFile());
    }
    if (signIn.certificate() != null) {
      text.append(", certificate ").append(signIn.certificate());
    }
    if (signIn.agent()) {
      text.append(text.length() == 0 ? "the agent's keys" : ", then the agent's other keys");
    }
    if (signIn.password()) {
      text.append(text.length() == 0 ? "password or questions" : ", then password or questions");
    }
    return text.length() == 0 ? "nothing yet: choose a key, or allow a password" : text.toString();
  }

  private static void fact(GridPane grid, String name, String value, boolean mono) {
    if (value == null || value.isBlank()) {
      return;
    }
    Label shown = Parts.label(value, mono ? "mono" : "plain");
    shown.setWrapText(true);
    grid.addRow(grid.getRowCount(), Parts.label(name, "quiet"), shown);
  }
}
