package zander.core.transfer.local;

import java.io.IOException;
import java.nio.file.AccessDeniedException;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.NoSuchFileException;
import java.nio.file.NotDirectoryException;
import java.util.List;

/** Failures of this computer's file system, told by what Java and the system say of them. */
final class LocalFailures {
  /** {@code ENOSPC} and {@code EDQUOT}, which Java tells in the system's words alone. */
  private static final List<String> FULL =
      List.of("No space left on device", "Disk quota exceeded");

  private LocalFailures() {}

  static boolean isFull(IOException failure) {
    String said = String.valueOf(failure.getMessage());
    return FULL.stream().anyMatch(said::contains);
  }

  /** Why, in words for a person. */
  static String why(IOException failure) {
    if (failure instanceof AccessDeniedException) {
      return "no permission on this computer";
    }
    if (failure instanceof NoSuchFileException missing) {
      // Java shows bytes that are not UTF-8 by this letter, and finds no file by it again.
      if (String.valueOf(missing.getFile()).indexOf('\ufffd') >= 0) {
        return "its name is not UTF-8, as names on this computer should be: rename it first";
      }
      return "it is not there any more";
    }
    if (failure instanceof FileAlreadyExistsException) {
      return "the name was taken meanwhile";
    }
    if (failure instanceof NotDirectoryException) {
      return "a file is where a folder should be";
    }
    String said = String.valueOf(failure.getMessage());
    if (said.contains("Too many levels of symbolic links")) {
      return "it has become a link meanwhile";
    }
    if (said.contains("File name too long")) {
      return "the name is too long for this computer";
    }
    return isFull(failure) ? "the disk of this computer is full" : said;
  }
}
