package zander.desk.waterline;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import zander.core.change.DeleteTask;
import zander.core.files.RemoteFailure;
import zander.core.files.RemotePath;
import zander.core.files.WireName;
import zander.core.transfer.compare.TransferPlan;
import zander.core.transfer.endpoint.Direction;
import zander.core.transfer.endpoint.PartialNames;
import zander.core.work.Cancellation;
import zander.desk.folder.FolderModel;
import zander.desk.local.LocalModel;
import zander.desk.sheet.OpenDesk;
import zander.desk.sheet.Texts;
import zander.desk.transfer.TransferModel;
import zander.desk.words.Words;
import zander.desk.work.FailureWords;
import zander.desk.work.Message;

/**
 * Deletes what only the target of a mirror has: what its plan showed, as far as it is still so once
 * the transfer is over, as any deletion does. What stays is told.
 */
final class MirrorDeletion {
  private static final Words WORDS = Words.of(MirrorDeletion.class);

  private static final int MOST_TOLD = 6;

  private final OpenDesk desk;
  private final FolderModel folder;
  private final LocalModel local;

  MirrorDeletion(OpenDesk desk, FolderModel folder, LocalModel local) {
    this.desk = desk;
    this.folder = folder;
    this.local = local;
  }

  /**
   * What was done.
   *
   * @param tried the paths that were to go, relative to the target
   * @param changed those that the plan showed and that both sides have by now, or none
   * @param failed which of those tried stayed, and why
   */
  private record Outcome(List<String> tried, List<String> changed, List<String> failed) {}

  /**
   * @param planned what the plan showed, relative to the target, in wire form
   */
  void run(TransferModel over, List<String> planned) {
    desk.background().run(() -> delete(over, planned), done -> show(over, done), this::notDeleted);
  }

  private Outcome delete(TransferModel over, List<String> planned) throws IOException {
    Set<String> now = new HashSet<>(onlyThere(over));
    List<String> still = planned.stream().filter(now::contains).toList();
    List<String> changed = planned.stream().filter(path -> !now.contains(path)).toList();
    List<String> failed = new ArrayList<>();
    if (over.direction() == Direction.SEND_UP) {
      hold(RemotePath.of(over.route().to()), still, failed);
    } else {
      trash(Path.of(over.route().to()), still, failed);
    }
    return new Outcome(still, changed, failed);
  }

  /** Looked at again: files were made and taken away while the transfer ran. */
  private static List<String> onlyThere(TransferModel over) throws IOException {
    return new TransferPlan(
            over.route().source().apply(new PartialNames()),
            over.route().target().apply(new PartialNames()),
            over.rules().mirror(true),
            new Cancellation())
        .make(over.route().names(), soFar -> {})
        .toDelete();
  }

  private void hold(RemotePath base, List<String> paths, List<String> failed) throws IOException {
    DeleteTask task = new DeleteTask(desk.files(), desk.commands(), desk.journal(), desk.home());
    for (RemoteFailure failure :
        task.hold(paths.stream().map(path -> under(base, path)).toList())) {
      failed.add(FailureWords.of(failure).headline());
    }
  }

  private static RemotePath under(RemotePath base, String path) {
    return RemotePath.ofWire((base.isRoot() ? "" : base.wire()) + "/" + path);
  }

  private void trash(Path base, List<String> paths, List<String> failed) {
    for (String path : paths) {
      try {
        local.trash().put(base.resolve(WireName.toText(path)));
      } catch (IOException e) {
        failed.add(WireName.toText(path) + ": " + FailureWords.of(e).headline());
      }
    }
  }

  private void show(TransferModel over, Outcome done) {
    if (over.direction() == Direction.SEND_UP) {
      RemotePath base = RemotePath.of(over.route().to());
      desk.changed(done.tried.stream().map(path -> under(base, path)).toList());
    } else {
      local.refresh();
    }
    if (!done.failed.isEmpty()) {
      tell(WORDS.say("notAllThatIs"), done.failed);
    } else if (!done.changed.isEmpty()) {
      tell(
          WORDS.say("ofThePlanChanged", Texts.count(done.changed.size(), "entry")),
          done.changed.stream().map(WireName::toText).toList());
    }
  }

  private void tell(String headline, List<String> lines) {
    String more = lines.size() > MOST_TOLD ? WORDS.say("andMore", lines.size() - MOST_TOLD) : "";
    desk.openSheets().frontProperty().set(folder);
    folder.tellFailure(
        new Message(headline, String.join("\n", lines.stream().limit(MOST_TOLD).toList()) + more));
  }

  private void notDeleted(Throwable failure) {
    tell(WORDS.say("whatIsOnlyThere"), List.of(FailureWords.of(failure).headline()));
    desk.checkLine();
  }
}
