package zander.core.edit;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class BackupNamesTest {
  @ParameterizedTest
  @ValueSource(
      strings = {
        "site.conf~",
        "site.conf.~3~",
        "#site.conf#",
        "site.conf.bak",
        "site.conf.BAK2",
        "site.conf-old",
        "site.conf.dpkg-dist",
        "site.conf.rpmnew",
        "site.conf.ucf-old",
        "site.conf.2026-11-28",
        "site.conf.20261128-1530",
        "site.conf_20261128.bak",
        "site-old.conf",
        "site.2026-11-28.conf",
        "site.conf.1"
      })
  void otherVersionsAreSeen(String name) {
    assertThat(BackupNames.isOneOf("site.conf", name)).isTrue();
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "site.conf", "site.conf.d", "site.conf.html", "sites.conf", "site-feeds.conf",
        "site.conf.gz", "old", ".bak", "alerts.conf.bak", "site.conf.1234567"
      })
  void otherFilesAreNot(String name) {
    assertThat(BackupNames.isOneOf("site.conf", name)).isFalse();
  }
}
