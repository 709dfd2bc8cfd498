package zander.desk.model;

import java.util.ArrayList;
import java.util.List;
import javafx.beans.property.ReadOnlyLongProperty;
import javafx.beans.property.ReadOnlyLongWrapper;
import zander.core.book.MarkedFolder;
import zander.core.book.ServerEntry;
import zander.core.files.RemotePath;
import zander.core.kept.KeptFolder;
import zander.core.kept.KeptRights;
import zander.desk.reach.BookModel;
import zander.desk.rights.kept.KeptRequest;
import zander.desk.rights.tree.TreeRightsModel;
import zander.desk.sheet.MarkedFolders;
import zander.desk.sheet.OpenDesk;

/** The marked folders of a server, out of the book. Interface thread only. */
final class BookFolders implements MarkedFolders {
  private final OpenDesk desk;
  private final BookModel book;
  private final ServerEntry server;
  private final ReadOnlyLongWrapper changes = new ReadOnlyLongWrapper();
  private List<MarkedFolder> all = List.of();
  private List<KeptFolder> keeping = List.of();

  BookFolders(OpenDesk desk, BookModel book, ServerEntry server) {
    this.desk = desk;
    this.book = book;
    this.server = server;
    desk.subscriptions().on(book.rows(), this::look);
    look();
  }

  private void look() {
    List<MarkedFolder> now = book.foldersOf(server);
    if (!now.equals(all)) {
      all = now;
      List<KeptFolder> found = new ArrayList<>();
      for (MarkedFolder folder : now) {
        KeptRights rights = new KeptRights(String.join("\n", folder.rights()));
        // Half of the lines may say the opposite of all: what cannot be read is not kept.
        if (!rights.isNothing() && rights.problems().isEmpty() && folder.path().startsWith("/")) {
          found.add(new KeptFolder(RemotePath.of(folder.path()), rights));
        }
      }
      keeping = List.copyOf(found);
      changes.set(changes.get() + 1);
    }
  }

  @Override
  public List<MarkedFolder> all() {
    return all;
  }

  @Override
  public List<KeptFolder> keeping() {
    return keeping;
  }

  @Override
  public void keep(RemotePath folder, List<String> lines, Runnable done) {
    book.changeFolders(server, before -> with(before, folder, lines), done);
  }

  private static List<MarkedFolder> with(
      List<MarkedFolder> before, RemotePath folder, List<String> lines) {
    List<MarkedFolder> after = new ArrayList<>();
    boolean found = false;
    for (MarkedFolder one : before) {
      boolean same = RemotePath.of(one.path()).equals(folder);
      after.add(same ? one.withRights(lines) : one);
      found |= same;
    }
    if (!found) {
      String name = folder.isRoot() ? folder.text() : folder.name();
      after.add(MarkedFolder.of(name, folder.text(), null, null).withRights(lines));
    }
    return after;
  }

  @Override
  public void showDifferences(List<RemotePath> entries) {
    KeptFolder keeper = keeperOf(entries.get(0));
    if (keeper != null) {
      TreeRightsModel sheet =
          new TreeRightsModel(desk, entries, new KeptRequest(desk, keeper.path()));
      desk.openSheets().show(sheet);
      sheet.look();
    }
  }

  @Override
  public ReadOnlyLongProperty changesProperty() {
    return changes.getReadOnlyProperty();
  }
}
