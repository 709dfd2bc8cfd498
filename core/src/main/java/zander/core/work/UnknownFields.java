package zander.core.work;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * Keeps what this version does not know in a JSON file that it writes: a newer version, or a
 * person, put it there.
 */
public final class UnknownFields {
  private UnknownFields() {}

  /**
   * Adds what would be lost.
   *
   * @param before the file as it was; {@code null} for none
   * @param understood what this version makes of that: read and written again
   * @param now what is to be written; changed
   * @return {@code now}
   */
  public static JsonNode keep(@Nullable JsonNode before, JsonNode understood, JsonNode now) {
    if (before instanceof ObjectNode old && now instanceof ObjectNode object) {
      for (Map.Entry<String, JsonNode> field : old.properties()) {
        String name = field.getKey();
        JsonNode known = understood.get(name);
        JsonNode wanted = object.get(name);
        boolean same = Objects.equals(known, wanted);
        if (same && (known == null || known.isValueNode())) {
          // Not known, or not understood as it was meant; nobody changed it.
          object.set(name, field.getValue());
        } else if (known != null && wanted != null) {
          keep(field.getValue(), known, wanted);
        }
      }
    } else if (before instanceof ArrayNode old && now instanceof ArrayNode array) {
      for (JsonNode element : array) {
        int at = indexOf(old, element);
        if (at >= 0 && understood.has(at)) {
          keep(old.get(at), understood.get(at), element);
        }
      }
    }
    return now;
  }

  /** Elements of lists are told apart by their names. */
  private static int indexOf(ArrayNode all, JsonNode element) {
    for (int i = 0; i < all.size(); i++) {
      if (element.hasNonNull("name") && element.get("name").equals(all.get(i).get("name"))) {
        return i;
      }
    }
    return -1;
  }
}
