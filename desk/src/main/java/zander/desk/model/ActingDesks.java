package zander.desk.model;

import static java.util.Objects.requireNonNull;

import java.time.Duration;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;
import zander.core.book.ServerEntry;
import zander.core.connect.channel.ActFailure;
import zander.core.connect.channel.WayUp;
import zander.core.files.RemotePath;
import zander.core.journal.ActingJournal;
import zander.desk.reach.Secrets;
import zander.desk.reach.SignInRunner;
import zander.desk.sheet.OpenDesk;
import zander.desk.sheet.Question;
import zander.desk.sheet.Sheet;
import zander.desk.shell.ShellModel;
import zander.desk.words.Words;
import zander.desk.work.FailureWords;
import zander.desk.work.Message;

/**
 * The desks on which another account is acted as, over the connection of another desk: for each of
 * those at most one an account.
 */
final class ActingDesks {
  private static final Words WORDS = Words.of(ActingDesks.class);

  private final AppModel app;

  /** Who waits for the desk that is being opened for each. */
  private final Map<Wanted, List<Consumer<OpenDesk>>> opening = new HashMap<>();

  private record Wanted(OpenDesk own, String account) {
    static Wanted of(ActsAs acting) {
      return new Wanted(acting.own(), acting.account());
    }
  }

  /** Made with the first: the settings are not there before. */
  private @Nullable IdleDesks idle;

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
  void actAs(DeskModel own, String account, RemotePath at, Consumer<OpenDesk> then) {
    // The book may know more by now than the desk did when it was opened.
    ServerEntry known = app.book().find(own.entry().name());
    boolean same = known != null && known.address().equals(own.entry().address());
    List<WayUp> ways = ActsAs.ways(same ? known : own.entry(), account);
    actAs(new ActsAs(own, own.entry(), own::connection, account, ways), at, then);
  }

  private void actAs(ActsAs acting, RemotePath at, Consumer<OpenDesk> then) {
    DeskModel there = of(acting);
    if (there != null) {
      app.currentProperty().set(there);
      there.goTo(at);
      then.accept(there);
      return;
    }
    List<Consumer<OpenDesk>> waiting = opening.get(Wanted.of(acting));
    if (waiting != null) {
      waiting.add(then);
      return;
    }
    opening.put(Wanted.of(acting), new ArrayList<>(List.of(then)));
    open(acting, at);
  }

  /** {@code null} for none. */
  private @Nullable DeskModel of(ActsAs acting) {
    return app.desks().stream()
        .filter(desk -> desk.own() == acting.own() && acting.account().equals(desk.actsAs()))
        .findFirst()
        .orElse(null);
  }

  private void open(ActsAs acting, RemotePath at) {
    ServerEntry entry =
        acting.server().withName(WORDS.say("as", acting.server().name(), acting.account()));
    Secrets secrets = new Secrets();
    app.reach()
        .actAs(
            acting.connection().get(),
            acting.from(at),
            secrets,
            false,
            new SignInRunner.Outcome(
                opened -> opened(acting, entry, secrets, opened),
                failed -> failed(acting, at, secrets, failed.cause())));
  }

  private void opened(
      ActsAs acting, ServerEntry entry, Secrets secrets, SignInRunner.Opened opened) {
    OpenDesk own = acting.own();
    app.background()
        .run(
            () -> new ActingJournal(app.journalOf(entry), acting.account()),
            journal -> {
              List<Consumer<OpenDesk>> waiting = waiting(acting);
              if (!app.desks().contains(own)) {
                // It was closed meanwhile, and nobody waits any more.
                app.background().run(opened.connection()::close);
                app.journalDone(entry);
                secrets.wipe();
                return;
              }
              WayUp way = requireNonNull(opened.connection().wayUp(), "it acts as another");
              app.book().keepWay(acting.server(), acting.account(), way);
              DeskModel desk = new DeskModel(app, entry, opened, journal, secrets, acting);
              app.desks().add(app.desks().indexOf(own) + 1, desk);
              app.currentProperty().set(desk);
              endWhenIdle(desk);
              waiting.forEach(then -> then.accept(desk));
            },
            failure -> {
              app.background().run(opened.connection()::close);
              failed(acting, null, secrets, failure);
            });
  }

  /** Who waits for it, and waits no more. */
  private List<Consumer<OpenDesk>> waiting(ActsAs acting) {
    List<Consumer<OpenDesk>> all = opening.remove(Wanted.of(acting));
    return all == null ? List.of() : all;
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
      OpenDesk own = desk.own();
      app.close(desk);
      if (own != null && app.desks().contains(own)) {
        long minutes = Math.max(1, idle.toMinutes());
        own.openSheets()
            .front()
            .tell(
                new Message(
                    WORDS.say("youAreNoLonger", requireNonNull(desk.actsAs())),
                    WORDS.say(
                        "thereWasNoActivity",
                        minutes == 1 ? WORDS.say("aMinute") : WORDS.say("minutes", minutes))));
      }
    }
  }

  /**
   * @param at where it was to begin; {@code null} where another try would help nobody
   */
  private void failed(ActsAs acting, @Nullable RemotePath at, Secrets secrets, Throwable why) {
    List<Consumer<OpenDesk>> waiting = waiting(acting);
    secrets.wipe();
    if (!app.desks().contains(acting.own())) {
      return;
    }
    Sheet front = acting.own().openSheets().front();
    if (at == null || !mayHelp(acting, why)) {
      front.tellFailure(FailureWords.of(why));
      return;
    }
    boolean wasTheirs = acting.ways().get(0) == WayUp.SU;
    ActsAs other = wasTheirs ? acting.byOwnPassword() : acting.byItsPassword();
    Question.Choice otherWay =
        new Question.Choice(
            wasTheirs
                ? WORDS.say("useMyOwnPassword")
                : WORDS.say("useThePasswordOf", acting.account()),
            ticked -> {
              front.dismissQuestion();
              waiting.forEach(then -> actAs(other, at, then));
            });
    front.ask(Question.notice(FailureWords.of(why), true, otherWay, front.dismiss()));
  }

  /**
   * Whether another password may get further: the other account's, where one's own is refused; and
   * one's own, where theirs was only tried because it was right the last time.
   */
  private static boolean mayHelp(ActsAs acting, Throwable why) {
    return why instanceof ActFailure act
        && acting.ways().size() > 1
        && (acting.ways().get(0) == WayUp.SU
            ? act.reason() != ActFailure.Reason.ENDED
            : act.reason() == ActFailure.Reason.NOT_ALLOWED
                || act.reason() == ActFailure.Reason.WANTS_TERMINAL);
  }
}
