package zander.desk.view.file;

import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import org.fxmisc.flowless.VirtualizedScrollPane;
import org.fxmisc.richtext.CodeArea;
import zander.desk.file.FileEndModel;
import zander.desk.sheet.Texts;
import zander.desk.view.part.Parts;
import zander.desk.view.part.QuestionStrip;
import zander.desk.view.part.SheetView;

/** The end of a large file, to read. */
public final class FileEndView extends VBox implements SheetView {
  private final CodeArea area = new CodeArea();
  private final Label facts = Parts.label("", "quiet");

  public FileEndView(FileEndModel model) {
    getStyleClass().add("sheet");
    Label name = Parts.label(model.path().text(), "mono");
    Button again = Parts.button("Read the end again", "read-end", model::read, "main");
    again.setMinWidth(USE_PREF_SIZE);
    again.disableProperty().bind(model.busyProperty());
    facts.setId("end-facts");
    facts.setMinWidth(USE_PREF_SIZE);
    HBox bar = Parts.row("sheet-bar", name, Parts.spring(), facts, again);
    area.setId("file-end");
    area.getStyleClass().addAll("editor", "file-end");
    area.setEditable(false);
    VirtualizedScrollPane<CodeArea> scroll = new VirtualizedScrollPane<>(area);
    VBox.setVgrow(scroll, Priority.ALWAYS);
    getChildren().addAll(bar, new QuestionStrip(model.questionProperty()), scroll);
    model.endProperty().addListener((observed, old, now) -> show(now));
    show(model.endProperty().get());
  }

  private void show(FileEndModel.End end) {
    if (end == null) {
      facts.setText("reading");
      return;
    }
    area.replaceText(end.text());
    area.getUndoManager().forgetHistory();
    area.moveTo(area.getLength());
    area.requestFollowCaret();
    facts.setText(
        "the last "
            + Texts.size(end.size() - end.from())
            + " of "
            + Texts.size(end.size())
            + ", to read only");
  }

  @Override
  public void takeFocus() {
    area.requestFocus();
  }
}
