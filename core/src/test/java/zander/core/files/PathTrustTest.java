package zander.core.files;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import zander.core.rights.Mode;

class PathTrustTest {
  /** Each step as owner and mode; the account is number 0, or 7 where that is said. */
  @ParameterizedTest
  @CsvSource({
    "0, '0 755, 0 755, 0 755', -1",
    "0, '0 755, 0 755, 1000 755', 2",
    "0, '0 755, 1000 700, 0 755', 1",
    "0, '0 755, 0 775, 0 755', 1",
    "0, '0 755, 0 757, 0 755', 1",
    // A folder for all, with the sticky bit: what is root's in it stays; what comes may be turned.
    "0, '0 755, 0 1777, 0 755', -1",
    "0, '0 755, 0 1777, 1000 755', 1",
    "0, '0 755, 0 1777', 1",
    "0, '0 755, 1000 1755, 0 755', 1",
    "7, '0 755, 7 700, 7 755', -1",
    "7, '0 755, 7 700, 8 755', 2",
    "7, '0 755, 0 1777, 7 755', -1",
    "7, '0 755, 0 1777, 8 755', 1",
  })
  void theFirstFolderThatOthersCanTurn(int me, String steps, int first) {
    List<RemoteAttributes> chain = new ArrayList<>();
    for (String step : steps.split(", ")) {
      String[] words = step.split(" ");
      chain.add(is(FileKind.FOLDER, Integer.parseInt(words[0]), words[1]));
    }
    assertThat(PathTrust.firstOpen(chain, me)).isEqualTo(first);
  }

  /** Folder, link and target, each by its owner; the folder's mode first. */
  @ParameterizedTest
  @CsvSource({
    "755, 1000, 1000, 1000, true",
    "755, 1000, 1000, 0, false",
    "755, 1000, 0, 1000, true",
    "755, 1000, 0, 0, false",
    "755, 1000, 1000, 1001, false",
    "755, 1000, 0, 1001, false",
    // Who else may write there can have put root's own link under another name.
    "775, 1000, 0, 1000, false",
    "775, 1000, 1001, 1001, true",
    "775, 1000, 1001, 1000, false",
    "1777, 0, 1000, 1000, true",
    "1777, 0, 1000, 0, false",
  })
  void aLinkIsFollowedToWhatIsTheirsAnyway(
      String mode, int folder, int link, int target, boolean harmless) {
    assertThat(
            PathTrust.isHarmless(
                is(FileKind.FOLDER, folder, mode),
                is(FileKind.LINK, link, "777"),
                is(FileKind.FILE, target, "644"),
                false))
        .isEqualTo(harmless);
    boolean sticky = mode.startsWith("1");
    assertThat(
            PathTrust.isHarmless(
                is(FileKind.FOLDER, folder, mode),
                is(FileKind.LINK, link, "777"),
                is(FileKind.FILE, target, "644"),
                true))
        .as("beside it, where they could give it the link's name")
        .isEqualTo(!sticky || harmless);
  }

  private static RemoteAttributes is(FileKind kind, int uid, String mode) {
    return new RemoteAttributes(kind, 0, uid, 0, new Mode(Integer.parseInt(mode, 8)), 0, 0);
  }
}
