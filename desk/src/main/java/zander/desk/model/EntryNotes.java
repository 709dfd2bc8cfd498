package zander.desk.model;

import zander.core.files.FileKind;
import zander.core.files.RemoteEntry;
import zander.core.rights.Mode;
import zander.core.rights.Mode.May;
import zander.core.rights.Mode.Who;

/** What an administrator should see of an entry without opening it. */
public final class EntryNotes {
  /** How much it matters. */
  public enum Weight {
    NONE,
    LOOK,
    DANGER
  }

  public record Note(String words, Weight weight) {}

  private static final Note NOTHING = new Note("", Weight.NONE);

  private EntryNotes() {}

  public static Note of(RemoteEntry entry) {
    Mode mode = entry.attributes().mode();
    if (entry.kind() == FileKind.LINK) {
      return entry.isBrokenLink() ? new Note("leads nowhere", Weight.DANGER) : NOTHING;
    }
    boolean openFolder = entry.attributes().isFolder() && mode.has(Mode.STICKY);
    if (mode.allows(Who.OTHERS, May.WRITE) && !openFolder) {
      return new Note("anyone can write", Weight.DANGER);
    }
    if (entry.kind() == FileKind.FILE && mode.has(Mode.SET_UID)) {
      return new Note("runs as " + entry.owner(), Weight.LOOK);
    }
    if (looksSecret(entry.name()) && mode.allows(Who.OTHERS, May.READ)) {
      return new Note("secret, anyone can read", Weight.DANGER);
    }
    if (entry.owner().matches("[0-9]+")) {
      return new Note("owner has no name", Weight.LOOK);
    }
    return NOTHING;
  }

  private static boolean looksSecret(String name) {
    return name.matches("(?i)\\.env(\\..*)?|.*\\.(key|pem|pfx)|id_(rsa|ecdsa|ed25519)|.*secret.*");
  }
}
