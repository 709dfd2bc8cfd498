package zander.core.term;

import zander.core.term.parse.Parameters;
import zander.core.term.screen.Screen;
import zander.core.term.screen.ScreenEdits;
import zander.core.term.screen.ScreenMoves;

/** The sequences that move the cursor, erase, and move cells. Counts are held to the screen. */
final class EditSequences {
  private final Screen screen;
  private final ScreenMoves moves;
  private final ScreenEdits edits;

  EditSequences(Screen screen) {
    this.screen = screen;
    this.moves = screen.moves();
    this.edits = screen.edits();
  }

  void plain(int last, Parameters parameters) {
    int columns = parameters.times(0, screen.columns());
    int rows = parameters.times(0, screen.rows());
    switch (last) {
      case '@' -> edits.insertCells(columns);
      case 'A' -> moves.up(rows);
      case 'B', 'e' -> moves.down(rows);
      case 'C', 'a' -> moves.forward(columns);
      case 'D' -> moves.back(columns);
      case 'E' -> {
        moves.down(rows);
        moves.carriageReturn();
      }
      case 'F' -> {
        moves.up(rows);
        moves.carriageReturn();
      }
      case 'G', '`' -> moves.column(columns - 1);
      case 'H', 'f' -> moves.moveTo(parameters.times(1, screen.columns()) - 1, rows - 1);
      case 'I' -> moves.tab(columns);
      case 'J' -> edits.eraseScreen(parameters.get(0, 0), false);
      case 'K' -> edits.eraseLine(parameters.get(0, 0), false);
      case 'L' -> edits.insertRows(rows);
      case 'M' -> edits.deleteRows(rows);
      case 'P' -> edits.deleteCells(columns);
      case 'S' -> edits.scrollUp(rows);
      case 'T', '^' -> edits.scrollDown(rows);
      case 'X' -> edits.eraseCells(columns);
      case 'Z' -> moves.tabBack(columns);
      case 'd' -> moves.line(rows - 1);
      case 'g' -> clearTabs(parameters.get(0, 0));
      case 'r' ->
          screen.rowMargins(
              parameters.times(0, screen.rows()) - 1,
              parameters.get(1, 0) == 0 ? screen.rows() : parameters.get(1, 0));
      case 's' -> saveOrMargins(parameters);
      case 'u' -> screen.restoreCursor();
      default -> {
        // Not known.
      }
    }
  }

  private void clearTabs(int what) {
    if (what == 0) {
      moves.clearTab();
    } else if (what == 3) {
      moves.clearTabs();
    }
  }

  /** The same letter is both: margins where they are on (DECSLRM), else SCOSC. */
  private void saveOrMargins(Parameters parameters) {
    if (!screen.hasSideMargins()) {
      screen.saveCursor();
      return;
    }
    int to = parameters.get(1, 0);
    screen.columnMargins(
        parameters.times(0, screen.columns()) - 1, to == 0 ? screen.columns() : to);
  }

  void withIntermediate(int intermediates, int last, Parameters parameters) {
    int columns = parameters.times(0, screen.columns());
    switch ((intermediates << 8) | last) {
      case (' ' << 8) | '@' -> edits.scrollLeft(columns);
      case (' ' << 8) | 'A' -> edits.scrollRight(columns);
      case ('\'' << 8) | '}' -> edits.insertColumns(columns);
      case ('\'' << 8) | '~' -> edits.deleteColumns(columns);
      default -> {
        // Not known.
      }
    }
  }
}
