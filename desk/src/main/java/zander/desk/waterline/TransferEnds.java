package zander.desk.waterline;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;
import zander.core.files.RemotePath;
import zander.core.transfer.endpoint.Direction;
import zander.core.transfer.progress.Progress.Phase;
import zander.core.transfer.progress.Progress.Problem;
import zander.desk.folder.FolderModel;
import zander.desk.local.LocalModel;
import zander.desk.sheet.OpenDesk;
import zander.desk.transfer.TransferModel;
import zander.desk.words.Phrases;
import zander.desk.words.Words;
import zander.desk.work.Message;

/**
 * What is done when a transfer is over: what it left out of a mirror is deleted, the folder's
 * command runs, and what went wrong is told.
 */
final class TransferEnds {
  private static final Words WORDS = Words.of(TransferEnds.class);

  /** A transfer that took longer is told of when it ends, wherever the person is by then. */
  private static final double LONG_SECONDS = 20;

  /** Problems that are told in the folder; all are in the list of transfers. */
  private static final int MOST_TOLD = 6;

  private final OpenDesk desk;
  private final FolderModel folder;
  private final LocalModel local;
  private final Consumer<TransferModel> asRoot;
  private final Map<TransferModel, FollowUp> followUps = new HashMap<>();

  /** What was asked for when a transfer began, to be done after it. */
  private static final class FollowUp {
    private final List<Runnable> then = new ArrayList<>();
    private List<String> toDelete = List.of();
    private String command = "";
    private @Nullable KeptArrival arrival;
  }

  /**
   * @param asRoot tries what failed again as root
   */
  TransferEnds(
      OpenDesk desk, FolderModel folder, LocalModel local, Consumer<TransferModel> asRoot) {
    this.asRoot = asRoot;
    this.desk = desk;
    this.folder = folder;
    this.local = local;
  }

  private FollowUp of(TransferModel transfer) {
    return followUps.computeIfAbsent(transfer, made -> new FollowUp());
  }

  /** Runs something, however the transfer ended. */
  void then(TransferModel transfer, Runnable next) {
    of(transfer).then.add(next);
  }

  /** Runs something if all arrived. */
  void whenAllArrived(TransferModel transfer, Runnable next) {
    then(
        transfer,
        () -> {
          if (isWhole(transfer)) {
            next.run();
          }
        });
  }

  /**
   * Makes a mirror of the target.
   *
   * @param toDelete what only the target has, relative to it, in wire form
   */
  void mirror(TransferModel transfer, List<String> toDelete) {
    of(transfer).toDelete = toDelete;
  }

  /** Runs a command in the folder it was sent to. */
  void command(TransferModel transfer, String command) {
    of(transfer).command = command;
  }

  /** What arrives has the rights that its folder keeps, or it is told what has not. */
  void keep(TransferModel transfer) {
    KeptArrival arrival = KeptArrival.of(desk, folder, transfer);
    if (arrival != null) {
      transfer.keepModes(arrival);
      of(transfer).arrival = arrival;
    }
  }

  private static boolean isWhole(TransferModel transfer) {
    return transfer.progress().phase() == Phase.DONE && transfer.progress().failed() == 0;
  }

  void over(TransferModel transfer) {
    FollowUp next = of(transfer);
    followUps.remove(transfer);
    next.then.forEach(Runnable::run);
    if (next.arrival != null && transfer.progress().phase() == Phase.DONE) {
      // Before a command runs that needs what arrived as it is to be.
      next.arrival.look(() -> rest(transfer, next));
    } else {
      rest(transfer, next);
    }
  }

  private void rest(TransferModel transfer, FollowUp next) {
    boolean whole = isWhole(transfer);
    if (!next.toDelete.isEmpty() && whole) {
      new MirrorDeletion(desk, folder, local).run(transfer, next.toDelete);
    }
    showProblems(transfer);
    if (!next.command.isEmpty() && whole) {
      new AfterUpload(desk, folder).run(next.command, RemotePath.of(transfer.route().to()));
    }
  }

  private void showProblems(TransferModel over) {
    var problems = over.progress().problems();
    if (problems.isEmpty()) {
      if (over.seconds() > LONG_SECONDS && desk.openSheets().front() != folder) {
        folder.tell(new Message(over.words().line(), ""));
      }
      return;
    }
    StringBuilder list = new StringBuilder();
    problems.stream()
        .limit(MOST_TOLD)
        .forEach(p -> list.append(p.path()).append(": ").append(Phrases.say(p.why())).append('\n'));
    if (problems.size() > MOST_TOLD) {
      list.append(WORDS.say("and"))
          .append(problems.size() - MOST_TOLD)
          .append(WORDS.say("moreInTheList"));
    }
    Message said = new Message(over.words().line(), list.toString().strip());
    boolean rootMayHelp =
        desk.mayActAsRoot()
            && over.direction() != Direction.ACROSS
            && problems.stream().anyMatch(Problem::denied);
    if (rootMayHelp) {
      folder.tellFailureOrAsRoot(said, () -> asRoot.accept(over));
    } else {
      folder.tellFailure(said);
    }
  }
}
