package zander.suite;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.File;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;

/** Compares what is on the class path with the faults known of older releases. */
class DependenciesTest {
  private static final Path LIST = Path.of("..", "docs", "DEPENDENCIES.md");

  private record Fault(String artifact, String from, String published) {}

  private static List<Fault> faults() throws IOException {
    String text = Files.readString(LIST);
    List<Fault> faults = new ArrayList<>();
    for (String line : text.substring(text.indexOf("## Known faults")).split("\n")) {
      String[] cells = line.split("\\|");
      if (cells.length > 4 && cells[3].contains("CVE-")) {
        faults.add(new Fault(cells[1].strip(), cells[2].strip(), cells[3].strip()));
      }
    }
    return faults;
  }

  /** Versions by artifact, from the layout of Maven's local repository: artifact/version/jar. */
  private static Map<String, List<String>> used() {
    String all =
        System.getProperty("surefire.test.class.path", System.getProperty("java.class.path"));
    Map<String, List<String>> used = new HashMap<>();
    for (String entry : all.split(File.pathSeparator)) {
      Path jar = Path.of(entry);
      if (entry.endsWith(".jar") && jar.getNameCount() > 2) {
        Path version = jar.getParent();
        used.computeIfAbsent(
                version.getParent().getFileName().toString(), first -> new ArrayList<>())
            .add(version.getFileName().toString());
      }
    }
    return used;
  }

  /** Compares dotted numbers; what follows a number, as in {@code 2.0-M5}, does not count. */
  private static boolean isBelow(String version, String from) {
    String[] is = version.split("[.-]");
    String[] wanted = from.split("[.-]");
    for (int i = 0; i < wanted.length; i++) {
      int one = i < is.length && is[i].matches("[0-9]+") ? Integer.parseInt(is[i]) : 0;
      int other = Integer.parseInt(wanted[i]);
      if (one != other) {
        return one < other;
      }
    }
    return false;
  }

  @Test
  void nothingOlderThanItsLastKnownFaultIsUsed() throws IOException {
    Map<String, List<String>> used = used();
    List<Fault> faults = faults();
    assertThat(faults).hasSizeGreaterThan(8);
    for (Fault fault : faults) {
      assertThat(used.get(fault.artifact()))
          .as("%s: %s", fault.artifact(), fault.published())
          .isNotEmpty()
          .noneMatch(version -> isBelow(version, fault.from()));
    }
  }

  @Test
  void versionsAreComparedByTheirNumbers() {
    assertThat(isBelow("1.5.18", "1.5.25")).isTrue();
    assertThat(isBelow("1.5", "1.5.1")).isTrue();
    assertThat(isBelow("2.9.3", "2.12.0")).isTrue();
    assertThat(isBelow("1.79", "1.79")).isFalse();
    assertThat(isBelow("1.87", "1.79")).isFalse();
    assertThat(isBelow("3.0.0-M5", "2.12.0")).isFalse();
  }
}
