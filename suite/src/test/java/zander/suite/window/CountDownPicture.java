package zander.suite.window;

import java.awt.image.BufferedImage;
import java.nio.file.Path;
import java.util.List;
import javafx.scene.image.WritableImage;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.Assumptions;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import zander.core.files.RemotePath;
import zander.desk.file.FileModel;
import zander.desk.model.DeskModel;
import zander.suite.SystemSshd;
import zander.suite.SystemSudo;

/**
 * The picture of a change that the server takes back by itself; run by docs/make-screenshots, not
 * as a test. The demo's servers run no scripts: it is of the system's own sshd and sudo.
 */
@Timeout(120)
class CountDownPicture {
  private static final String ACCOUNT = "warden";
  private static final String PASSWORD = "heron-at-dusk";
  private static final double WIDTH = 940;
  private static final double HEIGHT = 640;

  @TempDir Path folder;

  @Test
  void aChangeThatLocksOut() throws Exception {
    Assumptions.assumeTrue(
        SystemSudo.isPossible(), "needs openssh-server and sudo, and to be root");
    try (SystemSudo sudo = new SystemSudo("levels");
        SystemSshd server = new SystemSshd(folder, List.of(ACCOUNT), List.of());
        OffscreenWindow window = new OffscreenWindow(folder.resolve("here"), server)) {
      SystemSshd.setPassword(ACCOUNT, PASSWORD);
      sudo.rule(ACCOUNT + " ALL=(ALL) ALL");
      window.run(
          () -> {
            window.scene().getWindow().setWidth(WIDTH);
            window.scene().getWindow().setHeight(HEIGHT);
          });
      DeskModel desk =
          window.open("levels-web", ACCOUNT, server.port(), folder.resolve(ACCOUNT), window.home());
      RemotePath rules = RemotePath.of("/etc/sudoers.d/zander-levels");
      FileModel file = window.openAsRoot(desk, rules, PASSWORD);
      window.run(file::askForRules);
      window.choose(file, "Keep");
      // visudo finds no fault in it, and nobody may act as root by it any more.
      window.run(() -> file.putIn("# Wardens of the public site\n# warden ALL=(ALL) ALL\n"));
      window.until("it is typed", file::isUnsaved);
      window.run(file::save);
      window.giveThePassword(PASSWORD);
      window.asked(file, "Put it back now");
      window.until("it is drawn", () -> window.scene().lookup("#choice-put-it-back-now") != null);
      Path picture = Path.of("../docs/screenshots/editor-count-down.png");
      WritableImage shot = window.on(() -> window.scene().snapshot(null));
      ImageIO.write(copyOf(shot), "png", picture.toFile());
      window.choose(file, "Put it back now");
      window.until("it is put back", () -> file.stateProperty().get().endsWith("not saved"));
    }
  }

  private static BufferedImage copyOf(WritableImage shot) {
    int width = (int) shot.getWidth();
    int height = (int) shot.getHeight();
    BufferedImage copy = new BufferedImage(width, height, BufferedImage.TYPE_INT_RGB);
    for (int y = 0; y < height; y++) {
      for (int x = 0; x < width; x++) {
        copy.setRGB(x, y, shot.getPixelReader().getArgb(x, y));
      }
    }
    return copy;
  }
}
