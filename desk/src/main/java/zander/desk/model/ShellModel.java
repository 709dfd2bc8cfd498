package zander.desk.model;

import java.io.IOException;
import javafx.beans.property.BooleanProperty;
import javafx.beans.property.ReadOnlyBooleanProperty;
import javafx.beans.property.ReadOnlyBooleanWrapper;
import javafx.beans.property.ReadOnlyStringProperty;
import javafx.beans.property.ReadOnlyStringWrapper;
import javafx.beans.property.SimpleBooleanProperty;
import zander.core.connect.ShellSession;
import zander.core.files.RemotePath;
import zander.desk.term.TerminalModel;

/** A shell on the server and the terminal it writes to. */
public final class ShellModel implements Sheet {
  private final DeskModel desk;
  private final RemotePath folder;
  private final TerminalModel terminal;
  private final ReadOnlyStringWrapper title = new ReadOnlyStringWrapper();
  private final ReadOnlyBooleanWrapper unsaved = new ReadOnlyBooleanWrapper(false);
  private final ReadOnlyStringWrapper ended = new ReadOnlyStringWrapper("");
  private final BooleanProperty below = new SimpleBooleanProperty(true);
  private volatile ShellSession session;

  ShellModel(DeskModel desk, String name, RemotePath folder) {
    this.desk = desk;
    this.folder = folder;
    title.set(name);
    terminal = new TerminalModel(this::send, this::resized);
    start();
  }

  /** Opens the shell, and again after it ended, in the same folder. */
  public void start() {
    ended.set("");
    desk.background()
        .run(
            () -> desk.connection().openShell(folder, terminal.columns(), terminal.rows()),
            opened -> {
              session = opened;
              desk.background().run(() -> read(opened));
            },
            failure -> {
              ended.set(zander.desk.work.FailureWords.of(failure).headline());
              desk.checkLine();
            });
  }

  private void read(ShellSession from) {
    // The window may have been laid out while the shell was being opened.
    resized(terminal.columns(), terminal.rows());
    terminal.readAll(from.output());
    desk.background()
        .show(
            () -> {
              if (from == session) {
                int exit = from.exit();
                ended.set(
                    exit < 0
                        ? "The connection of this shell is gone."
                        : "The shell has ended" + (exit == 0 ? "." : " with status " + exit + "."));
                desk.shellUsed();
              }
            });
  }

  private void send(byte[] bytes) {
    ShellSession to = session;
    if (to != null && to.isOpen()) {
      desk.typing()
          .execute(
              () -> {
                try {
                  to.type(bytes);
                } catch (IOException e) {
                  // The reading side sees the end of the shell and tells it.
                }
              });
    }
  }

  private void resized(int columns, int rows) {
    ShellSession to = session;
    if (to != null && to.isOpen()) {
      desk.typing()
          .execute(
              () -> {
                try {
                  to.resize(columns, rows);
                } catch (IOException e) {
                  // As above.
                }
              });
    }
  }

  public TerminalModel terminal() {
    return terminal;
  }

  public RemotePath folder() {
    return folder;
  }

  /** Why the shell is over; empty while it runs. */
  public ReadOnlyStringProperty endedProperty() {
    return ended.getReadOnlyProperty();
  }

  /** Whether it shares the space below the other sheets, or is a sheet of its own. */
  public BooleanProperty belowProperty() {
    return below;
  }

  @Override
  public ReadOnlyStringProperty titleProperty() {
    return title.getReadOnlyProperty();
  }

  @Override
  public ReadOnlyBooleanProperty unsavedProperty() {
    return unsaved.getReadOnlyProperty();
  }

  @Override
  public void close() {
    ShellSession open = session;
    session = null;
    if (open != null) {
      desk.background().run(open::close);
    }
  }
}
