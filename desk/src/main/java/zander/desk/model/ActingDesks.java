package zander.desk.model;

import java.time.Duration;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import zander.core.book.ServerEntry;
import zander.core.files.RemotePath;
import zander.core.journal.ActingJournal;
import zander.desk.reach.Secrets;
import zander.desk.reach.SignInRunner;
import zander.desk.sheet.OpenDesk;
import zander.desk.shell.ShellModel;
import zander.desk.work.FailureWords;
import zander.desk.work.Message;

/**
 * The desks on which root is acted as, over the connection of another desk: at most one for each.
 */
final class ActingDesks {
  /** Whom one acts as. */
  static final String ROOT = "root";

  private final AppModel app;

  /** Who waits for the desk that is being opened for each. */
  private final Map<DeskModel, List<Consumer<OpenDesk>>> opening = new HashMap<>();

  /** Made with the first: the settings are not there before. */
  private IdleDesks idle;

  ActingDesks(AppModel app) {
    this.app = app;
  }

  /** Somebody pressed something on a desk; {@code null} for none. */
  void used(DeskModel desk) {
    if (idle != null && desk != null) {
      idle.used(new Ending(app, desk));
    }
  }

  /**
   * Opens one, or shows the one that is there.
   *
   * @param at the folder to begin in
   * @param then told once it is there
   */
  void actAsRoot(DeskModel own, RemotePath at, Consumer<OpenDesk> then) {
    DeskModel there = of(own);
    if (there != null) {
      app.currentProperty().set(there);
      there.goTo(at);
      then.accept(there);
      return;
    }
    List<Consumer<OpenDesk>> waiting = opening.get(own);
    if (waiting != null) {
      waiting.add(then);
      return;
    }
    opening.put(own, new ArrayList<>(List.of(then)));
    open(own, at);
  }

  /** {@code null} for none. */
  private DeskModel of(DeskModel own) {
    return app.desks().stream().filter(desk -> desk.own() == own).findFirst().orElse(null);
  }

  private void open(DeskModel own, RemotePath at) {
    ServerEntry entry = own.entry().withName(own.entry().name() + " as " + ROOT);
    Secrets secrets = new Secrets();
    app.reach()
        .actAs(
            own.connection(),
            new SignInRunner.Acting(ROOT, at.text()),
            secrets,
            false,
            new SignInRunner.Outcome(
                opened -> opened(own, entry, secrets, opened),
                failed -> failed(own, secrets, failed.cause())));
  }

  private void opened(
      DeskModel own, ServerEntry entry, Secrets secrets, SignInRunner.Opened opened) {
    app.background()
        .run(
            () -> new ActingJournal(app.journalOf(entry), ROOT),
            journal -> {
              List<Consumer<OpenDesk>> waiting = opening.remove(own);
              if (!app.desks().contains(own)) {
                // It was closed meanwhile, and nobody waits any more.
                app.background().run(opened.connection()::close);
                app.journalDone(entry);
                secrets.wipe();
                return;
              }
              DeskModel desk = new DeskModel(app, entry, opened, journal, secrets, own);
              app.desks().add(app.desks().indexOf(own) + 1, desk);
              app.currentProperty().set(desk);
              endWhenIdle(desk);
              waiting.forEach(then -> then.accept(desk));
            },
            failure -> {
              app.background().run(opened.connection()::close);
              failed(own, secrets, failure);
            });
  }

  private void endWhenIdle(DeskModel desk) {
    if (idle == null) {
      idle = new IdleDesks(app.background(), app.settings());
    }
    idle.begins(new Ending(app, desk));
  }

  /** Ends the right where nothing runs, is open in a shell, or is not saved. */
  private record Ending(AppModel app, DeskModel desk) implements IdleDesks.Ending {
    @Override
    public boolean isOpen() {
      return app.desks().contains(desk);
    }

    @Override
    public boolean isBusy() {
      return desk.hasUnsaved()
          || desk.transfers().queue().isBusy()
          || !desk.openSheets().of(ShellModel.class).isEmpty();
    }

    @Override
    public void end(Duration idle) {
      DeskModel own = desk.own();
      app.close(desk);
      if (app.desks().contains(own)) {
        long minutes = Math.max(1, idle.toMinutes());
        own.openSheets()
            .front()
            .tell(
                new Message(
                    "You are no longer acting as root",
                    "There was no activity for "
                        + (minutes == 1 ? "a minute." : minutes + " minutes.")));
      }
    }
  }

  private void failed(DeskModel own, Secrets secrets, Throwable why) {
    opening.remove(own);
    secrets.wipe();
    if (app.desks().contains(own)) {
      own.openSheets().front().tellFailure(FailureWords.of(why));
    }
  }
}
