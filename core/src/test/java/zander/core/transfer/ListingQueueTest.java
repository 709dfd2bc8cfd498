package zander.core.transfer;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CountDownLatch;
import org.junit.jupiter.api.Test;
import zander.core.files.FileKind;
import zander.core.rights.Mode;
import zander.core.transfer.endpoint.TreeEntry;

class ListingQueueTest {
  private final ListingQueue portions = new ListingQueue();
  private final List<String> got = new ArrayList<>();

  private static List<TreeEntry> nodes(String... names) {
    return List.of(names).stream()
        .map(name -> new TreeEntry(name, FileKind.FILE, 1, 0, new Mode(0644), null, ""))
        .toList();
  }

  private boolean handOn() throws IOException {
    return portions.handTo(portion -> portion.forEach(node -> got.add(node.name())));
  }

  @Test
  void whatComesIsHandedOnBeforeAllHasCome() throws Exception {
    CountDownLatch firstIsTaken = new CountDownLatch(1);
    CompletableFuture<Void> filling =
        CompletableFuture.runAsync(
            () ->
                portions.fill(
                    add -> {
                      add.accept(nodes("gauge-1", "gauge-2"));
                      // Would wait for ever if the first were kept back until the last.
                      await(firstIsTaken);
                      add.accept(nodes("gauge-3"));
                    }));

    boolean all =
        portions.handTo(
            portion -> {
              portion.forEach(node -> got.add(node.name()));
              firstIsTaken.countDown();
            });

    filling.get();
    assertThat(all).isTrue();
    assertThat(got).containsExactly("gauge-1", "gauge-2", "gauge-3");
  }

  private static void await(CountDownLatch latch) {
    try {
      latch.await();
    } catch (InterruptedException e) {
      throw new IllegalStateException(e);
    }
  }

  @Test
  void whatFailsAtOnceIsLeftToBeTriedAgain() throws IOException {
    portions.fill(
        add -> {
          throw new IOException("no permission");
        });

    assertThat(handOn()).isFalse();
    assertThat(got).isEmpty();
  }

  @Test
  void whatFailsLaterSaysSoAfterWhatCame() {
    portions.fill(
        add -> {
          add.accept(nodes("gauge-1"));
          throw new IOException("the line broke");
        });

    assertThatThrownBy(this::handOn).isInstanceOf(IOException.class).hasMessage("the line broke");
    assertThat(got).containsExactly("gauge-1");
  }

  @Test
  void whoWaitsIsNotLeftWaitingByAnError() {
    assertThatThrownBy(
            () ->
                portions.fill(
                    add -> {
                      throw new StackOverflowError();
                    }))
        .isInstanceOf(StackOverflowError.class);

    assertThat(portions).satisfies(ended -> assertThat(handOn()).isFalse());
  }
}
