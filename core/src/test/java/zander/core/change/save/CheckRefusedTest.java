package zander.core.change.save;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class CheckRefusedTest {
  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "/etc/sudoers:12:5: syntax error                                   | 12",
        "/etc/ssh/sshd_config line 7: Bad configuration option: Prot       | 7",
        "PHP Parse error: unexpected token in /srv/index.php on line 40    | 40",
        "site.sh: line 3: syntax error: unexpected end of file             | 3",
        "sh: 9: Syntax error: Unterminated quoted string                   | 9",
        "jq: error (at /srv/a.json:4): wrong                               | 4",
        "config : parsing [/etc/haproxy/haproxy.cfg:21] : unknown keyword  | 21",
        "feed.xml:3: parser error : Opening and ending tag mismatch        | 3",
        "nothing                                                           | -1"
      })
  void theLineThatAToolNamesIsFound(String said, int line) {
    assertThat(new CheckRefused("x {file}", 1, said, "a").line().orElse(-1)).isEqualTo(line);
  }

  /** One that looks at the whole may find the fault in another file. */
  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "nginx: [emerg] unknown directive \"x\" in /etc/nginx/on/site.conf:12        | 12",
        "nginx: [emerg] unknown directive \"x\" in /etc/nginx/nginx.conf:12          | -1",
        "nginx: [emerg] unknown directive \"x\" in /etc/nginx/on/site.conf.old:12    | -1",
        "AH00526: Syntax error on line 9 of /etc/apache2/on/site.conf:               | 9",
        "nginx: configuration file /etc/nginx/nginx.conf test failed                 | -1"
      })
  void ofAllThatBelongsTogetherOnlyTheFilesOwnLinesCount(String said, int line) {
    assertThat(new CheckRefused("nginx -t", 1, said, "site.conf").line().orElse(-1))
        .isEqualTo(line);
  }
}
