package zander.core.connect.address;

import java.net.URLDecoder;
import java.nio.charset.StandardCharsets;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * An address as people type or paste it: {@code account@host:port}, or {@code sftp://} and {@code
 * ssh://} ones with a path (RFC 3986; draft-ietf-secsh-scp-sftp-ssh-uri).
 *
 * @param path the absolute path in it; {@code null} for none
 */
public record TypedAddress(ServerAddress server, @Nullable String path) {
  private static final Pattern WITH_PATH =
      Pattern.compile("(?i)(?:sftp|ssh)://(?<server>[^/]+)(?<path>/.*)?");

  /**
   * @throws IllegalArgumentException with words for the person
   */
  public static TypedAddress parse(String typed) {
    Matcher match = WITH_PATH.matcher(typed.strip());
    if (!match.matches()) {
      return new TypedAddress(ServerAddress.parse(typed), null);
    }
    String path = match.group("path");
    // A password in an address is neither used nor kept; parameters after ';' are no part of a
    // name.
    String server = match.group("server").replaceFirst("[:;][^@]*@", "@");
    return new TypedAddress(
        ServerAddress.parse(decoded(server)),
        path == null || path.equals("/") ? null : decoded(path));
  }

  /** Percent-decoded; a plus sign is a plus sign here. */
  private static String decoded(String text) {
    return URLDecoder.decode(text.replace("+", "%2B"), StandardCharsets.UTF_8);
  }

  public static boolean looksLikeOne(String typed) {
    try {
      parse(typed);
      return true;
    } catch (IllegalArgumentException e) {
      return false;
    }
  }
}
