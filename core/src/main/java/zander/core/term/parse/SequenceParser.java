package zander.core.term.parse;

import java.nio.charset.StandardCharsets;

/**
 * Divides what a program writes into text and controls: the state machine of DEC's VT500 series as
 * P. Williams published it ("A parser for DEC's ANSI-compatible video terminals"), with UTF-8 as
 * the coding of text.
 *
 * <p>Where it departs from the table: controls of C1 are known as characters (U+0080 to U+009f), as
 * a byte of that range is part of UTF-8; a byte beyond 0x7f inside of a sequence is left out; BEL
 * ends an OSC string, and so does a line end, which none may have, so that one which is never ended
 * hides no more than its line. A string that is too long is read to its end and dropped.
 *
 * <p>Keeps its state between calls, so input may be cut anywhere. Not safe for use by several
 * threads at once.
 */
public final class SequenceParser {
  /** Bytes of a string that are kept: what a program may put on the clipboard is the longest. */
  static final int LONGEST_STRING = 256 * 1024;

  private static final int CAN = 0x18;
  private static final int SUB = 0x1a;
  private static final int ESC = 0x1b;
  private static final int DEL = 0x7f;
  private static final int C1_LEAD = 0xc2;

  private enum State {
    GROUND,
    ESCAPE,
    ESCAPE_INTERMEDIATE,
    CSI_ENTRY,
    CSI_PARAMETER,
    CSI_INTERMEDIATE,
    CSI_IGNORE,
    DCS_ENTRY,
    DCS_PARAMETER,
    DCS_INTERMEDIATE,
    DCS_DATA,
    OSC,
    /** DCS that is malformed, SOS, PM and APC: nobody wants what is in them. */
    SKIPPED_STRING
  }

  private final SequenceHandler handler;
  private final Parameters parameters = new Parameters();
  private final Utf8Decoder utf8 = new Utf8Decoder();
  private State state = State.GROUND;
  private int marker;
  private int intermediates;
  private int last;
  private byte[] string = new byte[256];
  private int length;
  private boolean tooLong;
  private boolean afterC1Lead;

  /**
   * @param handler told of all that is found
   */
  public SequenceParser(SequenceHandler handler) {
    this.handler = handler;
  }

  /** Forgets what has begun and is not ended. */
  public void reset() {
    state = State.GROUND;
    utf8.reset();
  }

  /** Takes the next bytes of the stream. */
  public void take(byte[] bytes, int from, int to) {
    int at = from;
    while (at < to) {
      if (state == State.GROUND) {
        at = ground(bytes, at, to);
      } else {
        step(bytes[at++] & 0xff);
      }
    }
  }

  /** Goes on until something begins that is not text. */
  private int ground(byte[] bytes, int from, int to) {
    int at = from;
    while (at < to) {
      int next = bytes[at];
      if (next >= 0x20 && next < DEL && !utf8.isInside()) {
        int end = at + 1;
        while (end < to && bytes[end] >= 0x20 && bytes[end] < DEL) {
          end++;
        }
        handler.text(bytes, at, end);
        at = end;
      } else if (next < 0 || utf8.isInside()) {
        at += character(next & 0xff);
        if (state != State.GROUND) {
          return at;
        }
      } else {
        at++;
        if (next == ESC) {
          begin(State.ESCAPE);
          return at;
        }
        if (next != CAN && next != SUB && next != DEL) {
          handler.control(next);
        }
      }
    }
    return at;
  }

  /** Takes a byte of a character; returns 0 when it is to be looked at again, else 1. */
  private int character(int next) {
    int found = utf8.take(next);
    if (found >= 0x80 && found < 0xa0) {
      c1(found);
    } else if (found >= 0) {
      handler.print(found);
    } else if (found != Utf8Decoder.MORE) {
      handler.print(0xfffd);
      return found == Utf8Decoder.BAD ? 1 : 0;
    }
    return 1;
  }

  private void c1(int code) {
    begin(State.ESCAPE);
    escape(code - 0x40);
  }

  private void begin(State next) {
    state = next;
    if (next == State.ESCAPE || next == State.CSI_ENTRY || next == State.DCS_ENTRY) {
      marker = 0;
      intermediates = 0;
      parameters.clear();
    }
    length = 0;
    tooLong = false;
    afterC1Lead = false;
  }

  private void step(int next) {
    if (next == ESC) {
      endString();
      begin(State.ESCAPE);
    } else if (next == CAN || next == SUB) {
      state = State.GROUND;
    } else if (inString()) {
      string(next);
    } else if (next < 0x20) {
      if (state != State.DCS_ENTRY
          && state != State.DCS_PARAMETER
          && state != State.DCS_INTERMEDIATE) {
        handler.control(next);
      }
    } else if (next < DEL) {
      switch (state) {
        case ESCAPE, ESCAPE_INTERMEDIATE -> escape(next);
        case CSI_ENTRY, CSI_PARAMETER, CSI_INTERMEDIATE, CSI_IGNORE -> csi(next);
        default -> dcs(next);
      }
    }
  }

  private boolean inString() {
    return state == State.OSC || state == State.DCS_DATA || state == State.SKIPPED_STRING;
  }

  private void escape(int next) {
    if (next < 0x30) {
      intermediate(next);
      state = State.ESCAPE_INTERMEDIATE;
      return;
    }
    if (state == State.ESCAPE) {
      switch (next) {
        case '[' -> begin(State.CSI_ENTRY);
        case ']' -> begin(State.OSC);
        case 'P' -> begin(State.DCS_ENTRY);
        case 'X', '^', '_' -> begin(State.SKIPPED_STRING);
        default -> {
          state = State.GROUND;
          handler.escape(0, next);
        }
      }
      return;
    }
    state = State.GROUND;
    handler.escape(intermediates, next);
  }

  private void intermediate(int next) {
    // A third one would be of no sequence that exists: it makes the value one that nobody knows.
    intermediates = intermediates > 0xff ? 0xffff : (intermediates << 8) | next;
  }

  private void csi(int next) {
    if (next >= 0x40) {
      boolean whole = state != State.CSI_IGNORE;
      state = State.GROUND;
      if (whole) {
        handler.sequence(marker, intermediates, next, parameters);
      }
    } else if (state != State.CSI_IGNORE) {
      state = prefix(next, State.CSI_PARAMETER, State.CSI_INTERMEDIATE, State.CSI_IGNORE);
    }
  }

  private void dcs(int next) {
    if (next >= 0x40) {
      last = next;
      state = State.DCS_DATA;
    } else {
      state = prefix(next, State.DCS_PARAMETER, State.DCS_INTERMEDIATE, State.SKIPPED_STRING);
    }
  }

  /** What stands between the introducer and the final character. */
  private State prefix(int next, State inParameters, State inIntermediates, State bad) {
    boolean entry = state == State.CSI_ENTRY || state == State.DCS_ENTRY;
    if (next < 0x30) {
      intermediate(next);
      return inIntermediates;
    }
    if (state == inIntermediates) {
      return bad;
    }
    if (next <= '9') {
      parameters.digit(next - '0');
    } else if (next <= ';') {
      parameters.separate(next == ':');
    } else if (entry) {
      marker = next;
    } else {
      return bad;
    }
    return inParameters;
  }

  private void string(int next) {
    boolean ended = afterC1Lead && next == 0x9c;
    afterC1Lead = next == C1_LEAD;
    if (ended) {
      length = Math.max(0, length - 1);
      endString();
      return;
    }
    if (state == State.OSC && next == 0x07) {
      endString();
    } else if (state == State.OSC && (next == '\n' || next == '\r')) {
      state = State.GROUND;
      handler.control(next);
    } else if (next >= 0x20 && state != State.SKIPPED_STRING) {
      collect(next);
    }
  }

  private void collect(int next) {
    if (length == LONGEST_STRING) {
      tooLong = true;
      return;
    }
    if (length == string.length) {
      string = java.util.Arrays.copyOf(string, Math.min(LONGEST_STRING, length * 2));
    }
    string[length++] = (byte) next;
  }

  /** Tells of the string that is in hand, if there is one. */
  private void endString() {
    State ended = state;
    state = State.GROUND;
    if (tooLong || (ended != State.OSC && ended != State.DCS_DATA)) {
      return;
    }
    String text = new String(string, 0, length, StandardCharsets.UTF_8);
    if (ended == State.OSC) {
      handler.command(text);
    } else {
      handler.device(marker, intermediates, last, parameters, text);
    }
    if (string.length > 4096) {
      string = new byte[256];
    }
  }
}
