package zander.desk;

import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import zander.core.files.RemotePath;
import zander.desk.file.FileModel;

class TryScreens {
  @Test
  void look(@TempDir Path folder) throws Exception {
    try (Window window = new Window(folder)) {
      window.openLevelsWeb();
      window.interact(() -> window.desk().openFile(RemotePath.of("/srv/levels/site/index.html"), 0));
      window.until("open", () -> window.desk().currentProperty().get() instanceof FileModel);
      window.push(javafx.scene.input.KeyCode.CONTROL, javafx.scene.input.KeyCode.SHIFT, javafx.scene.input.KeyCode.B);
      window.until("page", () -> window.shownOrNull("#page-state") != null && window.text("#page-state").startsWith("200"));
      Thread.sleep(3000);
      java.nio.file.Files.copy(window.picture("page1"), Path.of("/tmp/shot-page1.png"), java.nio.file.StandardCopyOption.REPLACE_EXISTING);
      window.interact(() -> window.desk().openFile(RemotePath.of("/srv/levels/site/contact.html"), 0));
      Thread.sleep(1000);
    }
  }
}
