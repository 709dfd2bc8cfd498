package zander.core.config;

import java.nio.file.Path;
import java.util.List;

/** Writes hosts in the form that OpenSSH's client, and others, read. */
public final class ConfigWriter {
  private ConfigWriter() {}

  /** A block for each host, ready to be put into a file or included from one. */
  public static String write(List<ConfiguredHost> hosts) {
    StringBuilder text = new StringBuilder();
    for (ConfiguredHost host : hosts) {
      text.append(text.length() == 0 ? "" : "\n");
      line(text, "Host", alias(host.name()), "");
      line(text, "HostName", host.hostName().replace("%", "%%"), "  ");
      if (host.port() != 22) {
        line(text, "Port", String.valueOf(host.port()), "  ");
      }
      if (host.user() != null) {
        line(text, "User", host.user(), "  ");
      }
      for (Path file : host.identityFiles()) {
        line(text, "IdentityFile", file.toString().replace("%", "%%"), "  ");
      }
      for (Path file : host.certificateFiles()) {
        line(text, "CertificateFile", file.toString().replace("%", "%%"), "  ");
      }
      if (host.identitiesOnly()) {
        line(text, "IdentitiesOnly", "yes", "  ");
      }
      if (!host.proxyJump().isEmpty()) {
        line(text, "ProxyJump", String.join(",", host.proxyJump()), "  ");
      }
      if (host.proxyCommand() != null) {
        text.append("  ProxyCommand ")
            .append(host.proxyCommand().replace("%", "%%").replace("\n", " "))
            .append('\n');
      }
      if (host.keepAliveSeconds() > 0) {
        line(text, "ServerAliveInterval", String.valueOf(host.keepAliveSeconds()), "  ");
      }
    }
    return text.toString();
  }

  /** A name of the book as a word that a command line can take: no blanks, no wildcards. */
  public static String alias(String name) {
    return name.strip().replaceAll("[\\s*?!\"#,\\p{Cntrl}]+", "-");
  }

  private static void line(StringBuilder text, String keyword, String value, String indent) {
    boolean quote = value.isEmpty() || value.matches(".*[\\s\"'#\\\\].*");
    String written = quote ? '"' + value.replace("\\", "\\\\").replace("\"", "\\\"") + '"' : value;
    text.append(indent).append(keyword).append(' ').append(written).append('\n');
  }
}
