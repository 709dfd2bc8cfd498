package zander.core.book;

import com.fasterxml.jackson.annotation.JsonInclude;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * A path worth a name.
 *
 * @param name how the person calls it
 * @param path on the server
 * @param local the folder on this computer that goes with it, or {@code null}
 * @param address the public address it is seen at, or {@code null}
 * @param rights the lines of the rights that it keeps; none when nothing is asked of it
 */
@JsonInclude(JsonInclude.Include.NON_EMPTY)
public record MarkedFolder(
    String name,
    String path,
    @Nullable String local,
    @Nullable String address,
    List<String> rights) {
  public MarkedFolder {
    rights = rights == null ? List.of() : List.copyOf(rights);
  }

  /** One that keeps nothing. */
  public static MarkedFolder of(
      String name, String path, @Nullable String local, @Nullable String address) {
    return new MarkedFolder(name, path, local, address, List.of());
  }

  public MarkedFolder withRights(List<String> lines) {
    return new MarkedFolder(name, path, local, address, lines);
  }
}
