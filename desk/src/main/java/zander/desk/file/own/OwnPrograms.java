package zander.desk.file.own;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.TreeMap;
import java.util.function.Consumer;
import javafx.beans.property.ReadOnlyIntegerProperty;
import javafx.beans.property.ReadOnlyIntegerWrapper;
import javafx.beans.property.SimpleStringProperty;
import javafx.beans.property.StringProperty;
import zander.core.files.RemotePath;
import zander.core.rights.Mode;
import zander.desk.file.Drafts;
import zander.desk.file.FileModel;
import zander.desk.sheet.OpenDesk;
import zander.desk.sheet.Question;
import zander.desk.sheet.Question.Choice;
import zander.desk.sheet.Question.Fact;
import zander.desk.sheet.Sheet;
import zander.desk.sheet.Texts;
import zander.desk.words.Words;
import zander.desk.work.FailureWords;
import zander.desk.work.Message;
import zander.desk.work.Settings;

/** Opens files of a desk in other programs of this computer. Used on the interface thread. */
public final class OwnPrograms {
  private static final Words WORDS = Words.of(OwnPrograms.class);

  private static final String USUAL = "xdg-open";

  private final OpenDesk desk;
  private final Sheet folder;
  private final OwnCopies copies;
  private final Opener opener;
  private final BytesSheets bytes;
  private final Map<FileModel, OwnProgram> open = new LinkedHashMap<>();
  private final ReadOnlyIntegerWrapper count = new ReadOnlyIntegerWrapper();

  /** Opens files of the desk as sheets. */
  public interface Opener {
    /**
     * @param ifNoText run where it is no text, or too large to be edited here
     */
    void open(RemotePath path, Consumer<FileModel> then, Runnable ifNoText);
  }

  /**
   * @param folder where it is told what is not of one file
   * @param opener opens a file as a sheet
   */
  public OwnPrograms(OpenDesk desk, Sheet folder, OwnCopies copies, Opener opener) {
    this.bytes = new BytesSheets(desk, folder, copies);
    this.desk = desk;
    this.folder = folder;
    this.copies = copies;
    this.opener = opener;
  }

  /** Begins to hear of sheets that are closed, once the desk has them. */
  public void begin() {
    desk.subscriptions().on(desk.openSheets().all(), this::closeGone);
    desk.subscriptions().atEnd(() -> List.copyOf(open.values()).forEach(OwnProgram::leave));
    desk.background().run(copies::left, this::offer, failure -> {});
  }

  private void closeGone() {
    for (OwnProgram program : List.copyOf(open.values())) {
      if (!desk.openSheets().all().contains(program.file())) {
        program.sheetClosed();
      }
    }
  }

  /** Asks in which program to open a file of the server. */
  public void ask(RemotePath path) {
    opener.open(
        path,
        this::ask,
        () -> {
          String kind = kindOf(path);
          String usual = desk.settings().get(Settings.PROGRAMS).getOrDefault(kind, USUAL);
          bytes.ask(path, usual, program -> remember(kind, program));
        });
  }

  /** Asks in which program to open a file that is open here. */
  public void ask(FileModel file) {
    if (open.containsKey(file)) {
      askToStop(file);
      return;
    }
    String kind = kindOf(file.path());
    Map<String, String> known = desk.settings().get(Settings.PROGRAMS);
    StringProperty typed = new SimpleStringProperty(known.getOrDefault(kind, USUAL));
    boolean isClosed = !file.version().attributes().mode().allows(Mode.Who.OTHERS, Mode.May.READ);
    file.ask(
        Question.asking(
                new Message(
                    WORDS.say("openInAnotherProgram", file.path().name()),
                    WORDS.say("itGetsACopy", isClosed ? WORDS.say("inClearWhichOthers") : "")),
                List.of(
                    new Question.Input(
                        "own-program", WORDS.say("program"), typed, WORDS.say("geditOrCodeWait"))),
                new Choice(
                    WORDS.say("open"),
                    ticked -> {
                      file.dismissQuestion();
                      remember(kind, typed.get().strip());
                      start(file, typed.get().strip());
                    }),
                new Choice(WORDS.say("cancel"), ticked -> file.dismissQuestion()))
            .readyWhen(typed.map(text -> !text.isBlank())));
  }

  /** By the end of the name, or the name where it has none. */
  private static String kindOf(RemotePath path) {
    String name = path.name().toLowerCase(Locale.ROOT);
    int dot = name.lastIndexOf('.');
    return dot > 0 && dot < name.length() - 1 ? name.substring(dot) : name;
  }

  private void remember(String kind, String program) {
    Map<String, String> known = new TreeMap<>(desk.settings().get(Settings.PROGRAMS));
    known.put(kind, program);
    desk.settings().set(Settings.PROGRAMS, known);
  }

  private void start(FileModel file, String program) {
    var snapshot = file.toBeSaved();
    RemotePath real = file.version().real();
    String digest = file.version().digestText();
    desk.background()
        .run(
            () -> OwnProgram.Opened.of(copies.make(real, snapshot.encode(), digest, program)),
            opened -> watch(file, opened, snapshot.text()).start(),
            failure -> file.tellFailure(FailureWords.of(failure)));
  }

  private OwnProgram watch(FileModel file, OwnProgram.Opened opened, String text) {
    OwnProgram made =
        new OwnProgram(desk.background(), copies, file, opened, text, () -> forget(file));
    open.put(file, made);
    count.set(open.size());
    closeGone();
    return made;
  }

  private void forget(FileModel file) {
    open.remove(file);
    count.set(open.size());
  }

  /** What a file is open in; empty for nothing. */
  public String nameFor(FileModel file) {
    OwnProgram program = open.get(file);
    return program == null ? "" : program.name();
  }

  /** How many are open; another number when one more is, or one less. */
  public ReadOnlyIntegerProperty countProperty() {
    return count.getReadOnlyProperty();
  }

  /** Asks whether to take nothing more from the program. */
  public void askToStop(FileModel file) {
    OwnProgram program = open.get(file);
    if (program == null) {
      return;
    }
    file.ask(
        Question.notice(
            new Message(
                WORDS.say("isOpenIn", file.path().name(), program.name()),
                WORDS.say("eachTimeSavesIt", program.name())),
            false,
            new Choice(
                WORDS.say("doneThereRemoveThe"),
                ticked -> {
                  file.dismissQuestion();
                  program.end();
                }),
            file.dismiss()));
  }

  /** Says in the folder what is open where. */
  public void tellAll() {
    List<Fact> facts = new ArrayList<>();
    facts.add(new Fact(WORDS.say("file"), WORDS.say("program"), WORDS.say("onTheServer")));
    open.forEach(
        (file, program) ->
            facts.add(
                new Fact(
                    file.path().text(),
                    program.name(),
                    file.isUnsaved() ? WORDS.say("notYet") : WORDS.say("asThere"))));
    List<BytesModel> others = desk.openSheets().of(BytesModel.class);
    others.forEach(
        file ->
            facts.add(
                new Fact(
                    file.path().text(),
                    file.program(),
                    file.isUnsaved() ? WORDS.say("notYet") : WORDS.say("asThere"))));
    int all = open.size() + others.size();
    desk.openSheets()
        .askInFront(
            new Question(
                new Message(
                    all == 0
                        ? WORDS.say("noFileIsOpen")
                        : WORDS.say(
                            "openInOtherPrograms",
                            Texts.count(all, "file")
                                + (all == 1 ? WORDS.say("is") : WORDS.say("are"))),
                    ""),
                all == 0 ? List.of() : facts,
                false,
                List.of(folder.dismiss()),
                null));
  }

  /** Offers what was open in other programs when the desk ended. */
  private void offer(List<OwnCopies.Copy> left) {
    if (left.isEmpty()) {
      return;
    }
    String names =
        String.join(
            ", ",
            left.stream()
                .map(copy -> WORDS.say("in", copy.of().name(), OwnCommand.name(copy.program())))
                .toList());
    Question[] asked = new Question[1];
    asked[0] =
        Question.notice(
            new Message(
                WORDS.say(
                    "openInAnotherProgramWhen",
                    Texts.count(left.size(), "file")
                        + (left.size() == 1 ? WORDS.say("was") : WORDS.say("were"))),
                WORDS.say("whatWasSavedThere", names)),
            false,
            new Choice(
                WORDS.say("goOn"),
                ticked -> {
                  folder.unpin(asked[0]);
                  left.forEach(this::goOn);
                }),
            new Choice(
                left.size() == 1 ? WORDS.say("removeTheCopy") : WORDS.say("removeTheCopies"),
                ticked -> {
                  folder.unpin(asked[0]);
                  desk.background().run(() -> remove(left), done -> {}, this::failed);
                }),
            new Choice(WORDS.say("later"), ticked -> folder.unpin(asked[0])));
    folder.pin(asked[0]);
  }

  private Void remove(List<OwnCopies.Copy> left) throws java.io.IOException {
    for (OwnCopies.Copy copy : left) {
      copies.remove(copy);
    }
    return null;
  }

  private void failed(Throwable failure) {
    folder.tellFailure(FailureWords.of(failure));
  }

  private record Left(OwnProgram.Opened opened, String text) {}

  /** Opens the file again, with what its copy has as a draft if that is another text. */
  private void goOn(OwnCopies.Copy copy) {
    opener.open(
        copy.of(),
        file -> {
          var charset = file.toBeSaved().form().charset();
          desk.background()
              .run(
                  () -> {
                    copies.take(copy);
                    OwnProgram.Opened opened = OwnProgram.Opened.of(copy);
                    return new Left(opened, OwnProgram.read(copy, charset));
                  },
                  left -> {
                    if (!left.text().equals(file.text())) {
                      file.takeDraft(new Drafts.Draft(copy.of(), copy.digest(), left.text()));
                    }
                    watch(file, left.opened(), left.text());
                  },
                  failure -> {
                    copies.leave(copy);
                    file.tellFailure(FailureWords.of(failure));
                  });
        },
        () -> bytes.goOn(copy));
  }
}
