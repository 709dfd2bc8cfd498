package zander.core.transfer.local;

import java.io.IOException;
import java.nio.file.AccessDeniedException;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.NoSuchFileException;
import java.nio.file.NotDirectoryException;
import java.util.List;
import zander.core.phrase.Phrase;
import zander.core.phrase.TransferPhrase;

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

  static Phrase why(IOException failure) {
    if (failure instanceof AccessDeniedException) {
      return TransferPhrase.NO_PERMISSION_HERE.of();
    }
    if (failure instanceof NoSuchFileException missing) {
      // Java shows bytes that are not UTF-8 by this letter, and finds no file by it again.
      if (String.valueOf(missing.getFile()).indexOf('\ufffd') >= 0) {
        return TransferPhrase.NAME_NOT_UTF8_HERE.of();
      }
      return TransferPhrase.NOT_THERE_HERE.of();
    }
    if (failure instanceof FileAlreadyExistsException) {
      return TransferPhrase.TAKEN_HERE.of();
    }
    if (failure instanceof NotDirectoryException) {
      return TransferPhrase.NOT_A_FOLDER_HERE.of();
    }
    String said = String.valueOf(failure.getMessage());
    if (said.contains("Too many levels of symbolic links")) {
      return TransferPhrase.LINK_MEANWHILE.of();
    }
    if (said.contains("File name too long")) {
      return TransferPhrase.NAME_TOO_LONG.of();
    }
    return isFull(failure) ? TransferPhrase.DISK_FULL_HERE.of() : Phrase.of(failure);
  }
}
