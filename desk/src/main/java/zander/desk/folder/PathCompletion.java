package zander.desk.folder;

import java.util.List;
import java.util.Locale;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;
import zander.core.files.RemoteEntry;
import zander.core.files.RemotePath;
import zander.core.listing.NaturalOrder;
import zander.desk.sheet.OpenDesk;

/** Suggests folders for a path that is being typed, from what the server has. */
public final class PathCompletion {
  private static final int MOST = 12;

  private final FolderModel folder;
  private final OpenDesk desk;
  private @Nullable RemotePath read;
  private List<String> names = List.of();
  private long request;

  public PathCompletion(FolderModel folder) {
    this.folder = folder;
    this.desk = folder.desk();
  }

  /**
   * The path that was typed: absolute, relative to the folder shown, or from the home folder by
   * {@code ~}; {@code null} for nothing.
   *
   * @throws IllegalArgumentException when it is none
   */
  public static @Nullable RemotePath read(String typed, FolderModel folder) {
    String text = typed.strip();
    if (text.equals("~") || text.startsWith("~/")) {
      return folder.desk().home().resolve("." + text.substring(1));
    }
    return text.isEmpty() ? null : folder.path().resolve(text);
  }

  /**
   * Finds folders that begin as typed; the last typed wins.
   *
   * @param suggestions given whole texts for the field
   */
  public void suggest(String typed, Consumer<List<String>> suggestions) {
    long mine = ++request;
    int slash = typed.lastIndexOf('/');
    String above = slash < 0 ? "" : typed.substring(0, slash + 1);
    String begun = typed.substring(slash + 1);
    RemotePath at;
    try {
      at = above.isEmpty() ? folder.path() : read(above, folder);
    } catch (IllegalArgumentException e) {
      return;
    }
    if (at == null) {
      return;
    }
    if (at.equals(read)) {
      suggestions.accept(matching(above, begun));
      return;
    }
    desk.background()
        .run(
            () ->
                desk.files().list(at, portion -> {}).stream()
                    .filter(RemoteEntry::leadsToFolder)
                    .map(RemoteEntry::name)
                    .sorted(NaturalOrder.NAMES)
                    .toList(),
            found -> {
              if (mine == request) {
                read = at;
                names = found;
                suggestions.accept(matching(above, begun));
              }
            },
            failure -> {});
  }

  private List<String> matching(String above, String begun) {
    String wanted = begun.toLowerCase(Locale.ROOT);
    return names.stream()
        .filter(name -> name.toLowerCase(Locale.ROOT).startsWith(wanted))
        .filter(name -> !name.startsWith(".") || begun.startsWith("."))
        .limit(MOST)
        .map(name -> above + name + "/")
        .toList();
  }
}
