package zander.core.config;

import java.math.BigInteger;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * What stands for something else in a value (ssh_config manual page, TOKENS and ENVIRONMENT
 * VARIABLES).
 *
 * @param name the host as it was asked for
 * @param alias by what name its key is known
 */
record Tokens(LocalSide local, String name, String host, int port, String user, String alias) {
  private static final Pattern VARIABLE = Pattern.compile("\\$\\{([A-Za-z_][A-Za-z0-9_]*)\\}");

  /** Of a {@code Hostname}, which has two. */
  static String hostName(String text, String name) {
    return text.replace("%%", "\0").replace("%h", name).replace("\0", "%");
  }

  /** Of a {@code ProxyJump} or {@code ProxyCommand}, which have five. */
  String proxy(String text) {
    return expand(text, "hnpr", false).orElseThrow();
  }

  /**
   * Of a file's name, with {@code ~} and variables.
   *
   * @return empty where a variable or an account is not there: the setting is ignored
   */
  Optional<Path> file(String text) {
    return home(text, local)
        .flatMap(expanded -> expand(expanded, "CdhikLlnpru", true))
        .map(local.home()::resolve);
  }

  /** What {@code ~} and {@code ~account} stand for; empty where there is no such account. */
  static Optional<String> home(String text, LocalSide local) {
    if (!text.startsWith("~")) {
      return Optional.of(text);
    }
    int slash = text.indexOf('/');
    String account = text.substring(1, slash < 0 ? text.length() : slash);
    String home = account.isEmpty() ? local.home().toString() : local.homeOf().apply(account);
    return home == null
        ? Optional.empty()
        : Optional.of(home + (slash < 0 ? "" : text.substring(slash)));
  }

  /**
   * In one go: what a value brings is not looked at again.
   *
   * @return empty where a variable is not there
   */
  private Optional<String> expand(String text, String allowed, boolean variables) {
    StringBuilder all = new StringBuilder();
    Matcher variable = VARIABLE.matcher(text);
    for (int i = 0; i < text.length(); i++) {
      char c = text.charAt(i);
      char next = i + 1 < text.length() ? text.charAt(i + 1) : '\0';
      if (c == '%' && next == '%') {
        all.append(c);
        i++;
      } else if (c == '%' && next != '\0' && allowed.indexOf(next) >= 0) {
        all.append(value(next));
        i++;
      } else if (variables && c == '$' && variable.region(i, text.length()).lookingAt()) {
        String value = local.variable().apply(variable.group(1));
        if (value == null) {
          return Optional.empty();
        }
        all.append(value);
        i = variable.end() - 1;
      } else {
        all.append(c);
      }
    }
    return Optional.of(all.toString());
  }

  private String value(char token) {
    return switch (token) {
      case 'C' -> hash(local.host().get() + host + port + user);
      case 'd' -> local.home().toString();
      case 'h' -> host;
      case 'i' -> String.valueOf(local.uid());
      case 'k' -> alias;
      case 'L' -> local.host().get().replaceFirst("\\..*", "");
      case 'l' -> local.host().get();
      case 'n' -> name;
      case 'p' -> String.valueOf(port);
      case 'r' -> user;
      default -> local.user();
    };
  }

  private static String hash(String text) {
    try {
      byte[] sum = MessageDigest.getInstance("SHA-1").digest(text.getBytes(StandardCharsets.UTF_8));
      return String.format("%040x", new BigInteger(1, sum));
    } catch (NoSuchAlgorithmException e) {
      throw new IllegalStateException(e);
    }
  }
}
