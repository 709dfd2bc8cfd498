package zander.standin.world;

import java.util.List;

/**
 * A user of a made-up server.
 *
 * @param groups names of further groups
 * @param password in clear: it is made up; empty for none
 * @param actsAs whom it may act as by {@code sudo}: {@link #ANYBODY} with its password, one account
 *     without, or empty for nobody
 */
public record Account(
    String name,
    int uid,
    int gid,
    List<String> groups,
    String home,
    String shell,
    String password,
    String actsAs) {
  public static final String ANYBODY = "ALL";

  public boolean mayHaveShell() {
    return !shell.endsWith("/nologin");
  }
}
