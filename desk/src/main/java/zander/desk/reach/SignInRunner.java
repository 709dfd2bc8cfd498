package zander.desk.reach;

import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.atomic.AtomicReference;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;
import zander.core.book.JumpRoutes;
import zander.core.book.ServerEntry;
import zander.core.connect.Connection;
import zander.core.connect.Connector;
import zander.core.connect.channel.ActFailure;
import zander.core.connect.channel.Elevation;
import zander.core.connect.channel.WayUp;
import zander.core.connect.signin.Hop;
import zander.desk.work.Background;

/** Signs in at servers of the book: by the way the book says, asking what it must. */
public final class SignInRunner {
  private final Background background;
  private final Connector connector;
  private final Prompts prompts;
  private final VaultModel vault;
  private final Path home;
  private final BookModel book;
  private final AtomicReference<KeepSecret> lastKeep = new AtomicReference<>(KeepSecret.NOW);

  public SignInRunner(
      Background background,
      Connector connector,
      Prompts prompts,
      VaultModel vault,
      BookModel book,
      Path home) {
    this.background = background;
    this.connector = connector;
    this.prompts = prompts;
    this.vault = vault;
    this.book = book;
    this.home = home;
  }

  Background background() {
    return background;
  }

  /** What becomes of a sign-in; called on the interface thread, one of them, once. */
  public record Outcome(Consumer<Opened> opened, Consumer<Failed> failed) {}

  /** A connection that is there. */
  public record Opened(Connection connection, SignInModel steps) {}

  /**
   * A sign-in that failed.
   *
   * @param needsSomebody whether it failed only because nobody was there to be asked
   */
  public record Failed(Throwable cause, SignInModel steps, boolean needsSomebody) {}

  /**
   * Signs in, in the background.
   *
   * @param secrets of the desk it is for
   * @param unattended whether nobody may be asked
   * @return its steps, as they happen
   */
  public SignInModel signIn(
      ServerEntry entry, Secrets secrets, boolean unattended, Outcome outcome) {
    SignInModel steps = new SignInModel(entry.name());
    ServerPrompts talk =
        new ServerPrompts(
            background, prompts, secrets, vault, lastKeep, steps::note, book.allowedCommands());
    talk.setUnattended(unattended);
    background.run(
        () -> open(entry, talk),
        connection -> {
          if (steps.isStopped()) {
            background.run(connection::close);
            return;
          }
          // A line beside this one may be opened any time later, with somebody there.
          talk.setUnattended(false);
          steps.done();
          outcome.opened().accept(new Opened(connection, steps));
        },
        failure -> {
          if (!steps.isStopped()) {
            steps.failed(failure);
            outcome.failed().accept(new Failed(failure, steps, talk.missedSomebody()));
          }
        });
    return steps;
  }

  /**
   * Acts as another account over a connection that is there, in the background.
   *
   * @param secrets of the desk it is for
   * @param unattended whether nobody may be asked
   */
  public void actAs(
      Connection own, Acting acting, Secrets secrets, boolean unattended, Outcome outcome) {
    SignInModel steps = new SignInModel(acting.account());
    ServerPrompts talk =
        new ServerPrompts(
            background, prompts, secrets, vault, lastKeep, n -> {}, book.allowedCommands());
    talk.setUnattended(unattended);
    background.run(
        () -> {
          Connection connection = acting.over(own, talk);
          talk.signedIn();
          return connection;
        },
        connection -> {
          talk.setUnattended(false);
          outcome.opened().accept(new Opened(connection, steps));
        },
        failure -> outcome.failed().accept(new Failed(failure, steps, talk.missedSomebody())));
  }

  /**
   * Whom to act as.
   *
   * @param ways by which programs, the first that is there
   * @param folder where to begin
   */
  public record Acting(String account, List<WayUp> ways, @Nullable String folder) {
    private Connection over(Connection own, ServerPrompts talk) throws IOException {
      for (WayUp way : ways.subList(0, ways.size() - 1)) {
        try {
          return by(way, own, talk);
        } catch (ActFailure e) {
          if (e.reason() != ActFailure.Reason.NO_PROGRAM) {
            throw e;
          }
        }
      }
      return by(ways.get(ways.size() - 1), own, talk);
    }

    private Connection by(WayUp way, Connection own, ServerPrompts talk) throws IOException {
      return own.actAs(
          new Elevation(account, way, talk.acting(own.address(), account, way)), folder);
    }
  }

  private Connection open(ServerEntry entry, ServerPrompts talk) throws IOException {
    List<Hop> route = new JumpRoutes(book::findJump, home).to(entry);
    Connection connection = connector.open(route, entry.landing(), talk);
    talk.signedIn();
    return connection;
  }
}
