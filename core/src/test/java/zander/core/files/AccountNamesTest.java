package zander.core.files;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;

class AccountNamesTest {
  private final AccountNames names = new AccountNames();

  @Test
  void learnsFromPasswdAndGroupLines() {
    names.learnPasswd(
        "root:x:0:0::/root:/bin/sh\ndeploy:x:1002:1002::/:/bin/sh\nbroken\n:x:y:z:\n");
    names.learnGroupFile("web:x:33:deploy\nnogroup:x:65534:\n");
    assertThat(names.user(1002)).isEqualTo("deploy");
    assertThat(names.group(33)).isEqualTo("web");
    assertThat(names.uidOf("deploy")).hasValue(1002);
    assertThat(names.gidOf("web")).hasValue(33);
  }

  @Test
  void showsNumbersThatHaveNoName() {
    assertThat(names.user(-2)).isEqualTo("4294967294");
    names.learnUser(7, "");
    assertThat(names.knowsUser(7)).isTrue();
    assertThat(names.user(7)).isEqualTo("7");
    assertThat(names.uidOf("")).isEmpty();
  }

  @Test
  void takesNumbersForNamesButNotTheOneThatMeansNothing() {
    assertThat(names.uidOf("1234")).hasValue(1234);
    assertThat(names.uidOf("4294967294")).hasValue(-2);
    assertThat(names.uidOf("4294967295")).isEmpty();
    assertThat(names.uidOf("99999999999")).isEmpty();
    assertThat(names.uidOf("nobody-here")).isEmpty();
  }

  @Test
  void theFirstNameStays() {
    names.learnGroup(33, "web");
    names.learnGroup(33, "other");
    assertThat(names.group(33)).isEqualTo("web");
  }
}
