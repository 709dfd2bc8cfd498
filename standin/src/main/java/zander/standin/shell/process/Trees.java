package zander.standin.shell.process;

import java.io.IOException;
import zander.standin.world.PosixError;
import zander.standin.world.Stat;

/** Goes through a tree without following links. */
public final class Trees {
  private Trees() {}

  /** Told of every entry. */
  public interface Visitor {
    void visit(String shown, String path, Stat stat) throws IOException;
  }

  /**
   * Visits an entry and all below it, folders before what is in them, names in order.
   *
   * @param shown the path as the person wrote it
   */
  public static void walk(Call call, String shown, Visitor visitor) throws IOException {
    Stat stat = call.world().lstat(call.caller(), call.path(shown));
    visitor.visit(shown, call.path(shown), stat);
    if (stat.isFolder()) {
      for (String name : children(call, shown)) {
        walk(call, Call.at(shown, name), visitor);
      }
    }
  }

  public static java.util.List<String> children(Call call, String shown) throws PosixError {
    return call.world().list(call.caller(), call.path(shown)).stream().sorted().toList();
  }
}
