package zander.core.transfer.rules;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class IgnorePatternsTest {
  @ParameterizedTest
  @CsvSource({
    "*.log, site/levels.log, false, true",
    "*.log, site/levels.logs, false, false",
    "/cache, cache, true, true",
    "/cache, site/cache, true, false",
    "cache/, site/cache, true, true",
    "cache/, site/cache, false, false",
    "img/*.svg, img/a.svg, false, true",
    "img/*.svg, site/img/a.svg, false, false",
    "img/*.svg, img/old/a.svg, false, false",
    "**/old, a/b/old, true, true",
    "site/**, site/a/b, false, true",
    "a/**/z, a/z, false, true",
    "a/**/z, a/b/c/z, false, true",
    "reading-?, reading-1, false, true",
    "reading-?, reading-12, false, false",
    "reading-[0-4], reading-3, false, true",
    "reading-[!0-4], reading-3, false, false",
    "\\#level, '#level', false, true",
    "a.c, abc, false, false",
  })
  void readsTheNotation(String pattern, String path, boolean folder, boolean out) {
    assertThat(new IgnorePatterns(pattern).by(path, folder) != null).isEqualTo(out);
  }

  @Test
  void theLastPatternThatFitsDecides() {
    IgnorePatterns leaveOut = new IgnorePatterns("# remark\n\n*.log\n!keep.log\n");
    assertThat(leaveOut.by("a.log", false)).isEqualTo("*.log");
    assertThat(leaveOut.by("keep.log", false)).isNull();
    assertThat(leaveOut.count()).isEqualTo(2);
  }

  @Test
  void theUsualPatternsLeaveSitesAlone() {
    IgnorePatterns usual = new IgnorePatterns(IgnorePatterns.USUAL);
    for (String path : new String[] {"index.html", "img/gauge.svg", ".htaccess", "a.txt"}) {
      assertThat(usual.by(path, false)).as(path).isNull();
    }
    assertThat(usual.by("site/.DS_Store", false)).isNotNull();
    assertThat(usual.by("site/.git", true)).isEqualTo(".git/");
  }

  @Test
  void comparesNamesAsBytes() {
    String name = zander.core.files.WireName.fromText("pegelstände.csv");
    assertThat(new IgnorePatterns("pegelst*.csv").by(name, false)).isNotNull();
    assertThat(new IgnorePatterns("pegelstände.csv").by(name, false)).isNotNull();
  }
}
