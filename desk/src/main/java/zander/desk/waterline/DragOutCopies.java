package zander.desk.waterline;

import java.io.File;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileAttribute;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteEntry;
import zander.core.files.RemotePath;
import zander.core.files.WireName;
import zander.desk.folder.FolderModel;
import zander.desk.sheet.OpenDesk;
import zander.desk.sheet.Texts;
import zander.desk.words.Words;
import zander.desk.work.Message;

/**
 * Copies of a server's files that can be dragged to the desktop's file manager. A file manager
 * takes only what is on this computer already, so what is dragged out of the window is brought down
 * into a folder of its own first, and dragged once more.
 */
public final class DragOutCopies {
  private static final Words WORDS = Words.of(DragOutCopies.class);

  /** They may be secrets. */
  private static final FileAttribute<?> CLOSED =
      PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString("rwx------"));

  private final OpenDesk desk;
  private final FolderModel folder;
  private final DeskTransfers transfers;
  private final Path place;
  private final Map<RemotePath, Ready> ready = new HashMap<>();
  private int count;

  /** A copy, and what it was made of. */
  private record Ready(Path copy, RemoteAttributes of) {}

  /**
   * @param place where on this computer the copies are made
   */
  public DragOutCopies(OpenDesk desk, FolderModel folder, DeskTransfers transfers, Path place) {
    this.desk = desk;
    this.folder = folder;
    this.transfers = transfers;
    this.place = place;
  }

  /** Each running program has a folder of its own for them. */
  public static Path ofThisProgram(Path state) {
    return state.resolve("taken-out").resolve(Long.toString(ProcessHandle.current().pid()));
  }

  /** Takes away what programs left that do not run any more. Waits for the disk. */
  public static void clearOthers(Path state) {
    String[] names = state.resolve("taken-out").toFile().list();
    for (String name : names == null ? new String[0] : names) {
      boolean runs =
          name.matches("[0-9]{1,18}") && ProcessHandle.of(Long.parseLong(name)).isPresent();
      if (!runs) {
        clear(state.resolve("taken-out").resolve(name));
      }
    }
  }

  /** Takes all copies away. Waits for the disk. */
  private static void clear(Path folder) {
    if (!Files.isDirectory(folder)) {
      return;
    }
    try (Stream<Path> all = Files.walk(folder)) {
      all.sorted(Comparator.reverseOrder()).forEach(path -> path.toFile().delete());
    } catch (IOException | UncheckedIOException e) {
      // They are tried again at the next start.
    }
  }

  /** The copies of these; empty unless all are here and are as they are on the server now. */
  public List<File> of(List<RemoteEntry> rows) {
    List<File> files = new ArrayList<>();
    for (RemoteEntry row : rows) {
      Ready one = ready.get(row.path());
      if (one == null || row.attributes().looksChangedSince(one.of())) {
        return List.of();
      }
      files.add(one.copy().toFile());
    }
    return files;
  }

  /** Brings down what is selected, to be dragged out then. */
  public void prepare() {
    List<RemoteEntry> rows = List.copyOf(folder.selection());
    if (rows.isEmpty()) {
      return;
    }
    if (!of(rows).isEmpty()) {
      tell(rows);
      return;
    }
    Path into = place.resolve(System.currentTimeMillis() + "-" + ++count);
    desk.background()
        .run(
            () -> Files.createDirectories(into, CLOSED),
            made -> transfers.takeOut(rows, made, () -> arrived(rows, made)),
            failure -> desk.checkLine());
  }

  private void arrived(List<RemoteEntry> rows, Path into) {
    for (RemoteEntry row : rows) {
      Path copy = into.resolve(WireName.toText(row.path().wireName()));
      ready.put(row.path(), new Ready(copy, row.attributes()));
    }
    tell(rows);
  }

  private void tell(List<RemoteEntry> rows) {
    String what =
        rows.size() == 1 ? rows.get(0).name() : WORDS.say("entries", Texts.count(rows.size()));
    folder.tell(new Message(WORDS.say("canBeDraggedTo", what), WORDS.say("dragTheSelectionOut")));
  }
}
