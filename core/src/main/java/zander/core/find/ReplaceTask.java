package zander.core.find;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import zander.core.change.save.AtomicSave;
import zander.core.change.save.FileVersion;
import zander.core.change.save.SaveFailure;
import zander.core.edit.TextFile;
import zander.core.files.RemotePath;
import zander.core.work.Cancellation;

/**
 * Replaces text in files that were found: first every change is shown, then those that were chosen
 * are made, each file saved whole and only if it is still what was shown.
 */
public final class ReplaceTask {
  private static final long LARGEST = 16L << 20;

  /** Letters of a line that are shown whole. */
  private static final int LONGEST = 300;

  private final AtomicSave saver;

  public ReplaceTask(AtomicSave saver) {
    this.saver = saver;
  }

  /**
   * One place in a file.
   *
   * @param line counted from 1
   * @param before the line as it is; of a long one, what is around the place
   * @param after the same with this one change made
   * @param start where it begins in the file's text
   * @param end where it ends
   * @param with what comes there
   */
  public record Place(int line, String before, String after, int start, int end, String with) {}

  /** All places in one file, as it was when they were looked for. */
  public record Proposal(RemotePath file, FileVersion version, TextFile text, List<Place> places) {}

  /**
   * Looks for every place in a file; none gives a proposal without places.
   *
   * @param with the new text; after an expression {@code $1} stands for its first group
   */
  public Proposal propose(RemotePath file, SearchText wanted, String with) throws IOException {
    AtomicSave.Opened opened = saver.open(file, LARGEST);
    TextFile decoded = TextFile.decode(opened.content());
    String text = decoded.text();
    return new Proposal(file, opened.version(), decoded, places(text, wanted, with));
  }

  static List<Place> places(String text, SearchText wanted, String with) {
    List<Place> places = new ArrayList<>();
    for (TextPlaces.Place place :
        TextPlaces.of(text, wanted, with, Integer.MAX_VALUE, new Cancellation())) {
      places.add(shown(text, place));
    }
    return places;
  }

  private static Place shown(String text, TextPlaces.Place place) {
    int from = text.lastIndexOf('\n', place.start() - 1) + 1;
    int end = text.indexOf('\n', place.end());
    int to = end < 0 ? text.length() : end;
    boolean isLong = to - from > LONGEST;
    int shownFrom = isLong ? Math.max(from, place.start() - LONGEST / 3) : from;
    int shownTo = isLong ? Math.min(to, place.end() + LONGEST / 3) : to;
    return new Place(
        place.line(),
        text.substring(shownFrom, shownTo),
        text.substring(shownFrom, place.start())
            + place.with()
            + text.substring(place.end(), shownTo),
        place.start(),
        place.end(),
        place.with());
  }

  /**
   * Makes the chosen changes of a file.
   *
   * @param chosen indexes of places
   * @param group see {@link zander.core.journal.NewChange}
   * @throws SaveFailure with {@code CHANGED_MEANWHILE} when the file is not what was shown
   */
  public void apply(Proposal proposal, Set<Integer> chosen, long group) throws IOException {
    String made = replaced(proposal.text().text(), proposal.places(), chosen);
    byte[] content = proposal.text().encode(made);
    saver.save(proposal.version(), content, List.of(), group, 0);
  }

  /** The text with the chosen places changed. */
  static String replaced(String text, List<Place> places, Set<Integer> chosen) {
    StringBuilder made = new StringBuilder();
    int at = 0;
    for (int i = 0; i < places.size(); i++) {
      if (chosen.contains(i)) {
        Place place = places.get(i);
        made.append(text, at, place.start()).append(place.with());
        at = place.end();
      }
    }
    return made.append(text.substring(at)).toString();
  }
}
