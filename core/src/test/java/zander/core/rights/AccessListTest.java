package zander.core.rights;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Map;
import java.util.Set;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import zander.core.rights.AccessList.Answer;
import zander.core.rights.AccessList.Asker;

/** What is said of an account whose groups are not known; what is known, the kernel judges. */
class AccessListTest {
  private static final int READ = 4;
  private static final AccessList NAMED = new AccessList(0, Map.of(33, 4), Map.of(5, 4), 6);

  @ParameterizedTest
  @CsvSource({
    "0644, false, YES",
    "0600, false, NO",
    "0640, false, UNKNOWN",
    "0604, false, UNKNOWN",
    "0664, true, UNKNOWN",
  })
  void onlyWhatHoldsForAnyGroupIsSaid(String mode, boolean list, Answer answer) {
    assertThat(may(new Asker(2000, Set.of()), mode, list)).isEqualTo(answer);
  }

  @ParameterizedTest
  @CsvSource({"1000, 0400, YES", "33, 0660, YES", "0, 0000, YES", "1000, 0064, NO"})
  void whoIsNamedNeedsNoGroup(int uid, String mode, Answer answer) {
    assertThat(may(new Asker(uid, Set.of()), mode, true)).isEqualTo(answer);
  }

  private static Answer may(Asker asker, String mode, boolean list) {
    Rights rights = new Rights(1000, 1000, new Mode(Integer.parseInt(mode, 8)));
    return AccessList.may(asker, rights, list ? NAMED : null, READ);
  }
}
