package zander.desk.rights;

import static java.util.Objects.requireNonNull;

import java.io.IOException;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.OptionalInt;
import org.jspecify.annotations.Nullable;
import zander.core.access.DefaultList;
import zander.core.access.EntryExtras;
import zander.core.access.NewEntries;
import zander.core.access.PathFacts;
import zander.core.change.rights.AccessListChange;
import zander.core.change.rights.AccessListChange.Entry;
import zander.core.change.rights.AccessListTree;
import zander.core.files.AccountNames;
import zander.core.files.RemotePath;
import zander.core.rights.AccessList;
import zander.core.rights.Rights;
import zander.desk.folder.FolderModel;
import zander.desk.sheet.OpenDesk;
import zander.desk.words.Words;

/**
 * The access list of what is selected, to be seen and changed, and what else its rights depend on.
 * Interface thread only.
 */
public final class AccessListModel {
  private static final Words WORDS = Words.of(AccessListModel.class);

  private static final int MOST_MEMBERS = 8;

  private final OpenDesk desk;
  private final FolderModel folder;
  private final Changes changes;
  private @Nullable PathFacts facts;
  private EntryExtras extras = EntryExtras.NOTHING;
  private String problem = "";

  /** Makes a change off the interface thread, and reads what is so afterwards. */
  interface Changes {
    void make(Change change, RemotePath path);
  }

  /** A change that waits. */
  interface Change {
    void make() throws IOException;
  }

  /**
   * One entry.
   *
   * @param words whose it is, and what it allows
   * @param mayRemove whether it can be removed from here
   */
  public record Row(String words, Entry entry, boolean mayRemove) {}

  AccessListModel(OpenDesk desk, FolderModel folder, Changes changes) {
    this.desk = desk;
    this.folder = folder;
    this.changes = changes;
  }

  /**
   * @param now {@code null} for nothing
   */
  void take(@Nullable PathFacts now, EntryExtras more) {
    facts = now;
    extras = more;
    problem = "";
  }

  private AccountNames names() {
    return desk.files().names();
  }

  /** Whether this account may change the list, as far as it is seen. */
  public boolean mayChange() {
    return facts != null
        && facts.seesLists()
        && facts.entry().is() != null
        && (desk.whoAmI().uid() == 0 || desk.whoAmI().uid() == facts.entry().is().uid());
  }

  /** Whether new entries can be made in it, so that there is a list for those. */
  public boolean isFolder() {
    return facts != null && facts.entry().isFolder();
  }

  /** The entries beyond owner, group and others; none where there is no list. */
  public List<Row> rows() {
    List<Row> rows = new ArrayList<>();
    if (facts == null) {
      return rows;
    }
    AccessList list = facts.entry().list();
    if (list != null) {
      add(rows, list.users(), list.mask(), false, false);
      add(rows, list.groups(), list.mask(), false, true);
    }
    DefaultList defaults = extras.defaults();
    if (defaults != null) {
      int mask = defaults.mask() < 0 ? 7 : defaults.mask();
      add(rows, defaults.users(), mask, true, false);
      add(rows, defaults.groups(), mask, true, true);
    }
    rows.sort(
        Comparator.comparing((Row row) -> row.entry().forNew()).thenComparing(row -> row.words()));
    return rows;
  }

  private void add(
      List<Row> rows, Map<Integer, Integer> entries, int mask, boolean forNew, boolean group) {
    entries.forEach(
        (id, bits) -> {
          String whose = group ? WORDS.say("ofGroup", names().group(id)) : names().user(id);
          String words = AccessWords.entry(whose, bits, mask);
          rows.add(
              new Row((forNew ? "new: " : "") + words, new Entry(forNew, group, id), mayChange()));
        });
  }

  /** What the mask says of what is selected; empty for nothing. */
  public String maskWords() {
    AccessList list = facts == null ? null : facts.entry().list();
    return list == null ? "" : WORDS.say("theMaskLetsThrough", AccessWords.letters(list.mask()));
  }

  /** What else there is to know, a line each. */
  public List<String> more() {
    List<String> lines = new ArrayList<>();
    if (facts == null || facts.entry().is() == null) {
      return lines;
    }
    Rights rights = facts.entry().rights();
    if (isFolder() && (extras.umask() >= 0 || extras.defaults() != null)) {
      lines.add(newEntries(rights));
    }
    List<String> members = names().membersOf(rights.gid());
    if (!members.isEmpty()) {
      boolean many = members.size() > MOST_MEMBERS;
      lines.add(
          WORDS.say(
              "inGroup",
              names().group(rights.gid()),
              String.join(", ", many ? members.subList(0, MOST_MEMBERS) : members),
              many ? WORDS.say("andMore", members.size() - MOST_MEMBERS) : ""));
    }
    if (!extras.capabilities().isEmpty()) {
      lines.add(WORDS.say("runsWithMoreThan", extras.capabilities()));
    }
    String flags = AccessWords.flags(facts.entry().flags());
    if (!flags.isEmpty()) {
      lines.add(WORDS.say("flags", flags));
    }
    if (!extras.label().isEmpty()) {
      lines.add(WORDS.say("sELinuxLabelWhatIts", extras.label()));
    }
    return lines;
  }

  private String newEntries(Rights in) {
    List<Integer> gids = desk.whoAmI().gids();
    NewEntries made =
        NewEntries.of(
            in,
            extras.defaults(),
            Math.max(0, extras.umask()),
            desk.whoAmI().uid(),
            gids.isEmpty() ? in.gid() : gids.get(0));
    String why =
        extras.defaults() != null
            ? WORDS.say("byTheFoldersList")
            : String.format(java.util.Locale.ROOT, WORDS.say("byTheUmask04o"), extras.umask());
    return WORDS.say(
        "newInItMade",
        desk.whoAmI().account(),
        names().group(made.file().gid()),
        made.file().mode().octal(),
        made.folder().mode().octal(),
        why);
  }

  /**
   * Lets an account or a group do something by an entry of its own.
   *
   * @param name as the person typed it
   * @param bits 4 to read, 2 to write, 1 to run or enter
   * @param forNew whether it is for what is made in the folder from now on
   * @param inside whether all that is in the folder is meant as well; run permission is given where
   *     somebody has it then
   */
  public void allow(String name, boolean group, int bits, boolean forNew, boolean inside) {
    OptionalInt id = group ? names().gidOf(name.strip()) : names().uidOf(name.strip());
    if (facts == null || id.isEmpty()) {
      problem =
          WORDS.say(
              "noOnThisServer",
              group ? WORDS.say("groupNamed") : WORDS.say("account"),
              name.strip());
      return;
    }
    problem = "";
    RemotePath path = facts.entry().path();
    Entry entry = new Entry(forNew, group, id.getAsInt());
    if (inside) {
      String letters = AccessWords.letters(bits).replace("x", "X").replace("-", "");
      String whose = (group ? WORDS.say("groupNamed") : "") + name.strip();
      new ListsInside(
              desk,
              folder,
              new AccessListTree.Wanted(path, entry, letters.isEmpty() ? "-" : letters),
              WORDS.say("addToTheAccess", whose, AccessWords.letters(bits)))
          .look();
      return;
    }
    changes.make(() -> lists().allow(path, entry, bits), path);
  }

  /**
   * Removes an entry of the list.
   *
   * @param inside whether from all that is in the folder as well
   */
  public void remove(Row row, boolean inside) {
    RemotePath path = requireNonNull(facts, "a list is shown").entry().path();
    if (inside) {
      new ListsInside(
              desk,
              folder,
              new AccessListTree.Wanted(path, row.entry(), null),
              WORDS.say("removeTheEntryFrom", row.words()))
          .look();
      return;
    }
    changes.make(() -> lists().remove(path, row.entry()), path);
  }

  private AccessListChange lists() {
    return new AccessListChange(desk.files(), desk.commands(), desk.journal());
  }

  /** Why what was typed cannot be taken; empty when it was. */
  public String problem() {
    return problem;
  }
}
