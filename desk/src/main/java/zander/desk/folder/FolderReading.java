package zander.desk.folder;

import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import javafx.beans.property.ReadOnlyBooleanProperty;
import javafx.beans.property.ReadOnlyBooleanWrapper;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import org.jspecify.annotations.Nullable;
import zander.core.files.RemoteEntry;
import zander.core.files.RemotePath;
import zander.desk.sheet.OpenDesk;

/**
 * Reads folders for a listing. A reading that begins outdates the one before, of which nothing more
 * is told. Used on the interface thread only.
 */
final class FolderReading {
  private final OpenDesk desk;
  private final FolderWatch watch;
  private final ReadOnlyBooleanWrapper underWay = new ReadOnlyBooleanWrapper(false);
  private final ReadOnlyObjectWrapper<RemotePath> goal = new ReadOnlyObjectWrapper<>();
  private final ReadOnlyBooleanWrapper partial = new ReadOnlyBooleanWrapper(false);
  private long current;

  /** Who is told what was read. */
  interface Reader {
    /**
     * What has come so far of a folder that was not shown before.
     *
     * @param first whether nothing of it was told before
     */
    void part(List<RemoteEntry> soFar, boolean first);

    /**
     * All of it.
     *
     * @param changed what is new or other than before, of a folder that was shown
     * @param shown whether a part of it was told before
     */
    void whole(List<RemoteEntry> entries, Set<RemotePath> changed, boolean shown);

    void failed(Throwable failure);
  }

  private record Found(List<RemoteEntry> entries, Set<RemotePath> changed) {}

  FolderReading(OpenDesk desk, FolderWatch watch) {
    this.desk = desk;
    this.watch = watch;
  }

  /**
   * @param before what is shown of this folder; {@code null} when another is shown
   */
  void read(RemotePath folder, @Nullable List<RemoteEntry> before, Reader reader) {
    long mine = ++current;
    underWay.set(true);
    goal.set(folder);
    watch.readingBegins(folder);
    FirstRows portions = before == null ? firstRows(mine, reader) : null;
    desk.background()
        .run(
            () -> {
              List<RemoteEntry> now =
                  desk.files().list(folder, portions == null ? part -> {} : portions::add);
              return new Found(List.copyOf(now), before == null ? Set.of() : changed(before, now));
            },
            found -> {
              if (mine == current) {
                ended();
                watch.readingEnded();
                partial.set(false);
                boolean shown = portions != null && portions.areShown();
                reader.whole(found.entries, found.changed, shown);
              }
            },
            failure -> {
              if (mine == current) {
                ended();
                reader.failed(failure);
              }
            });
  }

  private void ended() {
    underWay.set(false);
    goal.set(null);
  }

  private FirstRows firstRows(long mine, Reader reader) {
    return new FirstRows(
        desk.background(),
        // What has arrived completely meanwhile is not replaced by a part of it.
        () -> mine == current && underWay.get(),
        (soFar, first) -> {
          partial.set(true);
          reader.part(soFar, first);
        });
  }

  private static Set<RemotePath> changed(List<RemoteEntry> before, List<RemoteEntry> now) {
    Map<RemotePath, RemoteEntry> known = new HashMap<>();
    before.forEach(entry -> known.put(entry.path(), entry));
    Set<RemotePath> changed = new HashSet<>();
    for (RemoteEntry entry : now) {
      RemoteEntry old = known.get(entry.path());
      if (old == null
          || entry.attributes().looksChangedSince(old.attributes())
          || !entry.attributes().mode().equals(old.attributes().mode())
          || entry.attributes().uid() != old.attributes().uid()
          || entry.attributes().gid() != old.attributes().gid()) {
        changed.add(entry.path());
      }
    }
    return changed;
  }

  boolean isUnderWay() {
    return underWay.get();
  }

  ReadOnlyBooleanProperty underWayProperty() {
    return underWay.getReadOnlyProperty();
  }

  /** The folder that is being read; {@code null} for none. */
  ReadOnlyObjectProperty<RemotePath> goalProperty() {
    return goal.getReadOnlyProperty();
  }

  /** Whether only a part of the folder was told: more is coming, or it broke off. */
  ReadOnlyBooleanProperty partialProperty() {
    return partial.getReadOnlyProperty();
  }
}
