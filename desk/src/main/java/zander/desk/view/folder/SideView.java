package zander.desk.view.folder;

import java.util.stream.Collectors;
import java.util.stream.Stream;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import zander.core.book.MarkedFolder;
import zander.core.files.RemotePath;
import zander.desk.model.DeskModel;
import zander.desk.view.part.Parts;
import zander.desk.words.Words;

/** The left side of a desk: its marked folders, and who one is there. */
public final class SideView extends VBox {
  private static final Words WORDS = Words.of(SideView.class);

  private final DeskModel desk;
  private final VBox folders = new VBox();

  public SideView(DeskModel desk) {
    this.desk = desk;
    getStyleClass().add("side");
    folders.getStyleClass().add("marked");
    fill();
    desk.subscriptions().on(desk.marked().changesProperty(), now -> fill());
    Region spring = new Region();
    VBox.setVgrow(spring, Priority.ALWAYS);
    Label facts = Parts.label("", "quiet");
    facts.setWrapText(true);
    getChildren()
        .addAll(
            Parts.label(WORDS.say("markedFolders"), "field-title"),
            folders,
            spring,
            Parts.row(
                "who",
                Parts.label(
                    desk.actsAs() == null ? WORDS.say("signedInAs") : WORDS.say("actingAs"),
                    "quiet"),
                Parts.label(desk.whoAmI().account(), "strong-word")),
            facts);
    desk.line().delayProperty().addListener((observed, old, now) -> facts.setText(facts()));
    desk.line().awayProperty().addListener((observed, old, now) -> facts.setText(facts()));
    facts.setText(facts());
    desk.folder().pathProperty().addListener((observed, old, now) -> markCurrent(now));
    markCurrent(desk.folder().path());
  }

  private void fill() {
    folders.getChildren().clear();
    for (MarkedFolder folder : desk.marked().all()) {
      folders.getChildren().add(row(folder.name(), RemotePath.of(folder.path())));
    }
    folders.getChildren().add(row(WORDS.say("home"), desk.whoAmI().home()));
    markCurrent(desk.folder().path());
  }

  private Button row(String name, RemotePath path) {
    Label path1 = Parts.label(path.text(), "mono", "quiet", "marked-path");
    VBox lines = new VBox(Parts.label(name, "marked-name"), path1);
    Button row = Parts.button("", null, () -> desk.goWithPartner(path), "marked-row");
    row.setGraphic(lines);
    row.setUserData(path);
    row.setMaxWidth(Double.MAX_VALUE);
    row.setAccessibleText(name + ", " + path.text());
    return row;
  }

  private void markCurrent(RemotePath at) {
    for (javafx.scene.Node row : folders.getChildren()) {
      row.getStyleClass().remove("current");
      if (row.getUserData().equals(at)) {
        row.getStyleClass().add("current");
      }
    }
  }

  private String facts() {
    if (desk.line().awayProperty().get()) {
      return WORDS.say("awaySinceTheLine");
    }
    Long delay = desk.line().delayProperty().get();
    String key =
        desk.keyType().isEmpty() ? WORDS.say("password") : WORDS.say("key", desk.keyType());
    String pace = delay == null ? "" : delay == 0 ? WORDS.say("under1Ms") : WORDS.say("ms", delay);
    int uid = desk.whoAmI().uid();
    return Stream.of(
            joined(uid < 0 ? "" : WORDS.say("uid", uid), String.join(", ", desk.whoAmI().groups())),
            joined(key, pace),
            desk.entry().jump().isEmpty()
                ? ""
                : WORDS.say("through", String.join(", ", desk.entry().jump())),
            desk.entry().signIn().allowsOldAlgorithms() ? WORDS.say("oldAlgorithmsAllowed") : "",
            desk.hasNoShell() ? WORDS.say("noShellFilesOnly") : "")
        .filter(line -> !line.isEmpty())
        .collect(Collectors.joining("\n"));
  }

  private static String joined(String one, String other) {
    return one.isEmpty() || other.isEmpty() ? one + other : one + " · " + other;
  }
}
