package zander.desk.folder;

import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import org.jspecify.annotations.Nullable;
import zander.core.access.ServiceAccess;
import zander.core.files.DiskSpace;
import zander.core.files.RemotePath;
import zander.desk.sheet.OpenDesk;

/** What a listing alone does not tell of a folder: room, and who else can reach what is in it. */
final class FolderFacts {
  private final OpenDesk desk;
  private final ReadOnlyObjectWrapper<EntryNotes> notes =
      new ReadOnlyObjectWrapper<>(EntryNotes.NONE);
  private final ReadOnlyObjectWrapper<DiskSpace> space = new ReadOnlyObjectWrapper<>();
  private @Nullable RemotePath about;

  FolderFacts(OpenDesk desk) {
    this.desk = desk;
    desk.subscriptions().on(desk.marked().changesProperty(), now -> keep());
  }

  /** Forgets the folder before, and asks about this one. */
  void learn(RemotePath folder) {
    about = folder;
    notes.set(new EntryNotes(null, desk::openedAs, kept()));
    space.set(null);
    desk.background()
        .run(
            () -> desk.files().space(folder),
            found -> {
              if (folder.equals(about)) {
                space.set(found);
              }
            },
            failure -> {});
    String service = desk.serviceAccount();
    if (!service.isEmpty()) {
      desk.background()
          .run(
              () -> ServiceAccess.of(service, desk.files(), desk.commands(), folder),
              access -> {
                if (folder.equals(about)) {
                  notes.set(new EntryNotes(access, desk::openedAs, kept()));
                }
              },
              failure -> {});
    }
  }

  private KeptDrift kept() {
    return KeptDrift.of(desk);
  }

  /** Other rights are kept now. */
  private void keep() {
    notes.set(new EntryNotes(notes.get().access(), desk::openedAs, kept()));
  }

  ReadOnlyObjectProperty<EntryNotes> notesProperty() {
    return notes.getReadOnlyProperty();
  }

  /** The room there is; {@code null} while the server has not told. */
  ReadOnlyObjectProperty<DiskSpace> spaceProperty() {
    return space.getReadOnlyProperty();
  }
}
