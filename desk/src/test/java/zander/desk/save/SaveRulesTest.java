package zander.desk.save;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.ObjectMapper;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import zander.core.files.RemotePath;

class SaveRulesTest {
  private static final ObjectMapper JSON = new ObjectMapper();

  private static SaveRules read(String json) throws Exception {
    return JSON.readValue(json, SaveRules.class);
  }

  @Test
  void aCheckThatWasKeptAloneIsRead() throws Exception {
    assertThat(read("\"sh -n {file}\"")).isEqualTo(SaveRules.NONE.checkedBy("sh -n {file}"));
  }

  @Test
  void whatIsKeptIsReadAgainAndWhatIsMissingOrWrongIsMild() throws Exception {
    SaveRules all = new SaveRules("a {file}", "b", "c", false, 90);
    assertThat(read(JSON.writeValueAsString(all))).isEqualTo(all);
    assertThat(read("{\"after\": \"nginx -t\"}")).isEqualTo(SaveRules.NONE.triedBy("nginx -t"));
    assertThat(read("{\"seconds\": 1}").seconds()).isEqualTo(SaveRules.LEAST_SECONDS);
    assertThat(read("{\"seconds\": 1000000}").seconds()).isEqualTo(SaveRules.MOST_SECONDS);
    assertThat(read("{\"seconds\": -4}").seconds()).isZero();
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      nullValues = "-",
      value = {
        "/etc/sudoers.d/levels        | x          | visudo -cf {file}          | -                    | 120",
        "/etc/sudoers.d/a.bak         | x          | -                          | -                    | 0",
        "/etc/ssh/sshd_config         | x          | /usr/sbin/sshd -t -f {file} | /usr/sbin/sshd -t   | 120",
        "/srv/test/sshd_config        | x          | /usr/sbin/sshd -t -f {file} | -                   | 0",
        "/etc/nginx/sites-on/levels   | x          | -                          | nginx -t             | 0",
        "/etc/pam.d/sshd              | x          | -                          | -                    | 120",
        "/home/web/run                | #!/bin/sh  | sh -n {file}               | -                    | 0",
        "/home/web/run                | #!/bin/zsh | -                          | -                    | 0",
        "/home/web/notes.txt          | x          | -                          | -                    | 0"
      })
  void whatIsKnownIsSuggested(String path, String text, String check, String after, int seconds) {
    SaveRules rules = SuggestedRules.of(RemotePath.of(path), text + "\n");
    assertThat(rules.check()).isEqualTo(check == null ? "" : check);
    assertThat(rules.after()).isEqualTo(after == null ? "" : after);
    assertThat(rules.seconds()).isEqualTo(seconds);
  }
}
