package zander.suite.window;

import java.lang.management.ManagementFactory;
import java.util.Arrays;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.Pane;

/**
 * How much processor time a known piece of work takes the interface thread in this run, so that
 * what a person would wait for can be told on a machine that is slower than another, and on one
 * that shares its processor with others.
 */
final class Pace {
  /** Styled and laid out; about as many as the window has of its own. */
  private static final int BUTTONS = 400;

  private static final int ROUNDS = 9;

  /** Milliseconds of work that the buttons take where a person's patience was measured. */
  private static final double USUAL = 30;

  /** Milliseconds; what a person does not take for waiting. */
  private static final long PATIENCE = 200;

  private Pace() {}

  /**
   * What a person does not take for waiting, in milliseconds of the interface thread's work: as
   * many times the known piece of work as on a usual machine, and never less than there.
   */
  static long patience(OffscreenWindow window) throws Exception {
    long[] taken = new long[ROUNDS];
    for (int i = 0; i < ROUNDS; i++) {
      taken[i] = window.on(() -> round((Pane) window.scene().getRoot()));
    }
    Arrays.sort(taken);
    double pace = taken[ROUNDS / 2] / 1e6 / USUAL;
    System.out.printf("pace of the interface thread: %.2f times the usual%n", pace);
    return Math.round(PATIENCE * Math.max(1, pace));
  }

  /** Nanoseconds. */
  private static long round(Pane root) {
    long start = ManagementFactory.getThreadMXBean().getCurrentThreadCpuTime();
    FlowPane buttons = new FlowPane();
    buttons.setManaged(false);
    for (int i = 0; i < BUTTONS; i++) {
      Node button = new Button("button " + i);
      buttons.getChildren().add(button);
    }
    root.getChildren().add(buttons);
    buttons.applyCss();
    buttons.resize(1000, 1000);
    buttons.layout();
    root.getChildren().remove(buttons);
    return ManagementFactory.getThreadMXBean().getCurrentThreadCpuTime() - start;
  }
}
