package zander.standin.world;

import java.io.IOException;

/** A system call that failed, by its POSIX error (XSH 2.3) and the words of the C library. */
public final class PosixError extends IOException {
  /** The errors this world knows. */
  public enum Errno {
    ENOENT("No such file or directory"),
    EACCES("Permission denied"),
    EPERM("Operation not permitted"),
    EEXIST("File exists"),
    ENOTDIR("Not a directory"),
    EISDIR("Is a directory"),
    ENOTEMPTY("Directory not empty"),
    ELOOP("Too many levels of symbolic links"),
    ENAMETOOLONG("File name too long"),
    ENOSPC("No space left on device"),
    EINVAL("Invalid argument");

    private final String text;

    Errno(String text) {
      this.text = text;
    }

    public String text() {
      return text;
    }
  }

  private final Errno errno;

  public PosixError(Errno errno) {
    super(errno.text());
    this.errno = errno;
  }

  public Errno errno() {
    return errno;
  }
}
