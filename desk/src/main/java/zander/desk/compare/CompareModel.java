package zander.desk.compare;

import java.util.List;
import java.util.concurrent.Callable;
import java.util.function.Supplier;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.beans.property.SimpleObjectProperty;
import javafx.collections.FXCollections;
import javafx.collections.ObservableList;
import zander.core.edit.SideBySide;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.journal.Journal;
import zander.desk.sheet.OpenDesk;
import zander.desk.sheet.Sheet;
import zander.desk.words.Words;
import zander.desk.work.FailureWords;
import zander.desk.work.Subscriptions;

/** Two versions of an open file, line beside line. Interface thread only. */
public final class CompareModel extends Sheet {
  private static final Words WORDS = Words.of(CompareModel.class);

  private final OpenDesk desk;
  private final ComparedFile file;
  private final Subscriptions subscriptions = new Subscriptions();
  private final Side here;
  private final ObservableList<Side> sides = FXCollections.observableArrayList();
  private final ObjectProperty<Side> left = new SimpleObjectProperty<>();
  private final ObjectProperty<Side> right = new SimpleObjectProperty<>();
  private final ReadOnlyObjectWrapper<Compared> compared =
      new ReadOnlyObjectWrapper<>(Compared.NONE);
  private boolean running;
  private long looks;

  /**
   * What can stand on a side.
   *
   * @param text gives on the interface thread what reads it on another one
   */
  public record Side(String name, Supplier<Callable<String>> text) {
    @Override
    public String toString() {
      return name;
    }
  }

  /** What was found. */
  public record Compared(String left, String right, List<SideBySide.Row> rows, int changes) {
    static final Compared NONE = new Compared("", "", List.of(), 0);
  }

  private CompareModel(OpenDesk desk, ComparedFile file) {
    this.desk = desk;
    this.file = file;
    setTitle(WORDS.say("versionsOf", file.path().name()));
    here = new Side(WORDS.say("theTextInThe"), () -> fixed(file.text()));
    Side server = new Side(WORDS.say("theServersVersion"), () -> fixed(file.savedText()));
    sides.setAll(server, here);
    left.set(server);
    right.set(here);
    subscriptions.on(left, side -> look());
    subscriptions.on(right, side -> look());
    subscriptions.on(desk.openSheets().frontProperty(), this::cameToFront);
    subscriptions.on(desk.openSheets().all(), () -> desk.background().show(this::closeWithFile));
  }

  private static Callable<String> fixed(String text) {
    return () -> text;
  }

  /** Shows the versions of a file that is open, in the sheet where they are shown already. */
  public static void show(OpenDesk desk, ComparedFile file) {
    for (CompareModel shown : desk.openSheets().of(CompareModel.class)) {
      if (shown.file == file) {
        desk.openSheets().frontProperty().set(shown);
        return;
      }
    }
    CompareModel made = new CompareModel(desk, file);
    desk.openSheets().show(made);
    made.look();
    made.findVersions();
  }

  private void findVersions() {
    Journal journal = desk.journal();
    RemoteFiles files = desk.files();
    RemotePath real = file.version().real();
    desk.background()
        .run(
            () -> FileVersions.of(journal, files, real),
            found ->
                found.forEach(version -> sides.add(new Side(version.name(), () -> version::text))),
            failure -> tellFailure(FailureWords.of(failure)));
  }

  private void cameToFront(Sheet front) {
    if (front == this) {
      look();
    }
  }

  /** Without its file there is nothing to compare with. */
  private void closeWithFile() {
    List<Sheet> all = desk.openSheets().all();
    if (all.contains(this) && !all.contains(file)) {
      desk.openSheets().close(this);
    }
  }

  /** Reads both and compares them anew. */
  private void look() {
    long mine = ++looks;
    running = true;
    Callable<String> one = left.get().text().get();
    Callable<String> other = right.get().text().get();
    desk.background()
        .run(
            () -> compared(one.call(), other.call()),
            found -> {
              if (mine == looks) {
                running = false;
                compared.set(found);
              }
            },
            failure -> failed(mine, failure));
  }

  private void failed(long look, Throwable failure) {
    if (look == looks) {
      running = false;
      // What was compared before is not what is chosen now.
      compared.set(Compared.NONE);
      tellFailure(FailureWords.of(failure));
    }
  }

  private static Compared compared(String one, String other) {
    List<SideBySide.Row> rows = SideBySide.of(one, other);
    int changes = rows.stream().mapToInt(SideBySide.Row::change).max().orElse(-1) + 1;
    return new Compared(one, other, rows, changes);
  }

  /** Whether a change can be taken back: only where the text in the editor is on the right. */
  public boolean canTakeBack() {
    return right.get() == here && left.get() != here;
  }

  /** Puts the left lines of a change into the editor, in the place of its own. */
  public void takeBack(int change) {
    Compared shown = compared.get();
    if (!canTakeBack() || running || change >= shown.changes()) {
      return;
    }
    running = true;
    desk.background()
        .run(
            () -> SideBySide.withLeftIn(change, shown.left(), shown.right()),
            text -> {
              if (shown.right().equals(file.text())) {
                file.putIn(text);
              }
              // Also where it was changed meanwhile: then what is shown is not what is there.
              look();
            },
            failure -> failed(looks, failure));
  }

  /** Whether the left text can be put into the editor. */
  public boolean canPutLeftIn() {
    return left.get() != here && compared.get().changes() > 0;
  }

  /** Puts the whole left text into the editor. */
  public void putLeftIn() {
    if (canPutLeftIn() && !running) {
      file.putIn(compared.get().left());
      look();
    }
  }

  /** What can stand on a side. */
  public ObservableList<Side> sides() {
    return sides;
  }

  public ObjectProperty<Side> leftProperty() {
    return left;
  }

  public ObjectProperty<Side> rightProperty() {
    return right;
  }

  public ReadOnlyObjectProperty<Compared> comparedProperty() {
    return compared.getReadOnlyProperty();
  }

  @Override
  public void close() {
    subscriptions.end();
  }
}
