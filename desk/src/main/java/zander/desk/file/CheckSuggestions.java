package zander.desk.file;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.regex.Pattern;
import zander.core.change.save.StagedCheck;
import zander.core.files.RemotePath;

/** Checks that go with files which are known by their path or their first line. */
final class CheckSuggestions {
  private static final String FILE = StagedCheck.FILE;

  /** Of the whole path; none of these commands runs anything that stands in the file. */
  private static final Map<Pattern, String> BY_PATH = new LinkedHashMap<>();

  private static final Map<Pattern, String> BY_FIRST_LINE = new LinkedHashMap<>();

  static {
    path("/etc/sudoers|/etc/sudoers\\.d/[^.]+", "visudo -cf " + FILE);
    path(".*/sshd_config|.*/sshd_config\\.d/.*\\.conf", "/usr/sbin/sshd -t -f " + FILE);
    path("/etc/fstab", "findmnt --verify --tab-file " + FILE);
    path(".*/haproxy\\.cfg", "haproxy -c -f " + FILE);
    path(".*/named\\.conf[^/]*", "named-checkconf " + FILE);
    path(".*\\.php", "php -l " + FILE);
    path(".*\\.json", "jq empty " + FILE);
    path(".*\\.(xml|svg|xsl)", "xmllint --noout " + FILE);
    path(".*\\.bash", "bash -n " + FILE);
    path(".*\\.zsh", "zsh -n " + FILE);
    firstLine("#!.*\\bbash\\b.*", "bash -n " + FILE);
    firstLine("#!.*\\b(sh|dash)\\b.*", "sh -n " + FILE);
  }

  private CheckSuggestions() {}

  private static void path(String expression, String command) {
    BY_PATH.put(Pattern.compile(expression), command);
  }

  private static void firstLine(String expression, String command) {
    BY_FIRST_LINE.put(Pattern.compile(expression), command);
  }

  /** Empty for none. */
  static String of(RemotePath path, String text) {
    int end = text.indexOf('\n');
    String byPath = in(BY_PATH, path.text());
    return byPath.isEmpty() ? in(BY_FIRST_LINE, end < 0 ? text : text.substring(0, end)) : byPath;
  }

  private static String in(Map<Pattern, String> all, String text) {
    return all.entrySet().stream()
        .filter(entry -> entry.getKey().matcher(text).matches())
        .map(Map.Entry::getValue)
        .findFirst()
        .orElse("");
  }
}
