package zander.core.connect;

import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import zander.core.files.RemotePath;

/**
 * Who one is on a server.
 *
 * @param uid -1 when the server has no shell to ask, but for root
 * @param gids the numbers of the groups, the main one first; empty when not known
 */
public record AccountIdentity(
    String account, int uid, List<Integer> gids, List<String> groups, RemotePath home) {

  static final String ROOT = "root";

  private static final Pattern UID = Pattern.compile("uid=([0-9]+)");
  private static final Pattern GROUP = Pattern.compile("([0-9]+)\\(([^)]*)\\)");

  /** The number in such a line; -1 when there is none. */
  static int uidOf(String idLine) {
    Matcher uid = UID.matcher(idLine);
    return uid.find() ? (int) Long.parseLong(uid.group(1)) : -1;
  }

  /** Reads the line that POSIX {@code id} prints; fields that are not there stay unknown. */
  static AccountIdentity ofId(String account, String idLine, RemotePath home) {
    List<Integer> gids = new ArrayList<>();
    List<String> groups = new ArrayList<>();
    int at = idLine.indexOf("groups=");
    Matcher group = GROUP.matcher(at < 0 ? "" : idLine.substring(at));
    while (group.find()) {
      gids.add((int) Long.parseLong(group.group(1)));
      groups.add(group.group(2));
    }
    int uid = uidOf(idLine);
    return new AccountIdentity(
        account, uid < 0 && account.equals(ROOT) ? 0 : uid, gids, groups, home);
  }
}
