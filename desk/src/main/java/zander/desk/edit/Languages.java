package zander.desk.edit;

import com.fasterxml.jackson.core.type.TypeReference;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.Predicate;
import zander.core.files.RemotePath;

/** The kinds of text files that are known. */
public final class Languages {
  /** What is none of them. */
  public static final Language PLAIN =
      new Language(
          "plain text",
          List.of(),
          List.of(),
          null,
          null,
          List.of(),
          List.of("#", ""),
          List.of(),
          null);

  private static final List<Language> ALL = read();

  private Languages() {}

  private static List<Language> read() {
    try (InputStream in = Languages.class.getResourceAsStream("languages.json")) {
      return new ObjectMapper()
          .readValue(in, new TypeReference<List<Language.Written>>() {}).stream()
              .map(Language.Written::read)
              .toList();
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  /** All, in their order. */
  public static List<Language> all() {
    return ALL;
  }

  /** The one that a person calls so; without case. */
  public static Optional<Language> named(String name) {
    String wanted = name.strip();
    return PLAIN.name().equalsIgnoreCase(wanted)
        ? Optional.of(PLAIN)
        : first(one -> one.name().equalsIgnoreCase(wanted));
  }

  /**
   * The one that a file is in: by its name if that tells, by its first line, by where it lies.
   *
   * @param text the file's
   */
  public static Language of(RemotePath path, String text) {
    String whole = path.text();
    String name = path.name();
    int dot = name.lastIndexOf('.');
    String ending = dot < 0 ? "" : name.substring(dot + 1).toLowerCase(Locale.ROOT);
    int end = text.indexOf('\n');
    String line = end < 0 ? text : text.substring(0, end);
    Predicate<Language> byPath =
        one -> one.paths().stream().anyMatch(pattern -> pattern.matcher(whole).matches());
    // The last is for what lies in /etc and is not known better.
    Language rest = ALL.get(ALL.size() - 1);
    return first(one -> one != rest && byPath.test(one))
        .or(() -> first(one -> one.endings().contains(ending)))
        .or(() -> first(one -> one.first() != null && one.first().matcher(line).matches()))
        .or(() -> first(byPath))
        .orElse(PLAIN);
  }

  private static Optional<Language> first(Predicate<Language> fits) {
    return ALL.stream().filter(fits).findFirst();
  }
}
