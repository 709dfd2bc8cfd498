package zander.desk.folder;

import java.util.Comparator;
import zander.core.files.FileKind;
import zander.core.files.RemoteEntry;
import zander.core.listing.NaturalOrder;
import zander.desk.words.Words;

/** What a folder sheet shows of each entry, and the order that each gives. */
public enum Column {
  NAME(
      Words.of(Column.class).say("name"),
      Comparator.comparing(RemoteEntry::name, NaturalOrder.NAMES)),
  SIZE(Words.of(Column.class).say("size"), Comparator.comparingLong(Column::size)),
  CHANGED(
      Words.of(Column.class).say("changed"),
      Comparator.comparingLong((RemoteEntry e) -> e.attributes().modified())),
  OWNER(
      Words.of(Column.class).say("owner"),
      Comparator.comparing(RemoteEntry::owner, NaturalOrder.NAMES)),
  GROUP(
      Words.of(Column.class).say("group"),
      Comparator.comparing(RemoteEntry::group, NaturalOrder.NAMES)),
  MODE(
      Words.of(Column.class).say("mode"),
      Comparator.comparingInt((RemoteEntry e) -> e.attributes().mode().bits())),
  /** Ordered by {@link FolderOrder}, which knows the notes. */
  NOTES(
      Words.of(Column.class).say("notes"),
      Comparator.comparing(RemoteEntry::name, NaturalOrder.NAMES));

  private final String title;
  private final Comparator<RemoteEntry> order;

  Column(String title, Comparator<RemoteEntry> order) {
    this.title = title;
    this.order = order;
  }

  /** What a folder's or a link's entry takes is nothing a person asks for. */
  private static long size(RemoteEntry entry) {
    return entry.kind() == FileKind.FILE ? entry.attributes().size() : -1;
  }

  public String title() {
    return title;
  }

  Comparator<RemoteEntry> order() {
    return order;
  }
}
