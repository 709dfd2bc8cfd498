package zander.desk.edit;

import com.fasterxml.jackson.annotation.JsonProperty;
import java.util.List;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * A kind of text file: how it is known, coloured and commented. Read from {@code languages.json};
 * adding one touches no code.
 *
 * @param name for people
 * @param endings of names, behind the last dot, in lower case
 * @param paths expressions of whole paths
 * @param first an expression of the first line; {@code null} for none
 * @param lexer of the library, by its name there; {@code null} where {@link #rules} colour it
 * @param rules what is coloured in a line, the first that fits at a place
 * @param comment what begins and what ends a comment; the second is empty for the line's end
 * @param links expressions of what names another file, whose first group is that name
 * @param linksFrom where relative ones begin: a folder, or {@link #SITE}; {@code null} for the
 *     folder of the file
 */
public record Language(
    String name,
    List<String> endings,
    List<Pattern> paths,
    @Nullable Pattern first,
    @Nullable String lexer,
    List<Rule> rules,
    List<String> comment,
    List<Pattern> links,
    @Nullable String linksFrom) {
  /** As in pages: relative to the file, and absolute from where the site begins. */
  public static final String SITE = "site";

  /** Whether its links are those of pages. */
  public boolean isOfSites() {
    return SITE.equals(linksFrom);
  }

  /**
   * A part of a line.
   *
   * @param kind one of the style sheet's {@code code-} classes
   */
  public record Rule(String kind, Pattern pattern) {}

  /** As it stands in the file. */
  record Written(
      @JsonProperty("name") String name,
      @JsonProperty("endings") List<String> endings,
      @JsonProperty("paths") List<String> paths,
      @JsonProperty("first") String first,
      @JsonProperty("lexer") String lexer,
      @JsonProperty("rules") List<List<String>> rules,
      @JsonProperty("comment") List<String> comment,
      @JsonProperty("links") List<String> links,
      @JsonProperty("linksFrom") String linksFrom) {
    Language read() {
      return new Language(
          name,
          orNone(endings),
          orNone(paths).stream().map(Pattern::compile).toList(),
          first == null ? null : Pattern.compile(first),
          lexer,
          orNone(rules).stream()
              .map(rule -> new Rule(rule.get(0), Pattern.compile(rule.get(1))))
              .toList(),
          comment,
          orNone(links).stream().map(Pattern::compile).toList(),
          linksFrom);
    }

    private static <T> List<T> orNone(List<T> some) {
      return some == null ? List.of() : some;
    }
  }
}
