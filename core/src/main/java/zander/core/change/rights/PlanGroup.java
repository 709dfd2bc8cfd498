package zander.core.change.rights;

import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import zander.core.rights.RightsDanger;
import zander.core.rights.RightsStep;

/** Entries of a plan of which the same is to be said. Not changed once the plan is made. */
public final class PlanGroup {
  /** What becomes of entries. */
  public enum Fate {
    CHANGED,
    /** They are as they are wanted. */
    SAME,
    /** Nothing is said of them. */
    NOT_MEANT,
    /** Links: they have no rights of their own, and are not followed. */
    LINK,
    /** On a file system that is mounted there. */
    OTHER_FILE_SYSTEM,
    /** Sockets, pipes, devices. */
    SPECIAL,
    /** Another account owns them, or the group that is wanted is not one's own. */
    NOT_ALLOWED,
    /** Folders that cannot be looked into: what is in them is not known. */
    UNREADABLE
  }

  private static final int EXAMPLES = 3;

  private final Fate fate;
  private final @Nullable RightsDanger danger;
  private final @Nullable RightsStep step;
  private final List<String> examples = new ArrayList<>();
  private long count;

  /**
   * @param step what becomes of them, without the parts that stay; {@code null} where it differs,
   *     or nothing does
   */
  PlanGroup(Fate fate, @Nullable RightsDanger danger, @Nullable RightsStep step) {
    this.fate = fate;
    this.danger = danger;
    this.step = step;
  }

  void add(String path) {
    if (count < EXAMPLES) {
      examples.add(path);
    }
    count++;
  }

  public Fate fate() {
    return fate;
  }

  /** {@code null} for none. */
  public @Nullable RightsDanger danger() {
    return danger;
  }

  public @Nullable RightsStep step() {
    return step;
  }

  public long count() {
    return count;
  }

  /** A few paths, from the folder of the plan, in wire form. */
  public List<String> examples() {
    return List.copyOf(examples);
  }
}
