package zander.desk.view.file;

import java.util.ArrayList;
import java.util.List;
import org.fxmisc.richtext.CodeArea;
import org.fxmisc.richtext.model.PlainTextChange;
import org.jspecify.annotations.Nullable;
import zander.core.edit.FieldText;

/**
 * The stops of a snippet that was put in: Tab goes to the next, and what was typed at one goes to
 * those of the same name. Leaving its lines ends it.
 */
final class SnippetStops {
  private final CodeArea area;

  /** Those that were not come to, in their order; they move with the text. */
  private final List<Place> stops = new ArrayList<>();

  /** The one that is being filled in; {@code null} for none. */
  private @Nullable Place at;

  private boolean filling;

  /** A part of the text. */
  private static final class Place {
    private final String name;
    private int start;
    private int end;

    Place(String name, int start) {
      this.name = name;
      this.start = start;
      this.end = start + name.length();
    }
  }

  SnippetStops(CodeArea area) {
    this.area = area;
    area.plainTextChanges().subscribe(this::changed);
  }

  /**
   * Puts a snippet in the place of the selection.
   *
   * @param unit what the text indents by, for the tabs of the snippet
   */
  void insert(String snippet, String unit) {
    end();
    int line =
        area.offsetToPosition(
                area.getSelection().getStart(),
                org.fxmisc.richtext.model.TwoDimensional.Bias.Forward)
            .getMajor();
    String text = area.getParagraph(line).getText();
    String indent = text.substring(0, text.length() - text.stripLeading().length());
    FieldText.Placed placed = FieldText.place(snippet.replace("\t", unit), indent);
    int start = area.getSelection().getStart();
    area.getUndoManager().preventMerge();
    area.replaceSelection(placed.text());
    area.getUndoManager().preventMerge();
    for (FieldText.Stop stop : placed.stops()) {
      stops.add(new Place(stop.name(), start + stop.start()));
    }
    next();
    area.requestFocus();
  }

  /** Goes to the next stop; whether there was one. */
  boolean next() {
    if (at != null) {
      fillAlike();
    }
    if (stops.isEmpty()) {
      at = null;
      return false;
    }
    Place next = stops.remove(0);
    at = next;
    area.selectRange(next.start, next.end);
    area.requestFollowCaret();
    if (stops.isEmpty()) {
      at = null;
    }
    return true;
  }

  /** Those of the same name get what was typed, and are not come to. */
  private void fillAlike() {
    Place filled = at;
    if (filled == null) {
      return;
    }
    String typed = area.getText(filled.start, filled.end);
    List<Place> alike = stops.stream().filter(stop -> stop.name.equals(filled.name)).toList();
    filling = true;
    for (Place stop : alike) {
      area.replaceText(stop.start, stop.end, typed);
    }
    filling = false;
    stops.removeAll(alike);
  }

  void end() {
    stops.clear();
    at = null;
  }

  private void changed(PlainTextChange change) {
    if (at == null && stops.isEmpty()) {
      return;
    }
    int from = change.getPosition();
    int until = from + change.getRemoved().length();
    int by = change.getInserted().length() - change.getRemoved().length();
    boolean within = at != null && from >= at.start && until <= at.end;
    if (!within && !filling && at != null) {
      end();
      return;
    }
    if (at != null && within) {
      at.end += by;
    } else if (at != null && from < at.start) {
      at.start += by;
      at.end += by;
    }
    for (Place stop : stops) {
      if (stop.start == from && filling && until == stop.end) {
        stop.end += by;
      } else if (stop.start >= until) {
        stop.start += by;
        stop.end += by;
      }
    }
  }
}
