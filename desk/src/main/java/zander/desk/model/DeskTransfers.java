package zander.desk.model;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Supplier;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.ReadOnlyStringProperty;
import javafx.beans.property.ReadOnlyStringWrapper;
import javafx.beans.property.SimpleObjectProperty;
import zander.core.book.MarkedFolder;
import zander.core.change.DeleteTask;
import zander.core.files.RemoteEntry;
import zander.core.files.RemotePath;
import zander.core.files.WireName;
import zander.core.transfer.endpoint.Direction;
import zander.core.transfer.progress.Progress.Phase;
import zander.core.transfer.resume.ResumeLogFile;
import zander.core.transfer.resume.SavedTransfer;
import zander.core.transfer.rules.ConflictRule;
import zander.core.transfer.rules.TransferRules;
import zander.desk.sheet.Question;
import zander.desk.sheet.Sheet;
import zander.desk.transfer.CheckModel;
import zander.desk.transfer.PlanModel;
import zander.desk.transfer.SavedRules;
import zander.desk.transfer.TransferListModel;
import zander.desk.transfer.TransferModel;
import zander.desk.transfer.TransferQueue;
import zander.desk.transfer.TransferRoute;
import zander.desk.work.Message;

/** What goes over the waterline of one desk, by the rules in force in its folder. */
public final class DeskTransfers {
  /** A transfer that took longer is told of when it ends, wherever the person is by then. */
  private static final double LONG_SECONDS = 20;

  private final DeskModel desk;
  private final TransferRoutes routes;

  /** The open ones, this among them. */
  private final Supplier<? extends List<DeskModel>> desks;

  private final SavedRules kept;
  private final Path folder;
  private final ObjectProperty<TransferRules> rules = new SimpleObjectProperty<>(SavedRules.USUAL);
  private final TransferQueue queue = new TransferQueue(this::over);

  /** Set when the desk is closed. */
  private Runnable atTheEnd;

  private final Map<TransferModel, Runnable> then = new HashMap<>();
  private final Map<TransferModel, List<String>> mirrors = new HashMap<>();

  /** The command for after sending up into the folder shown; empty for none. */
  private final ReadOnlyStringWrapper command = new ReadOnlyStringWrapper("");

  /** What is to run after each, as it was chosen when it began. */
  private final Map<TransferModel, String> commands = new HashMap<>();

  /**
   * @param folder where the list of transfers is kept on this computer
   */
  DeskTransfers(
      DeskModel desk, Supplier<? extends List<DeskModel>> desks, SavedRules kept, Path folder) {
    this.desk = desk;
    this.routes = new TransferRoutes(desk);
    this.desks = desks;
    this.kept = kept;
    this.folder = folder;
    desk.subscriptions().on(kept.readProperty(), read -> showRules());
  }

  /** The rules of the folder shown are in force. */
  void showRules() {
    rules.set(kept.of(place()));
    command.set(kept.commandOf(place()));
  }

  public ReadOnlyStringProperty commandProperty() {
    return command.getReadOnlyProperty();
  }

  /** Changes what runs after sending up into the folder shown, from now on and the next time. */
  public void changeCommand(String changed) {
    command.set(changed);
    kept.keepCommand(place(), changed);
  }

  /** The marked folder that the folder shown is in, for which rules are kept. */
  private String place() {
    return place(desk.folder() == null ? null : desk.folder().path());
  }

  private String place(RemotePath at) {
    MarkedFolder in = at == null ? null : desk.partners().nearest(at, marked -> true);
    return desk.entry().name() + ":" + (in == null ? "" : in.path());
  }

  /** Changes the rules for the folder shown, from now on and the next time. */
  public void change(TransferRules changed) {
    rules.set(changed);
    kept.keep(place(), changed);
  }

  private List<String> selectedHere() {
    return desk.local().selection().stream().map(row -> row.node().name()).toList();
  }

  private List<String> selectedThere() {
    return desk.folder().selection().stream().map(row -> row.path().wireName()).toList();
  }

  private boolean nothing(List<String> names, boolean here) {
    if (names.isEmpty()) {
      tell(
          "Nothing is selected " + (here ? "on this computer" : "on the server"),
          "Select files or folders " + (here ? "below" : "above") + " the waterline.");
    }
    return names.isEmpty();
  }

  /** Sends what is selected below the waterline up into the folder shown. */
  public void sendUp() {
    List<String> names = selectedHere();
    if (!nothing(names, true)) {
      begin(routes.up(desk.local().folder(), names), rules.get());
    }
  }

  /** Sends files up that were dropped; those of one folder, which is that of the first. */
  public void sendUp(List<Path> paths) {
    if (paths.isEmpty()) {
      return;
    }
    Path from = paths.get(0).toAbsolutePath().getParent();
    List<String> names =
        paths.stream()
            .filter(path -> path.toAbsolutePath().getParent().equals(from))
            .map(path -> WireName.fromText(path.getFileName().toString()))
            .toList();
    begin(routes.up(from, names), rules.get());
  }

  /** Brings what is selected on the server down into this computer's folder. */
  public void bringDown() {
    List<String> names = selectedThere();
    if (!nothing(names, false)) {
      begin(routes.down(names), rules.get());
    }
  }

  /** Brings named entries of one folder down into one of this computer, by that folder's rules. */
  void bringDown(RemotePath from, Path to, List<String> names) {
    begin(routes.down(from, to, names), kept.of(place(from)));
  }

  /** Copies what is selected into the folder of another desk, the way the person chooses. */
  public void copyTo(DeskModel other) {
    List<String> names = selectedThere();
    if (nothing(names, false)) {
      return;
    }
    TransferRules by = rules.get();
    RemotePath from = desk.folder().path();
    RemotePath to = other.folder().path();
    new ServerToServer(desk, other)
        .choose(
            names,
            whyNotDirect -> {
              TransferRoute route = routes.across(other, from, to, names, whyNotDirect);
              then.put(begin(route, by), () -> other.folder().refresh());
            });
  }

  /** Brings rows down into a folder of their own. */
  void takeOut(List<RemoteEntry> rows, Path into, Runnable arrived) {
    List<String> names = rows.stream().map(row -> row.path().wireName()).toList();
    TransferRoute route = routes.down(desk.folder().path(), into, names);
    TransferModel begun = begin(route, TransferRules.of(ConflictRule.REPLACE));
    then.put(
        begun,
        () -> {
          if (begun.progress().phase() == Phase.DONE && begun.progress().failed() == 0) {
            arrived.run();
          }
        });
  }

  /** Shows what sending up would do, or bringing down when nothing is selected here. */
  public void plan() {
    List<String> here = selectedHere();
    List<String> names = here.isEmpty() ? selectedThere() : here;
    if (nothing(names, true)) {
      return;
    }
    TransferRoute route =
        here.isEmpty() ? routes.down(names) : routes.up(desk.local().folder(), names);
    PlanModel[] shown = new PlanModel[1];
    shown[0] =
        new PlanModel(
            desk,
            route,
            rules.get(),
            (planned, toDelete) -> {
              desk.close(shown[0]);
              TransferModel begun = begin(route, planned);
              if (!toDelete.isEmpty()) {
                mirrors.put(begun, toDelete);
              }
            });
    desk.show(shown[0]);
  }

  /** Compares what is selected with its partner on the other side, by checksum. */
  public void check() {
    List<String> here = selectedHere();
    List<String> names = here.isEmpty() ? selectedThere() : here;
    if (nothing(names, true)) {
      return;
    }
    TransferRoute route =
        here.isEmpty() ? routes.down(names) : routes.up(desk.local().folder(), names);
    desk.show(new CheckModel(desk, route, rules.get().leaveOut()));
  }

  /** Shows the list of transfers; one sheet is enough. */
  public void openList() {
    for (Sheet sheet : desk.sheets()) {
      if (sheet instanceof TransferListModel list) {
        list.readBefore();
        desk.currentProperty().set(list);
        return;
      }
    }
    TransferListModel list =
        new TransferListModel(desk, desk.entry().name(), queue, folder, this::goOn);
    desk.folder().pinned().forEach(list::pin);
    desk.show(list);
  }

  /** Tries those at the top again in which something failed; what is there is the same by now. */
  public void retry(TransferModel failed) {
    List<String> names =
        failed.progress().problems().stream()
            .filter(problem -> !problem.arrived() && !problem.top().isEmpty())
            .map(problem -> problem.top())
            .distinct()
            .toList();
    TransferRoute route = names.isEmpty() ? failed.route() : failed.route().names(names);
    begin(route, failed.rules().whenExists(ConflictRule.DIFFERENT));
  }

  /** Goes on with what an earlier run of the program left. */
  private void goOn(ResumeLogFile left) {
    SavedTransfer saved = left.transfer();
    if (saved.direction() != Direction.ACROSS) {
      goOn(left, routes.saved(saved));
      return;
    }
    DeskModel other = routes.otherOf(saved, desks.get());
    if (other == null) {
      tell(
          "This transfer went to another server: " + saved.to(),
          "Open that server's desk too, then continue here.");
      return;
    }
    new ServerToServer(desk, other)
        .choose(
            saved.names(),
            whyNotDirect -> goOn(left, routes.savedAcross(saved, other, whyNotDirect)));
  }

  private void goOn(ResumeLogFile left, TransferRoute route) {
    desk.background()
        .run(
            () -> ResumeLogFile.read(left.file()),
            read -> begin(route, left.transfer().rules().rules(), read),
            failure -> tell("The saved transfer cannot be read", failure.getMessage()));
  }

  private void tell(String headline, String detail) {
    desk.currentProperty().set(desk.folder());
    desk.folder()
        .ask(Question.notice(new Message(headline, detail), false, desk.folder().dismiss()));
  }

  private TransferModel begin(TransferRoute route, TransferRules by) {
    return begin(route, by, null);
  }

  private TransferModel begin(TransferRoute route, TransferRules by, ResumeLogFile before) {
    TransferModel made =
        new TransferModel(
            desk.background(),
            route,
            by,
            folder,
            before,
            desk.entry().name(),
            () -> desk.line().awaitBack());
    made.questionProperty().addListener((observed, old, now) -> moveQuestion(old, now));
    if (route.direction() == Direction.SEND_UP) {
      commands.put(made, kept.commandOf(place(RemotePath.of(route.to()))));
    }
    queue.add(made);
    return made;
  }

  /**
   * A transfer's question stands in the folder and in the list until it is answered in one of them;
   * a sheet that somebody works in is not taken from the front for it.
   */
  private void moveQuestion(Question old, Question now) {
    List<Sheet> where = new ArrayList<>(List.of(desk.folder()));
    desk.sheets().stream().filter(TransferListModel.class::isInstance).forEach(where::add);
    for (Sheet sheet : where) {
      if (old != null) {
        sheet.unpin(old);
      }
      if (now != null) {
        sheet.pin(now);
      }
    }
  }

  /** How many wait for an answer. */
  public long asking() {
    return queue.all().stream().filter(TransferModel::isAsking).count();
  }

  /** Brings the first question to the front. */
  public void answer() {
    if (asking() > 0) {
      desk.currentProperty().set(desk.folder());
    } else {
      tell("Nothing asks", "No transfer of this server waits for an answer.");
    }
  }

  /**
   * The desk is closed: what runs is stopped, each file whole.
   *
   * @param then run once nothing runs any more
   */
  void end(Runnable then) {
    atTheEnd = then;
    queue.all().stream().filter(one -> !one.isOver()).forEach(TransferModel::stop);
    endWhenIdle();
  }

  private void endWhenIdle() {
    if (!queue.isBusy()) {
      Runnable last = atTheEnd;
      atTheEnd = () -> {};
      last.run();
    }
  }

  private void over(TransferModel transfer) {
    if (atTheEnd != null) {
      endWhenIdle();
      return;
    }
    if (!desk.line().awayProperty().get()) {
      desk.folder().refresh();
      desk.changed(List.of());
    }
    desk.local().refresh();
    Runnable next = then.remove(transfer);
    if (next != null) {
      next.run();
    }
    List<String> toDelete = mirrors.remove(transfer);
    boolean whole = transfer.progress().phase() == Phase.DONE && transfer.progress().failed() == 0;
    if (toDelete != null && whole) {
      deleteForMirror(transfer, toDelete);
    }
    showProblems(transfer);
    String after = commands.remove(transfer);
    if (after != null && !after.isEmpty() && whole) {
      new AfterUpload(desk).run(after, RemotePath.of(transfer.route().to()));
    }
    desk.checkLine();
  }

  /** What the plan showed as only there goes, as any deletion does: held, and in the journal. */
  private void deleteForMirror(TransferModel transfer, List<String> paths) {
    if (transfer.direction() != Direction.SEND_UP) {
      Path base = Path.of(transfer.route().to());
      desk.background()
          .run(
              () -> {
                for (String path : paths) {
                  desk.local().trash().put(base.resolve(WireName.toText(path)));
                }
                return true;
              },
              done -> desk.local().refresh(),
              failure -> tell("Not all could be deleted", String.valueOf(failure.getMessage())));
      return;
    }
    RemotePath base = RemotePath.of(transfer.route().to());
    List<RemotePath> there =
        paths.stream().map(path -> RemotePath.ofWire(base.wire() + "/" + path)).toList();
    desk.background()
        .run(
            () -> {
              new DeleteTask(desk.files(), desk.commands(), desk.journal(), desk.home())
                  .hold(there);
              return true;
            },
            done -> desk.changed(there),
            failure -> tell("Not all could be deleted", String.valueOf(failure.getMessage())));
  }

  private void showProblems(TransferModel over) {
    var problems = over.progress().problems();
    if (problems.isEmpty()) {
      if (over.seconds() > LONG_SECONDS && desk.currentProperty().get() != desk.folder()) {
        desk.folder()
            .ask(
                Question.notice(
                    new Message(over.words().line(), ""), false, desk.folder().dismiss()));
      }
      return;
    }
    StringBuilder list = new StringBuilder();
    problems.stream()
        .limit(6)
        .forEach(p -> list.append(p.path()).append(": ").append(p.why()).append('\n'));
    if (problems.size() > 6) {
      list.append("and ").append(problems.size() - 6).append(" more, in the list of transfers");
    }
    desk.folder()
        .ask(
            Question.notice(
                new Message(over.words().line(), list.toString().strip()),
                true,
                desk.folder().dismiss()));
  }

  /** Stops the one that the waterline shows. */
  public void stop() {
    if (current() != null) {
      current().stop();
    }
  }

  /** Holds the one that the waterline shows, or lets it go on. */
  public void pause() {
    if (current() != null && !current().isOver()) {
      current().pause(!current().isPaused());
    }
  }

  /** The rules for transfers begun from now on. */
  public ObjectProperty<TransferRules> rulesProperty() {
    return rules;
  }

  public TransferQueue queue() {
    return queue;
  }

  /** The one that the waterline shows; {@code null} before the first. */
  public TransferModel current() {
    return queue.shown();
  }
}
