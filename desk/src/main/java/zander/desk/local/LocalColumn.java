package zander.desk.local;

import java.util.Comparator;
import zander.core.files.FileKind;
import zander.core.listing.NaturalOrder;

/** What this computer's half shows of each entry, and the order that each gives. */
public enum LocalColumn {
  NAME(Comparator.comparing(LocalRow::name, NaturalOrder.NAMES)),
  SIZE(
      Comparator.comparingLong(
          (LocalRow row) -> row.node().kind() == FileKind.FILE ? row.node().size() : -1)),
  CHANGED(Comparator.comparingLong((LocalRow row) -> row.node().modified())),
  COMPARISON(
      Comparator.comparing(LocalRow::comparison, Comparator.nullsFirst(Comparator.naturalOrder())));

  private final Comparator<LocalRow> order;

  LocalColumn(Comparator<LocalRow> order) {
    this.order = order;
  }

  /** Folders first, in either direction. */
  Comparator<LocalRow> order(boolean descending) {
    Comparator<LocalRow> by = descending ? order.reversed() : order;
    return Comparator.comparing((LocalRow row) -> !row.isFolder())
        .thenComparing(by)
        .thenComparing(NAME.order);
  }
}
