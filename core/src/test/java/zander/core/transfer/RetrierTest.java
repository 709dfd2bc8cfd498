package zander.core.transfer;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.lang.reflect.Proxy;
import org.junit.jupiter.api.Test;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFailure.Reason;
import zander.core.files.RemotePath;
import zander.core.phrase.FileStep;
import zander.core.phrase.Phrase;
import zander.core.transfer.endpoint.Source;
import zander.core.transfer.endpoint.Target;
import zander.core.transfer.progress.ProgressCounter;
import zander.core.transfer.rules.DiskFullPrompt;
import zander.core.work.Cancellation;

class RetrierTest {
  private static final RemotePath DISK = RemotePath.of("/srv/levels/disk");

  private final ProgressCounter counter = new ProgressCounter();
  private final Retrier retrier =
      new Retrier(end(Source.class, false), end(Target.class, true), new Cancellation(), counter);

  private static <T> T end(Class<T> type, boolean own) {
    return type.cast(
        Proxy.newProxyInstance(
            type.getClassLoader(),
            new Class<?>[] {type},
            (proxy, method, arguments) ->
                switch (method.getName()) {
                  case "isOwn" -> own;
                  case "isLost" -> false;
                  case "isFull" -> ((RemoteFailure) arguments[0]).reason() == Reason.NO_SPACE;
                  case "free" -> 0L;
                  case "why" -> Phrase.quoted("said");
                  default -> throw new AssertionError(method);
                }));
  }

  private static String failOnce(int[] runs, Reason reason) throws IOException {
    if (runs[0]++ == 0) {
      throw new RemoteFailure(reason, FileStep.WRITE, DISK, "", null);
    }
    return "written";
  }

  @Test
  void whatFailedWithoutAReasonWhileRoomWasMadeIsDoneAgain() {
    retrier.whenFull(question -> DiskFullPrompt.Answer.TRY_AGAIN);
    int[] first = {0};
    int[] second = {0};
    String made =
        retrier.attempt(
            "one",
            () -> {
              // Meanwhile another finds the disk full, is asked about, and room is made.
              assertThat(retrier.attempt("other", () -> failOnce(second, Reason.NO_SPACE)))
                  .isEqualTo("written");
              return failOnce(first, Reason.FAILED);
            });
    assertThat(made).isEqualTo("written");
    assertThat(counter.now(false, null).problems()).isEmpty();
  }

  @Test
  void withoutRoomMadeItStaysAFailure() {
    assertThat(retrier.<String>attempt("one", () -> failOnce(new int[1], Reason.FAILED))).isNull();
    assertThat(counter.now(false, null).problems()).hasSize(1);
  }
}
