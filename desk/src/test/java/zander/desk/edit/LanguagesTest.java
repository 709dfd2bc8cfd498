package zander.desk.edit;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import org.fife.ui.rsyntaxtextarea.TokenMakerFactory;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import zander.core.files.RemotePath;

class LanguagesTest {
  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "/srv/levels/site/index.html   | x                   | HTML",
        "/etc/nginx/sites-on/levels    | x                   | nginx",
        "/etc/apache2/apache2.conf     | x                   | Apache",
        "/srv/levels/site/.htaccess    | x                   | Apache",
        "/etc/haproxy/haproxy.cfg      | x                   | HAProxy",
        "/etc/systemd/system/levels.service | x              | systemd unit",
        "/etc/ssh/sshd_config.d/a.conf | x                   | SSH configuration",
        "/home/warden/.ssh/config      | x                   | SSH configuration",
        "/etc/sudoers.d/levels         | x                   | sudoers",
        "/etc/fstab                    | x                   | fstab",
        "/etc/cron.d/levels            | x                   | crontab",
        "/etc/hosts                    | x                   | hosts",
        "/srv/levels/.env              | x                   | env",
        "/srv/levels/Dockerfile        | x                   | Dockerfile",
        "/home/warden/bin/levels       | #!/usr/bin/python3  | Python",
        "/etc/init.d/levels            | #!/bin/sh           | Shell",
        "/etc/levels/site.conf         | listen 80;          | Configuration",
        "/etc/levels/stations          | x                   | Configuration",
        "/srv/levels/change.patch      | x                   | diff",
        "/var/log/levels/access.log    | x                   | log",
        "/home/warden/notes            | x                   | plain text"
      })
  void aFileIsKnownByItsPlaceItsNameOrItsFirstLine(String path, String text, String name) {
    assertThat(Languages.of(RemotePath.of(path), text + "\n").name()).isEqualTo(name);
  }

  /** What would fail only when such a file is opened. */
  @Test
  void theFileOfLanguagesIsWhole() {
    Set<String> names = new HashSet<>();
    Set<String> lexers = TokenMakerFactory.getDefaultInstance().keySet();
    for (Language language : Languages.all()) {
      assertThat(names.add(language.name())).as(language.name()).isTrue();
      assertThat(Languages.named(language.name().toUpperCase(java.util.Locale.ROOT)))
          .hasValue(language);
      assertThat(language.comment()).hasSize(2);
      assertThat(language.lexer() == null).isEqualTo(!language.rules().isEmpty());
      assertThat(language.lexer() == null || lexers.contains(language.lexer()))
          .as(language.lexer())
          .isTrue();
      for (Language.Rule rule : language.rules()) {
        assertThat(rule.kind())
            .isIn(
                "comment",
                "string",
                "word",
                "attribute",
                "number",
                "added",
                "removed",
                "problem",
                "warning");
      }
    }
    assertThat(Languages.named("no such one")).isEmpty();
  }

  private static List<String> coloured(String language, String line) {
    return RuleColours.of(line, Languages.named(language).orElseThrow().rules()).stream()
        .map(part -> part.kind() + "=" + line.substring(part.start(), part.end()).strip())
        .collect(Collectors.toList());
  }

  @Test
  void partsOfALineAreColoured() {
    assertThat(coloured("nginx", "  listen 8443 ssl; # listen $port"))
        .containsExactly("word=listen", "number=8443", "comment=# listen $port");
    assertThat(coloured("nginx", "proxy_set_header Host \"a # b\" $host;"))
        .containsExactly("word=proxy_set_header", "string=\"a # b\"", "attribute=$host");
    assertThat(coloured("sudoers", "%adm ALL=(ALL) NOPASSWD: /bin/true"))
        .containsExactly("attribute=%adm", "number=ALL", "number=ALL", "number=NOPASSWD");
    assertThat(coloured("diff", "-old")).containsExactly("removed=-old");
    assertThat(coloured("diff", "--- a/site.conf")).containsExactly("word=--- a/site.conf");
    assertThat(coloured("log", "2026-11-28 12:00:01 level ERROR denied"))
        .containsExactly("comment=2026-11-28 12:00:01", "problem=ERROR", "problem=denied");
    assertThat(coloured("crontab", "*/5 * * * * web /srv/run"))
        .containsExactly("number=*/5 * * * *");
  }
}
