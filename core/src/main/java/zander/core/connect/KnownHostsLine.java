package zander.core.connect;

import java.nio.charset.StandardCharsets;
import java.security.GeneralSecurityException;
import java.security.MessageDigest;
import java.util.Base64;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Pattern;
import javax.crypto.Mac;
import javax.crypto.spec.SecretKeySpec;

/** One line of {@code known_hosts}: an optional marker, the hosts it is for, and a key. */
record KnownHostsLine(String marker, String hosts, HostKey key) {
  private static final String HASHED = "|1|";

  static Optional<KnownHostsLine> parse(String text) {
    String[] fields = text.strip().split("[ \t]+");
    int at = fields[0].startsWith("@") ? 1 : 0;
    if (text.isBlank() || fields[0].startsWith("#") || fields.length < at + 3) {
      return Optional.empty();
    }
    HostKey key = HostKey.ofBase64(fields[at + 1], fields[at + 2]);
    String marker = at == 1 ? fields[0] : "";
    boolean understood = key != null && marker.matches("|@revoked|@cert-authority");
    return understood ? Optional.of(new KnownHostsLine(marker, fields[at], key)) : Optional.empty();
  }

  boolean isRevoked() {
    return marker.equals("@revoked");
  }

  boolean isAuthority() {
    return marker.equals("@cert-authority");
  }

  /**
   * @param host in the form of {@link ServerAddress#knownHostsName}
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
