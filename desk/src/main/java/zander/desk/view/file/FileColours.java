package zander.desk.view.file;

import java.util.List;
import org.fxmisc.richtext.CodeArea;
import org.jspecify.annotations.Nullable;
import zander.core.find.TextPlaces;
import zander.desk.edit.FindInFile;
import zander.desk.file.FileModel;

/** The colours of an open file, and all that is marked in it, by its language as it is now. */
final class FileColours {
  private final CodeArea area;
  private final FileModel model;
  private final PairTyping pairs;
  private @Nullable Highlighter highlighter;

  FileColours(CodeArea area, FileModel model, PairTyping pairs) {
    this.area = area;
    this.model = model;
    this.pairs = pairs;
    model.find().foundProperty().addListener((observed, old, now) -> marksChanged());
    model.links().deadProperty().addListener((observed, old, now) -> marksChanged());
  }

  /** Once the text is there. */
  void begin() {
    colour();
    model
        .languageProperty()
        .addListener(
            (observed, old, now) -> {
              if (highlighter != null) {
                highlighter.stop();
              }
              colour();
              marksChanged();
            });
  }

  private void colour() {
    highlighter =
        new Highlighter(
            area,
            model.languageProperty().get(),
            this::found,
            pairs::marked,
            model.links()::deadIn);
    model.links().lookSoon();
  }

  boolean haveBegun() {
    return highlighter != null;
  }

  void marksChanged() {
    if (highlighter != null) {
      highlighter.marksChanged();
    }
  }

  private List<TextPlaces.Place> found(int from, int to) {
    FindInFile.Found found = model.find().foundProperty().get();
    int first = found.from(from);
    int last = found.from(to);
    return found.places().subList(first, Math.max(first, last));
  }

  void stop() {
    if (highlighter != null) {
      highlighter.stop();
    }
  }
}
