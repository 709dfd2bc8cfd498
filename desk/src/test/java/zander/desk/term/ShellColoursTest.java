package zander.desk.term;

import static org.assertj.core.api.Assertions.assertThat;

import javafx.scene.paint.Color;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import zander.core.term.Palette;

/** All that is shown in a shell can be told from what it stands on (WCAG 2.1, 1.4.3 and 1.4.11). */
class ShellColoursTest {
  private static final int BLACK = 0;
  private static final int WHITE = 7;

  private static double light(Color colour) {
    return 0.2126 * linear(colour.getRed())
        + 0.7152 * linear(colour.getGreen())
        + 0.0722 * linear(colour.getBlue());
  }

  private static double linear(double part) {
    return part <= 0.03928 ? part / 12.92 : Math.pow((part + 0.055) / 1.055, 2.4);
  }

  private static double contrast(Color one, Color other) {
    double lighter = Math.max(light(one), light(other));
    double darker = Math.min(light(one), light(other));
    return (lighter + 0.05) / (darker + 0.05);
  }

  @ParameterizedTest
  @EnumSource
  void textIsReadOnItsGround(ShellColours colours) {
    int[] palette = colours.palette();
    Color ground = TerminalColours.color(palette[Palette.GROUND]);
    Color text = TerminalColours.color(palette[Palette.TEXT]);
    assertThat(contrast(text, ground)).isGreaterThan(7);
    for (int i = 0; i < 16; i++) {
      // Black and white are for the other ground.
      if (i % 8 != BLACK && i % 8 != WHITE) {
        assertThat(contrast(TerminalColours.color(palette[i]), ground))
            .as("%d", i)
            .isGreaterThan(4);
      }
    }
    assertThat(contrast(TerminalColours.color(palette[Palette.CURSOR]), ground)).isGreaterThan(3);
  }

  @ParameterizedTest
  @EnumSource
  void whatIsMarkedIsSeenAndItsTextIsRead(ShellColours colours) {
    int[] palette = colours.palette();
    Color ground = TerminalColours.color(palette[Palette.GROUND]);
    Color text = TerminalColours.color(palette[Palette.TEXT]);
    for (Color mark : new Color[] {colours.selected(), colours.found(), colours.foundNow()}) {
      assertThat(contrast(mark, ground)).isGreaterThan(1.25);
      assertThat(contrast(mark, text)).isGreaterThan(2.4);
    }
    assertThat(colours.found()).isNotEqualTo(colours.foundNow());
  }
}
