package zander.desk.file.own;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.BasicFileAttributes;
import java.nio.file.attribute.FileTime;
import org.jspecify.annotations.Nullable;

/** How a file of this computer looks from outside: another one was written when that is another. */
record FileStamp(FileTime time, long size, Object key) {
  /** Null while there is none: a program may take it away to put a new one in its place. */
  static @Nullable FileStamp of(Path file) {
    try {
      BasicFileAttributes now = Files.readAttributes(file, BasicFileAttributes.class);
      return new FileStamp(now.lastModifiedTime(), now.size(), now.fileKey());
    } catch (IOException e) {
      return null;
    }
  }
}
