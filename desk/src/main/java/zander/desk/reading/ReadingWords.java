package zander.desk.reading;

import zander.core.reading.FollowedFile.Turn;
import zander.desk.words.Words;

/** What is told between the lines of a file that is followed. */
final class ReadingWords {
  private static final Words WORDS = Words.of(ReadingWords.class);

  static final String REPLACED = WORDS.say("aNewFileIs");

  private ReadingWords() {}

  static String of(Turn turn) {
    return switch (turn) {
      case GREW -> "";
      case REPLACED -> REPLACED;
      case REPLACED_UNSEEN -> WORDS.say("aNewFileIsAt");
      case EMPTIED -> WORDS.say("theFileWasEmptied");
      case GONE -> WORDS.say("noFileIsAt");
    };
  }
}
