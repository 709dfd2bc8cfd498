package zander.desk.folder;

import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import zander.core.access.ServiceAccess;
import zander.core.files.FileKind;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteEntry;
import zander.core.files.RemotePath;
import zander.core.rights.Mode;
import zander.core.rights.Mode.May;
import zander.core.rights.Mode.Who;
import zander.desk.words.Words;

/**
 * What an administrator should see of the entries of one folder without opening them.
 *
 * @param access what the account that serves the folder may read; {@code null} when not known
 * @param kept how entries differ from what their folder keeps
 * @param opened what a file was when it was opened here; {@code null} for one that is not open
 */
public record EntryNotes(
    @Nullable ServiceAccess access, Function<RemotePath, RemoteAttributes> opened, KeptDrift kept) {
  private static final Words WORDS = Words.of(EntryNotes.class);

  /** How much it matters. */
  public enum Weight {
    NONE,
    LOOK,
    DANGER
  }

  /**
   * @param detail more words, for a hint; empty for none
   */
  public record Note(String words, Weight weight, String detail) {
    Note(String words, Weight weight) {
      this(words, weight, "");
    }
  }

  static final EntryNotes NONE = new EntryNotes(null, path -> null, KeptDrift.NONE);

  private static final Note NOTHING = new Note("", Weight.NONE);
  private static final Set<String> SECRET_NAMES =
      Set.of(
          ".env",
          ".pgpass",
          ".netrc",
          ".htpasswd",
          "wp-config.php",
          "id_rsa",
          "id_dsa",
          "id_ecdsa",
          "id_ecdsa_sk",
          "id_ed25519",
          "id_ed25519_sk");
  private static final List<String> SECRET_ENDINGS =
      List.of(".key", ".pfx", ".p12", ".jks", ".kdbx");
  private static final List<String> SECRET_WORDS =
      List.of("secret", "passwd", "password", "credential");

  public Note of(RemoteEntry entry) {
    if (entry.kind() == FileKind.LINK && entry.isBrokenLink()) {
      return new Note(WORDS.say("leadsNowhere"), Weight.DANGER, WORDS.say("whatThisLinkPoints"));
    }
    Note note = entry.kind() == FileKind.LINK ? NOTHING : ofRights(entry);
    return note.weight() != Weight.NONE ? note : ofChange(entry);
  }

  private Note ofRights(RemoteEntry entry) {
    Mode mode = entry.attributes().mode();
    boolean openFolder = entry.attributes().isFolder() && mode.has(Mode.STICKY);
    if (mode.allows(Who.OTHERS, May.WRITE) && !openFolder && entry.kind() != FileKind.OTHER) {
      return new Note(WORDS.say("anyoneCanWrite"), Weight.DANGER, WORDS.say("everyAccountOfThis"));
    }
    boolean file = entry.kind() == FileKind.FILE;
    if (file && mode.allows(Who.OTHERS, May.READ) && isSecret(entry.name())) {
      return new Note(WORDS.say("secretAnyoneCanRead"), Weight.DANGER, WORDS.say("byItsNameIt"));
    }
    if (file && mode.has(Mode.SET_UID)) {
      return new Note(
          WORDS.say("runsAs", entry.owner()), Weight.LOOK, WORDS.say("setUserIdWhoever"));
    }
    if (file && mode.has(Mode.SET_GID) && mode.allows(Who.GROUP, May.RUN)) {
      return new Note(
          WORDS.say("runsAsGroup", entry.group()), Weight.LOOK, WORDS.say("setGroupId"));
    }
    if (isNumber(entry.owner())) {
      return new Note(
          WORDS.say("ownerIsGone"), Weight.LOOK, WORDS.say("noAccountOfThis", entry.owner()));
    }
    if (access != null && entry.kind() != FileKind.OTHER && access.isRefused(entry)) {
      return ofAccess(access);
    }
    String differs = kept.of(entry);
    if (!differs.isEmpty()) {
      return new Note(WORDS.say("rightsNotAsKept"), Weight.LOOK, differs);
    }
    if (file
        && entry.name().toLowerCase(Locale.ROOT).endsWith(".pem")
        && mode.allows(Who.OTHERS, May.READ)) {
      return new Note(WORDS.say("anyoneCanRead"), Weight.LOOK, WORDS.say("ifItHoldsA"));
    }
    return NOTHING;
  }

  private static Note ofAccess(ServiceAccess access) {
    String account = access.account();
    RemotePath stop = access.stoppedAt();
    boolean above = stop != null;
    String detail =
        stop != null
            ? WORDS.say("mayNotGoInto", account, stop)
            : WORDS.say(
                "byOwnerGroupThe",
                access.seesLists() ? WORDS.say("modeAndAccessList") : WORDS.say("andMode"),
                account);
    return new Note(
        account
            + (above ? WORDS.say("isStoppedAbove") : WORDS.say("cannotRead"))
            + (access.seesLists() ? "" : WORDS.say("byMode")),
        Weight.LOOK,
        access.seesLists() ? detail : WORDS.say("accessListsAreNot", detail));
  }

  /** By its name; there may be a hundred thousand of them, so without expressions. */
  private static boolean isSecret(String name) {
    String small = name.toLowerCase(Locale.ROOT);
    return SECRET_NAMES.contains(small)
        || small.startsWith(".env.")
        || SECRET_ENDINGS.stream().anyMatch(small::endsWith)
        || SECRET_WORDS.stream().anyMatch(small::contains);
  }

  private static boolean isNumber(String owner) {
    return !owner.isEmpty() && owner.chars().allMatch(c -> c >= '0' && c <= '9');
  }

  private Note ofChange(RemoteEntry entry) {
    RemoteAttributes then = opened.apply(entry.path());
    RemoteAttributes now = entry.behind() == null ? entry.attributes() : entry.behind();
    return then != null && now.looksChangedSince(then)
        ? new Note(WORDS.say("changedSinceOpened"), Weight.LOOK, WORDS.say("theTextOpenHere"))
        : NOTHING;
  }
}
