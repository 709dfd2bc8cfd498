package zander.desk;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.List;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import zander.core.change.PutBack;
import zander.core.files.RemotePath;
import zander.core.journal.ChangeKind;
import zander.core.journal.JournalEntry;
import zander.core.rights.Mode;
import zander.desk.folder.FolderModel;
import zander.desk.history.EntryWords;
import zander.desk.rights.AccessListModel;
import zander.desk.rights.AccessModel;
import zander.desk.sheet.Question;
import zander.desk.view.part.NameCompletion;

/** Who can reach a file: asked in the panel, told with what stops them, and opened. */
class ReachOfFileInTheWindowTest {
  @TempDir Path folder;
  private Window window;

  @BeforeEach
  void open() throws Exception {
    window = new Window(folder);
    window.openLevelsWeb();
    // All of the panel is seen then.
    window.press("#fold");
    window.choose("#server-table", "alerts.html");
    window.press("#access-open");
  }

  @AfterEach
  void close() throws Exception {
    window.close();
  }

  private String answer() {
    return window.shownOrNull("#access-answer") instanceof Label label ? label.getText() : "";
  }

  private void untilAnswer(String words) {
    window.until(words, () -> answer().equals(words));
  }

  private AccessModel model() {
    return window.desk().rights().access();
  }

  @Test
  void theFirstThatStopsIsToldForEachDeedAndAccount() throws Exception {
    untilAnswer("web cannot read it.");
    assertThat(Window.inWindow(() -> model().steps().stream().map(model()::words).toList()))
        .containsExactly(
            "others may enter",
            "others may enter",
            "others may enter",
            "group web may enter",
            "others may not read");
    assertThat(Window.inWindow(() -> model().isStop(model().steps().get(4)))).isTrue();
    window.press("#access-delete");
    untilAnswer("web can delete it.");
    @SuppressWarnings("unchecked")
    ComboBox<String> accounts = (ComboBox<String>) window.shown("#access-account");
    assertThat(accounts.getItems()).startsWith("web", "root", "warden").contains("ingest");
    Window.inWindow(
        () -> {
          accounts.setValue("root");
          return null;
        });
    untilAnswer("root can delete it.");
    assertThat(window.text("#access-groups")).isEqualTo("Its groups: root.");
    window.choose("#server-table", "uploads");
    untilAnswer("root can delete it.");
    window.press("#access-read");
    untilAnswer("root can list it.");
  }

  @Test
  void theNarrowestCureIsMadeAsRootAndPutBack() throws Exception {
    window.until("it is offered", () -> window.shownOrNull("#access-cure-2") != null);
    var rows = Window.inWindow(() -> model().cures());
    assertThat(rows)
        .extracting(AccessModel.CureRow::what)
        .containsExactly(
            "Give alerts.html the group web.",
            "Set alerts.html to 0644, others may read.",
            "Add the access list entry u:web:r-- to alerts.html.");
    assertThat(rows.get(2).effect()).isEqualTo("Opens it to web alone.");
    window.press("#access-cure-2");
    window.giveThePassword("root");
    window.until(
        "it is in the journal",
        () ->
            window.desk().journal().entries().stream()
                .anyMatch(one -> one.kind() == ChangeKind.ACCESS_LIST && one.isDone()));
    window.choose("#server-table", "alerts.html");
    window.press("#access-open");
    untilAnswer("web can read it.");
    assertThat(Window.inWindow(() -> model().list().rows()))
        .extracting(AccessListModel.Row::words)
        .containsExactly("web r--");
    window.press("#access-remove-0");
    untilAnswer("web cannot read it.");
    window.press("#access-open");
    window.press("#put-back-0");
    window.until("it is put back", this::isPutBack);
    window.press("#access-open");
    untilAnswer("web can read it.");
    RemotePath file = RemotePath.of("/srv/levels/site/alerts.html");
    assertThat(window.desk().files().look(file).mode().octal()).isEqualTo("0640");
  }

  @Test
  void anEntryIsAddedToTheListByNameAndWhatElseDecidesIsTold() throws Exception {
    window.choose("#server-table", "contact.html");
    window.until("the line is there", () -> window.shownOrNull("#list-name") != null);
    window.fill("#list-name", "nobody-here");
    window.press("#list-add");
    assertThat(Window.inWindow(() -> model().list().problem()))
        .isEqualTo("no account nobody-here on this server");
    window.fill("#list-name", "ingest");
    window.press("#list-w");
    window.press("#list-add");
    window.until(
        "it is in the list",
        () -> model().list().rows().stream().anyMatch(row -> row.words().equals("ingest rw-")));
    window.choose("#server-table", "contact.html");
    untilAnswer("web can read it.");
    assertThat(Window.inWindow(() -> model().list().more()))
        .anyMatch(line -> line.startsWith("In group web: ") && line.contains("warden"));
    assertThat(NameCompletion.fitting(List.of("daemon", "deploy", "web", "the-web"), "we"))
        .containsExactly("web", "the-web");
  }

  @Test
  void anEntryIsAddedToAllThatIsInsideAndPutBack() throws Exception {
    RemotePath mine = RemotePath.of("/home/warden/shared");
    window.desk().files().makeFolder(mine, new Mode(0750));
    window.desk().files().makeFolder(mine.child("in"), new Mode(0750));
    window.desk().files().create(mine.child("in").child("level.txt"), new Mode(0640)).close();
    Window.inWindow(
        () -> {
          window.desk().goTo(mine.parent());
          return null;
        });
    window.until("it is listed", () -> window.desk().folder().rows().size() > 0);
    window.choose("#server-table", "shared");
    window.until("the line is there", () -> window.shownOrNull("#list-inside") != null);
    window.fill("#list-name", "ingest");
    window.press("#list-x");
    window.press("#list-inside");
    window.press("#list-add");
    FolderModel shown = window.desk().folder();
    window.until("it is asked", () -> asks(shown).startsWith("Add ingest r-x to"));
    assertThat(asks(shown)).contains("1 file and 2 folders below shared?");
    Window.inWindow(
        () -> {
          shown.questionProperty().get().choices().get(0).chosen().accept(false);
          return null;
        });
    window.until("it is set", () -> asks(shown).equals("3 access lists are set and read back"));
    assertThat(list(mine.child("in").child("level.txt"))).contains("ingest:r--");
    assertThat(list(mine.child("in"))).contains("ingest:r-x");
    JournalEntry made =
        window.desk().journal().entries().stream()
            .filter(one -> one.kind() == ChangeKind.ACCESS_LISTS_OF_TREE)
            .findFirst()
            .orElseThrow();
    assertThat(EntryWords.what(made, window.desk().files().names()))
        .isEqualTo("access list entry u:ingest:rX, on all in it");
    new PutBack(
            window.desk().files(),
            window.desk().commands(),
            window.desk().journal(),
            window.desk().home())
        .run(made, false);
    assertThat(list(mine.child("in").child("level.txt"))).doesNotContain("ingest");
  }

  private static String asks(FolderModel shown) {
    Question asked = shown.questionProperty().get();
    return asked == null ? "" : asked.said().headline();
  }

  private String list(RemotePath path) throws Exception {
    return new String(
        window.desk().commands().script("getfacl " + path).out(), StandardCharsets.UTF_8);
  }

  private boolean isPutBack() {
    return window.desk().journal().entries().stream()
        .anyMatch(one -> one.undoes() != 0 && one.isDone());
  }
}
