package zander.core.files.sftp.wire;

import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFailure.Reason;

/** Waits for the answers to requests of which each may be refused by itself. */
public final class Answers {
  private Answers() {}

  /** Waits for what answers a request. */
  public interface Answer<S, R> {
    @Nullable R of(S sent) throws RemoteFailure;
  }

  /**
   * @param otherwise what stands for a request that was refused
   * @throws RemoteFailure when the connection is lost
   */
  public static <S, R> @Nullable R take(
      S sent, Answer<S, R> answer, Function<RemoteFailure, @Nullable R> otherwise)
      throws RemoteFailure {
    try {
      return answer.of(sent);
    } catch (RemoteFailure e) {
      if (e.reason() == Reason.LINE_LOST) {
        throw e;
      }
      return otherwise.apply(e);
    }
  }

  /**
   * @param other what stands for a request that was refused, or answered with nothing
   * @throws RemoteFailure when the connection is lost
   */
  public static <S, R> R takeOr(S sent, Answer<S, R> answer, R other) throws RemoteFailure {
    R taken = take(sent, answer, refused -> other);
    return taken == null ? other : taken;
  }
}
