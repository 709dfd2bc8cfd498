package zander.desk.view.part;

import javafx.application.Platform;

/**
 * Work that is done soon after it is wished, once for all wishes until then: what is told while
 * nodes are laid out must not ask for another layout by then. Interface thread only.
 */
public final class Soon {
  private final Runnable work;
  private boolean due;

  public Soon(Runnable work) {
    this.work = work;
  }

  public void wish() {
    if (!due) {
      due = true;
      Platform.runLater(
          () -> {
            due = false;
            work.run();
          });
    }
  }
}
