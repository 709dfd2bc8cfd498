package zander.core.connect.command;

import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;

class SudoRulesTest {
  @Test
  void readsWhatIsAllowedAndNothingBefore() {
    String said =
        """
        Matching Defaults entries for deploy on levels-web:
            env_reset, secure_path=/usr/sbin\\:/usr/bin

        User deploy may run the following commands on levels-web:
            (root) NOPASSWD: /usr/bin/systemctl reload levels
            (web) /usr/bin/vi\u202e
        """;
    assertThat(SudoRules.read(said.getBytes(UTF_8)))
        .containsExactly(
            "(root) NOPASSWD: /usr/bin/systemctl reload levels", "(web) /usr/bin/vi\\u202e");
  }

  @Test
  void aRefusalAllowsNothing() {
    assertThat(SudoRules.read("sudo: a password is required\n".getBytes(UTF_8))).isEmpty();
  }
}
