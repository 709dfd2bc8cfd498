package zander.desk.folder;

import static java.util.Objects.requireNonNull;

import org.jspecify.annotations.Nullable;
import zander.core.files.AccountNames;
import zander.core.files.FileKind;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteEntry;
import zander.core.files.RemotePath;
import zander.core.kept.KeptWish;
import zander.core.rights.Rights;
import zander.core.rights.TreeRights;
import zander.desk.sheet.OpenDesk;
import zander.desk.words.Words;

/** How the rights of entries differ from what their folder keeps. For any thread. */
public final class KeptDrift {
  private static final Words WORDS = Words.of(KeptDrift.class);

  static final KeptDrift NONE = new KeptDrift(null, null);

  private final @Nullable KeptWish wish;
  private final @Nullable AccountNames names;

  private KeptDrift(@Nullable KeptWish wish, @Nullable AccountNames names) {
    this.wish = wish;
    this.names = names;
  }

  /** As the folders of a desk keep them now. */
  public static KeptDrift of(OpenDesk desk) {
    AccountNames names = desk.files().names();
    KeptWish wish = desk.marked().wish(names);
    return wish == null ? NONE : new KeptDrift(wish, names);
  }

  /** In words; empty when it does not, or nothing is kept. */
  String of(RemoteEntry entry) {
    return entry.kind() == FileKind.LINK || entry.kind() == FileKind.OTHER
        ? ""
        : of(entry.path(), entry.attributes());
  }

  /** The same for what is no link. */
  public String of(RemotePath path, RemoteAttributes has) {
    TreeRights said = wish == null ? null : wish.of(path.wire(), has.isFolder());
    if (said == null) {
      return "";
    }
    Rights now = new Rights(has.uid(), has.gid(), has.mode());
    Rights kept = said.of(now, has.isFolder());
    return kept.equals(now) ? "" : WORDS.say("keptHereItIs", words(kept), words(now));
  }

  private String words(Rights rights) {
    AccountNames of = requireNonNull(names, "something is kept");
    return of.user(rights.uid()) + ":" + of.group(rights.gid()) + " " + rights.mode().octal();
  }
}
