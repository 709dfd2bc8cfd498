package zander.core.trust;

import java.nio.charset.StandardCharsets;
import java.security.GeneralSecurityException;
import java.security.MessageDigest;
import java.util.ArrayList;
import java.util.Base64;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import javax.crypto.Mac;
import javax.crypto.spec.SecretKeySpec;

/** One line of {@code known_hosts}: an optional marker, the hosts it is for, and a key. */
record KnownHostsLine(String marker, String hosts, WireKey key) {
  private static final String HASHED = "|1|";

  static Optional<KnownHostsLine> parse(String text) {
    String[] fields = text.strip().split("[ \t]+");
    int at = fields[0].startsWith("@") ? 1 : 0;
    if (text.isBlank() || fields[0].startsWith("#") || fields.length < at + 3) {
      return Optional.empty();
    }
    WireKey key = WireKey.ofBase64(fields[at + 1], fields[at + 2]);
    String marker = at == 1 ? fields[0] : "";
    return key != null && marker.matches("|@revoked|@cert-authority")
        ? Optional.of(new KnownHostsLine(marker, fields[at], key))
        : Optional.empty();
  }

  /**
   * The line without a host's name; empty when it named no other, the same when it did not name it
   * letter by letter: a pattern speaks of more than one host and stays.
   *
   * @param text with its line end
   */
  static String withoutHost(String text, String host) {
    KnownHostsLine line = parse(text).orElse(null);
    if (line == null || !line.marker.isEmpty()) {
      return text;
    }
    if (line.hosts.startsWith(HASHED)) {
      return line.matchesHash(host) ? "" : text;
    }
    List<String> names = new ArrayList<>(List.of(line.hosts.split(",")));
    if (!names.removeIf(name -> name.equalsIgnoreCase(host))) {
      return text;
    }
    return names.isEmpty()
        ? ""
        : text.replaceFirst(
            Pattern.quote(line.hosts), Matcher.quoteReplacement(String.join(",", names)));
  }

  boolean isRevoked() {
    return marker.equals("@revoked");
  }

  boolean isAuthority() {
    return marker.equals("@cert-authority");
  }

  /**
   * @param host in the form of {@code known_hosts}
   */
  boolean matches(String host) {
    if (hosts.startsWith(HASHED)) {
      return matchesHash(host);
    }
    boolean matched = false;
    for (String pattern : hosts.split(",")) {
      boolean negated = pattern.startsWith("!");
      if (glob(negated ? pattern.substring(1) : pattern).matcher(host).matches()) {
        if (negated) {
          return false;
        }
        matched = true;
      }
    }
    return matched;
  }

  private static Pattern glob(String pattern) {
    StringBuilder regex = new StringBuilder();
    for (char c : pattern.toLowerCase(Locale.ROOT).toCharArray()) {
      regex.append(c == '*' ? ".*" : c == '?' ? "." : Pattern.quote(String.valueOf(c)));
    }
    return Pattern.compile(regex.toString(), Pattern.DOTALL);
  }

  /** A hashed name is HMAC-SHA1 of the host under a salt: {@code |1|salt|hash}. */
  private boolean matchesHash(String host) {
    String[] parts = hosts.substring(HASHED.length()).split("\\|");
    if (parts.length != 2) {
      return false;
    }
    try {
      Mac mac = Mac.getInstance("HmacSHA1");
      mac.init(new SecretKeySpec(Base64.getDecoder().decode(parts[0]), "HmacSHA1"));
      byte[] hash = mac.doFinal(host.getBytes(StandardCharsets.UTF_8));
      return MessageDigest.isEqual(hash, Base64.getDecoder().decode(parts[1]));
    } catch (GeneralSecurityException | IllegalArgumentException e) {
      return false;
    }
  }
}
