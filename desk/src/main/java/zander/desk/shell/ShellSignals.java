package zander.desk.shell;

import java.util.List;
import java.util.concurrent.atomic.AtomicReference;
import java.util.function.Consumer;
import javafx.beans.property.BooleanProperty;
import javafx.beans.property.ReadOnlyStringProperty;
import javafx.beans.property.ReadOnlyStringWrapper;
import javafx.beans.property.SimpleBooleanProperty;
import org.jspecify.annotations.Nullable;
import zander.core.term.TerminalListener;
import zander.core.work.VisibleText;
import zander.desk.sheet.Question;
import zander.desk.sheet.Sheet;
import zander.desk.words.Words;
import zander.desk.work.Background;
import zander.desk.work.Message;

/**
 * What the program in a shell tells beside its text: the bell, a title, the folder it is in, and
 * that it wants something on the clipboard, which is asked about. Told on the reading thread, known
 * on the interface thread.
 */
public final class ShellSignals implements TerminalListener {
  private static final Words WORDS = Words.of(ShellSignals.class);

  private static final int SHOWN_LINES = 3;
  private static final int SHOWN_WIDTH = 160;

  private final Sheet shell;
  private final Background background;
  private final Consumer<byte[]> answers;
  private final BooleanProperty rang = new SimpleBooleanProperty();
  private final ReadOnlyStringWrapper title = new ReadOnlyStringWrapper("");
  private final ReadOnlyStringWrapper forClipboard = new ReadOnlyStringWrapper("");
  private final AtomicReference<String> newTitle = new AtomicReference<>();
  private volatile String folder = "";
  private @Nullable String host;
  private volatile boolean asked;
  private volatile boolean ringing;
  private boolean refused;
  private @Nullable Question waiting;

  /**
   * @param answers takes what the terminal answers the program
   */
  ShellSignals(Sheet shell, Background background, Consumer<byte[]> answers) {
    this.shell = shell;
    this.background = background;
    this.answers = answers;
  }

  @Override
  public void answer(byte[] bytes) {
    answers.accept(bytes);
  }

  /** A program that rings without end has it shown once, until somebody looks. */
  @Override
  public void bell() {
    if (!ringing) {
      ringing = true;
      background.show(
          () -> {
            rang.set(true);
            ringing = false;
          });
    }
  }

  /** A program that names itself without end has its last name shown. */
  @Override
  public void title(String told) {
    if (newTitle.getAndSet(told) == null) {
      background.show(() -> title.set(VisibleText.of(newTitle.getAndSet(null))));
    }
  }

  /** One who goes on to another computer from here says where they are there: that is not meant. */
  @Override
  public void folder(String named, String path) {
    if (host == null) {
      host = named;
    }
    if (host.equals(named)) {
      folder = path;
    }
  }

  @Override
  public void clipboard(String text) {
    if (!asked) {
      asked = true;
      background.show(() -> ask(text));
    }
  }

  private void ask(String text) {
    List<String> lines = text.lines().toList();
    StringBuilder shown = new StringBuilder(WORDS.say("itWouldReplaceWhat"));
    lines.stream()
        .limit(SHOWN_LINES)
        .forEach(
            line ->
                shown
                    .append('\n')
                    .append(
                        VisibleText.of(
                            line.length() > SHOWN_WIDTH
                                ? line.substring(0, SHOWN_WIDTH) + "..."
                                : line)));
    if (lines.size() > SHOWN_LINES) {
      shown
          .append(WORDS.say("and"))
          .append(lines.size() - SHOWN_LINES)
          .append(WORDS.say("moreLines"));
    }
    Message said = new Message(WORDS.say("letTheProgramIn"), shown.toString());
    waiting =
        Question.notice(
            said,
            false,
            new Question.Choice(
                WORDS.say("putItThere"),
                ticked -> {
                  answered();
                  forClipboard.set(text);
                  forClipboard.set("");
                }),
            new Question.Choice(
                WORDS.say("neverInThisShell"),
                ticked -> {
                  refused = true;
                  answered();
                }),
            new Question.Choice(WORDS.say("no"), ticked -> answered()));
    shell.pin(waiting);
  }

  /** Until then the program is not heard again. */
  private void answered() {
    if (waiting != null) {
      shell.unpin(waiting);
    }
    asked = refused;
  }

  /** Whether the bell rang since somebody looked, who sets it back. */
  public BooleanProperty rangProperty() {
    return rang;
  }

  /** What the program calls itself; empty for nothing. */
  public ReadOnlyStringProperty titleProperty() {
    return title.getReadOnlyProperty();
  }

  /** What somebody let the program put on the clipboard, for a moment; else empty. */
  public ReadOnlyStringProperty forClipboardProperty() {
    return forClipboard.getReadOnlyProperty();
  }

  /** Where the shell last said it is; empty while it has said nothing. */
  String folder() {
    return folder;
  }
}
