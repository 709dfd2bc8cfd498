package zander.core.rights;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.OptionalInt;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import zander.core.rights.AccessList.Asker;

/** What a change of many entries asks of each; the arithmetic is judged in the suite. */
class TreeRightsTest {
  private static final int DEPLOY = 1002;
  private static final int WEB = 33;
  private static final Asker ROOT = new Asker(0, Set.of(0));
  private static final Asker BY_DEPLOY = new Asker(DEPLOY, Set.of(DEPLOY, WEB));

  private static RightsStep step(boolean folder, int before, int after) {
    return new RightsStep(
        folder,
        new Rights(DEPLOY, WEB, new Mode(before)),
        new Rights(DEPLOY, WEB, new Mode(after)));
  }

  @Test
  void runPermissionStaysWhereSomebodyHasIt() {
    ModeRule rule = new ModeRule.Exact(new Mode(0640), true);
    assertThat(rule.apply(new Mode(0600), false)).isEqualTo(new Mode(0640));
    assertThat(rule.apply(new Mode(0701), false)).isEqualTo(new Mode(0750));
    assertThat(rule.apply(new Mode(0600), true)).isEqualTo(new Mode(0750));
    ModeRule exact = new ModeRule.Exact(new Mode(0640), false);
    assertThat(exact.apply(new Mode(0755), false)).isEqualTo(new Mode(0640));
  }

  @Test
  void aNewOwnerTakesSetIdBitsFromAFile() {
    TreeRights given = new TreeRights(OptionalInt.of(DEPLOY), OptionalInt.empty(), null, null);
    Rights program = new Rights(0, WEB, new Mode(06755));
    assertThat(given.of(program, false)).isEqualTo(new Rights(DEPLOY, WEB, new Mode(0755)));
    assertThat(given.of(program, true).mode()).isEqualTo(new Mode(06755));
    Rights own = new Rights(DEPLOY, WEB, new Mode(06755));
    assertThat(given.of(own, false)).isEqualTo(own);
  }

  @Test
  void onlyTheOwnerOrRootMayChangeAndGiveToTheirGroups() {
    RightsStep own = step(false, 0600, 0644);
    assertThat(TreeRights.mayChange(BY_DEPLOY, own)).isTrue();
    RightsStep ofRoot =
        new RightsStep(false, new Rights(0, WEB, new Mode(0)), new Rights(0, WEB, new Mode(0644)));
    assertThat(TreeRights.mayChange(BY_DEPLOY, ofRoot)).isFalse();
    assertThat(TreeRights.mayChange(ROOT, ofRoot)).isTrue();
    RightsStep toWeb = given(DEPLOY, DEPLOY, DEPLOY, WEB);
    assertThat(TreeRights.mayChange(BY_DEPLOY, toWeb)).isTrue();
    assertThat(TreeRights.mayChange(BY_DEPLOY, given(DEPLOY, WEB, DEPLOY, 0))).isFalse();
    assertThat(TreeRights.mayChange(BY_DEPLOY, given(DEPLOY, WEB, 0, WEB))).isFalse();
    Asker unknown = new Asker(TreeRights.UNKNOWN, Set.of());
    assertThat(TreeRights.mayChange(unknown, ofRoot)).as("the server will say").isTrue();
  }

  private static RightsStep given(int uid, int gid, int toUid, int toGid) {
    Mode mode = new Mode(0640);
    return new RightsStep(false, new Rights(uid, gid, mode), new Rights(toUid, toGid, mode));
  }

  @ParameterizedTest
  @CsvSource({
    "/srv/levels/.feed-token, 640, 644, OPENS_SECRET",
    "/home/deploy/.ssh/id_ed25519, 600, 604, OPENS_SECRET",
    "/home/deploy/.ssh/id_ed25519.pub, 600, 604,",
    "/srv/levels/site/password.html, 640, 644,",
    "/srv/levels/bin/rebuild, 755, 4755, GAINS_SET_ID",
    "/srv/levels/bin/rebuild, 755, 644, LOSES_RUN",
    "/srv/levels/bin/rebuild, 4755, 755, LOSES_SET_ID",
    "/srv/levels/site/index.html, 644, 666, ANYONE_WRITES",
    "/srv/levels/site/index.html, 664, 644,",
  })
  void whatIsDangerousIsNamed(String path, String before, String after, RightsDanger danger) {
    RightsStep step = step(false, Integer.parseInt(before, 8), Integer.parseInt(after, 8));
    assertThat(RightsDanger.of(path, step, BY_DEPLOY)).isEqualTo(danger);
  }

  @ParameterizedTest
  @CsvSource({
    "755, 644, LOCKS_OUT",
    "755, 555, LOCKS_OUT",
    "755, 750,",
    "777, 1777,",
    "755, 777, ANYONE_WRITES",
    "755, 2775,"
  })
  void whatIsDangerousForFoldersIsNamed(String before, String after, RightsDanger danger) {
    RightsStep step = step(true, Integer.parseInt(before, 8), Integer.parseInt(after, 8));
    assertThat(RightsDanger.of("/srv/levels/site", step, BY_DEPLOY)).isEqualTo(danger);
    boolean lockout = danger == RightsDanger.LOCKS_OUT;
    assertThat(RightsDanger.of("/srv/levels/site", step, ROOT)).isEqualTo(lockout ? null : danger);
  }

  @Test
  void whatOneCannotHaveBackIsNamed() {
    RightsStep away = given(DEPLOY, 4000, DEPLOY, WEB);
    assertThat(RightsDanger.of("/srv/a", away, BY_DEPLOY)).isEqualTo(RightsDanger.ONE_WAY);
    assertThat(RightsDanger.of("/srv/a", away, ROOT)).isNull();
  }

  @Test
  void aFolderIsOpenedForItsOwnerFirst() {
    RightsStep opening = step(true, 0070, 02755).opening();
    assertThat(opening.after().mode()).isEqualTo(new Mode(0770));
    assertThat(step(true, 0755, 0700).opening()).isNull();
    assertThat(step(false, 0, 0755).opening()).isNull();
  }
}
