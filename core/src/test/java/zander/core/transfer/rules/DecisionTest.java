package zander.core.transfer.rules;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import zander.core.files.FileKind;
import zander.core.rights.Mode;
import zander.core.transfer.endpoint.TreeEntry;

/** The table that plans and transfers go by, row by row. */
class DecisionTest {
  private static TreeEntry file(long size, long time) {
    return new TreeEntry("page", FileKind.FILE, size, time, new Mode(0644), null, "");
  }

  private static TreeEntry link(String target) {
    return new TreeEntry("page", FileKind.LINK, 0, 5, new Mode(0777), target, "");
  }

  private static final TreeEntry FOLDER =
      new TreeEntry("page", FileKind.FOLDER, 0, 5, new Mode(0755), null, "");

  @ParameterizedTest
  @CsvSource({
    // rule, nothing there, same, same size and older there, same size and newer there, other size
    "ASK,               TRANSFER, UNCHANGED, ASK,       ASK,       ASK",
    "REPLACE,           TRANSFER, TRANSFER,  TRANSFER,  TRANSFER,  TRANSFER",
    "SKIP,              TRANSFER, UNCHANGED, SKIP,      SKIP,      SKIP",
    "NEWER,             TRANSFER, UNCHANGED, TRANSFER,  SKIP,      SKIP",
    "DIFFERENT,         TRANSFER, UNCHANGED, TRANSFER,  TRANSFER,  TRANSFER",
    "DIFFERENT_CONTENT, TRANSFER, COMPARE,   COMPARE,   COMPARE,   TRANSFER",
    "KEEP_BOTH,         TRANSFER, KEEP_BOTH, KEEP_BOTH, KEEP_BOTH, KEEP_BOTH",
  })
  void files(
      ConflictRule rule,
      Decision fresh,
      Decision same,
      Decision older,
      Decision newer,
      Decision otherSize) {
    TreeEntry coming = file(10, 5);
    assertThat(Decision.of(rule, coming, null, false)).isEqualTo(fresh);
    assertThat(Decision.of(rule, coming, file(10, 5), false)).isEqualTo(same);
    assertThat(Decision.of(rule, coming, file(10, 4), false)).isEqualTo(older);
    assertThat(Decision.of(rule, coming, file(10, 6), false)).isEqualTo(newer);
    assertThat(Decision.of(rule, coming, file(11, 5), false)).isEqualTo(otherSize);
    assertThat(Decision.of(rule, coming, file(10, 5), true)).isEqualTo(Decision.UNCHANGED);
  }

  @ParameterizedTest
  @CsvSource({
    // rule, a folder there, the same link, a link elsewhere
    "ASK,               ASK,       UNCHANGED, ASK",
    "REPLACE,           ASK,       TRANSFER,  TRANSFER",
    "SKIP,              SKIP,      UNCHANGED, SKIP",
    "NEWER,             SKIP,      UNCHANGED, SKIP",
    "DIFFERENT,         SKIP,      UNCHANGED, TRANSFER",
    "DIFFERENT_CONTENT, SKIP,      UNCHANGED, TRANSFER",
    "KEEP_BOTH,         KEEP_BOTH, KEEP_BOTH, KEEP_BOTH",
  })
  void foldersAndLinks(ConflictRule rule, Decision folder, Decision same, Decision elsewhere) {
    assertThat(Decision.of(rule, link("a"), FOLDER, false)).isEqualTo(folder);
    assertThat(Decision.of(rule, FOLDER, file(1, 5), false)).isEqualTo(folder);
    assertThat(Decision.of(rule, link("a"), link("a"), false)).isEqualTo(same);
    assertThat(Decision.of(rule, link("a"), link("b"), false)).isEqualTo(elsewhere);
  }
}
