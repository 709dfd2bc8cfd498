package zander.core.connect.channel;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import org.apache.sshd.common.NamedFactory;

/** Which algorithms are offered first (RFC 4253, section 7.1: the client's order decides). */
public final class AlgorithmOrder {
  private AlgorithmOrder() {}

  /** The same factories with the named ones in front, in the order of the names. */
  public static <T> List<NamedFactory<T>> preferring(
      List<String> first, List<NamedFactory<T>> all) {
    List<NamedFactory<T>> sorted = new ArrayList<>(all);
    sorted.sort(
        Comparator.comparingInt(
            factory -> {
              int at = first.indexOf(factory.getName());
              return at < 0 ? first.size() : at;
            }));
    return sorted;
  }
}
