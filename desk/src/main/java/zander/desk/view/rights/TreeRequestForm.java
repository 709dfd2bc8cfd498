package zander.desk.view.rights;

import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.TextField;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import zander.desk.rights.tree.KindRule;
import zander.desk.rights.tree.TreeRequest;
import zander.desk.view.part.NameCompletion;
import zander.desk.view.part.Parts;
import zander.desk.words.Words;

/** What is asked of all that is in folders: owner and group, and the modes of files and folders. */
final class TreeRequestForm extends VBox implements RequestForm {
  private static final Words WORDS = Words.of(TreeRequestForm.class);

  private final TextField owner = new TextField();

  /**
   * @param names of the server
   * @param look what Enter does
   */
  TreeRequestForm(TreeRequest request, NameCompletion.Names names, Runnable look) {
    getStyleClass().add("tree-request");
    TextField group = new TextField();
    owner.setId("tree-owner");
    group.setId("tree-group");
    for (TextField field : new TextField[] {owner, group}) {
      field.setPromptText(WORDS.say("asItIs"));
      field.setOnAction(event -> look.run());
    }
    owner.textProperty().bindBidirectional(request.ownerProperty());
    group.textProperty().bindBidirectional(request.groupProperty());
    NameCompletion.on(owner, () -> names.of(false));
    NameCompletion.on(group, () -> names.of(true));
    CheckBox other = new CheckBox(WORDS.say("otherFileSystemsMounted"));
    other.setId("tree-mounts");
    other.selectedProperty().bindBidirectional(request.otherFileSystemsProperty());
    VBox ownerField = ModeBoxes.field(WORDS.say("ownerOfAll"), owner);
    VBox groupField = ModeBoxes.field(WORDS.say("groupOfAll"), group);
    for (VBox field : new VBox[] {ownerField, groupField}) {
      HBox.setHgrow(field, Priority.NEVER);
    }
    FlowPane first = new FlowPane(ownerField, groupField, other);
    first.getStyleClass().add("tree-owners");
    // One below the other where the window is narrow.
    FlowPane modes =
        new FlowPane(
            kind(WORDS.say("files"), request.files(), "files-", look),
            kind(WORDS.say("folders"), request.folders(), "folders-", look));
    modes.getStyleClass().add("tree-kinds");
    getChildren().addAll(first, modes);
  }

  private static VBox kind(String title, KindRule rule, String prefix, Runnable look) {
    Button leave =
        Parts.button(WORDS.say("leaveAsTheyAre"), prefix + "leave", rule::leave, "small");
    CheckBox keep = new CheckBox(WORDS.say("whatCanBeRun"));
    keep.setId(prefix + "keep-run");
    keep.setSelected(rule.keepsRun());
    keep.setOnAction(event -> rule.keepRun(keep.isSelected()));
    Parts.hint(keep, WORDS.say("runPermissionWhereSomebody"));
    rule.changesProperty().addListener((observed, old, now) -> leave.setDisable(rule.isLeft()));
    leave.setDisable(rule.isLeft());
    HBox head =
        Parts.row("tree-kind-head", Parts.label(title, "panel-name"), Parts.spring(), leave);
    ModeBoxes boxes = new ModeBoxes(rule, prefix, look);
    VBox all = new VBox(head, boxes);
    if (!rule.isForFolders()) {
      all.getChildren().add(keep);
    }
    all.getStyleClass().add("tree-kind");
    return all;
  }

  @Override
  public void takeFocus() {
    owner.requestFocus();
  }
}
