package zander.desk.file;

import java.util.HashSet;
import java.util.Optional;
import java.util.Set;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;
import zander.core.change.save.AtomicSave;
import zander.core.edit.NotTextException;
import zander.core.edit.TextFile;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteFailure;
import zander.core.files.RemotePath;
import zander.core.rights.Mode;
import zander.desk.file.own.OwnCopies;
import zander.desk.file.own.OwnPrograms;
import zander.desk.folder.FolderModel;
import zander.desk.reading.ReadingModel;
import zander.desk.save.JointSaveFlow;
import zander.desk.save.KeptSaveRules;
import zander.desk.sheet.OpenDesk;
import zander.desk.template.SnippetSteps;
import zander.desk.template.TemplateSteps;
import zander.desk.template.Templates;
import zander.desk.words.Words;

/** Opens files as sheets of a desk, each once. Used on the interface thread only. */
public final class FileSheets {
  private static final Words WORDS = Words.of(FileSheets.class);

  private final OpenDesk desk;
  private final FolderModel folder;
  private final FileModel.Kept kept;
  private final Set<RemotePath> opening = new HashSet<>();
  private final OwnPrograms programs;
  private final Drafts drafts;
  private final Templates templates;

  public FileSheets(
      OpenDesk desk,
      FolderModel folder,
      Drafts drafts,
      OwnCopies copies,
      KeptSaveRules saveRules,
      Templates templates) {
    this.templates = templates;
    this.drafts = drafts;
    this.programs = new OwnPrograms(desk, folder, copies, this::open);
    this.desk = desk;
    this.folder = folder;
    this.kept = new FileModel.Kept(drafts, saveRules);
  }

  /** Offers what was left when the program ended: drafts, and files in other programs. */
  public void offerLeft() {
    new DraftOffer(desk, folder, this, drafts).make();
    programs.begin();
  }

  /** New files from texts that are kept, or that are open. */
  public TemplateSteps newFiles() {
    return new TemplateSteps(desk, templates, desk.openSheets().front());
  }

  /** Keeps the text of a file as what new ones begin with. */
  public void keepAsTemplate(FileModel file) {
    boolean isClosed = !file.version().attributes().mode().allows(Mode.Who.OTHERS, Mode.May.READ);
    newFiles().keep(file.path(), file.text(), isClosed);
  }

  /** Pieces of text for a file. */
  public SnippetSteps snippetsFor(FileModel file) {
    return new SnippetSteps(templates, file, file.languageProperty().get().name());
  }

  /** Saves all that are not on the server yet as one change. */
  public void saveAll() {
    new JointSaveFlow(desk, kept.saveRules(), desk.openSheets().front())
        .ask(desk.openSheets().of(FileModel.class));
  }

  /** Files that are open in other programs. */
  public OwnPrograms programs() {
    return programs;
  }

  /**
   * Opens a file, or shows it where it is open; what fails is told in the folder.
   *
   * @param then run when it is in front
   */
  public void open(RemotePath path, Consumer<FileModel> then) {
    open(path, then, null);
  }

  /**
   * @param ifNoText run where it is no text, or too large to be edited; {@code null} to tell that
   */
  private void open(RemotePath path, Consumer<FileModel> then, @Nullable Runnable ifNoText) {
    for (FileModel file : desk.openSheets().of(FileModel.class)) {
      if (file.path().equals(path)) {
        desk.openSheets().frontProperty().set(file);
        then.accept(file);
        return;
      }
    }
    if (!opening.add(path)) {
      return;
    }
    ToldForm told = ToldForm.of(desk, path);
    desk.background()
        .run(
            () ->
                new FileModel(
                    desk,
                    kept,
                    path,
                    new AtomicSave(desk.files(), desk.commands(), desk.journal())
                        .open(path, TextFile.LARGEST),
                    told),
            file -> {
              opening.remove(path);
              desk.openSheets().show(file);
              then.accept(file);
              file.lookWhetherItCanBeSaved();
            },
            failure -> {
              opening.remove(path);
              if (ifNoText != null
                  && (isTooLarge(failure) || failure instanceof NotTextException)) {
                ifNoText.run();
                return;
              }
              if (isTooLarge(failure)) {
                ReadingModel.show(desk, path);
                return;
              }
              desk.openSheets().frontProperty().set(folder);
              folder.tellFailure(
                  failure,
                  desk,
                  () -> desk.actAsRoot(path.parent(), root -> root.openFile(path, 0)));
              desk.checkLine();
            });
  }

  private static boolean isTooLarge(Throwable failure) {
    return failure instanceof RemoteFailure remote
        && remote.reason() == RemoteFailure.Reason.TOO_LARGE;
  }

  /** What a file that is open was when it was last read or saved; {@code null} for none. */
  public @Nullable RemoteAttributes openedAs(RemotePath path) {
    for (FileModel file : desk.openSheets().of(FileModel.class)) {
      if (file.path().equals(path) || file.version().real().equals(path)) {
        return file.version().attributes();
      }
    }
    return null;
  }

  /** What is waited for, as the end of "waits for …". */
  public Optional<String> waitsFor() {
    if (!opening.isEmpty()) {
      return Optional.of(WORDS.say("toOpen", opening.iterator().next().name()));
    }
    return desk.openSheets().of(FileModel.class).stream()
        .filter(file -> file.busyProperty().get())
        .map(file -> WORDS.say("toBeSaved", file.path().name()))
        .findFirst();
  }
}
