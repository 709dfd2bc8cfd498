package zander.desk.shell;

import java.io.IOException;
import java.util.function.Consumer;
import javafx.beans.property.BooleanProperty;
import javafx.beans.property.ReadOnlyStringProperty;
import javafx.beans.property.ReadOnlyStringWrapper;
import javafx.beans.property.SimpleBooleanProperty;
import org.jspecify.annotations.Nullable;
import zander.core.connect.command.KeptShell;
import zander.core.connect.command.ShellLanguage;
import zander.core.connect.command.ShellPlace;
import zander.core.connect.command.ShellSession;
import zander.core.connect.command.ShellWords;
import zander.core.files.RemotePath;
import zander.core.files.WireName;
import zander.desk.sheet.OpenDesk;
import zander.desk.sheet.Sheet;
import zander.desk.term.PastedText;
import zander.desk.term.TerminalModel;
import zander.desk.term.TextLink;
import zander.desk.words.Words;
import zander.desk.work.FailureWords;
import zander.desk.work.Message;

/** A shell on the server and the terminal it writes to. */
public final class ShellModel extends Sheet {
  private static final Words WORDS = Words.of(ShellModel.class);

  private final ShellSheets shells;
  private final OpenDesk desk;
  private RemotePath folder;
  private final String keptAs;
  private final TerminalModel terminal;
  private final ShellSignals signals;
  private final ShellLinks links;
  private final ReadOnlyStringWrapper ended = new ReadOnlyStringWrapper("");
  private final BooleanProperty below = new SimpleBooleanProperty(true);
  private static final java.time.Duration AFTER_COMMAND = java.time.Duration.ofMillis(1500);

  private volatile @Nullable ShellSession session;
  private volatile WaitingAnswers answers = new WaitingAnswers();
  private boolean lookDue;
  private boolean closed;

  /**
   * @param keptAs the name it is kept by on the server; empty where it ends with the line
   */
  ShellModel(ShellSheets shells, String name, RemotePath folder, String keptAs) {
    this.shells = shells;
    this.keptAs = keptAs;
    this.desk = shells.desk();
    this.folder = folder;
    setTitle(name);
    signals = new ShellSignals(this, desk.background(), this::sendAnswer);
    links = new ShellLinks(desk, this);
    terminal = new TerminalModel(signals, this::send, this::resized, desk.background()::run);
    start();
  }

  /** Opens the shell, and again after it ended, in the folder where it was. */
  public void start() {
    ended.set("");
    if (!signals.folder().isEmpty()) {
      folder = RemotePath.of(signals.folder());
    }
    desk.background()
        .run(
            this::opened,
            opened -> {
              if (opened == null) {
                ended.set(WORDS.say("thisServerHasNo"));
              } else if (closed) {
                desk.background().run(opened::close);
              } else {
                session = opened;
                answers = new WaitingAnswers();
                desk.background().run(() -> read(opened));
                desk.background().later(AFTER_COMMAND, () -> lookAtCoding(opened));
              }
            },
            failure -> {
              ended.set(FailureWords.of(failure).headline());
              desk.checkLine();
            });
  }

  /** Says once on a desk that programs write what the terminal does not know. */
  private void lookAtCoding(ShellSession of) {
    if (of == session && desk.isFirstTime("the coding of shells")) {
      desk.background()
          .run(
              () -> ShellLanguage.otherCoding(desk.commands(), of.mark()),
              coding -> {
                if (!coding.isEmpty() && !closed) {
                  tell(
                      new Message(
                          WORDS.say("programsInThisShell"), WORDS.say("theyWriteAsLang", coding)));
                }
              },
              failure -> {
                // It cannot be known; whoever types sees that the line is lost.
              });
    }
  }

  /** Null where the server was to keep it and cannot. */
  private @Nullable ShellSession opened() throws IOException {
    if (!keptAs.isEmpty() && !KeptShell.isPossible(desk.commands())) {
      return null;
    }
    terminal.renew();
    return shells.connection().openShell(folder, terminal.columns(), terminal.rows(), keptAs);
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
                        ? keptAs.isEmpty()
                            ? WORDS.say("theConnectionOfThis")
                            : WORDS.say("theConnectionIsGone")
                        : WORDS.say(
                            "theShellHasEnded", exit == 0 ? "." : WORDS.say("withStatus", exit)));
                shells.used();
              }
            });
  }

  private void sendAnswer(byte[] bytes) {
    WaitingAnswers waiting = answers;
    if (waiting.begin(bytes.length)) {
      inOrder(
          to -> {
            try {
              to.type(bytes);
            } finally {
              waiting.done(bytes.length);
            }
          });
    }
  }

  private void send(byte[] bytes) {
    inOrder(to -> to.type(bytes));
    for (byte b : bytes) {
      if (b == '\r') {
        desk.background().show(this::commandGiven);
        return;
      }
    }
  }

  /** A command may have changed the folder: it is read again a moment later. */
  private void commandGiven() {
    if (!lookDue) {
      lookDue = true;
      desk.background()
          .later(
              AFTER_COMMAND,
              () -> {
                lookDue = false;
                shells.used();
              });
    }
  }

  /** The name that the server keeps it by; empty where it ends with the line. */
  String keptAs() {
    return keptAs;
  }

  /** Pastes what is on the clipboard; asks first where it would run, or holds what is not seen. */
  public void paste(String clipboard) {
    PastedText pasted = PastedText.of(clipboard);
    boolean runsAtOnce = pasted.hasLineEnd() && !terminal.marksPastes();
    if (!runsAtOnce && !pasted.hadControls() && !pasted.hasHidden()) {
      terminal.paste(pasted);
      return;
    }
    ask(
        PasteQuestion.of(
            pasted,
            runsAtOnce,
            () -> {
              dismissQuestion();
              terminal.paste(pasted);
            },
            this::dismissQuestion));
  }

  private void resized(int columns, int rows) {
    inOrder(to -> to.resize(columns, rows));
  }

  private interface Sending {
    void to(ShellSession open) throws IOException;
  }

  /** Keys and sizes go out one after the other, on the desk's thread for typing. */
  private void inOrder(Sending sending) {
    ShellSession open = session;
    if (open != null && open.isOpen()) {
      shells.inOrder(
          () -> {
            try {
              sending.to(open);
            } catch (IOException e) {
              // The reading side sees the end of the shell and tells it.
            }
          });
    }
  }

  /**
   * Finds out which folder the shell is in: where it said so itself, else by its process.
   *
   * @param then told on the interface thread; not where it cannot be known, which is told
   */
  public void whereItIs(Consumer<RemotePath> then) {
    if (!signals.folder().isEmpty()) {
      then.accept(RemotePath.of(signals.folder()));
      return;
    }
    ShellSession open = session;
    desk.background()
        .run(
            () ->
                open == null
                    ? null
                    : keptAs.isEmpty()
                        ? ShellPlace.of(desk.commands(), open.mark())
                        : KeptShell.folder(desk.commands(), keptAs),
            found -> {
              if (found == null) {
                tell(new Message(WORDS.say("thisShellDoesNot"), WORDS.say("theServersListOf")));
              } else {
                then.accept(found);
              }
            },
            failure -> tellFailure(FailureWords.of(failure)));
  }

  /** Shows the folder that the shell is in. */
  public void goWhereItIs() {
    whereItIs(desk::goTo);
  }

  /** Types the command that brings the shell to a folder. */
  public void bringTo(RemotePath to) {
    byte[] command = WireName.bytes("cd -- " + ShellWords.quote(to) + "\r");
    terminal.type(command);
  }

  /** Goes to something that was pressed in the text. */
  public void follow(TextLink link) {
    if (link.kind() == TextLink.Kind.FILE && !link.target().matches("[/~].*")) {
      whereItIs(from -> links.follow(link, from));
    } else {
      links.follow(link, folder);
    }
  }

  /** What the program in it tells. */
  public ShellSignals signals() {
    return signals;
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
  public void close() {
    ShellSession open = session;
    session = null;
    closed = true;
    terminal.close();
    if (open != null) {
      desk.background().run(open::close);
    }
  }
}
