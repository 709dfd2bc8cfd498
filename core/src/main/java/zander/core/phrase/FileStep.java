package zander.core.phrase;

import java.util.Locale;
import org.jspecify.annotations.Nullable;

/** What was being done with a file or a server when it failed; a verb that a path may follow. */
public enum FileStep implements Phrase.Key {
  ASK_FOR_MANY,
  ASK_FOR_THE_ACCOUNT,
  ASK_FREE_SPACE,
  CLOSE,
  COPY,
  COPY_TO,
  CREATE,
  DELETE,
  FETCH,
  HOLD_IN,
  LEARN_NAMES,
  LINK,
  LIST_FOLDER,
  LOOK_AT,
  LOOK_INTO,
  LOOK_THROUGH,
  MAKE_A_HOLDING_FOLDER_FOR,
  MAKE_FOLDER,
  MAKE_LINK,
  MOVE,
  OPEN,
  OPEN_A_SHELL,
  OPEN_FOLDER,
  PACK,
  PUT_ACCESS_LISTS_BACK_IN,
  REACH_A_PORT,
  READ,
  READ_LINK,
  REMOVE,
  REMOVE_FOLDER,
  RENAME,
  RESOLVE,
  RUN_A_COMMAND,
  SAVE,
  SEARCH,
  SET_ACCESS_LISTS_IN,
  SET_LENGTH,
  SET_MODE,
  SET_MODE_AND_TIME,
  SET_OWNER,
  SET_RIGHTS,
  SET_THE_ACCESS_LIST_OF,
  SET_TIMES,
  SYNC,
  UNPACK,
  UNPACK_INTO,
  WRITE,
  WRITE_INTO;

  private final String written = name().toLowerCase(Locale.ROOT).replace('_', ' ');

  @Override
  public int places() {
    return 0;
  }

  /** As it is written into the journal and logs, where every version reads it: {@code look at}. */
  public String written() {
    return written;
  }

  /** {@code null} for what no step is written as. */
  public static @Nullable FileStep ofWritten(String written) {
    for (FileStep step : values()) {
      if (step.written.equals(written)) {
        return step;
      }
    }
    return null;
  }
}
