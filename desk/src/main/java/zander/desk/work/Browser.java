package zander.desk.work;

import java.io.File;
import java.io.IOException;
import java.util.concurrent.TimeUnit;

/** Shows a page in the browser that this computer's desktop has for it. */
public final class Browser {
  private static final int PATIENCE = 10;

  private Browser() {}

  /**
   * Waits until the desktop has taken it.
   *
   * @param address begins with {@code http://} or {@code https://}
   * @throws IOException when there is nothing that shows it
   */
  public static void open(String address) throws IOException {
    Process opening =
        new ProcessBuilder("xdg-open", address)
            .redirectErrorStream(true)
            .redirectOutput(ProcessBuilder.Redirect.DISCARD)
            .redirectInput(new File("/dev/null"))
            .start();
    try {
      if (opening.waitFor(PATIENCE, TimeUnit.SECONDS) && opening.exitValue() != 0) {
        throw new IOException("no program on this computer opens web pages");
      }
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    }
  }
}
