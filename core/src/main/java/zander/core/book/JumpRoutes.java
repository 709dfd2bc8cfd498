package zander.core.book;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import java.util.function.Function;
import zander.core.connect.address.ServerAddress;
import zander.core.connect.signin.Hop;
import zander.core.phrase.InputPhrase;
import zander.core.phrase.InvalidInput;

/**
 * The way to a server through its jump hosts, each with its own account and key. A jump host that
 * itself lies behind others brings those along.
 */
public final class JumpRoutes {
  private final Function<String, ServerEntry> named;
  private final Path home;

  /**
   * @param named finds an entry by its name; {@code null} for none
   * @param home what key files begin at
   */
  public JumpRoutes(Function<String, ServerEntry> named, Path home) {
    this.named = named;
    this.home = home;
  }

  /**
   * The hops in their order, the goal last.
   *
   * @throws IllegalArgumentException with words for the person, when a jump host is not known or
   *     the jumps go in a circle
   */
  public List<Hop> to(ServerEntry goal) {
    List<Hop> route = new ArrayList<>();
    add(goal, route, new LinkedHashSet<>());
    return route;
  }

  private void add(ServerEntry entry, List<Hop> route, Set<String> above) {
    if (!above.add(entry.name())) {
      throw new InvalidInput(
          InputPhrase.JUMPS_IN_A_CIRCLE.of(String.join(", ", above) + ", " + entry.name()));
    }
    if (entry.proxyCommand() != null && route.isEmpty()) {
      route.add(new Hop(entry.address(), entry.signIn().ways(home), entry.proxyCommand()));
      above.remove(entry.name());
      return;
    }
    for (String jump : entry.jump()) {
      ServerEntry host = named.apply(jump);
      if (host != null) {
        add(host, route, above);
      } else if (ServerAddress.looksLikeOne(jump)) {
        route.add(new Hop(ServerAddress.parse(jump), entry.signIn().ways(home)));
      } else {
        throw new InvalidInput(InputPhrase.JUMP_UNKNOWN.of(jump));
      }
    }
    route.add(new Hop(entry.address(), entry.signIn().ways(home)));
    above.remove(entry.name());
  }
}
