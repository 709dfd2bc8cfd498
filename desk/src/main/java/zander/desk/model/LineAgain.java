package zander.desk.model;

import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;
import zander.core.book.ServerEntry;
import zander.desk.reach.Secrets;
import zander.desk.reach.SignInRunner;
import zander.desk.sheet.OpenDesk;
import zander.desk.sheet.OpenDesk.NewLine;

/**
 * How a desk's line is opened again after it broke: by signing in once more, or by acting as the
 * other account over the line of the desk it belongs to, once that is back.
 *
 * @param acting {@code null} where all is done as the account that signed in
 */
record LineAgain(AppModel app, @Nullable ActsAs acting, Secrets secrets) {
  void again(DeskModel desk, boolean unattended, SignInRunner.Outcome outcome) {
    if (acting != null) {
      SignInRunner.Acting again = acting.from(desk.folder().path());
      app.reach().actAs(acting.connection().get(), again, secrets, unattended, outcome);
      return;
    }
    // The book may have a better way by now: a key in the place of a password.
    ServerEntry entry = desk.entry();
    ServerEntry now = app.book().find(entry.name());
    boolean same = now != null && now.address().equals(entry.address());
    app.reach().signIn(same ? now : entry, secrets, unattended, outcome);
  }

  /** See {@link OpenDesk#signInAnew}. */
  void beside(DeskModel desk, Consumer<NewLine> in, Consumer<Throwable> refused) {
    if (acting == null) {
      again(
          desk,
          false,
          new SignInRunner.Outcome(
              opened -> in.accept(new NewLine(opened.connection(), opened.connection()::close)),
              failed -> refused.accept(failed.cause())));
      return;
    }
    acting
        .own()
        .signInAnew(
            own ->
                app.reach()
                    .actAs(
                        own.connection(),
                        acting.from(desk.folder().path()),
                        secrets,
                        false,
                        new SignInRunner.Outcome(
                            opened -> in.accept(new NewLine(opened.connection(), own.close())),
                            failed -> {
                              app.background().run(own.close());
                              refused.accept(failed.cause());
                            })),
            refused);
  }
}
