package zander.desk.reading;

import zander.core.reading.FollowedFile.Turn;

/** What is told between the lines of a file that is followed. */
final class ReadingWords {
  static final String REPLACED = "a new file is at this path";

  private ReadingWords() {}

  static String of(Turn turn) {
    return switch (turn) {
      case GREW -> "";
      case REPLACED -> REPLACED;
      case REPLACED_UNSEEN ->
          "a new file is at this path; lines written while the line was down may be missing here";
      case EMPTIED ->
          "the file was emptied or written over; lines written just before may be missing here";
      case GONE -> "no file is at this path any more; waiting for a new one";
    };
  }
}
