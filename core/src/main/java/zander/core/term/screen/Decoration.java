package zander.core.term.screen;

import org.jspecify.annotations.Nullable;

/**
 * What few cells have beside their style.
 *
 * @param underline the colour of the line below, as {@link CellStyle} has colours
 * @param link the address that the cell leads to (OSC 8); empty for none
 * @param linkId cells of one link have the same, however far apart; may be empty
 */
public record Decoration(int underline, String link, String linkId) {
  static final Decoration NONE = new Decoration(CellStyle.DEFAULT, "", "");

  /** The same with another colour; null when nothing is left of it. */
  public static @Nullable Decoration underlined(@Nullable Decoration before, int colour) {
    return known(new Decoration(colour, of(before).link(), of(before).linkId()));
  }

  /** The same with another address; null when nothing is left of it. */
  public static @Nullable Decoration linked(
      @Nullable Decoration before, String link, String linkId) {
    return known(new Decoration(of(before).underline(), link, linkId));
  }

  private static Decoration of(@Nullable Decoration before) {
    return before == null ? NONE : before;
  }

  private static @Nullable Decoration known(Decoration made) {
    return made.underline() == CellStyle.DEFAULT && made.link().isEmpty() ? null : made;
  }
}
