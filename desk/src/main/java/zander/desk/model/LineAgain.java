package zander.desk.model;

import zander.core.book.ServerEntry;
import zander.core.files.RemotePath;
import zander.desk.reach.Secrets;
import zander.desk.reach.SignInRunner;

/**
 * How a desk's line is opened again after it broke: by signing in once more, or by acting as the
 * other account over the line of the desk it belongs to, once that is back.
 *
 * @param own the desk whose connection it acts over; {@code null} for one of its own
 */
record LineAgain(AppModel app, DeskModel own, Secrets secrets) {
  void again(DeskModel desk, boolean unattended, SignInRunner.Outcome outcome) {
    if (own != null) {
      RemotePath at = desk.folder().path();
      SignInRunner.Acting acting =
          new SignInRunner.Acting(ActingDesks.ROOT, at == null ? null : at.text());
      app.reach().actAs(own.connection(), acting, secrets, unattended, outcome);
      return;
    }
    // The book may have a better way by now: a key in the place of a password.
    ServerEntry entry = desk.entry();
    ServerEntry now = app.book().find(entry.name());
    boolean same = now != null && now.address().equals(entry.address());
    app.reach().signIn(same ? now : entry, secrets, unattended, outcome);
  }
}
