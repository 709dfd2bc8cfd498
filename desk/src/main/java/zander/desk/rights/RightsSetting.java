package zander.desk.rights;

import static java.util.Objects.requireNonNull;

import java.io.IOException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.OptionalInt;
import java.util.function.Consumer;
import zander.core.change.RightsChange;
import zander.core.files.RemoteFailure;
import zander.core.files.RemotePath;
import zander.core.rights.Mode;
import zander.core.work.Cancellation;
import zander.desk.folder.FolderModel;
import zander.desk.folder.action.AsRoot;
import zander.desk.sheet.OpenDesk;
import zander.desk.sheet.Texts;
import zander.desk.words.Words;
import zander.desk.work.FailureWords;

/**
 * Rights that are to be set.
 *
 * @param each the mode of each entry
 * @param uid the owner of all; empty to leave it
 * @param gid the group of all; empty to leave it
 */
record RightsSetting(Map<RemotePath, Mode> each, OptionalInt uid, OptionalInt gid) {
  private static final Words WORDS = Words.of(RightsSetting.class);

  /** Between two words of how far it is, in nanoseconds. */
  private static final long PACE = 200_000_000;

  /**
   * Sets them, one after the other; waits.
   *
   * @param progress told how far it is, now and then
   */
  List<RightsChange.Result> on(OpenDesk desk, Cancellation stop, Consumer<String> progress)
      throws IOException {
    RightsChange single = new RightsChange(desk.files(), desk.journal());
    RightsChange change = each.size() == 1 ? single : single.asOne();
    List<RightsChange.Result> results = new ArrayList<>();
    long told = System.nanoTime();
    for (Map.Entry<RemotePath, Mode> one : each.entrySet()) {
      if (stop.isStopped()) {
        break;
      }
      results.addAll(
          change.apply(List.of(one.getKey()), uid, gid, (before, folder) -> one.getValue()));
      if (System.nanoTime() - told > PACE) {
        told = System.nanoTime();
        progress.accept(
            WORDS.say("settingOf", Texts.count(results.size()), Texts.count(each.size())));
      }
    }
    return results;
  }

  /** What the account may not set, root may: the very same, on those that were refused. */
  void offerRoot(OpenDesk desk, FolderModel folder, List<RightsChange.Result> results) {
    Map<RemotePath, Mode> refused = new LinkedHashMap<>();
    RemoteFailure why = null;
    for (RightsChange.Result result : results) {
      if (result.failure() != null) {
        why = why == null ? result.failure() : why;
        refused.put(result.path(), each.get(result.path()));
      }
    }
    if (why != null && desk.mayRootHelp(why)) {
      RightsSetting rest = new RightsSetting(refused, uid, gid);
      desk.openSheets()
          .front()
          .tellFailure(why, desk, AsRoot.goOn(folder, root -> rest.setAsRoot(root.desk(), desk)));
    }
  }

  private void setAsRoot(OpenDesk root, OpenDesk own) {
    root.background()
        .run(
            () -> on(root, new Cancellation(), soFar -> {}),
            results -> {
              List<RemotePath> paths = List.copyOf(each.keySet());
              root.changed(paths);
              own.changed(paths);
              results.stream()
                  .map(RightsChange.Result::failure)
                  .filter(Objects::nonNull)
                  .findFirst()
                  .ifPresent(failure -> tell(root, failure));
            },
            failure -> tell(root, failure));
  }

  private static void tell(OpenDesk root, Throwable failure) {
    root.openSheets().front().tellFailure(FailureWords.of(failure));
  }

  /**
   * What became of it, where nothing failed.
   *
   * @param set how many were set; fewer than all where it was stopped
   */
  static String words(int set, int all) {
    return set == all
        ? WORDS.say("setAndReadBack", set == 1 ? "" : WORDS.say("all", set))
        : WORDS.say("stoppedOfAreSet", Texts.count(set), Texts.count(all));
  }

  /** How many were not set, and why the first was not. */
  static String notSet(List<RightsChange.Result> failed, int of) {
    String why = FailureWords.of(requireNonNull(failed.get(0).failure())).headline();
    return WORDS.say("ofNotSet", failed.size(), of, why);
  }
}
