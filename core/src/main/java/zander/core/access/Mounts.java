package zander.core.access;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import zander.core.files.RemotePath;

/** What is mounted where, as Linux tells it (proc(5), mountinfo). */
final class Mounts {
  private static final int POINT = 4;
  private static final int OPTIONS = 5;
  private static final int OCTAL = 8;

  private Mounts() {}

  static List<MountedAs> parse(String lines) {
    List<MountedAs> mounts = new ArrayList<>();
    for (String line : lines.split("\n")) {
      String[] fields = line.split(" ");
      if (fields.length > OPTIONS && fields[POINT].startsWith("/")) {
        Set<String> options = new HashSet<>(List.of(fields[OPTIONS].split(",")));
        // The last are the file system's own, which hold for all its mounts.
        if (List.of(fields[fields.length - 1].split(",")).contains("ro")) {
          options.add("ro");
        }
        mounts.add(new MountedAs(RemotePath.ofWire(plain(fields[POINT])), options));
      }
    }
    return mounts;
  }

  /** Blanks, line ends and backslashes are written as octal numbers. */
  private static String plain(String escaped) {
    StringBuilder plain = new StringBuilder();
    for (int i = 0; i < escaped.length(); i++) {
      if (escaped.charAt(i) == '\\' && escaped.length() > i + 3) {
        plain.append((char) Integer.parseInt(escaped.substring(i + 1, i + 4), OCTAL));
        i += 3;
      } else {
        plain.append(escaped.charAt(i));
      }
    }
    return plain.toString();
  }

  /** What a path is on: what is mounted nearest above it, the last of those at one place. */
  static @Nullable MountedAs of(List<MountedAs> mounts, RemotePath path) {
    MountedAs nearest = null;
    List<RemotePath> chain = path.chain();
    for (MountedAs one : mounts) {
      if (chain.contains(one.at())
          && (nearest == null || one.at().chain().size() >= nearest.at().chain().size())) {
        nearest = one;
      }
    }
    return nearest;
  }
}
