package zander.desk.save;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.regex.Pattern;
import zander.core.change.save.StagedCheck;
import zander.core.files.RemotePath;

/** What would go well with the saves of files that are known by their path or their first line. */
final class SuggestedRules {
  private static final String FILE = StagedCheck.FILE;

  /** What can lock out whoever makes it is kept only when they still get in. */
  private static final int GUARDED = 120;

  /** Of the whole path; no check before a save runs anything that stands in the file. */
  private static final Map<Pattern, SaveRules> BY_PATH = new LinkedHashMap<>();

  private static final Map<Pattern, SaveRules> BY_FIRST_LINE = new LinkedHashMap<>();

  static {
    SaveRules guarded = SaveRules.NONE.guardedFor(GUARDED);
    path("/etc/sudoers|/etc/sudoers\\.d/[^.]+", guarded.checkedBy("visudo -cf " + FILE));
    path(
        "/etc/ssh/sshd_config|/etc/ssh/sshd_config\\.d/.*\\.conf",
        guarded
            .checkedBy("/usr/sbin/sshd -t -f " + FILE)
            .triedBy("/usr/sbin/sshd -t")
            .takenInBy("systemctl reload sshd"));
    path(".*/sshd_config", check("/usr/sbin/sshd -t -f " + FILE));
    path("/etc/pam\\.d/.*", guarded);
    path(
        "/etc/nftables\\.conf",
        guarded.checkedBy("nft -c -f " + FILE).takenInBy("systemctl reload nftables"));
    path("/etc/netplan/.*\\.yaml", guarded.triedBy("netplan generate").takenInBy("netplan apply"));
    path("/etc/nginx/.*", whole("nginx -t", "systemctl reload nginx"));
    path("/etc/apache2/.*", whole("apachectl configtest", "systemctl reload apache2"));
    path("/etc/httpd/.*", whole("apachectl configtest", "systemctl reload httpd"));
    path("/etc/postfix/(main|master)\\.cf", whole("postfix check", "systemctl reload postfix"));
    path(
        "/etc/systemd/system/.*\\.(service|timer|socket|mount|path|target)",
        whole("systemd-analyze verify " + FILE, "systemctl daemon-reload"));
    path("/etc/fstab", check("findmnt --verify --tab-file " + FILE));
    path(
        "/etc/haproxy/haproxy\\.cfg",
        check("haproxy -c -f " + FILE).takenInBy("systemctl reload haproxy"));
    path(".*/haproxy\\.cfg", check("haproxy -c -f " + FILE));
    path(".*/named\\.conf[^/]*", check("named-checkconf " + FILE));
    path(".*\\.php", check("php -l " + FILE));
    path(".*\\.json", check("jq empty " + FILE));
    path(".*\\.(xml|svg|xsl)", check("xmllint --noout " + FILE));
    path(".*\\.bash", check("bash -n " + FILE));
    path(".*\\.zsh", check("zsh -n " + FILE));
    firstLine("#!.*\\bbash\\b.*", check("bash -n " + FILE));
    firstLine("#!.*\\b(sh|dash)\\b.*", check("sh -n " + FILE));
  }

  private SuggestedRules() {}

  private static SaveRules check(String command) {
    return SaveRules.NONE.checkedBy(command);
  }

  private static SaveRules whole(String command, String effect) {
    return SaveRules.NONE.triedBy(command).takenInBy(effect);
  }

  private static void path(String expression, SaveRules rules) {
    BY_PATH.put(Pattern.compile(expression), rules);
  }

  private static void firstLine(String expression, SaveRules rules) {
    BY_FIRST_LINE.put(Pattern.compile(expression), rules);
  }

  /** {@link SaveRules#NONE} for none. */
  static SaveRules of(RemotePath path, String text) {
    int end = text.indexOf('\n');
    SaveRules byPath = in(BY_PATH, path.text());
    return byPath.isNone() ? in(BY_FIRST_LINE, end < 0 ? text : text.substring(0, end)) : byPath;
  }

  private static SaveRules in(Map<Pattern, SaveRules> all, String text) {
    return all.entrySet().stream()
        .filter(entry -> entry.getKey().matcher(text).matches())
        .map(Map.Entry::getValue)
        .findFirst()
        .orElse(SaveRules.NONE);
  }
}
