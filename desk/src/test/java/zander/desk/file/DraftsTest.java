package zander.desk.file;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import zander.core.files.RemotePath;
import zander.core.seal.ContentSeal;
import zander.desk.file.Drafts.Draft;

class DraftsTest {
  @TempDir Path folder;

  /** Two paths whose short numbers are the same, and whose names are written alike. */
  @Test
  void twoPathsNeverShareADraft() throws Exception {
    Drafts drafts = new Drafts(folder.resolve("state/drafts"), ContentSeal.ofThisRun());
    RemotePath one = RemotePath.of("/srv/Aa/feed xml");
    RemotePath other = RemotePath.of("/srv/BB/feed_xml");
    RemotePath third = RemotePath.of("/srv/BB/feed xml");
    assertThat(one.wire().hashCode()).isEqualTo(third.wire().hashCode());
    for (RemotePath path : new RemotePath[] {one, other, third}) {
      assertThat(drafts.keep(new Draft(path, "", path.text()), false)).isTrue();
    }
    assertThat(drafts.all()).extracting(Draft::text).hasSize(3).doesNotHaveDuplicates();
    drafts.drop(third);
    assertThat(drafts.all()).extracting(Draft::path).containsExactlyInAnyOrder(one, other);
    for (Path place : new Path[] {folder.resolve("state"), folder.resolve("state/drafts")}) {
      assertThat(PosixFilePermissions.toString(Files.getPosixFilePermissions(place)))
          .as("closed to others, whatever the umask")
          .isEqualTo("rwx------");
    }
  }

  /**
   * The program of 2026-11-27 named the files otherwise: one that is saved is not offered again.
   */
  @Test
  void thoseOfAnOlderProgramAreReadAndDropped() throws Exception {
    String name = "636a7e95-site.conf.draft";
    Path place = Files.createDirectories(folder.resolve("drafts"));
    Files.copy(Path.of("src/test/resources/zander/old/drafts", name), place.resolve(name));
    Drafts drafts = new Drafts(place, ContentSeal.ofThisRun());
    RemotePath path = RemotePath.of("/etc/levels/site.conf");
    assertThat(drafts.all()).containsExactly(new Draft(path, "ab12", "level 4 \u2192\n"));
    drafts.keep(new Draft(path, "ab12", "level 5"), false);
    assertThat(drafts.all()).extracting(Draft::text).containsExactly("level 5");
    drafts.drop(path);
    assertThat(drafts.all()).isEmpty();
    assertThat(place).isEmptyDirectory();
  }
}
