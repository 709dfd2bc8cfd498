package zander.desk.model;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import zander.core.connect.Connection;
import zander.core.files.RemoteBatch.NewFile;
import zander.core.files.RemotePath;
import zander.core.rights.Mode;
import zander.core.work.Cancellation;

/** A listing that breaks off is not shown as if it were whole. */
class CutListingTest {
  private static final String TRIAL = "/home/warden/trial";
  private static final int MANY = 3000;

  @TempDir Path folder;
  private ModelDesk work;

  @BeforeEach
  void start() throws Exception {
    work = new ModelDesk(folder);
  }

  @AfterEach
  void stop() throws Exception {
    work.close();
  }

  @Test
  void saysThatMoreIsThereAndReadsItWhenTheLineIsBack() throws Exception {
    RemotePath many = RemotePath.of(TRIAL + "/many");
    try (Connection connection = work.connect()) {
      connection.files().makeFolder(many, new Mode(0755));
      List<NewFile> files = new ArrayList<>();
      for (int i = 0; i < MANY; i++) {
        files.add(new NewFile(many.child("station-" + i), new byte[0], new Mode(0644), 0));
      }
      connection.files().batch().put(files, new Cancellation());
    }
    DeskModel desk = work.openLabBox(TRIAL, folder.resolve("home"));
    work.relay.slow(60_000);
    work.on(
        () -> {
          desk.folder().go(many);
          return null;
        });
    work.until("some are shown", () -> many.equals(desk.folder().path()));
    assertThat(work.on(() -> desk.folder().partialProperty().get())).isTrue();
    work.relay.cutAfter(0);
    work.until("it broke off", () -> !desk.folder().loadingProperty().get());
    assertThat(work.on(() -> desk.folder().rows().size())).isLessThan(MANY);
    assertThat(work.on(() -> desk.folder().partialProperty().get())).isTrue();

    work.relay.slow(0);
    work.relay.heal();
    work.until("all is there", () -> desk.folder().rows().size() == MANY);
    assertThat(work.on(() -> desk.folder().partialProperty().get())).isFalse();
  }
}
