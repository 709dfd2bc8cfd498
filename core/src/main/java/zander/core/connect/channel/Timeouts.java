package zander.core.connect.channel;

import java.time.Duration;

/** Bounds for waits that a person may be part of, and for those that only a server is. */
public final class Timeouts {
  /** As long as somebody may look for a passphrase. */
  public static final Duration PATIENCE = Duration.ofMinutes(15);

  /** As long as a channel may take to open over a very slow line. */
  public static final Duration OPENING = Duration.ofSeconds(60);

  /** How long an answer is waited for that a server must give, and some do not. */
  public static final Duration ANSWER = Duration.ofSeconds(15);

  private Timeouts() {}
}
