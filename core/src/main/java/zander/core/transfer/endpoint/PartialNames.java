package zander.core.transfer.endpoint;

import java.util.concurrent.ThreadLocalRandom;
import java.util.concurrent.atomic.AtomicInteger;
import org.jspecify.annotations.Nullable;
import zander.core.change.place.TemporaryName;

/** The temporary names of one transfer: all carry its mark, so that they can be found again. */
public final class PartialNames {
  private static final int LONGEST_NAME = 255;

  private final String mark;
  private final AtomicInteger count = new AtomicInteger();

  public PartialNames() {
    this(String.format("%08x", ThreadLocalRandom.current().nextInt()));
  }

  /**
   * @param mark that of an earlier transfer, which is continued
   */
  public PartialNames(String mark) {
    this.mark = mark;
  }

  public String mark() {
    return mark;
  }

  /** A new temporary name for a file, in wire form. */
  public String of(String wireName) {
    return TemporaryName.of(
        wireName, mark + "-" + Integer.toString(count.incrementAndGet(), 36) + suffix());
  }

  /**
   * The one temporary name that a file gets by {@link #transform}.
   *
   * @return {@code null} when the name is too long for it
   */
  public @Nullable String fixed(String wireName) {
    String name = "." + wireName + fixedEnd();
    return name.length() > LONGEST_NAME ? null : name;
  }

  /** What makes it of the last name of a path (tar manual, 6.7). */
  public String transform() {
    return "s,^(.*/)?([^/]*)$,\\1.\\2" + fixedEnd() + ",x";
  }

  private String fixedEnd() {
    return TemporaryName.MARK + mark + "-s";
  }

  /** A continued transfer must not meet the names of its first try. */
  private static String suffix() {
    return Integer.toString(ThreadLocalRandom.current().nextInt(36 * 36 * 36), 36);
  }

  /** Whether a name is one of these. */
  public boolean isOne(String wireName) {
    return wireName.startsWith(".") && wireName.contains(TemporaryName.MARK + mark + "-");
  }
}
