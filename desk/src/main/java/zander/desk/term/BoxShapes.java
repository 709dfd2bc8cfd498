package zander.desk.term;

import java.util.ArrayList;
import java.util.List;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.shape.ArcType;

/**
 * Draws the characters that boxes and bars are made of (U+2500 to U+259F) as shapes which meet
 * those of the cells around, whatever the font has. What a line character looks like is read from
 * its name in the Unicode Character Database.
 */
final class BoxShapes {
  private static final int FIRST = 0x2500;
  private static final int FIRST_BLOCK = 0x2580;
  private static final int LAST = 0x259f;
  private static final String NAME = "BOX DRAWINGS ";
  private static final BoxShapes[] LINES = new BoxShapes[FIRST_BLOCK - FIRST];

  static {
    for (int i = 0; i < LINES.length; i++) {
      LINES[i] = new BoxShapes(Character.getName(FIRST + i).substring(NAME.length()));
    }
  }

  private enum Weight {
    NONE,
    LIGHT,
    HEAVY,
    DOUBLE
  }

  private Weight left = Weight.NONE;
  private Weight right = Weight.NONE;
  private Weight up = Weight.NONE;
  private Weight down = Weight.NONE;
  private int dashes;
  private final boolean arc;
  private final boolean rising;
  private final boolean falling;

  private BoxShapes(String name) {
    arc = name.contains(" ARC ");
    boolean cross = name.contains("DIAGONAL CROSS");
    rising = cross || name.contains("UPPER RIGHT TO LOWER LEFT");
    falling = cross || name.contains("UPPER LEFT TO LOWER RIGHT");
    if (!rising && !falling) {
      read(name);
    }
  }

  /** "DOWN LIGHT AND RIGHT HEAVY": a part without a weight has that of the part before it. */
  private void read(String name) {
    Weight weight = Weight.NONE;
    for (String part : name.split(" AND ")) {
      List<String> directions = new ArrayList<>();
      for (String word : part.split("[ -]")) {
        switch (word) {
          case "LIGHT", "SINGLE" -> weight = Weight.LIGHT;
          case "HEAVY" -> weight = Weight.HEAVY;
          case "DOUBLE" -> weight = name.contains("DASH") ? weight : Weight.DOUBLE;
          default -> directions.add(word);
        }
      }
      if (part.contains("DASH")) {
        dashes = part.contains("QUADRUPLE") ? 4 : part.contains("TRIPLE") ? 3 : 2;
      }
      for (String direction : directions) {
        set(direction, weight);
      }
    }
  }

  private void set(String direction, Weight weight) {
    switch (direction) {
      case "LEFT" -> left = weight;
      case "RIGHT" -> right = weight;
      case "UP" -> up = weight;
      case "DOWN" -> down = weight;
      case "HORIZONTAL" -> {
        left = weight;
        right = weight;
      }
      case "VERTICAL" -> {
        up = weight;
        down = weight;
      }
      default -> {
        // Of how it is dashed, or that it is an arc.
      }
    }
  }

  static boolean has(int codePoint) {
    return codePoint >= FIRST && codePoint <= LAST;
  }

  /** Draws it in the colour that is set, into a cell whose edges are whole pixels. */
  static void draw(
      GraphicsContext g, int codePoint, double x, double y, double width, double height) {
    if (codePoint >= FIRST_BLOCK) {
      block(g, codePoint, x, y, width, height);
    } else {
      LINES[codePoint - FIRST].line(g, new Cell(x, y, width, height));
    }
  }

  /** A cell, and how thick lines are in it. */
  private record Cell(double x, double y, double width, double height) {
    double thin() {
      return Math.max(1, Math.rint(width / 8));
    }

    double middleX(double thickness) {
      return x + Math.floor((width - thickness) / 2);
    }

    double middleY(double thickness) {
      return y + Math.floor((height - thickness) / 2);
    }
  }

  private void line(GraphicsContext g, Cell cell) {
    double thin = cell.thin();
    g.setLineWidth(thin);
    if (rising) {
      g.strokeLine(cell.x + cell.width, cell.y, cell.x, cell.y + cell.height);
    }
    if (falling) {
      g.strokeLine(cell.x, cell.y, cell.x + cell.width, cell.y + cell.height);
    }
    if (arc) {
      arc(g, cell);
    } else if (dashes > 0) {
      dashed(g, cell);
    } else {
      new Arm(g, cell, true, -1).draw(left, up, down, right);
      new Arm(g, cell, true, 1).draw(right, up, down, left);
      new Arm(g, cell, false, -1).draw(up, left, right, down);
      new Arm(g, cell, false, 1).draw(down, left, right, up);
    }
  }

  private static double thickness(Weight weight, double thin) {
    return weight == Weight.HEAVY ? thin * 2 + 1 : thin;
  }

  /**
   * A line from the middle of a cell to one of its edges.
   *
   * @param sign 1 to the right or down, -1 to the left or up
   */
  private record Arm(GraphicsContext g, Cell cell, boolean horizontal, int sign) {
    /**
     * @param before what crosses it on the side above or to the left
     * @param after what crosses it on the other side
     * @param opposite what goes on behind the middle
     */
    void draw(Weight weight, Weight before, Weight after, Weight opposite) {
      if (weight == Weight.NONE) {
        return;
      }
      double thin = cell.thin();
      double cross = Math.max(thickness(before, thin), thickness(after, thin));
      boolean ends = opposite == Weight.NONE;
      boolean one = before == Weight.DOUBLE;
      boolean other = after == Weight.DOUBLE;
      if (weight == Weight.DOUBLE) {
        // A line inside of a corner ends at the one that it meets, one outside goes round it.
        bar(-thin, thin, one ? thin : other && ends ? -thin : 0, cross);
        bar(thin, thin, other ? thin : one && ends ? -thin : 0, cross);
      } else {
        double from = one && other ? (ends ? thin : 0) : one || other ? -thin : 0;
        bar(0, thickness(weight, thin), from, cross);
      }
    }

    /** From so far behind the middle to the edge, beside the middle line by so much. */
    private void bar(double beside, double thickness, double from, double cross) {
      double middle = horizontal ? cell.middleX(cross) - cell.x : cell.middleY(cross) - cell.y;
      double length = horizontal ? cell.width : cell.height;
      double begin = sign > 0 ? middle + from : 0;
      double end = sign > 0 ? length : middle + cross - from;
      if (horizontal) {
        g.fillRect(cell.x + begin, cell.middleY(thickness) + beside, end - begin, thickness);
      } else {
        g.fillRect(cell.middleX(thickness) + beside, cell.y + begin, thickness, end - begin);
      }
    }
  }

  private void dashed(GraphicsContext g, Cell cell) {
    Weight weight = left != Weight.NONE ? left : up;
    double thick = thickness(weight, cell.thin());
    double length = left != Weight.NONE ? cell.width : cell.height;
    for (int i = 0; i < dashes; i++) {
      double from = Math.rint(length * i / dashes);
      double to = Math.max(from + 1, Math.rint(length * (i + 1) / dashes) - cell.thin());
      if (left != Weight.NONE) {
        g.fillRect(cell.x + from, cell.middleY(thick), to - from, thick);
      } else {
        g.fillRect(cell.middleX(thick), cell.y + from, thick, to - from);
      }
    }
  }

  private void arc(GraphicsContext g, Cell cell) {
    double thin = cell.thin();
    double middleX = cell.middleX(thin) + thin / 2;
    double middleY = cell.middleY(thin) + thin / 2;
    double radius = Math.min(cell.width, cell.height) / 2;
    double toX = right != Weight.NONE ? cell.x + cell.width : cell.x;
    double toY = down != Weight.NONE ? cell.y + cell.height : cell.y;
    double signX = right != Weight.NONE ? 1 : -1;
    double signY = down != Weight.NONE ? 1 : -1;
    double centreX = middleX + signX * radius;
    double centreY = middleY + signY * radius;
    int start = signX > 0 ? (signY > 0 ? 90 : 180) : signY > 0 ? 0 : 270;
    g.strokeArc(
        centreX - radius, centreY - radius, 2 * radius, 2 * radius, start, 90, ArcType.OPEN);
    g.strokeLine(middleX, centreY, middleX, toY);
    g.strokeLine(centreX, middleY, toX, middleY);
  }

  private static void block(
      GraphicsContext g, int code, double x, double y, double width, double height) {
    int part = code - FIRST_BLOCK;
    if (part == 0) {
      g.fillRect(x, y, width, Math.rint(height / 2));
    } else if (part <= 8) {
      double top = Math.rint(height * (8 - part) / 8);
      g.fillRect(x, y + top, width, height - top);
    } else if (part <= 15) {
      g.fillRect(x, y, Math.rint(width * (16 - part) / 8), height);
    } else if (part == 16) {
      double half = Math.rint(width / 2);
      g.fillRect(x + half, y, width - half, height);
    } else if (part <= 19) {
      g.setGlobalAlpha(0.25 * (part - 16));
      g.fillRect(x, y, width, height);
      g.setGlobalAlpha(1);
    } else if (part == 20) {
      g.fillRect(x, y, width, Math.rint(height / 8));
    } else if (part == 21) {
      double from = Math.rint(width * 7 / 8);
      g.fillRect(x + from, y, width - from, height);
    } else {
      quadrants(g, QUADRANTS[part - 22], x, y, width, height);
    }
  }

  /** Of U+2596 to U+259F: upper left 1, upper right 2, lower left 4, lower right 8. */
  private static final int[] QUADRANTS = {4, 8, 1, 13, 9, 7, 11, 2, 6, 14};

  private static void quadrants(
      GraphicsContext g, int which, double x, double y, double width, double height) {
    double halfX = Math.rint(width / 2);
    double halfY = Math.rint(height / 2);
    for (int i = 0; i < 4; i++) {
      if (((which >> i) & 1) != 0) {
        double left = i % 2 == 0 ? 0 : halfX;
        double top = i < 2 ? 0 : halfY;
        g.fillRect(
            x + left, y + top, i % 2 == 0 ? halfX : width - halfX, i < 2 ? halfY : height - halfY);
      }
    }
  }
}
