package zander.core.archive;

import java.util.Locale;
import org.jspecify.annotations.Nullable;

/** Kinds of archives, by the ending of the name. */
public enum ArchiveKind {
  TAR_GZ("z", ".tar.gz", ".tgz"),
  TAR_BZ2("j", ".tar.bz2", ".tbz2"),
  TAR_XZ("J", ".tar.xz", ".txz"),
  TAR("", ".tar"),
  ZIP(null, ".zip");

  private final @Nullable String tarLetter;
  private final String[] endings;

  ArchiveKind(@Nullable String tarLetter, String... endings) {
    this.tarLetter = tarLetter;
    this.endings = endings;
  }

  /** The kind of a name; {@code null} for what is none. */
  public static @Nullable ArchiveKind of(String name) {
    for (ArchiveKind kind : values()) {
      for (String ending : kind.endings) {
        if (name.toLowerCase(Locale.ROOT).endsWith(ending) && name.length() > ending.length()) {
          return kind;
        }
      }
    }
    return null;
  }

  /** The name without its ending. */
  public static String stem(String name) {
    ArchiveKind kind = of(name);
    if (kind != null) {
      for (String ending : kind.endings) {
        if (name.toLowerCase(Locale.ROOT).endsWith(ending)) {
          return name.substring(0, name.length() - ending.length());
        }
      }
    }
    return name;
  }

  boolean isTar() {
    return tarLetter != null;
  }

  /** The letter of {@code tar} for the packing; empty for none. */
  @Nullable String tarLetter() {
    return tarLetter;
  }
}
