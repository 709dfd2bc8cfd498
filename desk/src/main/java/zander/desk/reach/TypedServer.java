package zander.desk.reach;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import zander.core.book.ServerEntry;
import zander.core.book.SignIn;
import zander.core.connect.address.TypedAddress;

/** What somebody typed to open a server: a name they know, or an address. */
public final class TypedServer {
  private TypedServer() {}

  /**
   * Finds or makes the entry. Waits for the disk.
   *
   * @throws IllegalArgumentException with words for the person
   */
  public static ServerEntry read(String typed, BookModel book, Path home) {
    ServerEntry named = book.find(typed.strip());
    if (named != null) {
      return named;
    }
    TypedAddress address = TypedAddress.parse(typed);
    SignIn signIn = new SignIn(usualKey(home), null, true, true);
    return ServerEntry.of(address.server().host(), address.server(), signIn)
        .withPlaces(address.path(), null, null);
  }

  /** The key that a person has most likely put on their servers; {@code null} for none. */
  private static @Nullable String usualKey(Path home) {
    Path folder = home.resolve(".ssh");
    return Stream.of("id_ed25519", "id_ecdsa", "id_rsa")
        .map(folder::resolve)
        .filter(Files::isRegularFile)
        .map(Path::toString)
        .findFirst()
        .orElse(null);
  }
}
