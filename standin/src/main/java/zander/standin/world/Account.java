package zander.standin.world;

import java.util.List;

/**
 * A user of a made-up server.
 *
 * @param groups names of further groups
 * @param password in clear: it is made up; empty for none
 * @param sudo whether it may become root
 */
public record Account(
    String name,
    int uid,
    int gid,
    List<String> groups,
    String home,
    String shell,
    String password,
    boolean sudo) {

  public boolean mayHaveShell() {
    return !shell.endsWith("/nologin");
  }
}
