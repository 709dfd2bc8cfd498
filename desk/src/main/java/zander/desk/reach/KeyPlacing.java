package zander.desk.reach;

import static java.util.Objects.requireNonNull;

import java.util.List;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.beans.property.ReadOnlyStringProperty;
import javafx.beans.property.ReadOnlyStringWrapper;
import zander.core.authorize.AuthorizedKeys;
import zander.core.book.ServerEntry;
import zander.core.book.SignIn;
import zander.core.connect.Connection;
import zander.core.connect.keys.PublicKeyLine;
import zander.core.journal.Journal;
import zander.desk.words.Words;
import zander.desk.work.Background;
import zander.desk.work.FailureWords;
import zander.desk.work.Message;

/**
 * Puts a key on a server: what will be done is shown, then done over the connection there is; then
 * a second sign-in with that key alone proves it, and only then the entry is switched to it.
 */
public final class KeyPlacing {
  private static final Words WORDS = Words.of(KeyPlacing.class);

  /** Where it stands. */
  public enum Stage {
    LOOKING,
    /** The plan is there; nothing was changed yet. */
    PLANNED,
    PUTTING,
    PROVING,
    /** The key lets us in, and the entry uses it. */
    DONE,
    FAILED
  }

  private final Background background;
  private final SignInRunner reach;
  private final BookModel book;
  private final ServerEntry entry;
  private final KeysModel.Row key;
  private final Connection connection;
  private final Journal journal;
  private final ReadOnlyObjectWrapper<Stage> stage = new ReadOnlyObjectWrapper<>(Stage.LOOKING);
  private final ReadOnlyStringWrapper plan = new ReadOnlyStringWrapper("");
  private final ReadOnlyObjectWrapper<Message> said = new ReadOnlyObjectWrapper<>();

  /**
   * @param entry the server that is signed in to
   */
  public KeyPlacing(
      SignInRunner reach,
      BookModel book,
      ServerEntry entry,
      KeysModel.Row key,
      Connection connection,
      Journal journal) {
    this.background = reach.background();
    this.reach = reach;
    this.book = book;
    this.entry = entry;
    this.key = key;
    this.connection = connection;
    this.journal = journal;
    background.run(
        () -> keys().plan(requireNonNull(key.line()).key()),
        planned -> {
          plan.set(words(planned));
          stage.set(Stage.PLANNED);
        },
        this::failed);
  }

  private AuthorizedKeys keys() {
    return new AuthorizedKeys(connection.files(), connection, journal, connection.whoAmI().home());
  }

  private void failed(Throwable failure) {
    said.set(FailureWords.of(failure));
    stage.set(Stage.FAILED);
  }

  private static String words(List<AuthorizedKeys.Planned> planned) {
    StringBuilder text = new StringBuilder();
    for (AuthorizedKeys.Planned one : planned) {
      String path = one.path().text();
      String change = WORDS.say("fromTo", one.before(), one.after());
      text.append(
          switch (one.step()) {
            case CLOSE_HOME -> WORDS.say("closeTheHomeFolder", path, change);
            case MAKE_FOLDER -> WORDS.say("makeMode", path, one.after());
            case CLOSE_FOLDER, CLOSE_FILE -> WORDS.say("closeToOthers", path, change);
            case MAKE_FILE -> WORDS.say("makeModeWithThe", path, one.after());
            case ADD_LINE -> WORDS.say("addTheKeyTo", path);
            case IS_THERE -> WORDS.say("nothingTheKeyIs", path);
          });
      text.append('\n');
    }
    text.append(WORDS.say("thenSignInA"));
    return text.toString();
  }

  /** Does what was planned, then proves the key. */
  public void put() {
    if (stage.get() != Stage.PLANNED) {
      return;
    }
    stage.set(Stage.PUTTING);
    PublicKeyLine line = requireNonNull(key.line());
    background.run(() -> keys().put(line), done -> prove(), this::failed);
  }

  private void prove() {
    stage.set(Stage.PROVING);
    String file = key.file() == null ? null : key.file().toString();
    ServerEntry byKey = entry.withSignIn(new SignIn(file, null, key.file() == null, false));
    reach.signIn(
        byKey,
        new Secrets(),
        false,
        new SignInRunner.Outcome(
            opened -> {
              background.run(opened.connection()::close);
              switchTo(byKey);
            },
            failed -> {
              Message why = FailureWords.of(failed.cause());
              said.set(
                  new Message(
                      WORDS.say("theKeyIsOn"),
                      WORDS.say("theEntryWasNot", why.headline(), why.detail())));
              stage.set(Stage.FAILED);
            }));
  }

  private void switchTo(ServerEntry byKey) {
    Message proved =
        new Message(
            WORDS.say("theKeyLetsYou"), WORDS.say("signsInByFrom", entry.name(), key.name()));
    if (book.find(entry.name()) == null) {
      said.set(new Message(WORDS.say("theKeyLetsYou"), WORDS.say("keepThisServerIn")));
      stage.set(Stage.DONE);
      return;
    }
    book.keep(
        byKey,
        () -> {
          said.set(proved);
          stage.set(Stage.DONE);
        });
  }

  public ServerEntry entry() {
    return entry;
  }

  public KeysModel.Row key() {
    return key;
  }

  public ReadOnlyObjectProperty<Stage> stageProperty() {
    return stage.getReadOnlyProperty();
  }

  /** What will be done, a line each. */
  public ReadOnlyStringProperty planProperty() {
    return plan.getReadOnlyProperty();
  }

  /** How it ended; {@code null} before. */
  public ReadOnlyObjectProperty<Message> saidProperty() {
    return said.getReadOnlyProperty();
  }
}
