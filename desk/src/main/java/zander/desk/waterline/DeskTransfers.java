package zander.desk.waterline;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;
import zander.core.files.RemoteEntry;
import zander.core.files.RemotePath;
import zander.core.files.WireName;
import zander.core.transfer.endpoint.Direction;
import zander.core.transfer.resume.ResumeFolder;
import zander.core.transfer.resume.ResumeLogFile;
import zander.core.transfer.resume.SavedTransfer;
import zander.core.transfer.rules.ConflictRule;
import zander.core.transfer.rules.TransferRules;
import zander.desk.folder.FolderModel;
import zander.desk.line.DeskServer;
import zander.desk.local.LocalModel;
import zander.desk.sheet.OpenDesk;
import zander.desk.sheet.Question;
import zander.desk.sheet.Sheet;
import zander.desk.transfer.CheckModel;
import zander.desk.transfer.PlanModel;
import zander.desk.transfer.SavedRules;
import zander.desk.transfer.TransferListModel;
import zander.desk.transfer.TransferModel;
import zander.desk.transfer.TransferQueue;
import zander.desk.transfer.TransferRoute;
import zander.desk.words.Phrases;
import zander.desk.words.Words;
import zander.desk.work.Message;

/** What goes over the waterline of one desk, by the rules in force in its folder. */
public final class DeskTransfers {
  private static final Words WORDS = Words.of(DeskTransfers.class);

  private final OpenDesk desk;
  private final DeskServer server;
  private final FolderModel folder;
  private final LocalModel local;
  private final TransferRoutes routes;
  private final Partners partners;
  private final FolderRules rules;
  private final TransferEnds ends;

  /** Those of all open desks, this among them. */
  private final Supplier<? extends List<DeskTransfers>> all;

  /** Where the list of transfers is kept on this computer. */
  private final ResumeFolder kept;

  private final TransferQueue queue = new TransferQueue(this::over);

  /** Set when the desk is closed. */
  private @Nullable Runnable atTheEnd;

  /**
   * What transfers are kept in.
   *
   * @param rules of the marked folders of all servers
   * @param folder where the list of transfers is kept on this computer
   * @param all the transfers of all open desks
   */
  public record Kept(
      SavedRules rules, ResumeFolder folder, Supplier<? extends List<DeskTransfers>> all) {}

  public DeskTransfers(
      OpenDesk desk, DeskServer server, FolderModel folder, LocalModel local, Kept kept) {
    this.desk = desk;
    this.server = server;
    this.folder = folder;
    this.local = local;
    this.routes = new TransferRoutes(server, folder, local);
    this.partners = new Partners(server.entry().folders(), server.personHome());
    this.rules = new FolderRules(server.name(), partners, folder, kept.rules());
    this.ends = new TransferEnds(desk, folder, local, this::retryAsRoot);
    this.all = kept.all();
    this.kept = kept.folder();
    desk.subscriptions().on(kept.rules().readProperty(), read -> rules.show());
  }

  /** The rules for the folder shown. */
  public FolderRules rules() {
    return rules;
  }

  private List<String> selectedHere() {
    return local.selection().stream().map(row -> row.node().name()).toList();
  }

  private List<String> selectedThere() {
    return folder.selection().stream().map(row -> row.path().wireName()).toList();
  }

  private boolean nothing(List<String> names, boolean here) {
    if (names.isEmpty()) {
      tell(
          WORDS.say(
              "nothingIsSelected", here ? WORDS.say("onThisComputer") : WORDS.say("onTheServer")),
          WORDS.say("selectFilesOrFolders", here ? WORDS.say("below") : WORDS.say("above")));
    }
    return names.isEmpty();
  }

  /** Sends what is selected below the waterline up into the folder shown. */
  public void sendUp() {
    List<String> names = selectedHere();
    if (!nothing(names, true)) {
      begin(routes.up(local.folder(), names), rules.now());
    }
  }

  /** Sends files up that were dropped; those of one folder, which is that of the first. */
  public void sendUp(List<Path> paths) {
    Path from = paths.isEmpty() ? null : paths.get(0).toAbsolutePath().getParent();
    if (from == null) {
      return;
    }
    List<String> names =
        paths.stream()
            .filter(path -> from.equals(path.toAbsolutePath().getParent()))
            .map(path -> WireName.fromText(path.getFileName().toString()))
            .toList();
    begin(routes.up(from, names), rules.now());
  }

  /** Brings what is selected on the server down into this computer's folder. */
  public void bringDown() {
    List<String> names = selectedThere();
    if (!nothing(names, false)) {
      begin(routes.down(names), rules.now());
    }
  }

  /** Brings one file down into this computer's folder, by its own folder's rules. */
  public void bringDown(RemotePath file) {
    bringDown(file.parent(), local.folder(), List.of(file.wireName()));
  }

  /** Brings named entries of one folder down into one of this computer, by that folder's rules. */
  public void bringDown(RemotePath from, Path to, List<String> names) {
    begin(routes.down(from, to, names), rules.of(from));
  }

  /**
   * Brings the open file, as it is on the server, down to where it belongs here; where that is not
   * known, it is told.
   */
  public void bringDownToPartner(RemotePath file) {
    RemotePath from = file.parent();
    Path to = partners.of(from);
    if (to == null) {
      tell(WORDS.say("hasNoPlaceOn", file.name()), WORDS.say("noMarkedFolderAbove"));
      return;
    }
    desk.background()
        .run(
            () -> Files.createDirectories(to),
            made -> bringDown(from, to, List.of(file.wireName())),
            failure -> desk.checkLine());
  }

  /** The folder here that goes with one of the server; {@code null} for none. */
  public @Nullable Path partnerOf(RemotePath there) {
    return partners.of(there);
  }

  /** Copies what is selected into the folder of another desk, the way the person chooses. */
  public void copyTo(DeskTransfers other) {
    List<String> names = selectedThere();
    if (nothing(names, false)) {
      return;
    }
    TransferRules by = rules.now();
    RemotePath from = folder.path();
    RemotePath to = other.folder.path();
    new ServerToServer(desk, server, other.server)
        .choose(
            names,
            whyNotDirect -> {
              TransferRoute route = routes.across(other.server, from, to, names, whyNotDirect);
              ends.then(begin(route, by), () -> other.folder.refresh());
            });
  }

  /** Brings rows down into a folder of their own. */
  void takeOut(List<RemoteEntry> rows, Path into, Runnable arrived) {
    List<String> names = rows.stream().map(row -> row.path().wireName()).toList();
    TransferRoute route = routes.down(folder.path(), into, names);
    ends.whenAllArrived(begin(route, TransferRules.of(ConflictRule.REPLACE)), arrived);
  }

  /** Shows what sending up would do, or bringing down when nothing is selected here. */
  public void plan() {
    List<String> here = selectedHere();
    List<String> names = here.isEmpty() ? selectedThere() : here;
    if (nothing(names, true)) {
      return;
    }
    TransferRoute route = here.isEmpty() ? routes.down(names) : routes.up(local.folder(), names);
    PlanModel[] shown = new PlanModel[1];
    shown[0] =
        new PlanModel(
            desk,
            route,
            rules.now(),
            (planned, toDelete) -> {
              desk.openSheets().close(shown[0]);
              TransferModel begun = begin(route, planned);
              ends.mirror(begun, toDelete);
            });
    desk.openSheets().show(shown[0]);
  }

  /** Compares what is selected with its partner on the other side, by checksum. */
  public void check() {
    List<String> here = selectedHere();
    List<String> names = here.isEmpty() ? selectedThere() : here;
    if (nothing(names, true)) {
      return;
    }
    TransferRoute route = here.isEmpty() ? routes.down(names) : routes.up(local.folder(), names);
    desk.openSheets().show(new CheckModel(desk, route, rules.now().leaveOut()));
  }

  /** Shows the list of transfers; one sheet is enough. */
  public void openList() {
    Optional<TransferListModel> open = desk.openSheets().bringToFront(TransferListModel.class);
    if (open.isPresent()) {
      open.get().readBefore();
      return;
    }
    TransferListModel list = new TransferListModel(desk, server.name(), queue, kept, this::goOn);
    folder.pinned().forEach(list::pin);
    desk.openSheets().show(list);
  }

  /** Tries those at the top again in which something failed; what is there is the same by now. */
  public void retry(TransferModel failed) {
    begin(failed.routeOfFailed(), failed.rules().whenExists(ConflictRule.DIFFERENT));
  }

  /** The same over the desk of root. */
  private void retryAsRoot(TransferModel failed) {
    TransferRoute route = failed.routeOfFailed();
    boolean up = route.direction() == Direction.SEND_UP;
    desk.actAsRoot(
        RemotePath.of(up ? route.to() : route.from()),
        root ->
            all.get().stream()
                .filter(transfers -> transfers.desk == root)
                .forEach(
                    transfers ->
                        transfers.begin(
                            transfers.routes.like(route),
                            failed.rules().whenExists(ConflictRule.DIFFERENT))));
  }

  /** Goes on with what an earlier run of the program left. */
  private void goOn(ResumeLogFile left) {
    SavedTransfer saved = left.transfer();
    if (saved.direction() != Direction.ACROSS) {
      goOn(left, routes.saved(saved));
      return;
    }
    DeskServer other =
        routes.otherOf(saved, all.get().stream().map(transfers -> transfers.server).toList());
    if (other == null) {
      tell(WORDS.say("thisTransferWentTo", saved.to()), WORDS.say("openThatServersDesk"));
      return;
    }
    new ServerToServer(desk, server, other)
        .choose(
            saved.names(),
            whyNotDirect -> goOn(left, routes.savedAcross(saved, other, whyNotDirect)));
  }

  private void goOn(ResumeLogFile left, TransferRoute route) {
    desk.background()
        .run(
            () -> kept.read(left.file(), true),
            read -> begin(route, left.transfer().rules().rules(), read),
            failure -> tell(WORDS.say("theSavedTransferCannot"), Phrases.of(failure)));
  }

  private void tell(String headline, String detail) {
    desk.openSheets().frontProperty().set(folder);
    folder.tell(new Message(headline, detail));
  }

  private TransferModel begin(TransferRoute route, TransferRules by) {
    return begin(route, by, null);
  }

  private TransferModel begin(
      TransferRoute route, TransferRules by, @Nullable ResumeLogFile before) {
    TransferModel made =
        new TransferModel(
            new TransferModel.Host(
                desk.background(), server.name(), kept, () -> server.line().awaitBack()),
            route,
            by,
            before);
    made.questionProperty().addListener((observed, old, now) -> moveQuestion(old, now));
    if (route.direction() == Direction.SEND_UP) {
      ends.command(made, rules.commandOf(RemotePath.of(route.to())));
      ends.keep(made);
    }
    queue.add(made);
    return made;
  }

  /**
   * A transfer's question stands in the folder and in the list until it is answered in one of them;
   * a sheet that somebody works in is not taken from the front for it.
   */
  private void moveQuestion(Question old, Question now) {
    List<Sheet> where = new ArrayList<>(List.of(folder));
    where.addAll(desk.openSheets().of(TransferListModel.class));
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
      desk.openSheets().frontProperty().set(folder);
    } else {
      tell(WORDS.say("nothingAsks"), WORDS.say("noTransferOfThis"));
    }
  }

  /** The desk is closed: what runs is stopped, each file whole, and then that is run. */
  public void end(Runnable then) {
    atTheEnd = then;
    queue.all().stream().filter(one -> !one.isOver()).forEach(TransferModel::stop);
    endWhenIdle();
  }

  private void endWhenIdle() {
    Runnable last = atTheEnd;
    if (last != null && !queue.isBusy()) {
      atTheEnd = () -> {};
      last.run();
    }
  }

  private void over(TransferModel transfer) {
    if (atTheEnd != null) {
      endWhenIdle();
      return;
    }
    if (!server.line().awayProperty().get()) {
      folder.refresh();
      desk.changed(List.of());
    }
    local.refresh();
    ends.over(transfer);
    desk.checkLine();
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

  public TransferQueue queue() {
    return queue;
  }

  /** The one that the waterline shows; {@code null} before the first. */
  public @Nullable TransferModel current() {
    return queue.shown();
  }
}
