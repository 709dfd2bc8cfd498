package zander.desk.term;

import java.io.FilterReader;
import java.io.IOException;
import java.io.Reader;
import java.util.function.IntSupplier;

/**
 * Lets no control sequence reach the emulator that would cost more than the screen: numbers are
 * taken down to its size, strings have a bound, and what would resize the window or have it tell
 * its title is left out. Everything else comes through as it is. The states are those of ECMA-48
 * (section 5.4 for sequences with parameters, 5.6 for strings).
 */
final class SequenceGuard extends FilterReader {
  /** What is not a count of cells, such as the number of a mode or of a colour. */
  private static final int MOST_NUMBER = 9999;

  /** In one sequence; ECMA-48 knows none of more than a few. */
  private static final int MOST_PARAMETERS = 256;

  /** Of a string, such as a title. */
  private static final int MOST_STRING = 4096;

  private static final char ESC = '\033';
  private static final char BEL = '\007';
  private static final char CANCEL = '\030';
  private static final char SUBSTITUTE = '\032';

  /** One-character forms (C1) of ESC followed by a letter. */
  private static final char CSI = '\u009b';

  private static final String STRINGS_AFTER_ESC = "]PX^_";
  private static final String C1_STRINGS = "\u009d\u0090\u0098\u009e\u009f";
  private static final char C1_END = '\u009c';

  /** Finals whose number counts cells, rows, tabs or repetitions. */
  private static final String COUNTS = "ABCDEFGHIJKLMPSTXZ@abdefgkijr`";

  private enum State {
    TEXT,
    ESCAPE,
    SEQUENCE,
    STRING,
    /** In a string, after an ESC that may begin its end. */
    STRING_ESCAPE
  }

  private final IntSupplier most;
  private final StringBuilder sequence = new StringBuilder();
  private final StringBuilder ready = new StringBuilder();
  private final char[] written = new char[8192];
  private State state = State.TEXT;

  /** Whether a sequence is too long to be let through. */
  private boolean dropped;

  private int taken;

  /**
   * @param most rows or columns of the screen, whichever are more
   */
  SequenceGuard(Reader from, IntSupplier most) {
    super(from);
    this.most = most;
  }

  @Override
  public int read(char[] into, int offset, int length) throws IOException {
    while (taken == ready.length()) {
      ready.setLength(0);
      taken = 0;
      int count = in.read(written, 0, written.length);
      if (count < 0) {
        return -1;
      }
      for (int i = 0; i < count; i++) {
        take(written[i]);
      }
    }
    int count = Math.min(length, ready.length() - taken);
    ready.getChars(taken, taken + count, into, offset);
    taken += count;
    return count;
  }

  @Override
  public int read() throws IOException {
    char[] one = new char[1];
    return read(one, 0, 1) < 0 ? -1 : one[0];
  }

  @Override
  public boolean ready() throws IOException {
    return taken < ready.length() || in.ready();
  }

  private void take(char c) {
    switch (state) {
      case TEXT -> text(c);
      case ESCAPE -> afterEscape(c);
      case SEQUENCE -> inSequence(c);
      case STRING -> inString(c);
      case STRING_ESCAPE -> {
        if (c == '\\') {
          keep(c);
          end();
        } else {
          // Not its end: the string is given up, as ECMA-48 has it, and the ESC begins anew.
          forget();
          state = State.ESCAPE;
          keep(ESC);
          afterEscape(c);
        }
      }
    }
  }

  private void text(char c) {
    if (c == ESC) {
      keep(c);
      state = State.ESCAPE;
    } else if (c == CSI) {
      keep(c);
      state = State.SEQUENCE;
    } else if (C1_STRINGS.indexOf(c) >= 0) {
      keep(c);
      state = State.STRING;
    } else {
      ready.append(c);
    }
  }

  private void afterEscape(char c) {
    if (c == ESC) {
      return;
    }
    if (c == CANCEL || c == SUBSTITUTE) {
      forget();
      state = State.TEXT;
      return;
    }
    keep(c);
    if (c == '[') {
      state = State.SEQUENCE;
    } else if (STRINGS_AFTER_ESC.indexOf(c) >= 0) {
      state = State.STRING;
    } else if (c >= ' ' && c <= '/' && sequence.length() < MOST_PARAMETERS) {
      // An intermediate: the final is still to come.
      return;
    } else {
      end();
    }
  }

  private void inSequence(char c) {
    if (c == ESC) {
      forget();
      keep(c);
      state = State.ESCAPE;
    } else if (c == CANCEL || c == SUBSTITUTE) {
      forget();
      state = State.TEXT;
    } else if (c < ' ') {
      // A control within a sequence does what it does anywhere.
      ready.append(c);
    } else if (c >= '@' && c <= '~') {
      if (!dropped) {
        ready.append(bounded(sequence, c));
      }
      forget();
      state = State.TEXT;
    } else {
      dropped |= !mayFollow(c);
      keep(c, MOST_PARAMETERS);
    }
  }

  /**
   * Whether a character may stand in a sequence after what came of it (ECMA-48, section 5.4: a mark
   * of a private one, then numbers and what divides them, then others). What may not is passed over
   * by the emulator, which then reads the numbers around it as one.
   */
  private boolean mayFollow(char c) {
    char before = sequence.charAt(sequence.length() - 1);
    boolean first = before == '[' || before == CSI;
    if (c >= '0' && c <= ';') {
      return first || before >= '0';
    }
    return (c >= '<' && c <= '?') ? first : (c >= ' ' && c <= '/');
  }

  private void inString(char c) {
    if (c == BEL || c == C1_END) {
      keep(c);
      end();
    } else if (c == ESC) {
      state = State.STRING_ESCAPE;
      keep(c);
    } else if (c == CANCEL || c == SUBSTITUTE) {
      forget();
      state = State.TEXT;
    } else {
      keep(c, MOST_STRING);
    }
  }

  private void keep(char c) {
    sequence.append(c);
  }

  private void keep(char c, int bound) {
    if (sequence.length() < bound) {
      sequence.append(c);
    } else {
      dropped = true;
    }
  }

  private void end() {
    if (!dropped) {
      ready.append(sequence);
    }
    forget();
    state = State.TEXT;
  }

  private void forget() {
    sequence.setLength(0);
    dropped = false;
  }

  /** The sequence with its numbers within bounds; empty where it is left out. */
  private String bounded(CharSequence begun, char last) {
    if (last == 't' && begun.chars().allMatch(c -> "\033[\u009b;0123456789".indexOf(c) >= 0)) {
      // The size and the title of the window are not the server's.
      return "";
    }
    if (COUNTS.indexOf(last) >= 0 && begun.chars().anyMatch(c -> c == ':')) {
      // A count has no parts; the emulator would read them as one number.
      return "";
    }
    int bound = COUNTS.indexOf(last) >= 0 ? Math.max(1, most.getAsInt()) : MOST_NUMBER;
    StringBuilder whole = new StringBuilder();
    long number = -1;
    for (int i = 0; i < begun.length(); i++) {
      char c = begun.charAt(i);
      if (c >= '0' && c <= '9') {
        number = Math.min(Integer.MAX_VALUE, Math.max(0, number) * 10 + c - '0');
        continue;
      }
      if (number >= 0) {
        whole.append(Math.min(bound, number));
        number = -1;
      }
      whole.append(c);
    }
    if (number >= 0) {
      whole.append(Math.min(bound, number));
    }
    return whole.append(last).toString();
  }
}
