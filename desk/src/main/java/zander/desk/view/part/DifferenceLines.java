package zander.desk.view.part;

import java.util.List;
import java.util.Locale;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.layout.VBox;
import zander.core.edit.LineDifference;

/** The difference of two texts as lines with their numbers. */
public final class DifferenceLines {
  private static final int MOST = 400;

  /** In pixels. */
  private static final double LINE_HEIGHT = 18;

  private static final double AROUND = 24;
  private static final double MOST_HEIGHT = 140;

  private DifferenceLines() {}

  public static void show(List<LineDifference.Line> lines, VBox into) {
    into.getChildren().clear();
    for (LineDifference.Line line : lines.subList(0, Math.min(lines.size(), MOST))) {
      into.getChildren().add(label(line));
    }
  }

  private static Label label(LineDifference.Line line) {
    String sign =
        switch (line.kind()) {
          case REMOVED -> "-";
          case ADDED -> "+";
          default -> " ";
        };
    String text =
        line.kind() == LineDifference.Kind.GAP
            ? "   ⋯"
            : String.format("%s %4d  %s", sign, line.number(), line.text());
    return Parts.label(text, "mono", "line-" + line.kind().name().toLowerCase(Locale.ROOT));
  }

  /** In a strip: some lines high, the rest by scrolling. */
  static ScrollPane scrolled(List<LineDifference.Line> lines) {
    VBox box = new VBox();
    box.getStyleClass().add("difference");
    show(lines, box);
    ScrollPane scroll = new ScrollPane(box);
    scroll.setFitToWidth(true);
    scroll.getStyleClass().add("difference-scroll");
    scroll.setPrefHeight(Math.min(MOST_HEIGHT, LINE_HEIGHT * lines.size() + AROUND));
    scroll.setMinHeight(Math.min(MOST_HEIGHT, LINE_HEIGHT * lines.size() + AROUND));
    return scroll;
  }
}
