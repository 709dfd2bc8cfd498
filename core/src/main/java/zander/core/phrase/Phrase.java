package zander.core.phrase;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonValue;
import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.DeserializationFeature;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * What Zander itself found out, or what it does, as a type: core names it, and the window has the
 * sentence. Equal by value, so that it can be written down and read by every later version; any
 * thread.
 *
 * @param id {@code TransferPhrase.NOT_THERE}; empty for {@link #quoted} text
 * @param values each a {@code String} or a phrase that is not quoted, for the places of the
 *     sentence in their order
 */
public record Phrase(String id, List<Object> values) {
  private static final ObjectMapper JSON =
      new ObjectMapper().enable(DeserializationFeature.FAIL_ON_TRAILING_TOKENS);

  /** Of what {@link #toString} writes of all but plain quoted text. */
  private static final String BEGIN = "[\"";

  /** One kind of phrase: a constant of an enum, which has a sentence under its name. */
  public interface Key {
    String name();

    /** How many values the sentence has places for. */
    int places();

    default String id() {
      return getDeclaringClass().getSimpleName() + "." + name();
    }

    Class<?> getDeclaringClass();

    /**
     * @param values phrases, keys without places, or what is told by its {@code toString}
     * @throws IllegalArgumentException when they are not as many as the places
     */
    default Phrase of(Object... values) {
      if (values.length != places()) {
        throw new IllegalArgumentException(id() + " has " + places() + " places");
      }
      return new Phrase(id(), Arrays.stream(values).map(Phrase::told).toList());
    }
  }

  public Phrase {
    values = List.copyOf(values);
  }

  /** The words of a server, a program or the system, which are shown as they are. */
  public static Phrase quoted(String text) {
    return new Phrase("", List.of(text));
  }

  /** What an exception tells: what was found, or else its text. */
  public static Phrase of(Throwable failure) {
    Phrase found = found(failure);
    return found == null
        ? quoted(failure.getMessage() == null ? failure.toString() : failure.getMessage())
        : found;
  }

  /** What Zander found, of whatever it was wrapped in; {@code null} when it found nothing. */
  public static @Nullable Phrase found(Throwable failure) {
    for (Throwable at = failure; at != null; at = at.getCause()) {
      if (at instanceof ExplainedException known) {
        return known.phrase();
      }
      if (at instanceof InvalidInput invalid) {
        return invalid.phrase();
      }
    }
    return null;
  }

  private static Object told(Object value) {
    if (value instanceof Key key) {
      return key.of();
    }
    if (value instanceof Phrase phrase) {
      return phrase.isQuoted() ? phrase.text() : phrase;
    }
    return String.valueOf(value);
  }

  public boolean isQuoted() {
    return id.isEmpty();
  }

  /** What is quoted; empty when it is not. */
  public String text() {
    return isQuoted() ? (String) values.get(0) : "";
  }

  public boolean is(Key key) {
    return id.equals(key.id());
  }

  /** As {@link #written()} gave it; text of earlier versions is quoted. */
  @JsonCreator(mode = JsonCreator.Mode.DELEGATING)
  static Phrase read(Object written) {
    if (!(written instanceof List<?> list)
        || list.isEmpty()
        || !(list.get(0) instanceof String id)) {
      return quoted(String.valueOf(written));
    }
    if (id.isEmpty()) {
      return quoted(list.size() == 2 ? String.valueOf(list.get(1)) : String.valueOf(written));
    }
    List<Object> values = new ArrayList<>();
    for (Object value : list.subList(1, list.size())) {
      values.add(told(value instanceof List ? read(value) : String.valueOf(value)));
    }
    return new Phrase(id, values);
  }

  /**
   * For JSON: text that is quoted as a string, anything else as an array that begins with the id.
   */
  @JsonValue
  Object written() {
    if (isQuoted()) {
      return text();
    }
    List<Object> all = new ArrayList<>(List.of(id));
    values.forEach(value -> all.add(value instanceof Phrase one ? one.written() : value));
    return all;
  }

  /** What {@link #toString} gave; any other text is quoted. */
  public static Phrase parse(String text) {
    if (!text.startsWith(BEGIN)) {
      return quoted(text);
    }
    try {
      return JSON.readValue(text, Phrase.class);
    } catch (JsonProcessingException e) {
      return quoted(text);
    }
  }

  /**
   * For a log, or the journal: the same in one line of JSON, or the quoted text as it is, unless
   * that could be taken for a phrase of ours.
   */
  @Override
  public String toString() {
    if (isQuoted() && !text().startsWith(BEGIN)) {
      return text();
    }
    try {
      return JSON.writeValueAsString(isQuoted() ? List.of("", text()) : written());
    } catch (JsonProcessingException e) {
      throw new IllegalStateException(e);
    }
  }
}
