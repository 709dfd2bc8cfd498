package zander.core.find;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.regex.Matcher;
import zander.core.change.AtomicSave;
import zander.core.change.FileVersion;
import zander.core.change.SaveFailure;
import zander.core.edit.TextFile;
import zander.core.files.RemotePath;

/**
 * Replaces text in files that were found: first every change is shown, then those that were chosen
 * are made, each file saved whole and only if it is still what was shown.
 */
public final class ReplaceTask {
  private static final long LARGEST = 16L << 20;

  private final AtomicSave saver;

  public ReplaceTask(AtomicSave saver) {
    this.saver = saver;
  }

  /**
   * One place in a file.
   *
   * @param line counted from 1
   * @param before the line as it is
   * @param after the line with this one change made
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
    List<Place> places = new ArrayList<>();
    Matcher matcher = wanted.pattern().matcher(text);
    String template = wanted.expression() ? with : Matcher.quoteReplacement(with);
    int line = 1;
    int counted = 0;
    while (matcher.find()) {
      if (matcher.end() == matcher.start()) {
        continue;
      }
      for (; counted < matcher.start(); counted++) {
        line += text.charAt(counted) == '\n' ? 1 : 0;
      }
      int from = text.lastIndexOf('\n', matcher.start() - 1) + 1;
      int to = text.indexOf('\n', matcher.end());
      to = to < 0 ? text.length() : to;
      String replaced = expand(matcher, template);
      places.add(
          new Place(
              line,
              text.substring(from, to),
              text.substring(from, matcher.start()) + replaced + text.substring(matcher.end(), to),
              matcher.start(),
              matcher.end(),
              replaced));
    }
    return new Proposal(file, opened.version(), decoded, places);
  }

  private static String expand(Matcher matcher, String template) {
    StringBuilder made = new StringBuilder();
    for (int i = 0; i < template.length(); i++) {
      char c = template.charAt(i);
      if (c == '\\' && i + 1 < template.length()) {
        made.append(template.charAt(++i));
      } else if (c == '$'
          && i + 1 < template.length()
          && Character.isDigit(template.charAt(i + 1))
          && template.charAt(i + 1) - '0' <= matcher.groupCount()) {
        String group = matcher.group(template.charAt(++i) - '0');
        made.append(group == null ? "" : group);
      } else {
        made.append(c);
      }
    }
    return made.toString();
  }

  /**
   * Makes the chosen changes of a file.
   *
   * @param chosen indexes of places
   * @param group see {@link zander.core.journal.NewChange}
   * @throws SaveFailure with {@code CHANGED_MEANWHILE} when the file is not what was shown
   */
  public void apply(Proposal proposal, Set<Integer> chosen, long group) throws IOException {
    String text = proposal.text().text();
    StringBuilder made = new StringBuilder();
    int at = 0;
    for (int i = 0; i < proposal.places().size(); i++) {
      if (chosen.contains(i)) {
        Place place = proposal.places().get(i);
        made.append(text, at, place.start()).append(place.with());
        at = place.end();
      }
    }
    made.append(text.substring(at));
    byte[] content = proposal.text().encode(made.toString());
    saver.save(proposal.version(), content, List.of(), group, 0);
  }
}
