package zander.core.transfer.direct;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.util.function.Consumer;
import zander.core.connect.AgentLoan;
import zander.core.connect.command.ExecResult;
import zander.core.connect.command.Pipe;

/**
 * One program at one server feeding another at the other, started by the one of them that a key was
 * lent to. It ends when the first has no more to say, or when this computer lets go of its input.
 */
final class DirectTransferProcess {
  /** Which of the two servers signs in at the other. */
  enum Starter {
    SOURCE,
    TARGET
  }

  /** What {@code ssh} ends with when it did not get there (ssh(1)). */
  static final int NOT_THERE = 255;

  private static final String FOLDER = "\"$d\"";
  private static final int NO_FOLDER = 120;

  private final AgentLoan loan;
  private final Starter starter;

  DirectTransferProcess(AgentLoan loan, Starter starter) {
    this.loan = loan;
    this.starter = starter;
  }

  Starter starter() {
    return starter;
  }

  /**
   * Options for a {@code tar} that unpacks at the target: it takes what was asked for, and nothing
   * else that the source may send. A source that signs in at the target itself could do anything
   * there without that, and has the list to itself.
   */
  String takingOnlyTheNames() {
    return starter == Starter.TARGET ? " --no-recursion --null -T " + FOLDER + "/names" : "";
  }

  /**
   * Runs them to their end; waits.
   *
   * @param first run at the source, for {@code sh} in wire form; reads {@code names}
   * @param second run at the target; reads what the first writes
   * @param names given to the first
   * @param told each line that the second writes
   * @param running given the pipe, so that it can be ended from elsewhere
   * @return the second's status, or that of {@code ssh}; and what all have complained of
   */
  ExecResult run(
      String first, String second, byte[] names, Consumer<String> told, Consumer<Pipe> running)
      throws IOException {
    boolean pushes = starter == Starter.SOURCE;
    // Of a pipeline only the last status is known (POSIX, XCU 2.9.2).
    String near =
        pushes
            ? "{ " + first + "; }"
            : "{ " + loan.command(FOLDER, first) + "; echo $? > " + FOLDER + "/status; }";
    String far = "{ " + (pushes ? loan.command(FOLDER, second) : second) + "; }";
    String script =
        "d=$(mktemp -d /tmp/zander-XXXXXXXX) || exit "
            + NO_FOLDER
            + "; trap 'rm -rf \"$d\"' EXIT; trap 'exit 143' HUP INT TERM; exec 3<&0; "
            + ("head -c " + names.length + " <&3 > " + FOLDER + "/names; ")
            + loan.knownHost(FOLDER)
            // Nothing more comes on this input but its end, and then nobody waits for the rest.
            + "; { read -r end <&3; kill 0; } > /dev/null 2>&1 & watch=$!; "
            + (near + " < " + FOLDER + "/names | " + far + "; s=$?; ")
            + ("read -r t 2> /dev/null < "
                + FOLDER
                + "/status && [ $t = "
                + NOT_THERE
                + " ] && s=$t; ")
            + "kill $watch; exit $s";
    try (Pipe pipe = loan.pipe(script)) {
      running.accept(pipe);
      OutputStream in = pipe.in();
      in.write(names);
      in.flush();
      BufferedReader lines =
          new BufferedReader(new InputStreamReader(pipe.out(), StandardCharsets.ISO_8859_1));
      for (String line; (line = lines.readLine()) != null; ) {
        told.accept(line);
      }
      return pipe.finish();
    }
  }
}
