package zander.desk.reach;

import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import javafx.beans.property.ReadOnlyLongProperty;
import javafx.beans.property.ReadOnlyLongWrapper;
import org.jspecify.annotations.Nullable;
import zander.core.connect.address.ServerAddress;
import zander.core.connect.report.ConnectFailure;
import zander.core.connect.report.SignInNote;
import zander.core.connect.report.SignInStep;
import zander.desk.words.Words;
import zander.desk.work.FailureWords;
import zander.desk.work.Message;
import zander.desk.work.SignInWords;

/** One sign-in as it happens: its steps on each server of the way, and how it ended. */
public final class SignInModel {
  private static final Words WORDS = Words.of(SignInModel.class);

  /** How a step stands. */
  public enum Mark {
    UNDER_WAY,
    DONE,
    FAILED
  }

  /** A step on one server; changes while it is under way. */
  public static final class Row {
    private final ServerAddress hop;
    private final SignInStep step;
    private final Duration begun;
    private final List<SignInNote> notes = new ArrayList<>();
    private Mark mark = Mark.UNDER_WAY;
    private Duration ended;

    private Row(SignInNote first) {
      hop = first.hop();
      step = first.step();
      begun = first.at();
      ended = first.at();
    }

    public ServerAddress hop() {
      return hop;
    }

    public SignInStep step() {
      return step;
    }

    public Mark mark() {
      return mark;
    }

    /** What was found, offered and answered, in order. */
    public List<SignInNote> notes() {
      return List.copyOf(notes);
    }

    public Duration took() {
      return ended.minus(begun);
    }
  }

  private final String server;
  private final List<Row> rows = new ArrayList<>();
  private final ReadOnlyLongWrapper changes = new ReadOnlyLongWrapper();
  private @Nullable Throwable cause;
  private boolean over;
  private boolean stopped;

  SignInModel(String server) {
    this.server = server;
  }

  void note(SignInNote note) {
    Row row = rowOf(note);
    row.ended = note.at();
    switch (note.kind()) {
      case BEGUN -> {}
      case DONE -> row.mark = Mark.DONE;
      case FAILED -> row.mark = Mark.FAILED;
      default -> row.notes.add(note);
    }
    changed();
  }

  private Row rowOf(SignInNote note) {
    for (Row row : rows) {
      if (row.step == note.step() && row.hop.equals(note.hop())) {
        return row;
      }
    }
    Row made = new Row(note);
    rows.add(made);
    return made;
  }

  void failed(Throwable why) {
    cause = why;
    over = true;
    changed();
  }

  void done() {
    over = true;
    changed();
  }

  /** Gives it up: whatever comes of it is let go. */
  public void stop() {
    stopped = true;
    over = true;
    changed();
  }

  private void changed() {
    changes.set(changes.get() + 1);
  }

  /** The name of what is being opened. */
  public String server() {
    return server;
  }

  public List<Row> rows() {
    return List.copyOf(rows);
  }

  public boolean isOver() {
    return over;
  }

  public boolean isStopped() {
    return stopped;
  }

  /** Why it failed; {@code null} while it did not. */
  public @Nullable Throwable cause() {
    return cause;
  }

  /** The failure of reaching it, when it is one; else {@code null}. */
  public @Nullable ConnectFailure failure() {
    return cause instanceof ConnectFailure failure ? failure : null;
  }

  /** The failure in words; {@code null} while there is none. */
  public @Nullable Message said() {
    return cause == null ? null : FailureWords.of(cause);
  }

  /** What is likely to help, the likeliest first. */
  public List<String> cures() {
    return failure() == null ? List.of() : SignInWords.cures(failure());
  }

  /** Counts up whenever something to be shown has changed. */
  public ReadOnlyLongProperty changesProperty() {
    return changes.getReadOnlyProperty();
  }

  /** All of it as text, to be sent to somebody who can help. Holds no secret. */
  public String report() {
    StringBuilder text = new StringBuilder(WORDS.say("zanderOpening", server));
    ServerAddress last = null;
    for (Row row : rows) {
      if (!row.hop.equals(last)) {
        text.append("\n").append(row.hop).append("\n");
        last = row.hop;
      }
      text.append(
          String.format(
              "  %-12s %-9s %6d ms%n",
              SignInWords.name(row.step),
              row.mark.name().toLowerCase(java.util.Locale.ROOT).replace('_', ' '),
              row.took().toMillis()));
      for (SignInNote note : row.notes) {
        text.append("      ").append(SignInWords.of(note)).append("\n");
      }
    }
    Message said = said();
    if (said != null) {
      text.append("\n").append(said.headline()).append("\n").append(said.detail()).append("\n");
      cures().forEach(cure -> text.append("- ").append(cure).append("\n"));
    }
    return text.toString();
  }
}
