package zander.bench;

import java.util.concurrent.TimeUnit;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;
import zander.core.rights.SymbolicMode;

/** The arithmetic behind a key typed into the symbolic field, done for each selected file. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.NANOSECONDS)
@Fork(1)
@Warmup(iterations = 2, time = 1)
@Measurement(iterations = 3, time = 1)
public class SymbolicModeBench {
  private final SymbolicMode parsed = SymbolicMode.parse("u+rwX,go=rX");

  @Benchmark
  public Object parse() {
    return SymbolicMode.parse("u+rwX,go=rX");
  }

  @Benchmark
  public Object apply() {
    return parsed.apply(new zander.core.rights.Mode(0640), 022, false);
  }
}
