package zander.desk.view.folder;

import static java.util.Objects.requireNonNull;

import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import javafx.beans.Observable;
import javafx.beans.binding.Bindings;
import javafx.beans.binding.DoubleBinding;
import javafx.beans.value.ChangeListener;
import javafx.beans.value.WeakChangeListener;
import javafx.collections.ListChangeListener;
import javafx.geometry.Pos;
import javafx.scene.control.TableCell;
import javafx.scene.control.TableColumn;
import javafx.scene.control.TableRow;
import javafx.scene.control.TableView;
import org.jspecify.annotations.Nullable;
import zander.core.files.FileKind;
import zander.core.files.RemoteEntry;
import zander.desk.folder.Column;
import zander.desk.folder.EntryNotes;
import zander.desk.folder.FolderModel;
import zander.desk.folder.action.CreateActions;
import zander.desk.local.LocalModel;
import zander.desk.sheet.Texts;
import zander.desk.view.part.Parts;
import zander.desk.view.part.RelativeTimes;
import zander.desk.view.part.Tables;
import zander.desk.words.Words;
import zander.desk.work.Settings;
import zander.desk.work.Subscriptions;

/**
 * The rows of a folder of the server. The model keeps them in order; headings only tell it which.
 */
final class FolderTable extends TableView<RemoteEntry> {
  private static final Words WORDS = Words.of(FolderTable.class);

  private static final double LEAST_NAME = 160;
  private static final double BORDERS = 44;
  private static final double MOST = 190;

  // What these columns hold is as wide in every folder.
  private static final double SIZE = 84;
  private static final double CHANGED = 132;
  private static final double MODE = 122;

  /** What the tag around a note takes. */
  private static final double TAG = 12;

  /** Rows whose texts are measured, at most. */
  private static final int MEASURED = 1000;

  private final FolderModel model;
  private final LocalModel local;
  private final Map<Column, Double> fitted = new EnumMap<>(Column.class);
  private final Settings settings;
  private final Map<Column, TableColumn<RemoteEntry, ?>> columns = new EnumMap<>(Column.class);

  FolderTable(FolderModel model, LocalModel local, Settings settings, Subscriptions subscriptions) {
    this.model = model;
    this.local = local;
    this.settings = settings;
    setId("server-table");
    setPlaceholder(Parts.label("", "quiet"));
    makeColumns();
    setItems(model.rows());
    Tables.open(this, model::open, this::decorate);
    Tables.bindSelection(this, model.selection(), model::select);
    setSortPolicy(table -> orderByHeadings());
    setColumnResizePolicy(this::dragged);
    model.pathProperty().addListener((observed, old, now) -> fit());
    subscriptions.on(settings.value(Settings.HIDDEN_COLUMNS), now -> showColumns());
    showColumns();
    // Notes and the other side arrive after the rows, and change nothing in their order.
    ChangeListener<Object> notes =
        (observed, old, now) -> {
          refresh();
          fit();
        };
    model.notesProperty().addListener(notes);
    local.namesProperty().addListener(notes);
    model.rows().addListener((ListChangeListener<RemoteEntry>) change -> fit());
    fit();
  }

  private void makeColumns() {
    TableColumn<RemoteEntry, RemoteEntry> name =
        Tables.column(
            WORDS.say("name"),
            220,
            e -> e,
            () -> new RenameCell(new CreateActions(model)::rename, () -> setEditable(false)));
    TableColumn<RemoteEntry, Long> size =
        Tables.numbers(Tables.column(WORDS.say("size"), SIZE, FolderTable::sizeOf, this::sizeCell));
    put(Column.NAME, name);
    put(Column.SIZE, size);
    put(
        Column.CHANGED,
        Tables.column(
            WORDS.say("changed"), CHANGED, e -> e.attributes().modified(), this::timeCell));
    put(
        Column.OWNER,
        Tables.column(WORDS.say("owner"), 76, RemoteEntry::owner, FolderTable::plain));
    put(
        Column.GROUP,
        Tables.column(WORDS.say("group"), 70, RemoteEntry::group, FolderTable::plain));
    put(
        Column.MODE,
        Tables.column(WORDS.say("mode"), MODE, FolderTable::modeOf, FolderTable::mono));
    put(Column.NOTES, Tables.column(WORDS.say("notes"), 140, this::noteOf, FolderTable::noteCell));
    columns.values().forEach(column -> getColumns().add(column));
    columns.values().forEach(column -> column.setEditable(column == name));
    DoubleBinding rest =
        Bindings.createDoubleBinding(
            () -> {
              double others = 0;
              for (TableColumn<RemoteEntry, ?> column : getVisibleLeafColumns()) {
                others += column == name ? 0 : column.getWidth();
              }
              return Math.max(LEAST_NAME, getWidth() - others - BORDERS);
            },
            Stream.concat(
                    Stream.of(widthProperty(), getVisibleLeafColumns()),
                    columns.values().stream()
                        .filter(column -> column != name)
                        .map(TableColumn::widthProperty))
                .toArray(Observable[]::new));
    name.prefWidthProperty().bind(rest);
    widthProperty().addListener((observed, old, now) -> showColumns());
  }

  /** Owners and groups are not cut while there is room, and notes take what they need. */
  private void fit() {
    List<RemoteEntry> some = model.rows().subList(0, Math.min(MEASURED, model.rows().size()));
    fit(Column.OWNER, some.stream().map(RemoteEntry::owner), 62);
    fit(Column.GROUP, some.stream().map(RemoteEntry::group), 62);
    fit(Column.NOTES, some.stream().map(entry -> noteOf(entry).words()), 96);
    set(Column.SIZE, SIZE);
    set(Column.CHANGED, CHANGED);
    set(Column.MODE, MODE);
    showColumns();
  }

  /** A width that a person gave stays, in all folders of the kind. */
  private void fit(Column column, Stream<String> texts, double least) {
    set(
        column,
        ColumnFit.width(texts.collect(Collectors.toSet()), least, MOST)
            + (column == Column.NOTES ? TAG : 0));
  }

  private void set(Column column, double usual) {
    Long chosen = settings.get(Settings.COLUMN_WIDTHS).get(key(column));
    double width = chosen != null ? chosen : usual;
    if (!Double.valueOf(width).equals(fitted.put(column, width))) {
      requireNonNull(columns.get(column)).setPrefWidth(width);
    }
  }

  /** Of a column in the kind of folder shown: those in one marked folder are of a kind. */
  private String key(Column column) {
    return column + " " + model.kind();
  }

  private boolean dragged(ResizeFeatures<?> features) {
    boolean done = UNCONSTRAINED_RESIZE_POLICY.call(features);
    if (done
        && features.getColumn() != null
        && features.getDelta() != 0
        && features.getColumn().getUserData() instanceof Column column
        && fitted.containsKey(column)) {
      Map<String, Long> widths = new TreeMap<>(settings.get(Settings.COLUMN_WIDTHS));
      long width = Math.round(features.getColumn().getWidth());
      widths.put(key(column), width);
      fitted.put(column, (double) width);
      settings.set(Settings.COLUMN_WIDTHS, widths);
    }
    return done;
  }

  private void put(Column column, TableColumn<RemoteEntry, ?> made) {
    made.setUserData(column);
    columns.put(column, made);
  }

  private Boolean orderByHeadings() {
    if (getSortOrder().isEmpty()) {
      model.orderBy(Column.NAME, false);
    } else {
      TableColumn<RemoteEntry, ?> first = getSortOrder().get(0);
      model.orderBy(
          (Column) first.getUserData(), first.getSortType() == TableColumn.SortType.DESCENDING);
    }
    return true;
  }

  private void showColumns() {
    Set<String> hidden = settings.get(Settings.HIDDEN_COLUMNS);
    Map<Column, Double> wanted = new EnumMap<>(Column.class);
    columns.forEach(
        (column, made) -> {
          if (!hidden.contains(column.name())) {
            wanted.put(column, column == Column.NAME ? LEAST_NAME : made.getPrefWidth());
          }
        });
    // Before it is laid out it has no width.
    Set<Column> noRoom =
        getWidth() <= 0 ? Set.of() : ColumnFit.leftOut(wanted, getWidth() - BORDERS);
    columns.forEach(
        (column, made) -> made.setVisible(wanted.containsKey(column) && !noRoom.contains(column)));
  }

  /** Shows or leaves out a column, in all folder sheets. */
  void toggle(Column column) {
    Set<String> hidden = new TreeSet<>(settings.get(Settings.HIDDEN_COLUMNS));
    if (!hidden.remove(column.name())) {
      hidden.add(column.name());
    }
    settings.set(Settings.HIDDEN_COLUMNS, hidden);
  }

  private void decorate(TableRow<RemoteEntry> row) {
    Runnable mark =
        () -> {
          boolean marked =
              row.getItem() != null && model.markedProperty().get().contains(row.getItem().path());
          Tables.mark(row, "changed-row", marked);
        };
    row.itemProperty().addListener((observed, old, now) -> mark.run());
    // Weakly: rows come and go, the folder stays.
    ChangeListener<Object> marks = (observed, old, now) -> mark.run();
    row.getProperties().put("marks", marks);
    model.markedProperty().addListener(new WeakChangeListener<>(marks));
  }

  /** Turns the name of the selected row into a field. */
  void startRename() {
    int row = getSelectionModel().getSelectedIndex();
    if (row >= 0) {
      scrollTo(Math.max(0, row - 3));
      layout();
      setEditable(true);
      edit(row, columns.get(Column.NAME));
    }
  }

  private EntryNotes.Note noteOf(RemoteEntry entry) {
    EntryNotes.Note note = model.notesProperty().get().of(entry);
    Set<String> here = local.namesProperty().get();
    boolean onlyThere =
        note.words().isEmpty() && here != null && !here.contains(entry.path().wireName());
    return onlyThere
        ? new EntryNotes.Note(
            WORDS.say("onlyThere"), EntryNotes.Weight.NONE, WORDS.say("thisComputersFolderHas"))
        : note;
  }

  private static TableCell<RemoteEntry, EntryNotes.Note> noteCell() {
    TableCell<RemoteEntry, EntryNotes.Note> cell =
        Tables.tag(EntryNotes.Note::words, note -> List.of(styles(note.weight())));
    Tables.hint(cell, note -> note == null ? "" : note.detail());
    return cell;
  }

  private static String[] styles(EntryNotes.Weight weight) {
    return switch (weight) {
      case NONE -> new String[] {"quiet"};
      case LOOK -> new String[] {"tag", "look"};
      case DANGER -> new String[] {"tag", "danger"};
    };
  }

  private static TableCell<RemoteEntry, String> plain() {
    return Tables.text(text -> text, Pos.CENTER_LEFT, "plain");
  }

  private static TableCell<RemoteEntry, String> mono() {
    return Tables.text(text -> text, Pos.CENTER_LEFT, "mono");
  }

  private TableCell<RemoteEntry, Long> sizeCell() {
    TableCell<RemoteEntry, Long> cell = Tables.text(Texts::size, Pos.CENTER_RIGHT, "figures");
    Tables.hint(cell, bytes -> bytes == null ? "" : Texts.count(bytes, "byte"));
    return cell;
  }

  private TableCell<RemoteEntry, Long> timeCell() {
    return RelativeTimes.cell();
  }

  private static @Nullable Long sizeOf(RemoteEntry entry) {
    return entry.kind() == FileKind.FILE ? (Long) entry.attributes().size() : null;
  }

  private static String modeOf(RemoteEntry entry) {
    return entry.attributes().mode().letters() + " " + entry.attributes().mode().shortOctal();
  }
}
