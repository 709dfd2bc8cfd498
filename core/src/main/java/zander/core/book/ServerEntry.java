package zander.core.book;

import com.fasterxml.jackson.annotation.JsonIgnore;
import com.fasterxml.jackson.annotation.JsonIgnoreProperties;
import com.fasterxml.jackson.annotation.JsonInclude;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.TreeMap;
import zander.core.connect.address.ServerAddress;
import zander.core.connect.channel.WayUp;

/**
 * A saved server. Never holds a secret.
 *
 * @param name how the person calls it; unique in the book
 * @param group the person's own grouping; empty for none
 * @param jump the servers to go through, in order: names of the book, or addresses
 * @param landing the folder to open first; the home folder when {@code null}
 * @param local the folder on this computer to show below the waterline, or {@code null}
 * @param service the account that serves what is in its folders, such as {@code web}, or {@code
 *     null}
 * @param ways by which of the server's programs an account was acted as the last time
 */
@JsonIgnoreProperties(ignoreUnknown = true)
@JsonInclude(JsonInclude.Include.NON_EMPTY)
public record ServerEntry(
    String name,
    String group,
    Mark mark,
    String account,
    String host,
    Integer port,
    List<String> jump,
    SignIn signIn,
    String landing,
    String local,
    String note,
    List<MarkedFolder> folders,
    String service,
    Map<String, WayUp> ways) {

  public ServerEntry {
    group = group == null ? "" : group;
    mark = mark == null ? Mark.NONE : mark;
    port = port == null ? ServerAddress.USUAL_PORT : port;
    jump = jump == null ? List.of() : List.copyOf(jump);
    signIn = signIn == null ? new SignIn(null, null, true, true) : signIn;
    folders = folders == null ? List.of() : List.copyOf(folders);
    ways = known(ways);
  }

  /** Without those of a newer version. */
  private static Map<String, WayUp> known(Map<String, WayUp> ways) {
    Map<String, WayUp> known = new TreeMap<>(ways == null ? Map.of() : ways);
    known.values().removeIf(Objects::isNull);
    return Collections.unmodifiableMap(known);
  }

  /** An entry with nothing but what is needed to reach it. */
  public static ServerEntry of(String name, ServerAddress address, SignIn signIn) {
    return new ServerEntry(
        name,
        "",
        Mark.NONE,
        address.account(),
        address.host(),
        address.port(),
        List.of(),
        signIn,
        null,
        null,
        null,
        List.of(),
        null,
        Map.of());
  }

  @JsonIgnore
  public ServerAddress address() {
    return new ServerAddress(account, host, port);
  }

  public ServerEntry withName(String other) {
    return new ServerEntry(
        other, group, mark, account, host, port, jump, signIn, landing, local, note, folders,
        service, ways);
  }

  public ServerEntry withSignIn(SignIn other) {
    return new ServerEntry(
        name, group, mark, account, host, port, jump, other, landing, local, note, folders, service,
        ways);
  }

  public ServerEntry withJump(List<String> other) {
    return new ServerEntry(
        name, group, mark, account, host, port, other, signIn, landing, local, note, folders,
        service, ways);
  }

  public ServerEntry withGroup(String other) {
    return new ServerEntry(
        name, other, mark, account, host, port, jump, signIn, landing, local, note, folders,
        service, ways);
  }

  public ServerEntry withPlaces(String otherLanding, String otherLocal, String otherNote) {
    return new ServerEntry(
        name,
        group,
        mark,
        account,
        host,
        port,
        jump,
        signIn,
        otherLanding,
        otherLocal,
        otherNote,
        folders,
        service,
        ways);
  }

  public ServerEntry withMark(Mark other) {
    return new ServerEntry(
        name, group, other, account, host, port, jump, signIn, landing, local, note, folders,
        service, ways);
  }

  public ServerEntry withFolders(List<MarkedFolder> other) {
    return new ServerEntry(
        name, group, mark, account, host, port, jump, signIn, landing, local, note, other, service,
        ways);
  }

  public ServerEntry withService(String other) {
    return new ServerEntry(
        name, group, mark, account, host, port, jump, signIn, landing, local, note, folders, other,
        ways);
  }

  /** With one more way. */
  public ServerEntry withWay(String actedAs, WayUp way) {
    Map<String, WayUp> more = new TreeMap<>(ways);
    more.put(actedAs, way);
    return withWays(more);
  }

  public ServerEntry withWays(Map<String, WayUp> other) {
    return new ServerEntry(
        name, group, mark, account, host, port, jump, signIn, landing, local, note, folders,
        service, other);
  }

  /** Whether it fits what somebody typed to search the book. */
  public boolean fits(String typed) {
    String all =
        String.join(" ", name, group, account + "@" + host, note == null ? "" : note, mark.name());
    String lower = all.toLowerCase(java.util.Locale.ROOT);
    for (String word : typed.strip().toLowerCase(java.util.Locale.ROOT).split("\\s+")) {
      if (!lower.contains(word)) {
        return false;
      }
    }
    return true;
  }
}
