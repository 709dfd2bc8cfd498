package zander.core.connect.keys;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import zander.core.trust.WireKey;

/**
 * The public half of a key as one line of text: type, base64, comment (sshd manual page,
 * AUTHORIZED_KEYS FILE FORMAT, without options).
 */
public record PublicKeyLine(WireKey key, String comment) {
  private static final Pattern FORM =
      Pattern.compile(
          "\\s*((?:sk-)?(?:ssh|ecdsa)-[A-Za-z0-9@.-]+)[ \\t]+([A-Za-z0-9+/=]+)(?:[ \\t]+(.*?))?\\s*");

  public PublicKeyLine {
    if (comment.chars().anyMatch(c -> c < ' ')) {
      throw new IllegalArgumentException("a comment is one line of text");
    }
  }

  /** Empty when it is no such line. */
  public static Optional<PublicKeyLine> parse(String line) {
    Matcher match = FORM.matcher(line);
    if (!match.matches()) {
      return Optional.empty();
    }
    WireKey key = WireKey.ofBase64(match.group(1), match.group(2));
    // The comment is for people; a key with a damaged one is the key all the same.
    String comment = match.group(3) == null ? "" : match.group(3).replaceAll("[\\x00-\\x1f]", "");
    return key == null ? Optional.empty() : Optional.of(new PublicKeyLine(key, comment));
  }

  /** Reads the first line of a file; empty when there is none, or it is something else. */
  public static Optional<PublicKeyLine> read(Path file) {
    try {
      return Files.isRegularFile(file) && Files.size(file) < 65536
          ? parse(Files.readString(file, StandardCharsets.UTF_8).lines().findFirst().orElse(""))
          : Optional.empty();
    } catch (IOException e) {
      return Optional.empty();
    }
  }

  /** The line, without a line end. */
  public String text() {
    return key.type() + " " + key.base64() + (comment.isEmpty() ? "" : " " + comment);
  }
}
