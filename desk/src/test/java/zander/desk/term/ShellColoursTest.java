package zander.desk.term;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import javafx.scene.paint.Color;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import zander.core.term.Palette;
import zander.core.term.screen.CellStyle;

/** All that is shown in a shell can be told from what it stands on (WCAG 2.1, 1.4.3 and 1.4.11). */
class ShellColoursTest {
  private static final int BLACK = 0;
  private static final int WHITE = 7;

  @ParameterizedTest
  @EnumSource
  void textIsReadOnItsGround(ShellColours colours) {
    int[] palette = colours.palette();
    Color ground = TerminalColours.color(palette[Palette.GROUND]);
    Color text = TerminalColours.color(palette[Palette.TEXT]);
    assertThat(TerminalColours.contrast(text, ground)).isGreaterThan(7);
    for (int i = 0; i < 16; i++) {
      // Black and white are for the other ground.
      if (i % 8 != BLACK && i % 8 != WHITE) {
        assertThat(TerminalColours.contrast(TerminalColours.color(palette[i]), ground))
            .as("%d", i)
            .isGreaterThan(4);
      }
    }
    assertThat(TerminalColours.contrast(TerminalColours.color(palette[Palette.CURSOR]), ground))
        .isGreaterThan(3);
  }

  @ParameterizedTest
  @EnumSource
  void whatIsMarkedIsSeenAndItsTextIsRead(ShellColours colours) {
    int[] palette = colours.palette();
    Color ground = TerminalColours.color(palette[Palette.GROUND]);
    Color text = TerminalColours.color(palette[Palette.TEXT]);
    for (Color mark : new Color[] {colours.selected(), colours.found(), colours.foundNow()}) {
      assertThat(TerminalColours.contrast(mark, ground)).isGreaterThan(1.25);
      assertThat(TerminalColours.contrast(mark, text)).isGreaterThan(2.4);
    }
    assertThat(colours.found()).isNotEqualTo(colours.foundNow());
  }

  @Test
  void contrastIsThatOfTheStandard() {
    assertThat(TerminalColours.contrast(Color.BLACK, Color.WHITE)).isEqualTo(21);
    assertThat(TerminalColours.contrast(Color.web("#777777"), Color.WHITE))
        .isCloseTo(4.48, within(0.01));
  }

  /** A program that sets the ground alone, as editors do for what they have found. */
  @ParameterizedTest
  @EnumSource
  void textWithoutAColourIsReadOnAnyGround(ShellColours colours) {
    TerminalModel terminal = new TerminalModel(bytes -> {}, (columns, rows) -> {});
    terminal.terminal().colours(colours.palette());
    TerminalColours shown = new TerminalColours(terminal.terminal().palette());
    for (int i = 0; i < 256; i++) {
      long style = CellStyle.withBackground(CellStyle.PLAIN, CellStyle.indexed(i));
      TerminalColours.Pair pair = shown.of(style);
      assertThat(TerminalColours.contrast(pair.ink(), pair.ground())).as("%d", i).isGreaterThan(3);
    }
  }
}
