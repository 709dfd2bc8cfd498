package zander.desk.folder.action;

import java.io.IOException;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.TreeMap;
import java.util.concurrent.CancellationException;
import java.util.function.BiConsumer;
import javafx.beans.binding.Bindings;
import javafx.beans.property.SimpleStringProperty;
import javafx.beans.property.StringProperty;
import zander.core.change.DeleteTask;
import zander.core.change.DeleteTask.Guard;
import zander.core.change.HeldThings;
import zander.core.change.place.HoldingFolder;
import zander.core.facts.MeasuredTree;
import zander.core.facts.TreeSize;
import zander.core.files.FileKind;
import zander.core.files.RemoteEntry;
import zander.core.files.RemoteFailure;
import zander.core.files.RemotePath;
import zander.core.work.Cancellation;
import zander.desk.folder.FolderModel;
import zander.desk.sheet.OpenDesk;
import zander.desk.sheet.Question;
import zander.desk.sheet.Texts;
import zander.desk.words.Words;
import zander.desk.work.FailureWords;
import zander.desk.work.Message;
import zander.desk.work.Settings;

/** Deleting: asked once, with what it is; held so that it can be put back, or for good. */
public final class DeleteActions {
  private static final Words WORDS = Words.of(DeleteActions.class);

  private final FolderModel folder;
  private final OpenDesk desk;

  public DeleteActions(FolderModel folder) {
    this.folder = folder;
    this.desk = folder.desk();
  }

  private DeleteTask deleting() {
    return new DeleteTask(desk.files(), desk.commands(), desk.journal(), desk.home());
  }

  /** What was looked at before anybody is asked. */
  private record Survey(List<RemotePath> paths, Map<RemotePath, Guard> guarded) {}

  public void delete() {
    List<RemotePath> paths = folder.selectedPaths();
    if (paths.isEmpty()) {
      new CreateActions(folder).selectFirst("delete");
      return;
    }
    List<RemoteEntry> entries = List.copyOf(folder.selection());
    // A file is nobody's home and no place where a file system begins.
    List<RemotePath> folders =
        entries.stream()
            .filter(entry -> entry.kind() == FileKind.FOLDER)
            .map(RemoteEntry::path)
            .toList();
    desk.background()
        .run(
            () -> survey(paths, folders),
            survey -> ask(survey, entries),
            failure -> {
              folder.tellFailure(FailureWords.of(failure));
              desk.checkLine();
            });
  }

  private Survey survey(List<RemotePath> paths, List<RemotePath> folders) throws IOException {
    Map<RemotePath, Guard> guarded = new TreeMap<>();
    List<Guard> guards = deleting().guards(folders);
    for (int i = 0; i < folders.size(); i++) {
      if (guards.get(i) != Guard.NONE) {
        guarded.put(folders.get(i), guards.get(i));
      }
    }
    return new Survey(paths, guarded);
  }

  private void ask(Survey survey, List<RemoteEntry> entries) {
    if (survey.guarded().containsValue(Guard.ROOT)) {
      folder.tellFailure(new Message(WORDS.say("theRootOfA"), WORDS.say("zanderRefusesItIn")));
      return;
    }
    boolean folders = entries.stream().anyMatch(entry -> entry.kind() == FileKind.FOLDER);
    Cancellation counting = new Cancellation();
    StringProperty live =
        new SimpleStringProperty(folders ? WORDS.say("counting") : sizes(entries));
    boolean held = survey.paths().stream().anyMatch(HoldingFolder::isHeld);
    String what = CreateActions.what(survey.paths());
    List<Question.Choice> choices = new ArrayList<>();
    if (!held) {
      choices.add(choice(WORDS.say("moveToTheHolding"), counting, () -> hold(survey.paths())));
    }
    choices.add(choice(WORDS.say("deleteForGood"), counting, () -> forGood(survey.paths())));
    choices.add(choice(WORDS.say("cancel"), counting, () -> {}));
    Question question =
        new Question(
                new Message(WORDS.say("delete", what), detail(survey, held)),
                List.of(),
                true,
                choices,
                null)
            .live(live);
    folder.ask(survey.guarded().isEmpty() ? question : guarded(question, survey));
    if (folders) {
      count(survey.paths(), live, counting, held);
    }
  }

  private Question.Choice choice(String words, Cancellation counting, Runnable then) {
    return new Question.Choice(
        words,
        ticked -> {
          counting.stop();
          folder.dismissQuestion();
          then.run();
        });
  }

  private String detail(Survey survey, boolean held) {
    StringBuilder detail = new StringBuilder();
    survey
        .guarded()
        .forEach(
            (path, guard) ->
                detail
                    .append(path)
                    .append(
                        guard == Guard.HOME
                            ? WORDS.say("isYourHomeFolder")
                            : WORDS.say("isWhereAnotherFile")));
    if (held) {
      return WORDS.say("itIsInThe", detail);
    }
    return WORDS.say(
        "heldItCanBe", detail, Texts.count(desk.settings().get(Settings.HELD_DAYS), "day"));
  }

  /** The first answers are closed until the name is typed. */
  private Question guarded(Question question, Survey survey) {
    String name = survey.guarded().keySet().iterator().next().name();
    StringProperty typed = new SimpleStringProperty("");
    return new Question(
        question.said(),
        question.facts(),
        true,
        question.choices(),
        null,
        List.of(new Question.Input("strip-name", WORDS.say("typeToGoOn", name), typed, "")),
        question.live(),
        Bindings.createBooleanBinding(() -> typed.get().equals(name), typed));
  }

  private static String sizes(List<RemoteEntry> entries) {
    long bytes = entries.stream().mapToLong(entry -> entry.attributes().size()).sum();
    return Texts.count(entries.size(), "entry") + ", " + Texts.size(bytes);
  }

  private void count(
      List<RemotePath> paths, StringProperty live, Cancellation counting, boolean held) {
    desk.background()
        .run(
            () ->
                new TreeSize(desk.files(), desk.commands())
                    .of(
                        paths,
                        soFar ->
                            desk.background()
                                .show(() -> live.set(WORDS.say("soFar", words(soFar)))),
                        counting),
            measured -> {
              boolean large = !held && measured.bytes() > desk.settings().get(Settings.HELD_BYTES);
              live.set(
                  words(measured)
                      + (large
                          ? WORDS.say(
                              "moreThanTheThat",
                              Texts.size(desk.settings().get(Settings.HELD_BYTES)))
                          : ""));
            },
            failure -> {
              if (!(failure instanceof CancellationException)) {
                live.set(WORDS.say("itCouldNotBe", FailureWords.of(failure).headline()));
              }
            });
  }

  static String words(MeasuredTree measured) {
    String files = Texts.count(measured.files(), "file");
    return WORDS.say(
        "measured",
        measured.folders() > 0
            ? WORDS.say("in", files, Texts.count(measured.folders(), "folder"))
            : files,
        measured.links() > 0 ? ", " + Texts.count(measured.links(), "link") : "",
        measured.others() > 0 ? WORDS.say("devicesOrSockets", measured.others()) : "",
        Texts.size(measured.bytes()),
        measured.unreadable() > 0
            ? WORDS.say("andYouMayNot", Texts.count(measured.unreadable(), "folder"))
            : "");
  }

  private void hold(List<RemotePath> paths) {
    new FolderTask(folder, WORDS.say("deleting", CreateActions.what(paths)))
        .orAsRoot(root -> new DeleteActions(root).hold(paths))
        .run(
            task ->
                deleting()
                    .hold(
                        paths,
                        held ->
                            task.tell(
                                WORDS.say("of", Texts.count(held), Texts.count(paths.size()))),
                        task.stop()),
            failed -> {
              desk.changed(paths);
              tellFailed(failed, paths, DeleteActions::hold);
              tidyHeld();
            });
  }

  private void forGood(List<RemotePath> paths) {
    new FolderTask(folder, WORDS.say("deletingForGood", CreateActions.what(paths)))
        .orAsRoot(root -> new DeleteActions(root).forGood(paths))
        .run(
            task ->
                deleting()
                    .forGood(
                        paths,
                        gone -> task.tell(WORDS.say("goneSoFar", Texts.count(gone))),
                        task.stop()),
            failed -> {
              desk.changed(paths);
              tellFailed(failed, paths, DeleteActions::forGood);
            });
  }

  /**
   * @param again deletes the rest in the same way
   */
  private void tellFailed(
      List<RemoteFailure> failed,
      List<RemotePath> paths,
      BiConsumer<DeleteActions, List<RemotePath>> again) {
    if (failed.isEmpty()) {
      return;
    }
    Message first = FailureWords.of(failed.get(0));
    Message said =
        new Message(
            WORDS.say("ofNotDeleted", failed.size(), Texts.count(paths.size()), first.headline()),
            first.detail());
    // Of what failed, and of the folders around it: ten thousand may fail at once.
    Set<RemotePath> left = new HashSet<>();
    failed.stream()
        .map(RemoteFailure::path)
        .filter(Objects::nonNull)
        .forEach(path -> left.addAll(path.chain()));
    List<RemotePath> rest = paths.stream().filter(left::contains).toList();
    folder.tellFailure(
        failed.get(0),
        said,
        desk,
        // Where the failure is of the folder around, none of them is gone.
        AsRoot.goOn(
            folder, root -> again.accept(new DeleteActions(root), rest.isEmpty() ? paths : rest)));
  }

  /** Lets go of what the rules do not hold any longer; a failure only leaves it for later. */
  public void tidyHeld() {
    HeldThings.Rules rules = desk.settings().now().held();
    TreeSize measure = new TreeSize(desk.files(), desk.commands());
    new FolderTask(folder, WORDS.say("removingDeletedItemsWhose"))
        .runQuietly(
            task ->
                new HeldThings(desk.files(), desk.commands(), desk.journal())
                    .letGo(
                        rules,
                        held -> measure.each(held, task.stop()),
                        gone -> task.tell(WORDS.say("goneSoFar", Texts.count(gone))),
                        task.stop()));
  }
}
