package zander.desk.folder.action;

import java.util.List;
import javafx.beans.property.SimpleStringProperty;
import javafx.beans.property.StringProperty;
import zander.core.change.RemoteChanges;
import zander.core.files.RemoteEntry;
import zander.core.files.RemotePath;
import zander.core.files.WireName;
import zander.desk.folder.FolderModel;
import zander.desk.folder.PathCompletion;
import zander.desk.sheet.OpenDesk;
import zander.desk.sheet.Question;
import zander.desk.sheet.Texts;
import zander.desk.words.Words;
import zander.desk.work.FailureWords;
import zander.desk.work.Message;

/** New files, folders and links, other names, and copies within a server. */
public final class CreateActions {
  private static final Words WORDS = Words.of(CreateActions.class);

  private final FolderModel folder;
  private final OpenDesk desk;

  public CreateActions(FolderModel folder) {
    this.folder = folder;
    this.desk = folder.desk();
  }

  private RemoteChanges changes() {
    return new RemoteChanges(desk.files(), desk.commands(), desk.journal());
  }

  private interface Step {
    RemotePath run(RemoteChanges changes) throws Exception;
  }

  /** Does something short, and shows and selects what it made. */
  private void make(Step step, boolean open) {
    desk.background()
        .run(
            () -> step.run(changes()),
            made -> {
              folder.dismissQuestion();
              shown(List.of(made));
              if (open) {
                desk.openFile(made, 0);
              }
            },
            failure -> {
              folder.tellFailure(
                  failure,
                  desk,
                  AsRoot.goOn(folder, root -> new CreateActions(root).make(step, open)));
              desk.checkLine();
            });
  }

  private void shown(List<RemotePath> paths) {
    folder.selectNext(paths);
    desk.changed(paths);
  }

  private void askName(String headline, String detail, String label, String first, Named named) {
    StringProperty text = new SimpleStringProperty(first);
    folder.ask(
        Question.asking(
            new Message(headline, detail),
            List.of(new Question.Input("strip-name", label, text, "")),
            new Question.Choice(
                WORDS.say("create"),
                ticked -> {
                  if (!text.get().isBlank()) {
                    named.with(text.get());
                  }
                }),
            new Question.Choice(WORDS.say("cancel"), ticked -> folder.dismissQuestion())));
  }

  private interface Named {
    void with(String name);
  }

  public void newFile() {
    RemotePath at = folder.path();
    askName(
        WORDS.say("newFileIn", at.name()),
        WORDS.say("itIsMadeEmpty"),
        WORDS.say("name"),
        "",
        name ->
            make(
                changes -> {
                  RemotePath path = at.resolve(name.strip());
                  changes.makeFile(path);
                  return path;
                },
                true));
  }

  public void newFolder() {
    RemotePath at = folder.path();
    askName(
        WORDS.say("newFolderIn", at.name()),
        WORDS.say("aPathSuchAs"),
        WORDS.say("nameOrPath"),
        "",
        name ->
            make(
                changes -> {
                  List<RemotePath> made = changes.makeFolders(at, name.strip());
                  return made.isEmpty() ? at.resolve(name.strip()) : made.get(0);
                },
                false));
  }

  public void newLink() {
    RemotePath at = folder.path();
    List<RemotePath> selected = folder.selectedPaths();
    String target = selected.size() == 1 ? selected.get(0).name() : "";
    StringProperty name = new SimpleStringProperty("");
    StringProperty to = new SimpleStringProperty(target);
    folder.ask(
        Question.asking(
            new Message(WORDS.say("newLinkIn", at.name()), WORDS.say("aTargetThatDoes")),
            List.of(
                new Question.Input("strip-name", WORDS.say("name"), name, ""),
                new Question.Input(
                    "strip-target", WORDS.say("leadsTo"), to, "../shared/site.conf")),
            new Question.Choice(
                WORDS.say("create"),
                ticked -> {
                  if (!name.get().isBlank() && !to.get().isBlank()) {
                    make(
                        changes -> {
                          RemotePath path = at.resolve(name.get().strip());
                          changes.makeLink(path, WireName.fromText(to.get().strip()));
                          return path;
                        },
                        false);
                  }
                }),
            new Question.Choice(WORDS.say("cancel"), ticked -> folder.dismissQuestion())));
  }

  /** Gives another name, as it was typed in the row; nothing for the same or an empty one. */
  public void rename(RemoteEntry entry, String typed) {
    if (typed.isBlank() || typed.equals(entry.name())) {
      return;
    }
    String wire = WireName.fromText(typed);
    if (!WireName.isSafe(wire)) {
      folder.tellFailure(new Message(WORDS.say("aNameCannotBe", typed), WORDS.say("itHasAIn")));
      return;
    }
    RemotePath to = entry.path().parent().child(wire);
    desk.background()
        .run(
            () -> {
              changes().rename(entry.path(), to);
              return to;
            },
            done -> shownInPlace(entry.path(), to),
            failure -> {
              folder.tellFailure(
                  failure,
                  desk,
                  AsRoot.goOn(folder, root -> new CreateActions(root).rename(entry, typed)));
              desk.checkLine();
            });
  }

  private void shownInPlace(RemotePath from, RemotePath to) {
    shown(List.of(from, to));
  }

  public void duplicate() {
    List<RemotePath> paths = folder.selectedPaths();
    if (paths.isEmpty()) {
      selectFirst("duplicate");
      return;
    }
    duplicate(paths);
  }

  private void duplicate(List<RemotePath> paths) {
    FolderTask task =
        new FolderTask(folder, WORDS.say("duplicating", what(paths)))
            .orAsRoot(root -> new CreateActions(root).duplicate(paths));
    task.run(
        work ->
            paths.stream()
                .map(
                    path -> {
                      try {
                        return changes()
                            .duplicate(path, bytes -> work.tell(through(bytes)), work.stop());
                      } catch (java.io.IOException e) {
                        throw new java.io.UncheckedIOException(e);
                      }
                    })
                .toList(),
        this::shown);
  }

  static String through(long bytes) {
    return WORDS.say("throughThisComputerBecause", Texts.size(bytes));
  }

  static String what(List<RemotePath> paths) {
    return paths.size() == 1
        ? paths.get(0).name()
        : WORDS.say("entries", Texts.count(paths.size()));
  }

  void selectFirst(String verb) {
    folder.ask(
        Question.notice(
            new Message(WORDS.say("nothingIsSelectedTo", verb), WORDS.say("selectFilesOrFolders")),
            false,
            folder.dismiss()));
  }

  public void copyTo() {
    place(WORDS.say("copy"), false);
  }

  public void moveTo() {
    place(WORDS.say("move"), true);
  }

  private void place(String verb, boolean moving) {
    List<RemotePath> paths = folder.selectedPaths();
    if (paths.isEmpty()) {
      selectFirst(verb.toLowerCase(java.util.Locale.ROOT));
      return;
    }
    StringProperty where = new SimpleStringProperty(folder.path().text() + "/");
    String through =
        !moving && changes().copiesThroughHere() ? WORDS.say("theServerCannotCopy") : "";
    folder.ask(
        Question.asking(
            new Message(
                WORDS.say("toAnotherFolderOf", verb, what(paths)),
                WORDS.say("ownersModesAndTimes", through)),
            List.of(new Question.Input("strip-name", WORDS.say("toTheFolder"), where, "")),
            new Question.Choice(verb, ticked -> placeIn(moving, paths, where.get())),
            new Question.Choice(WORDS.say("cancel"), ticked -> folder.dismissQuestion())));
  }

  private void placeIn(boolean moving, List<RemotePath> paths, String typed) {
    RemotePath goal;
    try {
      goal = PathCompletion.read(typed, folder);
    } catch (IllegalArgumentException e) {
      folder.tellFailure(FailureWords.of(e));
      return;
    }
    if (goal == null) {
      return;
    }
    placeIn(moving, paths, goal);
  }

  private void placeIn(boolean moving, List<RemotePath> paths, RemotePath goal) {
    FolderTask task =
        new FolderTask(folder, (moving ? WORDS.say("moving") : WORDS.say("copying")) + what(paths))
            .orAsRoot(root -> new CreateActions(root).placeIn(moving, paths, goal));
    task.run(
        work -> {
          if (moving) {
            changes()
                .move(
                    paths,
                    goal,
                    new zander.core.change.DeleteTask(
                        desk.files(), desk.commands(), desk.journal(), desk.home()),
                    bytes -> work.tell(through(bytes)),
                    work.stop());
          } else {
            changes().copy(paths, goal, bytes -> work.tell(through(bytes)), work.stop());
          }
          return goal;
        },
        done -> {
          desk.changed(paths);
          desk.changed(paths.stream().map(path -> goal.child(path.wireName())).toList());
          folder.ask(
              Question.notice(
                  new Message(
                      WORDS.say(
                          "to",
                          (moving ? WORDS.say("moved") : WORDS.say("copied")) + what(paths),
                          goal),
                      ""),
                  false,
                  new Question.Choice(WORDS.say("goThere"), ticked -> folder.go(goal)),
                  folder.dismiss()));
        });
  }
}
