package zander.core.access;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import zander.core.access.AccessStep.Cause;
import zander.core.access.PathFacts.Place;
import zander.core.rights.AccessList;
import zander.core.rights.AccessList.Answer;
import zander.core.rights.AccessList.Asker;
import zander.core.rights.AccessList.By;
import zander.core.rights.Mode;
import zander.core.rights.Rights;

/** Finds what would let somebody do something: a few ways, each as small as it can be. */
public final class Cures {
  /** No way is longer than its steps and what is changed twice. */
  private static final int MOST_CHANGES = 80;

  private static final int OWNER_SHIFT = 6;
  private static final int GROUP_SHIFT = 3;
  private static final int OWNER_RUN = 0100;

  /** How it may be done where there is a choice. */
  private enum Style {
    /** The entry gets a group that the account is in. */
    GROUP,
    /** What decides now allows it. */
    CLASS,
    /** The account gets an entry of its own in the access control list. */
    ENTRY
  }

  private Cures() {}

  /**
   * @param group the group of the account to be given to entries; -1 for none
   * @return none where it can do it already, where no right would help, and where that is not known
   */
  public static List<Cure> of(PathFacts facts, Asker asker, Deed deed, int group) {
    Map<List<CureChange>, Cure> cures = new LinkedHashMap<>();
    if (AccessChain.of(facts, asker, deed).answer() == Answer.NO) {
      for (Style style : Style.values()) {
        Cure cure = cure(facts, asker, deed, style, group);
        if (cure != null) {
          cures.putIfAbsent(cure.changes(), cure);
        }
      }
    }
    return List.copyOf(cures.values());
  }

  private static @Nullable Cure cure(
      PathFacts facts, Asker asker, Deed deed, Style style, int group) {
    PathFacts now = facts;
    List<CureChange> changes = new ArrayList<>();
    while (changes.size() < MOST_CHANGES) {
      AccessChain chain = AccessChain.of(now, asker, deed);
      AccessStep stop = chain.stop();
      if (stop == null) {
        return chain.answer() == Answer.YES ? new Cure(List.copyOf(changes), now) : null;
      }
      Place changed = changed(stop, asker, style, group, now.seesLists(), changes);
      if (changed == null) {
        return null;
      }
      now = now.with(changed);
    }
    return null;
  }

  /** The place as it would be; {@code null} where this style does not help. */
  private static @Nullable Place changed(
      AccessStep stop,
      Asker asker,
      Style style,
      int group,
      boolean seesLists,
      List<CureChange> changes) {
    Place place = stop.place();
    if (place.is() == null || place.cannotBeChanged()) {
      return null;
    }
    Mode mode = place.is().mode();
    if (stop.cause() == Cause.NOBODY_RUNS) {
      return given(place, place.rights().gid(), new Mode(mode.bits() | OWNER_RUN), changes);
    }
    if (stop.cause() != Cause.RIGHTS) {
      return null;
    }
    int needs = stop.needs();
    By by = Objects.requireNonNull(stop.decision()).by();
    if (by == By.OWNER) {
      return given(
          place, place.rights().gid(), new Mode(mode.bits() | (needs << OWNER_SHIFT)), changes);
    }
    if (style == Style.ENTRY) {
      return seesLists ? entry(place, asker, needs, changes) : null;
    }
    if (place.list() != null) {
      return null;
    }
    if (by == By.GROUP && style == Style.CLASS) {
      return given(
          place, place.rights().gid(), new Mode(mode.bits() | (needs << GROUP_SHIFT)), changes);
    }
    if (by != By.OTHERS) {
      return null;
    }
    if (style == Style.CLASS) {
      return given(place, place.rights().gid(), new Mode(mode.bits() | needs), changes);
    }
    return group < 0 || group == place.rights().gid()
        ? null
        : given(place, group, new Mode(mode.bits() | (needs << GROUP_SHIFT)), changes);
  }

  private static Place given(Place place, int gid, Mode mode, List<CureChange> changes) {
    Rights after = new Rights(place.rights().uid(), gid, mode);
    changes.add(CureChange.ofRights(place.path(), place.isFolder(), place.rights(), after));
    return place.with(after, place.list());
  }

  private static Place entry(Place place, Asker asker, int needs, List<CureChange> changes) {
    AccessList list = AccessList.with(place.list(), place.rights(), asker.uid(), needs);
    changes.add(
        CureChange.ofEntry(
            place.path(), asker.uid(), Objects.requireNonNull(list.users().get(asker.uid()))));
    Rights now = place.rights();
    // The group's bits of the mode are the mask from then on (acl(5)).
    int others = now.mode().bits() & ~(7 << GROUP_SHIFT);
    Mode mode = new Mode(others | (list.mask() << GROUP_SHIFT));
    return place.with(new Rights(now.uid(), now.gid(), mode), list);
  }
}
