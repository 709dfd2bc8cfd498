package zander.core.config;

import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;

/**
 * One host as a configuration has it (ssh_config manual page).
 *
 * @param name the name it goes by there
 * @param hostName what to connect to
 * @param port 1 to 65535
 * @param user the account; {@code null} when none is named
 * @param identityFiles private keys, in order, absolute
 * @param certificateFiles certificates, in order, absolute
 * @param identitiesOnly whether the agent's other keys must not be offered
 * @param proxyJump jump hosts in their order, as written; empty for none
 * @param keepAliveSeconds 0 when not set
 */
public record ConfiguredHost(
    String name,
    String hostName,
    int port,
    String user,
    List<Path> identityFiles,
    List<Path> certificateFiles,
    boolean identitiesOnly,
    List<String> proxyJump,
    int keepAliveSeconds) {

  static ConfiguredHost of(String name, List<ConfigLine> lines, Path home) {
    String hostName = first(lines, "hostname", name).replace("%h", name).replace("%%", "%");
    int port = number(first(lines, "port", "22"), 22);
    String user = first(lines, "user", null);
    String jump = first(lines, "proxyjump", "none");
    String alive = first(lines, "serveraliveinterval", "0");
    Expansion expand = new Expansion(home, name, hostName, port, user);
    return new ConfiguredHost(
        name,
        hostName,
        port < 1 || port > 65535 ? 22 : port,
        user,
        files(lines, "identityfile", expand),
        files(lines, "certificatefile", expand),
        first(lines, "identitiesonly", "no").equalsIgnoreCase("yes"),
        jump.equalsIgnoreCase("none") ? List.of() : Arrays.asList(jump.split(",")),
        number(alive, 0));
  }

  private static String first(List<ConfigLine> lines, String keyword, String otherwise) {
    return lines.stream()
        .filter(line -> line.keyword().equals(keyword))
        .findFirst()
        .map(ConfigLine::first)
        .orElse(otherwise);
  }

  private static int number(String text, int otherwise) {
    return text.matches("[0-9]{1,6}") ? Integer.parseInt(text) : otherwise;
  }

  private static List<Path> files(List<ConfigLine> lines, String keyword, Expansion expand) {
    return lines.stream()
        .filter(line -> line.keyword().equals(keyword))
        .map(ConfigLine::first)
        .filter(text -> !text.equalsIgnoreCase("none"))
        .map(expand::path)
        .distinct()
        .toList();
  }

  /** The tokens of the manual page, section TOKENS, as far as they are of use for files. */
  private record Expansion(Path home, String name, String hostName, int port, String user) {
    Path path(String text) {
      String here = System.getProperty("user.name");
      String expanded =
          text.replace("%%", "\0")
              .replace("%d", home.toString())
              .replace("%h", hostName)
              .replace("%n", name)
              .replace("%p", String.valueOf(port))
              .replace("%r", user == null ? here : user)
              .replace("%u", here)
              .replace("${HOME}", home.toString())
              .replace("\0", "%");
      return expanded.startsWith("~/")
          ? home.resolve(expanded.substring(2))
          : home.resolve(expanded);
    }
  }
}
