package zander.desk.file;

import java.io.IOException;
import java.time.Duration;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.Future;
import java.util.function.Consumer;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import org.jspecify.annotations.Nullable;
import zander.core.edit.TextLinks;
import zander.core.files.RemoteEntry;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.listing.NaturalOrder;
import zander.desk.edit.Language;
import zander.desk.edit.LinkTargets;
import zander.desk.sheet.OpenDesk;

/**
 * The links of a text to other files of the server: which lead nowhere, and what may stand where
 * one is being typed. Interface thread only.
 */
public final class FileLinks {
  private static final Duration PAUSE = Duration.ofMillis(800);

  /** Longer texts are not looked through, in characters. */
  private static final int LONGEST = 1 << 20;

  /** So many files are asked for at once, and so many that are missing are looked into. */
  private static final int MOST = 400;

  private static final int MOST_MISSING = 24;

  /** For so long it holds that a file is there, in nanoseconds. */
  private static final long HOLDS = Duration.ofSeconds(30).toNanos();

  private static final int MOST_OFFERED = 12;

  /** In longer lines nothing is looked for as it is typed, in characters. */
  private static final int LONGEST_LINE = 20_000;

  private final OpenDesk desk;
  private final FileModel file;
  private final ReadOnlyObjectWrapper<Set<String>> dead = new ReadOnlyObjectWrapper<>(Set.of());
  private final Map<RemotePath, Long> there = new HashMap<>();
  private @Nullable Future<?> due;
  private long asked;
  private long offered;
  private Listed listed = new Listed(null, List.of(), 0);

  /**
   * A folder as its entries are written into links, in their order.
   *
   * @param at when it was listed, in nanoseconds
   */
  private record Listed(@Nullable RemotePath folder, List<String> entries, long at) {
    static Listed of(RemotePath folder, RemotePath file, LinkTargets targets, RemoteFiles files)
        throws IOException {
      List<String> entries =
          files.list(folder, portion -> {}).stream()
              .filter(entry -> !entry.path().equals(file))
              .sorted((one, other) -> NaturalOrder.NAMES.compare(one.name(), other.name()))
              .map(entry -> targets.written(entry.name()) + (entry.leadsToFolder() ? "/" : ""))
              .toList();
      return new Listed(folder, entries, System.nanoTime());
    }

    List<String> fitting(String above, String begun) {
      return entries.stream()
          .filter(entry -> entry.startsWith(begun))
          .filter(entry -> !entry.startsWith(".") || begun.startsWith("."))
          .limit(MOST_OFFERED)
          .map(entry -> above + entry)
          .toList();
    }
  }

  FileLinks(OpenDesk desk, FileModel file) {
    this.desk = desk;
    this.file = file;
  }

  private Language language() {
    return file.languageProperty().get();
  }

  private LinkTargets targets() {
    return new LinkTargets(desk, file.version().real(), language());
  }

  /** Targets, as they are written, that lead nowhere. */
  public ReadOnlyObjectProperty<Set<String>> deadProperty() {
    return dead.getReadOnlyProperty();
  }

  /** Those of a line that lead nowhere. */
  public List<TextLinks.Link> deadIn(String line) {
    return dead.get().isEmpty()
        ? List.of()
        : TextLinks.in(line, language().links()).stream()
            .filter(link -> dead.get().contains(link.target()))
            .toList();
  }

  /** The text was changed, or is to be looked through again. */
  public void lookSoon() {
    if (due != null) {
      due.cancel(false);
    }
    due = language().links().isEmpty() ? null : desk.background().later(PAUSE, this::look);
  }

  private void look() {
    due = null;
    String text = file.text();
    if (text.length() > LONGEST) {
      return;
    }
    long mine = ++asked;
    LinkTargets targets = targets();
    Language language = language();
    RemoteFiles files = desk.files();
    long now = System.nanoTime();
    there.values().removeIf(at -> now - at > HOLDS);
    Set<RemotePath> known = new HashSet<>(there.keySet());
    desk.background()
        .run(
            () -> Looked.at(text, language, targets, known, files),
            looked -> {
              if (mine == asked) {
                looked.there.forEach(path -> there.put(path, now));
                dead.set(looked.dead);
              }
            },
            failure -> {});
  }

  /** What was found on the server. */
  private record Looked(Set<String> dead, Set<RemotePath> there) {
    static Looked at(
        String text,
        Language language,
        LinkTargets targets,
        Set<RemotePath> known,
        RemoteFiles files)
        throws IOException {
      Map<String, RemotePath> wanted = new LinkedHashMap<>();
      for (String line : text.split("\n", -1)) {
        for (TextLinks.Link link : TextLinks.in(line, language.links())) {
          RemotePath path = wanted.size() < MOST ? targets.of(link.target()) : null;
          if (path != null && !known.contains(path)) {
            wanted.put(link.target(), path);
          }
        }
      }
      Set<RemotePath> there = new HashSet<>();
      for (RemoteEntry entry : files.entries(List.copyOf(new HashSet<>(wanted.values())))) {
        if (entry.target() == null || entry.behind() != null) {
          there.add(entry.path());
        }
      }
      Set<String> dead = new HashSet<>();
      int looked = 0;
      for (Map.Entry<String, RemotePath> one : wanted.entrySet()) {
        boolean missing = !there.contains(one.getValue());
        if (missing && looked++ < MOST_MISSING && isNowhere(files, one.getValue())) {
          dead.add(one.getKey());
        }
      }
      return new Looked(Set.copyOf(dead), there);
    }

    /** What may not be looked at may be there. */
    private static boolean isNowhere(RemoteFiles files, RemotePath path) throws IOException {
      try {
        files.lookThrough(path);
        return false;
      } catch (RemoteFailure e) {
        if (e.reason() == RemoteFailure.Reason.LINE_LOST) {
          throw e;
        }
        return e.reason() == RemoteFailure.Reason.NO_SUCH_FILE;
      }
    }
  }

  /** The link that is being typed at a place of a line; {@code null} for none. */
  public TextLinks.@Nullable Link begunAt(String line, int column) {
    return line.length() > LONGEST_LINE
        ? null
        : TextLinks.begunAt(line, column, language().links());
  }

  /**
   * What a link that is being typed may become, from what the server has; the last one typed wins.
   *
   * @param then given whole targets, those of folders with a slash behind
   */
  public void offer(String begun, Consumer<List<String>> then) {
    int slash = begun.lastIndexOf('/');
    String above = begun.substring(0, slash + 1);
    LinkTargets targets = targets();
    RemotePath folder = targets.of(above.isEmpty() ? "./" : above);
    if (folder == null) {
      then.accept(List.of());
      return;
    }
    String typed = begun.substring(slash + 1);
    if (folder.equals(listed.folder) && System.nanoTime() - listed.at < HOLDS) {
      then.accept(listed.fitting(above, typed));
      return;
    }
    long mine = ++offered;
    RemoteFiles files = desk.files();
    RemotePath own = file.version().real();
    desk.background()
        .run(
            () -> Listed.of(folder, own, targets, files),
            found -> {
              listed = found;
              if (mine == offered) {
                then.accept(found.fitting(above, typed));
              }
            },
            failure -> then.accept(List.of()));
  }

  /** Opens what the link at a place of a line leads to; whether there is one. */
  public boolean open(String line, int column) {
    TextLinks.Link around =
        line.length() > LONGEST_LINE ? null : TextLinks.at(line, column, language().links());
    TextLinks.Link link = around == null ? begunAt(line, column) : around;
    RemotePath path = link == null ? null : targets().of(link.target());
    if (link == null || path == null) {
      return false;
    }
    if (link.target().endsWith("/")) {
      desk.goTo(path);
    } else {
      desk.openFile(path, 0);
    }
    return true;
  }
}
