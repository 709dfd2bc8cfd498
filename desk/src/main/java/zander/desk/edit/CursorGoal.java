package zander.desk.edit;

import java.util.regex.Matcher;
import java.util.regex.Pattern;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;

/** Where the cursor of an open file is to go. Interface thread only. */
public final class CursorGoal {
  private static final Pattern TYPED = Pattern.compile("(\\d{1,9})(?:[:,](\\d{1,9}))?");

  private final ReadOnlyObjectWrapper<Integer> line = new ReadOnlyObjectWrapper<>(0);
  private int column;

  /** The line to go to, counted from 1; 0 for none. */
  public ReadOnlyObjectProperty<Integer> lineProperty() {
    return line.getReadOnlyProperty();
  }

  /** The column to go to in it, counted from 1; 0 for the line as a whole. */
  public int column() {
    return column;
  }

  public void set(int number, int inLine) {
    column = inLine;
    line.set(0);
    line.set(number);
  }

  /** Whether it is {@code 12} or {@code 12:40}. */
  public static boolean isPlace(String typed) {
    return TYPED.matcher(typed.strip()).matches();
  }

  /** What {@link #isPlace} takes; nothing else is gone to. */
  public void setTyped(String typed) {
    Matcher matcher = TYPED.matcher(typed.strip());
    if (matcher.matches()) {
      String inLine = matcher.group(2);
      set(Integer.parseInt(matcher.group(1)), inLine == null ? 0 : Integer.parseInt(inLine));
    }
  }
}
