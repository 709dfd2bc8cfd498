package zander.desk.waterline;

import static java.util.Objects.requireNonNull;

import java.io.IOException;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.concurrent.CancellationException;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import zander.core.change.rights.PlanGroup;
import zander.core.change.rights.PlanGroup.Fate;
import zander.core.change.rights.TreeOutcome;
import zander.core.change.rights.TreePlan;
import zander.core.change.rights.TreePlanner;
import zander.core.change.rights.TreeRightsTask;
import zander.core.change.rights.look.TreeRoots;
import zander.core.files.RemotePath;
import zander.core.kept.KeptFolder;
import zander.core.kept.KeptWish;
import zander.core.rights.AccessList.Asker;
import zander.core.rights.Mode;
import zander.core.rights.ModeRule;
import zander.core.rights.RightsWish;
import zander.core.rights.TreeRights;
import zander.core.transfer.rules.KeptModes;
import zander.core.transfer.rules.TransferRules.Modes;
import zander.desk.folder.FolderModel;
import zander.desk.folder.action.FolderTask;
import zander.desk.sheet.OpenDesk;
import zander.desk.sheet.Question;
import zander.desk.sheet.Texts;
import zander.desk.transfer.TransferModel;
import zander.desk.words.Words;
import zander.desk.work.FailureWords;
import zander.desk.work.Message;

/**
 * What arrives in a folder that keeps rights: it gets its modes as it arrives where the rules of
 * the transfer say so, and owner and group afterwards; what differs then is told.
 */
final class KeptArrival implements KeptModes {
  private static final Words WORDS = Words.of(KeptArrival.class);

  /** Of more names, the others are not set afterwards, and told where they differ. */
  private static final int MOST = 200_000;

  private final OpenDesk desk;
  private final FolderModel folder;
  private final TransferModel transfer;
  private final KeptFolder keeper;
  private final @Nullable KeptWish wish;
  private final String base;

  /** What is sent, by its path over there; filled where its modes are asked for. */
  private final Set<String> arrived = ConcurrentHashMap.newKeySet();

  private KeptArrival(
      OpenDesk desk, FolderModel folder, TransferModel transfer, KeptFolder keeper) {
    this.desk = desk;
    this.folder = folder;
    this.transfer = transfer;
    this.keeper = keeper;
    this.wish = desk.marked().wish(desk.files().names());
    RemotePath to = RemotePath.of(transfer.route().to());
    this.base = to.isRoot() ? "" : to.wire();
  }

  /** {@code null} where nothing is kept. */
  static @Nullable KeptArrival of(OpenDesk desk, FolderModel folder, TransferModel transfer) {
    KeptFolder keeper = desk.marked().keeperOf(RemotePath.of(transfer.route().to()));
    return keeper == null ? null : new KeptArrival(desk, folder, transfer, keeper);
  }

  @Override
  public Mode of(String to, Mode from, boolean isFolder) {
    String path = base + "/" + to;
    if (arrived.size() < MOST) {
      arrived.add(path);
    }
    TreeRights said = wish == null ? null : wish.of(path, isFolder);
    ModeRule rule = said == null ? null : isFolder ? said.folders() : said.files();
    return rule == null ? from : rule.apply(from, isFolder);
  }

  private record Looked(TreePlan plan, @Nullable TreeOutcome set) {}

  /**
   * Looks at what arrived, and sets what is safe to set where that was asked for.
   *
   * @param then run afterwards, whatever came of it
   */
  void look(Runnable then) {
    if (transfer.progress().files() == 0) {
      then.run();
      return;
    }
    boolean sets = transfer.rules().modes() == Modes.KEPT;
    new FolderTask(folder, WORDS.say("lookingAtTheRights"))
        .runQuietly(
            task -> looked(sets, task),
            looked -> {
              tell(looked);
              then.run();
            },
            failure -> {
              if (!(failure instanceof CancellationException)) {
                folder.tellFailure(
                    new Message(WORDS.say("theRightsOfWhat"), FailureWords.of(failure).headline()));
                desk.checkLine();
              }
              then.run();
            });
  }

  private Looked looked(boolean sets, FolderTask task) throws IOException {
    RightsWish kept = requireNonNull(wish, "something is kept");
    if (!sets) {
      return new Looked(plan(kept, task), null);
    }
    TreePlan sent = plan((path, is) -> arrived.contains(path) ? kept.of(path, is) : null, task);
    Set<PlanGroup> safe = safe(sent);
    return new Looked(sent, safe.isEmpty() ? null : set(sent, safe, task));
  }

  private List<RemotePath> tops() {
    RemotePath to = RemotePath.of(transfer.route().to());
    return transfer.route().names().stream().map(to::child).toList();
  }

  private TreePlan plan(RightsWish of, FolderTask task) throws IOException {
    Asker by = new Asker(desk.whoAmI().uid(), new HashSet<>(desk.whoAmI().gids()));
    return new TreePlanner(desk.files(), desk.commands())
        .plan(
            TreeRoots.of(tops()),
            of,
            by,
            false,
            seen -> task.tell(Texts.count(seen, "entry")),
            task.stop());
  }

  private static Set<PlanGroup> safe(TreePlan plan) {
    return plan.groups().stream()
        .filter(group -> group.fate() == Fate.CHANGED && group.danger() == null)
        .collect(Collectors.toSet());
  }

  private TreeOutcome set(TreePlan plan, Set<PlanGroup> safe, FolderTask task) throws IOException {
    return new TreeRightsTask(desk.files(), desk.commands(), desk.journal())
        .run(
            plan.choose(safe, Set.of()),
            (done, all) -> task.tell(WORDS.say("settingOf", Texts.count(done), Texts.count(all))),
            task.stop());
  }

  private void tell(Looked looked) {
    long differ =
        looked.plan.groups().stream()
            .filter(group -> group.fate() == Fate.CHANGED || group.fate() == Fate.NOT_ALLOWED)
            .mapToLong(PlanGroup::count)
            .sum();
    long set = looked.set == null ? 0 : looked.set.set();
    if (set > 0) {
      desk.changed(tops());
      folder.refresh();
    }
    if (differ <= set) {
      return;
    }
    String keeps = keeper.path().isRoot() ? keeper.path().text() : keeper.path().name();
    Question.Choice look =
        new Question.Choice(
            WORDS.say("lookWhatDiffers"),
            ticked -> {
              folder.dismissQuestion();
              desk.marked().showDifferences(tops());
            });
    folder.ask(
        Question.notice(
            new Message(
                WORDS.say(
                    "belowWhatWasSent",
                    Texts.count(differ - set, "entry"),
                    differ - set == 1 ? WORDS.say("has") : WORDS.say("have"),
                    keeps),
                ""),
            false,
            look,
            folder.dismiss()));
  }
}
