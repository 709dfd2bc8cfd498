package zander.desk.rights.tree;

import java.util.HashSet;
import java.util.List;
import java.util.concurrent.CancellationException;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.beans.property.ReadOnlyStringProperty;
import javafx.beans.property.ReadOnlyStringWrapper;
import javafx.collections.FXCollections;
import javafx.collections.ObservableList;
import zander.core.change.rights.PlanGroup.Fate;
import zander.core.change.rights.TreeOutcome;
import zander.core.change.rights.TreePlan;
import zander.core.change.rights.TreePlanner;
import zander.core.change.rights.TreeRightsTask;
import zander.core.change.rights.TreeRightsTask.Progress;
import zander.core.change.rights.look.SystemPlaces;
import zander.core.change.rights.look.TreeRoots;
import zander.core.files.AccountNames;
import zander.core.files.RemotePath;
import zander.core.journal.ChangeKind;
import zander.core.journal.JournalEntry;
import zander.core.rights.AccessList.Asker;
import zander.core.rights.RightsWish;
import zander.core.work.Cancellation;
import zander.desk.folder.FolderModel;
import zander.desk.sheet.OpenDesk;
import zander.desk.sheet.Question;
import zander.desk.sheet.Sheet;
import zander.desk.sheet.Texts;
import zander.desk.words.Words;
import zander.desk.work.FailureWords;
import zander.desk.work.Message;

/**
 * The rights of all that is in folders: asked for, looked at before they are set, set, read back,
 * put back. Interface thread only.
 */
public final class TreeRightsModel extends Sheet {
  private static final Words WORDS = Words.of(TreeRightsModel.class);

  private static final long PACE = 150_000_000;

  /** How far it is. */
  public enum Stage {
    ASKING,
    LOOKING,
    PLANNED,
    SETTING,
    DONE,
    /** It failed in the midst, as when the line broke; it can be gone on with. */
    CUT
  }

  private final OpenDesk desk;
  private final TreeRoots roots;
  private final RightsRequest request;
  private final PlanChoice choice;
  private final ReadOnlyObjectWrapper<Stage> stage = new ReadOnlyObjectWrapper<>(Stage.ASKING);
  private final ReadOnlyStringWrapper status = new ReadOnlyStringWrapper("");
  private final ObservableList<TreeOutcome.Left> left = FXCollections.observableArrayList();
  private long entry;
  private boolean puttingBack;
  private Cancellation stop = new Cancellation();
  private long told;

  /**
   * @param entries of one folder: these and all that is in them
   */
  public TreeRightsModel(OpenDesk desk, List<RemotePath> entries) {
    this(desk, entries, new TreeRequest());
  }

  /**
   * @param entries of one folder: these and all that is in them
   */
  public TreeRightsModel(OpenDesk desk, List<RemotePath> entries, RightsRequest request) {
    this.desk = desk;
    this.roots = TreeRoots.of(entries);
    this.request = request;
    this.choice = new PlanChoice(desk);
    setTitle(WORDS.say("rightsOf", name()));
    request.onChange(this::asked);
    asked();
  }

  private String name() {
    List<RemotePath> entries = roots.entries();
    return entries.size() == 1 ? entries.get(0).name() : Texts.count(entries.size(), "entry");
  }

  private AccountNames names() {
    return desk.files().names();
  }

  /** What is asked was changed: what was looked at before no longer tells what would be done. */
  private void asked() {
    if (stage.get() == Stage.SETTING) {
      // What is being set is not changed by typing.
      return;
    }
    stop.stop();
    choice.clear();
    left.clear();
    stage.set(Stage.ASKING);
    status.set(request.problem(names()));
  }

  /** Goes back to what is asked. */
  public void askAgain() {
    asked();
  }

  /** Looks what would change; nothing is changed. */
  public void look() {
    if (!request.problem(names()).isEmpty() || stage.get() == Stage.SETTING) {
      return;
    }
    stop.stop();
    stop = new Cancellation();
    Cancellation mine = stop;
    RightsWish wanted = request.wish(names());
    boolean other = request.isForOtherFileSystems();
    Asker by = new Asker(desk.whoAmI().uid(), new HashSet<>(desk.whoAmI().gids()));
    stage.set(Stage.LOOKING);
    status.set(WORDS.say("looking"));
    long began = System.nanoTime();
    desk.background()
        .run(
            () ->
                new TreePlanner(desk.files(), desk.commands())
                    .plan(roots, wanted, by, other, seen -> tell(mine, seen), mine),
            made -> {
              if (stop == mine) {
                planned(made, System.nanoTime() - began);
              }
            },
            failure -> failed(mine, failure, Stage.ASKING));
  }

  private void tell(Cancellation mine, long seen) {
    tell(mine, WORDS.say("lookedAt", Texts.count(seen, "entry")));
  }

  private void tell(Cancellation mine, String words) {
    long now = System.nanoTime();
    if (now - told > PACE) {
      told = now;
      desk.background()
          .show(
              () -> {
                if (stop == mine && isUnderWay()) {
                  status.set(words);
                }
              });
    }
  }

  private boolean isUnderWay() {
    return stage.get() == Stage.LOOKING || stage.get() == Stage.SETTING;
  }

  private void planned(TreePlan made, long nanos) {
    choice.take(made);
    left.clear();
    String seconds = String.format(java.util.Locale.ROOT, "%.1f s", nanos / 1e9);
    status.set(WORDS.say("lookedAtInCan", Texts.count(made.looked(), "entry"), seconds));
    stage.set(Stage.PLANNED);
  }

  private void failed(Cancellation mine, Throwable failure, Stage then) {
    if (stop != mine) {
      return;
    }
    stage.set(then);
    status.set("");
    if (!(failure instanceof CancellationException)) {
      tellFailure(FailureWords.of(failure));
      desk.checkLine();
    }
  }

  /** Sets what is chosen; asks once more in a place that all depends on. */
  public void set() {
    if (stage.get() != Stage.PLANNED || choice.count() == 0) {
      return;
    }
    RemotePath system = SystemPlaces.among(roots);
    if (system == null) {
      setNow();
      return;
    }
    Message said =
        new Message(
            WORDS.say("isAPlaceThat", system),
            WORDS.say("rightsOfInIt", Texts.count(choice.count(), "entry")));
    Question.Choice go =
        new Question.Choice(
            WORDS.say("setAllTheSame"),
            ticked -> {
              dismissQuestion();
              setNow();
            });
    ask(
        Question.notice(
            said, true, go, new Question.Choice(WORDS.say("cancel"), t -> dismissQuestion())));
  }

  private void setNow() {
    puttingBack = false;
    PlanChoice.Chosen chosen = choice.chosen();
    work(WORDS.say("setting"), (task, progress, mine) -> task.run(chosen.steps(), progress, mine));
  }

  private interface Work {
    TreeOutcome run(TreeRightsTask task, Progress progress, Cancellation stop) throws Exception;
  }

  private void work(String doing, Work work) {
    stop = new Cancellation();
    Cancellation mine = stop;
    stage.set(Stage.SETTING);
    status.set(doing);
    Progress progress =
        (done, all) -> tell(mine, WORDS.say("of", doing, Texts.count(done), Texts.count(all)));
    TreeRightsTask task = new TreeRightsTask(desk.files(), desk.commands(), desk.journal());
    desk.background()
        .run(
            () -> work.run(task, progress, mine),
            this::done,
            failure -> {
              failed(mine, failure, task.isCut() ? Stage.CUT : Stage.PLANNED);
              if (task.isCut()) {
                status.set(WORDS.say("itEndedInThe"));
              }
            });
  }

  private void done(TreeOutcome outcome) {
    entry = outcome.entry();
    left.setAll(outcome.some());
    String all = WORDS.say("setAndReadBack", Texts.count(outcome.set(), "entry"));
    String already =
        outcome.already() == 0 ? "" : WORDS.say("wereSoAlready", Texts.count(outcome.already()));
    String not =
        outcome.left() == 0
            ? "."
            : ". "
                + Texts.count(outcome.left())
                + (outcome.stopped() ? WORDS.say("notComeToOr") : WORDS.say("leftAsTheyAre"));
    status.set((puttingBack ? WORDS.say("putBackOf") : "") + all + already + not);
    stage.set(Stage.DONE);
    desk.changed(roots.entries());
    // What is inside has no other time by this, so nothing else would read it again.
    for (FolderModel folder : desk.openSheets().of(FolderModel.class)) {
      if (roots.entries().stream().anyMatch(folder.path().chain()::contains)) {
        folder.refresh();
      }
    }
  }

  /** Puts back what was set here. */
  public void putBack() {
    if (!mayPutBack()) {
      return;
    }
    puttingBack = true;
    long number = entry;
    work(
        WORDS.say("puttingBack"),
        (task, progress, mine) -> task.putBack(find(number), progress, mine));
  }

  private JournalEntry find(long number) {
    return desk.journal().entries().stream()
        .filter(one -> one.id() == number)
        .findFirst()
        .orElseThrow();
  }

  /** Goes on with what failed in the midst. */
  public void goOn() {
    work(
        WORDS.say("setting"),
        (task, progress, mine) -> {
          JournalEntry cut =
              desk.journal().unfinished().stream()
                  .filter(one -> one.kind() == ChangeKind.RIGHTS_OF_TREE)
                  .filter(one -> one.path().equals(roots.about()))
                  .reduce((first, second) -> second)
                  .orElseThrow(() -> new java.io.IOException(WORDS.say("nothingIsLeftTo")));
          return task.goOn(cut, progress, mine);
        });
  }

  /** Ends what is under way; each entry has its old or its new rights. */
  public void stop() {
    stop.stop();
  }

  /** Looks what would change as root, in a desk of its own, with the same request. */
  public void asRoot() {
    desk.actAsRoot(
        roots.base(),
        root -> {
          TreeRightsModel again = new TreeRightsModel(root, roots.entries(), request.copyFor(root));
          root.openSheets().show(again);
          again.look();
        });
  }

  /** Whether root may set what this account may not. */
  public boolean mayRootHelp(PlanRow row) {
    Fate fate = row.group().fate();
    return (fate == Fate.NOT_ALLOWED || fate == Fate.UNREADABLE) && desk.mayActAsRoot();
  }

  /** What is asked, in a line. */
  public String asks() {
    String words = request.words();
    return words.isEmpty()
        ? ""
        : words
            + (request.isForOtherFileSystems()
                ? WORDS.say("linksAreLeftAlone")
                : choice.seesFileSystems()
                    ? WORDS.say("linksAndOtherFile")
                    : WORDS.say("linksAreLeftAloneOther"));
  }

  public String heading() {
    return switch (stage.get()) {
      case ASKING, LOOKING -> request.heading(name());
      case PLANNED -> WORDS.say("whatWouldChange", below());
      default -> WORDS.say("rights", below());
    };
  }

  private String below() {
    return roots.entries().size() == 1 ? WORDS.say("below", name()) : WORDS.say("in", name());
  }

  /** Whether what is asked can be looked at. */
  public boolean mayLook() {
    return request.problem(names()).isEmpty();
  }

  /** Whether what was set here can be put back by one press. */
  public boolean mayPutBack() {
    return stage.get() == Stage.DONE && !puttingBack;
  }

  public RightsRequest request() {
    return request;
  }

  /** The names that the server knows. */
  public List<String> namesOf(boolean groups) {
    return groups ? names().groups() : names().accounts();
  }

  /** What all that is shown is called. */
  public TreeTexts texts() {
    return new TreeTexts(roots, names(), desk.whoAmI().account());
  }

  /** What of the plan is chosen. */
  public PlanChoice choice() {
    return choice;
  }

  public ObservableList<TreeOutcome.Left> left() {
    return left;
  }

  public ReadOnlyObjectProperty<Stage> stageProperty() {
    return stage.getReadOnlyProperty();
  }

  /** How far it is, or what is missing; may be empty. */
  public ReadOnlyStringProperty statusProperty() {
    return status.getReadOnlyProperty();
  }

  @Override
  public void close() {
    stop.stop();
    request.close();
  }
}
