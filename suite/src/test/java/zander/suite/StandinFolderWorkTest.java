package zander.suite;

import java.io.IOException;
import java.nio.file.Path;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.io.TempDir;
import zander.core.connect.Connection;
import zander.core.files.RemotePath;
import zander.core.rights.Mode;

/** Work in folders against the stand-in. */
class StandinFolderWorkTest extends FolderWorkContract {
  @TempDir static Path folder;
  private static Riverside riverside;
  private static final AtomicInteger NUMBER = new AtomicInteger();

  @BeforeAll
  static void start() throws IOException {
    riverside = new Riverside(folder);
  }

  @AfterAll
  static void stop() {
    riverside.close();
  }

  @Override
  Connection open() throws IOException {
    return riverside.open("lab-box");
  }

  @Override
  RemotePath freshFolder(Connection connection) throws IOException {
    RemotePath fresh = RemotePath.of("/home/warden/trial/work-" + NUMBER.incrementAndGet());
    connection.files().makeFolder(fresh, new Mode(0755));
    return fresh;
  }
}
