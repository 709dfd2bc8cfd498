package zander.desk.model;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Comparator;
import java.util.List;
import java.util.function.Predicate;
import zander.core.book.MarkedFolder;
import zander.core.files.RemotePath;
import zander.core.files.WireName;
import zander.desk.sheet.Question;
import zander.desk.work.Message;

/** Where a server's files belong on this computer, as the marked folders say. */
public final class Partners {
  private final DeskModel desk;

  Partners(DeskModel desk) {
    this.desk = desk;
  }

  /** The marked folder that a folder is in, the nearest of those; {@code null} for none. */
  MarkedFolder nearest(RemotePath folder, Predicate<MarkedFolder> which) {
    return desk.entry().folders().stream()
        .filter(which)
        .filter(marked -> folder.chain().contains(RemotePath.of(marked.path())))
        .max(Comparator.comparingInt(marked -> marked.path().length()))
        .orElse(null);
  }

  /**
   * The folder on this computer that goes with one of the server.
   *
   * @return {@code null} when no marked folder above it has one
   */
  Path of(RemotePath folder) {
    MarkedFolder nearest = nearest(folder, marked -> marked.local() != null);
    if (nearest == null) {
      return null;
    }
    List<RemotePath> chain = folder.chain();
    Path at = desk.personHome().resolve(nearest.local());
    for (int i = chain.indexOf(RemotePath.of(nearest.path())) + 1; i < chain.size(); i++) {
      if (!WireName.isUtf8(chain.get(i).wireName())) {
        return null;
      }
      at = at.resolve(chain.get(i).name());
    }
    return at;
  }

  /** Goes to a folder of the server, and to the one that goes with it here. */
  public void go(RemotePath folder) {
    desk.currentProperty().set(desk.folder());
    desk.folder().go(folder);
    Path here = of(folder);
    if (here != null && !here.equals(desk.local().folder())) {
      desk.local().go(here);
    }
  }

  /** Brings the open file, as it is on the server, down to where it belongs here. */
  public void bringDown(FileModel file) {
    RemotePath from = file.path().parent();
    Path to = of(from);
    if (to == null) {
      desk.currentProperty().set(desk.folder());
      desk.folder()
          .ask(
              Question.notice(
                  new Message(
                      file.path().name() + " has no place on this computer",
                      "No marked folder above it names a folder here. Edit the server's entry to"
                          + " give it one, or bring it down from the folder."),
                  false,
                  desk.folder().dismiss()));
      return;
    }
    desk.background()
        .run(
            () -> Files.createDirectories(to),
            made -> desk.transfers().bringDown(from, to, List.of(file.path().wireName())),
            failure -> desk.checkLine());
  }
}
