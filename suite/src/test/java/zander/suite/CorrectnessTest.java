package zander.suite;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.TreeMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;

/**
 * The table in docs/CORRECTNESS.md is what the tests with a judge say of themselves, after
 * "Judged:" in their comment. {@code -Dcorrectness.write=true} writes it.
 */
class CorrectnessTest {
  private static final Path DOC = Path.of("../docs/CORRECTNESS.md");
  private static final List<String> MODULES = List.of("core", "standin", "desk", "suite");
  private static final String HEAD =
      "| computed | judge | cases in a run | test |\n|---|---|---|---|\n";
  private static final Pattern COMMENT =
      Pattern.compile("/\\*\\*((?:(?!\\*/).)*?)Judged: ((?:(?!\\*/).)*)\\*/", Pattern.DOTALL);
  private static final Pattern CODE = Pattern.compile("\\{@code ([^}]*)\\}");
  private static final Pattern PROPERTY = Pattern.compile("\\(`([a-z.]+)`\\)");

  private static List<Path> tests() throws IOException {
    List<Path> all = new ArrayList<>();
    for (String module : MODULES) {
      try (Stream<Path> paths = Files.walk(Path.of("..", module, "src/test/java"))) {
        paths.filter(path -> path.toString().endsWith("Test.java")).forEach(all::add);
      }
    }
    return all;
  }

  private static String name(Path test) {
    return test.getFileName().toString().replace(".java", "");
  }

  /** {@code null} for a test without a judge. */
  private static String row(Path test) throws IOException {
    String source = Files.readString(test);
    Matcher comment = COMMENT.matcher(source);
    if (!comment.find() || name(test).equals("CorrectnessTest")) {
      return null;
    }
    String said = comment.group(2).replaceAll("\\n \\*", " ").replaceAll("\\s+", " ").strip();
    String row = CODE.matcher(said).replaceAll("`$1`");
    assertThat(row.split(" \\| ")).as("what, judge and cases of " + test).hasSize(3);
    Matcher property = PROPERTY.matcher(row);
    while (property.find()) {
      assertThat(source).as(test.toString()).contains('"' + property.group(1) + '"');
    }
    return "| " + row + " | `" + name(test) + "` |\n";
  }

  @Test
  void theTableIsWhatTheTestsSay() throws IOException {
    TreeMap<String, String> rows = new TreeMap<>();
    for (Path test : tests()) {
      String row = row(test);
      if (row != null) {
        rows.put(row, name(test));
      }
      assertThat(row != null || !name(test).startsWith("JudgedBy")).as(test.toString()).isTrue();
    }
    assertThat(rows).hasSizeGreaterThan(20);
    String table = HEAD + String.join("", rows.keySet());
    String doc = Files.readString(DOC);
    int from = doc.indexOf(HEAD);
    int to = doc.indexOf("\n\n", from) + 1;
    if (Boolean.getBoolean("correctness.write")) {
      Files.writeString(DOC, doc.substring(0, from) + table + doc.substring(to));
    } else {
      assertThat(doc.substring(from, to)).isEqualTo(table);
    }
  }
}
