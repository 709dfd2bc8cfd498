package zander.suite.window;

import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import javafx.application.Platform;
import javafx.event.Event;
import javafx.scene.Parent;
import javafx.scene.Scene;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import org.fxmisc.flowless.VirtualizedScrollPane;
import org.fxmisc.richtext.CodeArea;
import zander.core.files.RemotePath;
import zander.desk.file.FileModel;
import zander.desk.model.DeskModel;
import zander.suite.SystemSshd;

/**
 * How long the window works from a key to the text being laid out with it, in a small and in a
 * large file, and what the text component takes by itself, in one run.
 */
public final class EditorKeys {
  private static final String ACCOUNT = "zndkeys";
  private static final int KEYS = 500;
  private static final int SMALL = 5_000;
  private static final int LARGE = 5_000_000;

  private EditorKeys() {}

  /** In nanoseconds, ascending. */
  private record Times(String what, long[] each) {
    double median() {
      return each[each.length / 2] / 1e6;
    }

    double most() {
      return each[each.length * 99 / 100] / 1e6;
    }

    void print() {
      System.out.printf("%-44s %10.2f %10.2f%n", what, median(), most());
    }
  }

  private static String text(int length) {
    StringBuilder text = new StringBuilder();
    for (int i = 0; text.length() < length; i++) {
      text.append("  location /station-").append(i).append(" { return 200; } # of the river\n");
    }
    return text.toString();
  }

  public static void main(String[] arguments) throws Exception {
    if (!SystemSshd.isPossible()) {
      System.out.println("keys are measured as root, with openssh-server");
      return;
    }
    Path folder = Files.createTempDirectory("zander-keys");
    try (SystemSshd server = new SystemSshd(folder, List.of(ACCOUNT), List.of());
        OffscreenWindow window = new OffscreenWindow(folder.resolve("here"), server)) {
      Path there = folder.resolve(ACCOUNT);
      for (int size : List.of(SMALL, LARGE)) {
        Files.writeString(there.resolve(size + ".conf"), text(size), StandardCharsets.UTF_8);
      }
      SystemSshd.run("chown", "-R", ACCOUNT + ":", there.toString());
      DeskModel desk = window.open("levels-web", ACCOUNT, server.port(), there, window.home());
      // The first round warms the program up.
      inEditor(window, desk, there, SMALL);
      inEditor(window, desk, there, LARGE);
      Times small = inEditor(window, desk, there, SMALL);
      Times large = inEditor(window, desk, there, LARGE);
      Times bareSmall = bare(window, SMALL);
      Times bareLarge = bare(window, LARGE);
      System.out.printf(
          "%-44s %10s %10s%n", KEYS + " keys, ms until they are laid out", "median", "99 of 100");
      List.of(small, large, bareSmall, bareLarge).forEach(Times::print);
      System.out.printf(
          "a key in 5 MB takes %.2f times of one in 5 KB, %.2f at the 99th%n",
          large.median() / small.median(), large.most() / small.most());
    }
    System.exit(0);
  }

  private static String named(String what, int size) {
    return what + ", " + (size == SMALL ? "5 KB" : "5 MB");
  }

  private static Times inEditor(OffscreenWindow window, DeskModel desk, Path there, int size)
      throws Exception {
    window.run(() -> desk.openFile(RemotePath.of(there.resolve(size + ".conf").toString())));
    window.until("it is open", () -> desk.currentProperty().get() instanceof FileModel);
    CodeArea area = (CodeArea) window.shown("#editor");
    window.until("it is shown", () -> area.getLength() >= size);
    Times times = type(named("Zander's editor", size), window, area);
    FileModel file = (FileModel) window.on(() -> desk.currentProperty().get());
    // As it was, so that closing it asks nothing.
    window.run(() -> area.replaceText(file.loadedProperty().get().text()));
    window.until("it is as it was", () -> !file.isUnsaved());
    window.run(() -> desk.close(file));
    return times;
  }

  private static Times bare(OffscreenWindow window, int size) throws Exception {
    CodeArea area = window.on(CodeArea::new);
    String text = text(size);
    Parent root = window.on(() -> window.scene().getRoot());
    window.run(
        () -> {
          window.scene().setRoot(new VirtualizedScrollPane<>(area));
          area.replaceText(text);
        });
    Times times = type(named("the text component alone", size), window, area);
    window.run(() -> window.scene().setRoot(root));
    return times;
  }

  private static Times type(String what, OffscreenWindow window, CodeArea area) throws Exception {
    window.run(
        () -> {
          int line = area.getParagraphs().size() / 2;
          area.moveTo(line, 2);
          area.showParagraphAtCenter(line);
          area.requestFocus();
        });
    ProcessorTime.awaitIdle();
    long[] each = new long[KEYS];
    for (int i = 0; i < KEYS; i++) {
      CountDownLatch laidOut = new CountDownLatch(1);
      int key = i;
      window.run(
          () -> {
            long start = System.nanoTime();
            Event.fireEvent(
                area,
                new KeyEvent(
                    KeyEvent.KEY_TYPED, "x", "x", KeyCode.UNDEFINED, false, false, false, false));
            // Behind what it has put off until the next turn, such as colours.
            Platform.runLater(
                () ->
                    atNextLayout(
                        area.getScene(),
                        () -> {
                          each[key] = System.nanoTime() - start;
                          laidOut.countDown();
                        }));
          });
      laidOut.await();
      // As a person types: what is done in pauses is done.
      TimeUnit.MILLISECONDS.sleep(20);
    }
    Arrays.sort(each);
    return new Times(what, each);
  }

  private static void atNextLayout(Scene scene, Runnable then) {
    Runnable[] listener = new Runnable[1];
    listener[0] =
        () -> {
          scene.removePostLayoutPulseListener(listener[0]);
          then.run();
        };
    scene.addPostLayoutPulseListener(listener[0]);
    Platform.requestNextPulse();
  }
}
