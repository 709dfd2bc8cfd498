package zander.desk.transfer;

import java.nio.file.Path;
import java.util.List;
import java.util.function.Function;
import zander.core.transfer.endpoint.Direction;
import zander.core.transfer.endpoint.PartialNames;
import zander.core.transfer.endpoint.Source;
import zander.core.transfer.endpoint.Target;

/**
 * What is to be transferred, from where to where. Sides keep the state of one transfer, so each
 * gets its own.
 *
 * @param source makes the side it comes from, off the interface thread
 * @param target makes the side it goes to
 * @param from the base it comes from, for people
 * @param to the base it goes to
 * @param names what is transferred, in wire form
 * @param home of the person on this computer, which is shown as {@code ~}
 */
public record TransferRoute(
    Direction direction,
    Function<PartialNames, Source> source,
    Function<PartialNames, Target> target,
    String from,
    String to,
    List<String> names,
    Path home) {

  /** The same places with other names. */
  public TransferRoute names(List<String> others) {
    return new TransferRoute(direction, source, target, from, to, List.copyOf(others), home);
  }

  /** From where to where, for people. */
  public String way() {
    return shown(from) + "  →  " + shown(to);
  }

  private String shown(String place) {
    return place.startsWith(home + "/") ? "~" + place.substring(home.toString().length()) : place;
  }
}
