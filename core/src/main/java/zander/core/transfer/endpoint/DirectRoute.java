package zander.core.transfer.endpoint;

import java.io.IOException;
import org.jspecify.annotations.Nullable;
import zander.core.phrase.ExplainedException;
import zander.core.phrase.Phrase;

/**
 * A way for contents straight from one server to another, which this computer only directs. What
 * cannot go this way fails with {@link NotDirect} and goes through this computer. For any thread.
 */
public interface DirectRoute {
  /** Files with more bytes go one by one, so that they can be continued. */
  long LARGEST_IN_BATCH = 64L << 20;

  /** It did not go this way; it may go through this computer. */
  final class NotDirect extends ExplainedException {
    public NotDirect(Phrase why) {
      super(why);
    }
  }

  /** Whether something may go this way: not after it turned out that nothing can. */
  boolean takes(TransferItem item);

  /** Starts a large file, or continues one; nothing is opened for it here. */
  Arrival create(TransferItem item, Target.@Nullable Part part) throws IOException;

  /** A large file that the other server writes. */
  interface Arrival extends Target.Incoming {
    /**
     * Waits until the other server has written it.
     *
     * @param from bytes from the front that are there
     * @return how much is there now
     * @throws NotDirect when it broke off; what is there may be continued
     */
    long stream(long from) throws IOException;

    /**
     * Leaves the temporary file for a later try.
     *
     * @param lost whether the connection is gone, so that nobody can know how the file stands
     */
    void leave(boolean lost);
  }

  /** Ends what is under way; nothing more is begun. Does not wait. */
  void giveUp();

  /** No key stays lent. Does not fail. */
  void end();
}
