package zander.desk.work;

import com.fasterxml.jackson.databind.JsonNode;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.function.Function;

/**
 * One thing that a person can choose for all desks. Those there are stand in {@link Settings}; a
 * new one is one constant there.
 *
 * @param name in the file
 * @param usual what holds until something was chosen
 * @param read what a file's value means; {@code null} when it means nothing here
 */
public record Setting<T>(String name, T usual, Function<JsonNode, T> read) {

  public static Setting<Boolean> yesOrNo(String name, boolean usual) {
    return new Setting<>(name, usual, node -> node.isBoolean() ? node.booleanValue() : null);
  }

  /** A whole number; what is less than the least counts as the least. */
  public static Setting<Long> number(String name, long usual, long least) {
    return new Setting<>(
        name,
        usual,
        node -> node.isIntegralNumber() ? Long.valueOf(Math.max(least, node.longValue())) : null);
  }

  /** Numbers by names, none until some were chosen. */
  public static Setting<Map<String, Long>> numbers(String name) {
    return byNames(name, node -> node.isIntegralNumber() ? node.longValue() : null);
  }

  /** Texts by names, none until some were chosen. */
  public static Setting<Map<String, String>> texts(String name) {
    return byNames(name, node -> node.isTextual() ? node.textValue() : null);
  }

  /**
   * @param read gives {@code null} for what means nothing here, which is left out
   */
  private static <T> Setting<Map<String, T>> byNames(String name, Function<JsonNode, T> read) {
    return new Setting<>(
        name,
        Map.of(),
        node -> {
          Map<String, T> values = new TreeMap<>();
          node.properties()
              .forEach(
                  field -> {
                    T value = read.apply(field.getValue());
                    if (value != null) {
                      values.put(field.getKey(), value);
                    }
                  });
          return values;
        });
  }

  /** Several names, none until some were chosen. */
  public static Setting<Set<String>> names(String name) {
    return new Setting<>(
        name,
        Set.of(),
        node -> {
          if (!node.isArray()) {
            return null;
          }
          Set<String> names = new TreeSet<>();
          node.forEach(one -> names.add(one.asText()));
          return names;
        });
  }
}
