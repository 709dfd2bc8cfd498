package zander.core.connect.command;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.CharRange;
import net.jqwik.api.constraints.StringLength;
import org.junit.jupiter.api.Assumptions;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import zander.core.files.WireName;

/**
 * The system's own shells read what is made for them.
 *
 * <p>Judged: what is quoted for a shell | the login shells themselves | a name of odd bytes in
 * each, and made-up bytes
 */
class ShellWordsTest {
  /** As sshd hands a command to a login shell. */
  private static String run(String shell, String command) throws Exception {
    Process process = new ProcessBuilder(shell, "-c", command).start();
    process.getOutputStream().close();
    String output = WireName.fromBytes(process.getInputStream().readAllBytes());
    assertThat(process.waitFor()).isZero();
    return output;
  }

  @Property(tries = 60, seed = "1")
  void anyBytesArriveAsTheyAre(
      @ForAll @StringLength(max = 300) @CharRange(from = '\u0001', to = '\u00ff') String word)
      throws Exception {
    String script = "printf %s " + ShellWords.quoteWire(word);
    assertThat(run("/bin/sh", ShellWords.command(script))).isEqualTo(word);
  }

  @ParameterizedTest
  @ValueSource(strings = {"/bin/sh", "/bin/dash", "/bin/bash", "/bin/csh", "/usr/bin/fish"})
  void loginShellsReadItAlike(String shell) throws Exception {
    Assumptions.assumeTrue(Files.isExecutable(Path.of(shell)));
    String word = "it's $HOME `id` \\ \\\\0101 \"!\" %s %b\n\t~ {a,b} * \u00e9\u00ff;#";
    String script = "a=" + ShellWords.quoteWire(word) + "; printf %s \"$a\"; cat";
    assertThat(run(shell, ShellWords.command(script))).isEqualTo(word);
  }
}
