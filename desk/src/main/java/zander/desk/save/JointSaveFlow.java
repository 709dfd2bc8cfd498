package zander.desk.save;

import static java.util.Objects.requireNonNull;

import java.io.IOException;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import zander.core.change.effect.EffectCommand;
import zander.core.change.save.AtomicSave.Saved;
import zander.core.change.save.CheckRefused;
import zander.core.change.save.FileVersion;
import zander.core.change.save.JointSave;
import zander.core.change.save.SaveFailure;
import zander.core.change.save.StagedCheck;
import zander.core.connect.command.Commands;
import zander.core.files.RemotePath;
import zander.core.work.Cancellation;
import zander.desk.edit.EditedText;
import zander.desk.sheet.OpenDesk;
import zander.desk.sheet.Question;
import zander.desk.sheet.Question.Choice;
import zander.desk.sheet.Question.Fact;
import zander.desk.sheet.Sheet;
import zander.desk.sheet.Texts;
import zander.desk.words.Words;
import zander.desk.work.FailureWords;
import zander.desk.work.Message;

/**
 * Saves all files of a desk that are not on the server yet as one change: their checks first, that
 * of all together once, and all put back when one does not stand it. Interface thread only.
 */
public final class JointSaveFlow {
  private static final Words WORDS = Words.of(JointSaveFlow.class);

  private final OpenDesk desk;
  private final KeptSaveRules kept;
  private final Sheet told;
  private final Cancellation stop = new Cancellation();
  private final List<Part> parts = new ArrayList<>();
  private final List<String> alone = new ArrayList<>();

  /** A file, what goes with its saves, and what is saved of it. */
  private record Part(
      EditedFile file, SaveRules rules, FileVersion opened, EditedText.Snapshot saving) {
    static Part of(EditedFile file, SaveRules rules) {
      return new Part(file, rules, file.version(), file.toBeSaved());
    }

    RemotePath path() {
      return opened.real();
    }
  }

  /**
   * @param told the sheet in front, which says how it goes
   */
  public JointSaveFlow(OpenDesk desk, KeptSaveRules kept, Sheet told) {
    this.desk = desk;
    this.kept = kept;
    this.told = told;
  }

  /** Asks for those that are unsaved, and saves them. */
  public void ask(List<? extends EditedFile> open) {
    for (EditedFile file : open) {
      if (file.isUnsaved() && !file.isBusy()) {
        SaveRules rules = kept.of(desk.address(), file.version().real());
        if (rules != null && rules.isGuarded()) {
          alone.add(file.path().name());
        } else {
          parts.add(Part.of(file, rules == null ? SaveRules.NONE : rules));
        }
      }
    }
    if (parts.size() < 2) {
      tell(new Message(WORDS.say("fewerThanTwo"), left()), false);
      return;
    }
    List<Fact> facts = new ArrayList<>();
    facts.add(new Fact(WORDS.say("file"), WORDS.say("checkedBy"), WORDS.say("thenRun")));
    for (Part part : parts) {
      String checks = String.join(", ", checks(part.rules));
      facts.add(
          new Fact(
              part.file.path().name(),
              checks.isEmpty() ? WORDS.say("noCheck") : checks,
              part.rules.effect().isEmpty() ? WORDS.say("nothing") : part.rules.effect()));
    }
    told.ask(
        new Question(
            new Message(
                WORDS.say("saveAsOne", Texts.count(parts.size(), "file")),
                (WORDS.say("allOrNone") + " " + left()).strip()),
            facts,
            false,
            List.of(
                new Choice(WORDS.say("saveAll"), ticked -> save()),
                new Choice(WORDS.say("cancel"), ticked -> told.dismissQuestion())),
            null));
  }

  private String left() {
    return alone.isEmpty() ? "" : WORDS.say("savedByThemselves", String.join(", ", alone));
  }

  private static List<String> checks(SaveRules rules) {
    return java.util.stream.Stream.of(rules.check(), rules.after())
        .filter(command -> !command.isEmpty())
        .toList();
  }

  private void save() {
    // As they are now: the question was no reason not to type on.
    parts.replaceAll(part -> Part.of(part.file, part.rules));
    for (Part part : parts) {
      part.file.setBusy(true);
      part.file.say(WORDS.say("saving"));
    }
    told.ask(
        Question.notice(
            new Message(WORDS.say("savingAsOne", Texts.count(parts.size(), "file")), ""),
            false,
            new Choice(WORDS.say("stopAndPutBack"), ticked -> stop.stop())));
    JointSave joint = new JointSave(desk.files(), desk.commands(), desk.journal());
    desk.background()
        .run(
            () -> joint.save(staged(), afterwards()),
            made -> saved(joint, made),
            failure -> {
              free();
              failed(failure);
            });
  }

  private List<JointSave.Part> staged() throws IOException {
    List<JointSave.Part> staged = new ArrayList<>();
    for (Part part : parts) {
      staged.add(new JointSave.Part(part.opened, part.saving.encode(), part.rules.before(stop)));
    }
    return staged;
  }

  /** Each once, however many files ask for it. */
  private List<StagedCheck> afterwards() {
    return parts.stream()
        .map(part -> part.rules.after())
        .filter(command -> !command.isEmpty())
        .distinct()
        .map(command -> new StagedCheck(command, stop))
        .toList();
  }

  private void free() {
    for (Part part : parts) {
      part.file.setBusy(false);
      part.file.say(WORDS.say("notOnTheServer"));
    }
  }

  private void saved(JointSave joint, List<Saved> made) {
    free();
    for (int i = 0; i < made.size(); i++) {
      parts.get(i).file.saved(made.get(i).version(), parts.get(i).saving.text());
    }
    Set<String> commands =
        parts.stream()
            .map(part -> part.rules.effect())
            .filter(command -> !command.isEmpty())
            .collect(Collectors.toCollection(LinkedHashSet::new));
    if (commands.isEmpty()) {
      tell(
          new Message(
              WORDS.say("savedAsOne", Texts.count(made.size(), "file")), WORDS.say("oneEntry")),
          false);
      return;
    }
    told.ask(
        Question.notice(
            new Message(
                WORDS.say("runNow", Texts.count(made.size(), "file")), String.join("\n", commands)),
            false,
            new Choice(WORDS.say("runIt"), ticked -> run(joint, made, List.copyOf(commands))),
            new Choice(WORDS.say("notNow"), ticked -> told.dismissQuestion())));
  }

  private void run(JointSave joint, List<Saved> made, List<String> commands) {
    told.dismissQuestion();
    Commands server = desk.commands();
    RemotePath first = parts.get(0).path();
    desk.background()
        .run(
            () -> failedOf(commands, server, first),
            wrong -> ran(joint, made, commands, wrong),
            failure -> {
              desk.checkLine();
              ran(joint, made, commands, FailureWords.of(failure));
            });
  }

  /**
   * @param wrong what did not work; {@code null} for nothing
   */
  private void ran(JointSave joint, List<Saved> made, List<String> commands, Message wrong) {
    if (wrong == null) {
      tell(new Message(WORDS.say("worked", String.join(", ", commands)), ""), false);
      return;
    }
    told.ask(
        Question.notice(
            wrong,
            true,
            new Choice(WORDS.say("putAllBack"), ticked -> goBack(joint, made, commands)),
            new Choice(WORDS.say("keepTheNew"), ticked -> told.dismissQuestion())));
  }

  private void goBack(JointSave joint, List<Saved> made, List<String> commands) {
    told.dismissQuestion();
    Commands server = desk.commands();
    RemotePath first = parts.get(0).path();
    desk.background()
        .run(
            () -> {
              List<Saved> standing = joint.putBack(made);
              return new Back(standing, failedOf(commands, server, first));
            },
            back -> {
              parts.forEach(part -> part.file.rebase(theirs -> {}));
              wentBack(back);
            },
            failure -> {
              desk.checkLine();
              tell(FailureWords.of(failure), true);
            });
  }

  /**
   * What became of it.
   *
   * @param wrong of the commands, run once more; {@code null} for nothing
   */
  private record Back(List<Saved> standing, @Nullable Message wrong) {}

  private void wentBack(Back back) {
    boolean all = back.standing.isEmpty();
    String said = all ? WORDS.say("textsAreHere") : WORDS.say("stand", names(back.standing));
    String wrong =
        back.wrong == null ? "" : "\n" + back.wrong.headline() + "\n" + back.wrong.detail();
    tell(
        new Message(all ? WORDS.say("allPutBack") : WORDS.say("notAllPutBack"), said + wrong),
        !all || back.wrong != null);
  }

  /** Runs commands in turn until one does not work, and tells that; {@code null} for none. */
  private static @Nullable Message failedOf(
      List<String> commands, Commands server, RemotePath first) throws IOException {
    for (String command : commands) {
      EffectCommand.Effect effect =
          new EffectCommand(command).run(server, first, new Cancellation());
      if (!effect.worked()) {
        return new Message(WORDS.say("didNotWork", command), effect.said().strip());
      }
    }
    return null;
  }

  private void failed(Throwable failure) {
    desk.checkLine();
    if (!(failure instanceof JointSave.Failure joint)) {
      tell(FailureWords.of(failure), true);
      return;
    }
    for (Saved stands : joint.standing()) {
      parts.stream()
          .filter(part -> part.path().equals(stands.version().real()))
          .forEach(part -> part.file.saved(stands.version(), part.saving.text()));
    }
    boolean unknown =
        joint.getCause() instanceof SaveFailure save && save.state() != SaveFailure.ServerState.OLD;
    if (unknown && joint.part() >= 0) {
      perhapsSaved(parts.get(joint.part()));
    }
    Throwable cause = requireNonNull(joint.getCause(), "it has its part's");
    Message why = FailureWords.of(cause);
    String state =
        !joint.standing().isEmpty()
            ? WORDS.say("stand", names(joint.standing()))
            : unknown ? "" : WORDS.say("nothingSaved");
    // What is said of one file alone is not so while others stand.
    String detail = joint.standing().isEmpty() || unknown ? why.detail() + "\n" : "";
    Message said = new Message(why.headline(), (detail + state).strip());
    told.dismissQuestion();
    Sheet about = told;
    if (joint.part() >= 0 && parts.get(joint.part()).file instanceof Sheet sheet) {
      about = sheet;
      desk.openSheets().frontProperty().set(sheet);
      if (cause.getCause() instanceof CheckRefused refused) {
        refused.line().ifPresent(line -> parts.get(joint.part()).file.goal().set(line, 0));
      }
    }
    about.ask(notice(said, true, about));
  }

  /** The last answer was lost: the server may have it. */
  private static void perhapsSaved(Part part) {
    try {
      part.file.perhapsSaved(part.saving.encode());
    } catch (IOException e) {
      // It could be encoded when it was sent.
    }
  }

  private static String names(List<Saved> saved) {
    return saved.stream().map(one -> one.version().real().name()).collect(Collectors.joining(", "));
  }

  private void tell(Message said, boolean danger) {
    told.ask(notice(said, danger, told));
  }

  private static Question notice(Message said, boolean danger, Sheet sheet) {
    return Question.notice(
        said, danger, new Choice(WORDS.say("close"), ticked -> sheet.dismissQuestion()));
  }
}
