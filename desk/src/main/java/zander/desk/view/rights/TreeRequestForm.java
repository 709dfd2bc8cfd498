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

/** What is asked of all that is in folders: owner and group, and the modes of files and folders. */
final class TreeRequestForm extends VBox implements RequestForm {
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
      field.setPromptText("as it is");
      field.setOnAction(event -> look.run());
    }
    owner.textProperty().bindBidirectional(request.ownerProperty());
    group.textProperty().bindBidirectional(request.groupProperty());
    NameCompletion.on(owner, () -> names.of(false));
    NameCompletion.on(group, () -> names.of(true));
    CheckBox other = new CheckBox("Other file systems mounted below, too");
    other.setId("tree-mounts");
    other.selectedProperty().bindBidirectional(request.otherFileSystemsProperty());
    VBox ownerField = ModeBoxes.field("Owner of all", owner);
    VBox groupField = ModeBoxes.field("Group of all", group);
    for (VBox field : new VBox[] {ownerField, groupField}) {
      HBox.setHgrow(field, Priority.NEVER);
    }
    FlowPane first = new FlowPane(ownerField, groupField, other);
    first.getStyleClass().add("tree-owners");
    // One below the other where the window is narrow.
    FlowPane modes =
        new FlowPane(
            kind("Files", request.files(), "files-", look),
            kind("Folders", request.folders(), "folders-", look));
    modes.getStyleClass().add("tree-kinds");
    getChildren().addAll(first, modes);
  }

  private static VBox kind(String title, KindRule rule, String prefix, Runnable look) {
    Button leave = Parts.button("Leave as they are", prefix + "leave", rule::leave, "small");
    CheckBox keep = new CheckBox("What can be run stays so");
    keep.setId(prefix + "keep-run");
    keep.setSelected(rule.keepsRun());
    keep.setOnAction(event -> rule.keepRun(keep.isSelected()));
    Parts.hint(keep, "Run permission where somebody has it now, for all who may read (X)");
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
