package zander.core.change.place;

import java.util.concurrent.ThreadLocalRandom;
import zander.core.files.RemotePath;

/**
 * Names of what is not whole yet: beside its goal, hidden, and with a mark that tells whose it is.
 */
public final class TemporaryName {
  private static final int LONGEST_NAME = 255;

  /** What every temporary name has in it. */
  public static final String MARK = ".zander-";

  private TemporaryName() {}

  /** A name beside the goal, of 255 bytes at most. */
  public static RemotePath beside(RemotePath goal) {
    return goal.parent().child(of(goal.wireName()));
  }

  /** The same for a name alone, in wire form. */
  public static String of(String wireName) {
    return of(wireName, Integer.toHexString(ThreadLocalRandom.current().nextInt()));
  }

  /** The same with an end of one's own. */
  public static String of(String wireName, String end) {
    String tail = MARK + end;
    String name = "." + wireName;
    return name.substring(0, Math.min(name.length(), LONGEST_NAME - tail.length())) + tail;
  }
}
