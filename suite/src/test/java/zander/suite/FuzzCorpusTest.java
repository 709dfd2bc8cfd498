package zander.suite;

import java.nio.file.Path;
import java.util.List;
import java.util.Random;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

/**
 * Gives each reader of others' bytes what a coverage-guided fuzzer found interesting ({@code
 * fuzz/run}), and changed copies of that: {@code -Dfuzz.changed} says how many, 400 usually.
 */
class FuzzCorpusTest {
  private static final int CHANGED = Integer.getInteger("fuzz.changed", 400);

  @TempDir Path folder;

  @ParameterizedTest
  @EnumSource(FuzzTarget.class)
  @Timeout(value = 120, unit = TimeUnit.SECONDS)
  void anyBytesEndSoonAndAsIsSaid(FuzzTarget target) throws Exception {
    List<byte[]> inputs = FuzzMain.inputs(target, folder);
    for (byte[] input : inputs) {
      take(target, input);
    }
    Random random = new Random(20261128);
    for (int i = 0; i < CHANGED; i++) {
      take(target, changed(inputs.get(random.nextInt(inputs.size())), inputs, random));
    }
  }

  private void take(FuzzTarget target, byte[] input) {
    try {
      target.take(input, folder);
    } catch (Exception | StackOverflowError e) {
      String bytes = java.util.Base64.getEncoder().encodeToString(input);
      throw new AssertionError(target + " fails for " + bytes, e);
    }
  }

  /** Bits turned, parts doubled, cut, or taken from another. */
  private static byte[] changed(byte[] input, List<byte[]> all, Random random) {
    byte[] now = input.clone();
    for (int times = 1 + random.nextInt(4); times > 0 && now.length > 0; times--) {
      int at = random.nextInt(now.length);
      byte[] other = all.get(random.nextInt(all.size()));
      switch (random.nextInt(5)) {
        case 0 -> now[at] ^= (byte) (1 << random.nextInt(8));
        case 1 -> now[at] = (byte) random.nextInt(256);
        case 2 -> now = java.util.Arrays.copyOf(now, at);
        case 3 -> now = joined(java.util.Arrays.copyOf(now, at), now);
        default -> now = joined(java.util.Arrays.copyOf(now, at), other);
      }
    }
    return now.length > 1 << 20 ? java.util.Arrays.copyOf(now, 1 << 20) : now;
  }

  private static byte[] joined(byte[] one, byte[] other) {
    byte[] both = java.util.Arrays.copyOf(one, one.length + other.length);
    System.arraycopy(other, 0, both, one.length, other.length);
    return both;
  }
}
