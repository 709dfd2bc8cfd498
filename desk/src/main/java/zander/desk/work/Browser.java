package zander.desk.work;

import java.io.File;
import java.io.IOException;
import java.util.concurrent.TimeUnit;

/** Shows a page in the browser that this computer's desktop has for it. */
public final class Browser {
  /** Seconds. */
  private static final int PATIENCE = 10;

  private Browser() {}

  /**
   * Waits until the desktop has taken it.
   *
   * @param address begins with {@code http://} or {@code https://}
   * @return whether there is something that shows it
   */
  public static boolean open(String address) {
    try {
      Process opening =
          new ProcessBuilder("xdg-open", address)
              .redirectErrorStream(true)
              .redirectOutput(ProcessBuilder.Redirect.DISCARD)
              .redirectInput(new File("/dev/null"))
              .start();
      // One that goes on is the browser itself.
      return !opening.waitFor(PATIENCE, TimeUnit.SECONDS) || opening.exitValue() == 0;
    } catch (IOException e) {
      return false;
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      return false;
    }
  }
}
