package zander.desk.folder;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Executors;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import zander.core.files.FileKind;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteEntry;
import zander.core.files.RemotePath;
import zander.core.rights.Mode;
import zander.desk.local.LocalModel;
import zander.desk.work.Background;
import zander.desk.work.Settings;
import zander.desk.work.Subscriptions;

/**
 * Folders with as many entries as some have. The bounds are far above what it takes; what grows
 * with the square of the number takes minutes.
 */
@Timeout(value = 120, unit = TimeUnit.SECONDS)
class LargeFoldersTest {
  private static final int MANY = 100_000;

  @TempDir Path folder;

  private static List<RemoteEntry> entries() {
    List<RemoteEntry> entries = new ArrayList<>();
    RemotePath at = RemotePath.of("/srv/levels");
    for (int i = 0; i < MANY; i++) {
      Mode mode = new Mode(i % 3 == 0 ? 0666 : 0644);
      RemoteAttributes is = new RemoteAttributes(FileKind.FILE, i, 1000, 33, mode, i, i);
      entries.add(new RemoteEntry(at.child("station-" + i), is, "warden", "web", null, null));
    }
    return entries;
  }

  /** A note is made once for an entry, and not in each of two million comparisons. */
  @Test
  void ordersByNotes() {
    List<RemoteEntry> all = entries();
    int[] asked = {0};
    EntryNotes notes =
        new EntryNotes(
            null,
            path -> {
              asked[0]++;
              return null;
            },
            KeptDrift.NONE);
    List<RemoteEntry> rows = new ArrayList<>(all);
    rows.sort(new FolderOrder(Column.NOTES, true, true, notes).of(all));
    assertThat(rows).hasSize(MANY);
    assertThat(notes.of(rows.get(0)).words()).isEqualTo("anyone can write");
    assertThat(asked[0]).isLessThanOrEqualTo(MANY + 1);
  }

  /** All selected, and read again. */
  @Test
  void readsThisComputersFolderAgainWithAllSelected() throws Exception {
    int files = 20_000;
    for (int i = 0; i < files; i++) {
      Files.createFile(folder.resolve("reading-" + i));
    }
    var thread = Executors.newSingleThreadExecutor();
    try {
      LocalModel local =
          thread
              .submit(
                  () ->
                      new LocalModel(
                          new Background(thread),
                          new Settings(folder.resolve("none.json"), new Background(thread)),
                          new Subscriptions(),
                          folder,
                          folder))
              .get();
      await(thread, () -> local.rows().size() == files);
      thread.submit(() -> local.selection().setAll(local.rows())).get();
      Files.createFile(folder.resolve("one more"));
      thread.submit(local::refresh).get();
      await(thread, () -> local.rows().size() == files + 1);
      assertThat(thread.submit(() -> local.selection().size()).get()).isEqualTo(files);
    } finally {
      thread.shutdownNow();
    }
  }

  private static void await(
      java.util.concurrent.ExecutorService thread, java.util.concurrent.Callable<Boolean> condition)
      throws Exception {
    while (!thread.submit(condition).get()) {
      TimeUnit.MILLISECONDS.sleep(10);
    }
  }
}
