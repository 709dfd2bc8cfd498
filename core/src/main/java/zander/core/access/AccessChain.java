package zander.core.access;

import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import zander.core.access.AccessStep.Cause;
import zander.core.access.PathFacts.Place;
import zander.core.rights.AccessList;
import zander.core.rights.AccessList.Answer;
import zander.core.rights.AccessList.Asker;
import zander.core.rights.AccessList.Decision;
import zander.core.rights.Mode;

/**
 * Whether somebody can do something with an entry, and what decides at each step of the way
 * (path_resolution(7), acl(5)).
 *
 * @param steps from the root on
 * @param byModeAlone whether access control lists may be there that are not seen
 */
public record AccessChain(Asker asker, Deed deed, List<AccessStep> steps, boolean byModeAlone) {
  private static final int CHANGE = 3;
  private static final int ENTER = 1;
  private static final int RUN = 0111;
  private static final int OTHERS_WRITE = 02;

  public AccessChain {
    steps = List.copyOf(steps);
  }

  /** Whether all steps let it through. */
  public Answer answer() {
    if (steps.stream().anyMatch(step -> step.answer() == Answer.NO)) {
      return Answer.NO;
    }
    return steps.stream().anyMatch(step -> step.answer() == Answer.UNKNOWN)
        ? Answer.UNKNOWN
        : Answer.YES;
  }

  /** The first step that stops; {@code null} for none. */
  public @Nullable AccessStep stop() {
    return steps.stream().filter(step -> step.answer() == Answer.NO).findFirst().orElse(null);
  }

  public static AccessChain of(PathFacts facts, Asker asker, Deed deed) {
    List<AccessStep> steps = new ArrayList<>();
    Place goal = deed == Deed.DELETE ? facts.named() : facts.entry();
    Place folder = deed == Deed.DELETE ? facts.folderOf(facts.named()) : null;
    // A link may lead to what it lies in: that is gone through, and then is the goal.
    List<Place> way = facts.way();
    boolean last = deed == Deed.DELETE || way.get(way.size() - 1) == goal;
    for (Place place : last ? way.subList(0, way.indexOf(goal)) : way) {
      if (place != folder) {
        steps.add(onTheWay(facts, place, asker));
      }
    }
    if (deed != Deed.DELETE) {
      itself(steps, goal, asker, deed);
    } else if (folder == null) {
      steps.add(no(goal, CHANGE, Cause.MOUNT_POINT));
    } else {
      removal(steps, folder, goal, asker);
    }
    return new AccessChain(asker, deed, steps, !facts.seesLists());
  }

  private static AccessStep no(Place place, int needs, Cause cause) {
    return new AccessStep(place, needs, Answer.NO, cause, null);
  }

  private static AccessStep onTheWay(PathFacts facts, Place place, Asker asker) {
    if (place.isLink()) {
      return isRefused(facts.folderOf(place), place, asker)
          ? no(place, 0, Cause.GUARDED_LINK)
          : new AccessStep(place, 0, Answer.YES, Cause.LINK, null);
    }
    return byRights(place, asker, ENTER);
  }

  private static boolean isRefused(@Nullable Place folder, Place link, Asker asker) {
    int guarded = Mode.STICKY | OTHERS_WRITE;
    return link.guarded()
        && folder != null
        && folder.is() != null
        && (folder.is().mode().bits() & guarded) == guarded
        && link.is().uid() != asker.uid()
        && link.is().uid() != folder.is().uid();
  }

  private static AccessStep byRights(Place place, Asker asker, int needs) {
    if (place.is() == null) {
      return new AccessStep(place, needs, Answer.UNKNOWN, Cause.UNSEEN, null);
    }
    Decision decision = AccessList.decide(asker, place.rights(), place.list(), needs);
    return new AccessStep(place, needs, decision.answer(), Cause.RIGHTS, decision);
  }

  private static void itself(List<AccessStep> steps, Place goal, Asker asker, Deed deed) {
    int needs = deed.bits(goal.isFolder());
    if (goal.is() == null) {
      steps.add(new AccessStep(goal, needs, Answer.UNKNOWN, Cause.UNSEEN, null));
      return;
    }
    if (deed == Deed.WRITE && goal.isMountedReadOnly()) {
      steps.add(no(goal, needs, Cause.READ_ONLY));
    } else if (deed == Deed.WRITE && goal.isImmutable()) {
      steps.add(no(goal, needs, Cause.IMMUTABLE));
    } else if (deed == Deed.WRITE && goal.isAppendOnly()) {
      steps.add(no(goal, needs, Cause.APPEND_ONLY));
    } else if (deed == Deed.RUN && !goal.isFolder() && goal.isMountedToRunNothing()) {
      steps.add(no(goal, needs, Cause.NOEXEC));
    } else if (deed == Deed.RUN
        && !goal.isFolder()
        && asker.uid() == 0
        && !goal.is().mode().has(RUN)) {
      steps.add(no(goal, needs, Cause.NOBODY_RUNS));
    } else {
      steps.add(byRights(goal, asker, needs));
    }
  }

  private static void removal(List<AccessStep> steps, Place folder, Place goal, Asker asker) {
    if (folder.is() == null || goal.is() == null) {
      steps.add(new AccessStep(folder, CHANGE, Answer.UNKNOWN, Cause.UNSEEN, null));
      return;
    }
    if (folder.isMountedReadOnly()) {
      steps.add(no(folder, CHANGE, Cause.READ_ONLY));
    } else if (folder.isImmutable()) {
      steps.add(no(folder, CHANGE, Cause.IMMUTABLE));
    } else if (folder.isAppendOnly()) {
      steps.add(no(folder, CHANGE, Cause.APPEND_ONLY));
    } else {
      steps.add(byRights(folder, asker, CHANGE));
    }
    if (goal.isImmutable()) {
      steps.add(no(goal, 0, Cause.IMMUTABLE));
    } else if (goal.isAppendOnly()) {
      steps.add(no(goal, 0, Cause.APPEND_ONLY));
    } else if (goal.isMountPoint()) {
      steps.add(no(goal, 0, Cause.MOUNT_POINT));
    } else if (isKeptBySticky(folder, goal, asker)) {
      steps.add(no(goal, 0, Cause.STICKY));
    }
  }

  private static boolean isKeptBySticky(Place folder, Place goal, Asker asker) {
    return folder.is().mode().has(Mode.STICKY)
        && asker.uid() != 0
        && asker.uid() != folder.is().uid()
        && asker.uid() != goal.is().uid();
  }
}
