package zander.desk.words;

import java.util.ResourceBundle;
import java.util.stream.Collectors;
import zander.core.phrase.Phrase;

/** What core tells, in words. Any thread. */
public final class Phrases {
  private static final ResourceBundle TEXTS = Words.bundle("phrase");

  private Phrases() {}

  /**
   * As a part of a sentence, or after a colon. What was written down by another version and is not
   * known any more is shown by its name and its values.
   */
  public static String say(Phrase phrase) {
    if (phrase.isQuoted()) {
      return phrase.text();
    }
    Object[] values =
        phrase.values().stream()
            .map(value -> value instanceof Phrase inner ? say(inner) : value)
            .toArray();
    return TEXTS.containsKey(phrase.id())
        ? Words.fill(TEXTS.getString(phrase.id()), values)
        : phrase.id()
            + phrase.values().stream().map(value -> " " + value).collect(Collectors.joining());
  }

  /** What an exception tells. */
  public static String of(Throwable failure) {
    return say(Phrase.of(failure));
  }

  /** As a sentence of its own. */
  public static String sentence(Phrase phrase) {
    String words = say(phrase).strip();
    if (words.isEmpty()) {
      return "";
    }
    String upper = Character.toUpperCase(words.charAt(0)) + words.substring(1);
    return upper.endsWith(".") ? upper : upper + ".";
  }
}
