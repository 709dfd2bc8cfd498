package zander.core.rights;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/**
 * Judged: modes in letters and octal, {@code +}, {@code -}, {@code =}, {@code X} | {@code chmod} |
 * 4,000
 */
class SymbolicModeTest {
  private static final int CASES = 4000;

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "0644 | u+x          | file   | 0744",
        "0777 | go-w         | file   | 0755",
        "0600 | a=rX         | file   | 0444",
        "0700 | a=rX         | file   | 0555",
        "0600 | a=rX         | folder | 0555",
        "0640 | g=u          | file   | 0660",
        "0755 | u+s,g+s      | file   | 6755",
        "2755 | u=rwx,go=rx  | folder | 2755",
        "1777 | o=           | folder | 0770",
        "0644 | +x           | file   | 0755",
        "0644 | +w           | file   | 0644",
        "0000 | u=rw,go=r    | file   | 0644",
      })
  void appliesAsPosixSays(String before, String change, String kind, String after) {
    Mode mode =
        SymbolicMode.parse(change)
            .apply(new Mode(Integer.parseInt(before, 8)), 022, kind.equals("folder"));
    assertThat(mode.octal()).isEqualTo(after);
  }

  @ParameterizedTest
  @ValueSource(strings = {"", "u", "u+r,", "z+r", "u*r", "u+q", "u+rg", "644", ",u+r", "u+r go-w"})
  void refusesWhatIsNotInTheNotation(String text) {
    assertThatThrownBy(() -> SymbolicMode.parse(text))
        .isInstanceOf(IllegalArgumentException.class)
        .message()
        .isNotBlank();
  }

  /** The system's own {@code chmod} decides on generated cases, run by one script. */
  @Test
  void agreesWithTheSystemsChmod(@TempDir Path folder) throws Exception {
    Random random = new Random(20261123);
    List<String> script = new ArrayList<>(List.of("cd '" + folder + "'", "touch f", "mkdir d"));
    List<String> cases = new ArrayList<>();
    List<String> expected = new ArrayList<>();
    for (int i = 0; i < CASES; i++) {
      int before = random.nextInt(010000);
      int umask = random.nextInt(01000);
      boolean isFolder = random.nextBoolean();
      String change = expression(random);
      // Five digits clear a folder's set-id bits too, which four leave alone.
      script.add(
          String.format(
              "chmod 0%04o %s; umask %03o; chmod -- '%s' %s 2>/dev/null; stat -c %%a %s",
              before, name(isFolder), umask, change, name(isFolder), name(isFolder)));
      cases.add(String.format("%04o %03o %s %s", before, umask, change, name(isFolder)));
      expected.add(
          Integer.toOctalString(
              SymbolicMode.parse(change).apply(new Mode(before), umask, isFolder).bits()));
    }
    List<String> real = run(folder, script);
    assertThat(real).hasSize(CASES);
    List<String> wrong = new ArrayList<>();
    for (int i = 0; i < CASES; i++) {
      if (!real.get(i).equals(expected.get(i))) {
        wrong.add(cases.get(i) + ": chmod " + real.get(i) + ", ours " + expected.get(i));
      }
    }
    assertThat(wrong).isEmpty();
  }

  private static String name(boolean isFolder) {
    return isFolder ? "d" : "f";
  }

  private static List<String> run(Path folder, List<String> script) throws IOException {
    Path file = folder.resolve("script");
    Files.write(file, script);
    Process process = new ProcessBuilder("sh", file.toString()).redirectErrorStream(true).start();
    try (var lines = process.inputReader()) {
      return lines.lines().toList();
    }
  }

  private static String expression(Random random) {
    StringBuilder text = new StringBuilder();
    for (int clauses = 1 + random.nextInt(3); clauses > 0; clauses--) {
      for (int who = random.nextInt(3); who > 0; who--) {
        text.append("ugoa".charAt(random.nextInt(4)));
      }
      for (int actions = 1 + random.nextInt(2); actions > 0; actions--) {
        text.append("+-=".charAt(random.nextInt(3)));
        if (random.nextInt(5) == 0) {
          text.append("ugo".charAt(random.nextInt(3)));
        } else {
          for (int letters = random.nextInt(4); letters > 0; letters--) {
            text.append("rwxXst".charAt(random.nextInt(6)));
          }
        }
      }
      text.append(clauses > 1 ? "," : "");
    }
    return text.toString();
  }
}
