package zander.desk.rights;

import java.io.IOException;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.OptionalInt;
import java.util.Set;
import zander.core.access.Cure;
import zander.core.access.CureChange;
import zander.core.access.Cures;
import zander.core.access.Deed;
import zander.core.access.PathFacts;
import zander.core.access.PathFacts.Place;
import zander.core.change.RightsChange;
import zander.core.change.rights.AccessListChange;
import zander.core.files.AccountNames;
import zander.core.files.FileKind;
import zander.core.files.RemoteEntry;
import zander.core.files.RemoteFailure;
import zander.core.files.RemotePath;
import zander.core.rights.AccessList;
import zander.core.rights.AccessList.Answer;
import zander.core.rights.AccessList.Asker;
import zander.core.rights.Rights;
import zander.core.rights.RightsStep;
import zander.core.rights.TreeRights;
import zander.desk.sheet.OpenDesk;

/** What would let an account do something, with its effects; all waits for the server. */
final class AccessCures {
  private static final int READ = 4;

  private static final int ENTER = 1;

  private final OpenDesk desk;

  /** Of a folder that several cures open, it is asked once. */
  private final Map<RemotePath, Long> readable = new HashMap<>();

  AccessCures(OpenDesk desk) {
    this.desk = desk;
  }

  /**
   * A cure as it is offered.
   *
   * @param opened how many other files of folders on the way the account can read then
   * @param mayOwn whether the account of the desk may make it
   */
  record Offered(Cure cure, Cure.Effect effect, long opened, boolean mayOwn) {}

  static Asker asker(AccountNames names, String account) {
    OptionalInt uid = names.uidOf(account);
    return new Asker(uid.orElse(TreeRights.UNKNOWN), names.groupsOf(account));
  }

  /** All accounts that are known, by their names. */
  private static Map<String, Asker> everybody(AccountNames names) {
    Map<String, Asker> all = new HashMap<>();
    names.accounts().forEach(account -> all.put(account, asker(names, account)));
    return all;
  }

  /** The group that bears the account's name, or else any of its groups; -1 for none. */
  private static int groupOf(AccountNames names, String account) {
    Set<Integer> gids = names.groupsOf(account);
    OptionalInt own = names.gidOf(account);
    return own.isPresent() && gids.contains(own.getAsInt())
        ? own.getAsInt()
        : gids.stream().min(Integer::compareUnsigned).orElse(-1);
  }

  List<Offered> find(PathFacts facts, String account, Deed deed) throws IOException {
    AccountNames names = desk.files().names();
    Asker asker = asker(names, account);
    Map<String, Asker> all = everybody(names);
    List<Offered> offered = new java.util.ArrayList<>();
    for (Cure cure : Cures.of(facts, asker, deed, groupOf(names, account))) {
      offered.add(
          new Offered(
              cure, cure.effect(facts, deed, all), opened(cure, facts, asker), mayOwn(cure)));
    }
    return offered;
  }

  private boolean mayOwn(Cure cure) {
    Asker by = new Asker(desk.whoAmI().uid(), new HashSet<>(desk.whoAmI().gids()));
    return cure.changes().stream()
        .allMatch(
            change ->
                change.rights() == null
                    ? by.uid() == 0 || isOwn(cure, change, by)
                    : TreeRights.mayChange(by, change.rights()));
  }

  private static boolean isOwn(Cure cure, CureChange change, Asker by) {
    return placeOf(cure.facts(), change).rights().uid() == by.uid();
  }

  /**
   * How many other files can be read once folders on the way can be entered: by owner and mode, as
   * lists of what is in them are not asked for.
   */
  private long opened(Cure cure, PathFacts facts, Asker asker) throws IOException {
    long opened = 0;
    for (CureChange change : cure.changes()) {
      Place was = placeOf(facts, change);
      boolean enters =
          was.isFolder() && AccessList.may(asker, was.rights(), was.list(), ENTER) != Answer.YES;
      if (enters && !change.path().equals(facts.entry().path())) {
        opened += readable(change.path(), asker, facts.entry().path());
      }
    }
    return opened;
  }

  private static Place placeOf(PathFacts facts, CureChange change) {
    return facts.way().stream()
        .filter(place -> place.path().equals(change.path()))
        .findFirst()
        .orElseThrow();
  }

  private long readable(RemotePath folder, Asker asker, RemotePath except) throws IOException {
    Long known = readable.get(folder);
    if (known != null) {
      return known;
    }
    long count = 0;
    try {
      for (RemoteEntry one : desk.files().list(folder, portion -> {})) {
        var is = one.attributes();
        Rights rights = new Rights(is.uid(), is.gid(), is.mode());
        boolean other = one.kind() == FileKind.FILE && !one.path().equals(except);
        count += other && AccessList.may(asker, rights, null, READ) == Answer.YES ? 1 : 0;
      }
    } catch (RemoteFailure e) {
      if (e.reason() == RemoteFailure.Reason.LINE_LOST) {
        throw e;
      }
    }
    readable.put(folder, count);
    return count;
  }

  /** Makes the changes of a cure, each in the journal. */
  static void carryOut(Cure cure, OpenDesk on) throws IOException {
    RightsChange rights = new RightsChange(on.files(), on.journal()).asOne();
    AccessListChange lists = new AccessListChange(on.files(), on.commands(), on.journal());
    for (CureChange change : cure.changes()) {
      RightsStep step = change.rights();
      if (step == null) {
        lists.allow(change.path(), change.entryUid(), change.entryBits());
        continue;
      }
      Rights after = step.after();
      RightsChange.Result result =
          rights
              .apply(
                  List.of(change.path()),
                  OptionalInt.of(after.uid()),
                  OptionalInt.of(after.gid()),
                  (mode, folder) -> after.mode())
              .get(0);
      if (result.failure() != null) {
        throw result.failure();
      }
    }
  }
}
