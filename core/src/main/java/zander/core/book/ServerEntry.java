package zander.core.book;

import com.fasterxml.jackson.annotation.JsonIgnore;
import com.fasterxml.jackson.annotation.JsonIgnoreProperties;
import com.fasterxml.jackson.annotation.JsonInclude;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.TreeMap;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;
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
 * @param proxyCommand a command of this computer by which alone it is reached, or {@code null}
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
    @Nullable String landing,
    @Nullable String local,
    @Nullable String note,
    List<MarkedFolder> folders,
    @Nullable String service,
    Map<String, WayUp> ways,
    @Nullable String proxyCommand) {

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
        Map.of(),
        null);
  }

  @JsonIgnore
  public ServerAddress address() {
    return new ServerAddress(account, host, port);
  }

  public ServerEntry withName(String other) {
    return with(copy -> copy.name = other);
  }

  public ServerEntry withSignIn(SignIn other) {
    return with(copy -> copy.signIn = other);
  }

  public ServerEntry withJump(List<String> other) {
    return with(copy -> copy.jump = other);
  }

  public ServerEntry withGroup(String other) {
    return with(copy -> copy.group = other);
  }

  public ServerEntry withMark(Mark other) {
    return with(copy -> copy.mark = other);
  }

  public ServerEntry withFolders(List<MarkedFolder> other) {
    return with(copy -> copy.folders = other);
  }

  public ServerEntry withService(@Nullable String other) {
    return with(copy -> copy.service = other);
  }

  public ServerEntry withProxyCommand(@Nullable String other) {
    return with(copy -> copy.proxyCommand = other);
  }

  public ServerEntry withWays(Map<String, WayUp> other) {
    return with(copy -> copy.ways = other);
  }

  public ServerEntry withPlaces(
      @Nullable String otherLanding, @Nullable String otherLocal, @Nullable String otherNote) {
    return with(
        copy -> {
          copy.landing = otherLanding;
          copy.local = otherLocal;
          copy.note = otherNote;
        });
  }

  /** With one more way. */
  public ServerEntry withWay(String actedAs, WayUp way) {
    Map<String, WayUp> more = new TreeMap<>(ways);
    more.put(actedAs, way);
    return withWays(more);
  }

  private ServerEntry with(Consumer<Copy> change) {
    Copy copy = new Copy(this);
    change.accept(copy);
    return copy.made();
  }

  /** An entry while some of it is changed. */
  private static final class Copy {
    String name;
    String group;
    Mark mark;
    String account;
    String host;
    Integer port;
    List<String> jump;
    SignIn signIn;
    @Nullable String landing;
    @Nullable String local;
    @Nullable String note;
    List<MarkedFolder> folders;
    @Nullable String service;
    Map<String, WayUp> ways;
    @Nullable String proxyCommand;

    Copy(ServerEntry of) {
      name = of.name;
      group = of.group;
      mark = of.mark;
      account = of.account;
      host = of.host;
      port = of.port;
      jump = of.jump;
      signIn = of.signIn;
      landing = of.landing;
      local = of.local;
      note = of.note;
      folders = of.folders;
      service = of.service;
      ways = of.ways;
      proxyCommand = of.proxyCommand;
    }

    ServerEntry made() {
      return new ServerEntry(
          name,
          group,
          mark,
          account,
          host,
          port,
          jump,
          signIn,
          landing,
          local,
          note,
          folders,
          service,
          ways,
          proxyCommand);
    }
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
