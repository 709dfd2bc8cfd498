package zander.core.authorize;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.OptionalInt;
import org.jspecify.annotations.Nullable;
import zander.core.change.RightsChange;
import zander.core.change.save.AtomicSave;
import zander.core.connect.command.Commands;
import zander.core.connect.keys.PublicKeyLine;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFailure.Reason;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.files.RemoteWriter;
import zander.core.journal.ChangeKind;
import zander.core.journal.FileState;
import zander.core.journal.Journal;
import zander.core.journal.NewChange;
import zander.core.rights.Mode;
import zander.core.trust.WireKey;

/**
 * Puts a public key on a server: into {@code ~/.ssh/authorized_keys} of the account that is signed
 * in, once, with the modes that sshd insists on (sshd manual page, StrictModes): home, {@code .ssh}
 * and the file must not be writable for others. What will be done is told first, by {@link #plan}.
 */
public final class AuthorizedKeys {
  private static final Mode FOLDER_MODE = new Mode(0700);
  private static final Mode FILE_MODE = new Mode(0600);
  private static final int FOR_OTHERS_TO_WRITE = 022;
  private static final long LARGEST = 4 << 20;

  private final RemoteFiles files;
  private final Commands commands;
  private final Journal journal;
  private final RemotePath home;
  private final RemotePath folder;
  private final RemotePath file;

  /**
   * @param home the account's home folder
   */
  public AuthorizedKeys(RemoteFiles files, Commands commands, Journal journal, RemotePath home) {
    this.files = files;
    this.commands = commands;
    this.journal = journal;
    this.home = home;
    this.folder = home.child(".ssh");
    this.file = folder.child("authorized_keys");
  }

  /** What is to be done, one after the other. */
  public enum Step {
    CLOSE_HOME,
    MAKE_FOLDER,
    CLOSE_FOLDER,
    MAKE_FILE,
    CLOSE_FILE,
    ADD_LINE,
    /** The key is in the file already. */
    IS_THERE
  }

  /**
   * One step.
   *
   * @param before the mode it has now, in four octal digits; empty when it is not about a mode
   * @param after the mode it gets; empty as above
   */
  public record Planned(Step step, RemotePath path, String before, String after) {}

  /** Looks at the server and says what {@link #put} would do; changes nothing. */
  public List<Planned> plan(WireKey key) throws IOException {
    List<Planned> plan = new ArrayList<>();
    close(home, files.lookThrough(home), Step.CLOSE_HOME, plan);
    RemoteAttributes folderNow = orNull(folder);
    if (folderNow == null) {
      plan.add(new Planned(Step.MAKE_FOLDER, folder, "", FOLDER_MODE.octal()));
      plan.add(new Planned(Step.MAKE_FILE, file, "", FILE_MODE.octal()));
      return plan;
    }
    close(folder, folderNow, Step.CLOSE_FOLDER, plan);
    RemoteAttributes fileNow = orNull(file);
    if (fileNow == null) {
      plan.add(new Planned(Step.MAKE_FILE, file, "", FILE_MODE.octal()));
      return plan;
    }
    close(file, fileNow, Step.CLOSE_FILE, plan);
    boolean there = holds(files.readAll(file, LARGEST), key);
    plan.add(new Planned(there ? Step.IS_THERE : Step.ADD_LINE, file, "", ""));
    return plan;
  }

  private void close(RemotePath path, RemoteAttributes now, Step step, List<Planned> plan) {
    int bits = now.mode().bits();
    if ((bits & FOR_OTHERS_TO_WRITE) != 0) {
      Mode closed = new Mode(bits & ~FOR_OTHERS_TO_WRITE);
      plan.add(new Planned(step, path, now.mode().octal(), closed.octal()));
    }
  }

  private @Nullable RemoteAttributes orNull(RemotePath path) throws IOException {
    try {
      return files.lookThrough(path);
    } catch (RemoteFailure e) {
      if (e.reason() == Reason.NO_SUCH_FILE) {
        return null;
      }
      throw e;
    }
  }

  /** Whether a key is on one of the lines, with options before it or not. */
  static boolean holds(byte[] content, WireKey key) {
    String wanted = key.type() + " " + key.base64();
    return new String(content, StandardCharsets.ISO_8859_1)
        .lines()
        .map(String::strip)
        .filter(line -> !line.startsWith("#"))
        .anyMatch(
            line -> (" " + line.replaceAll("[ \t]+", " ") + " ").contains(" " + wanted + " "));
  }

  /**
   * Does what the plan says; each change is whole, and in the journal.
   *
   * @return what was done
   */
  public List<Planned> put(PublicKeyLine line) throws IOException {
    List<Planned> plan = plan(line.key());
    for (Planned planned : plan) {
      switch (planned.step()) {
        case CLOSE_HOME, CLOSE_FOLDER, CLOSE_FILE -> setMode(planned);
        case MAKE_FOLDER -> makeFolder();
        case MAKE_FILE -> makeFile(line);
        case ADD_LINE -> addLine(line);
        default -> {}
      }
    }
    return plan;
  }

  private void setMode(Planned planned) throws IOException {
    Mode mode = Mode.ofOctal(planned.after());
    var result =
        new RightsChange(files, journal)
            .apply(
                List.of(planned.path()),
                OptionalInt.empty(),
                OptionalInt.empty(),
                (before, isFolder) -> mode);
    if (result.get(0).failure() != null) {
      throw result.get(0).failure();
    }
  }

  private void makeFolder() throws IOException {
    Journal.Pending pending = journal.begin(NewChange.of(ChangeKind.MAKE_FOLDER, folder));
    try {
      files.makeFolder(folder, FOLDER_MODE);
      files.setMode(folder, FOLDER_MODE);
    } catch (IOException e) {
      pending.failed(e);
      throw e;
    }
    pending.done(FileState.of(files.look(folder)), List.of());
  }

  /** Beside, and renamed to a name that must be free: whole, and never over another's. */
  private void makeFile(PublicKeyLine line) throws IOException {
    RemotePath part =
        folder.child(".authorized_keys.zander-" + Long.toHexString(System.nanoTime()));
    byte[] content = (line.text() + "\n").getBytes(StandardCharsets.UTF_8);
    Journal.Pending pending = journal.begin(NewChange.of(ChangeKind.MAKE_FILE, file).part(part));
    try {
      try (RemoteWriter writer = files.create(part, FILE_MODE)) {
        writer.write(content, 0, content.length);
        writer.setMode(FILE_MODE);
        writer.finish();
      }
      files.rename(part, file);
    } catch (IOException e) {
      removeQuietly(part);
      pending.failed(e);
      throw e;
    }
    pending.done(FileState.of(files.look(file)), List.of());
  }

  private void removeQuietly(RemotePath part) {
    try {
      files.removeFile(part);
    } catch (IOException e) {
      // It was not made, or the line is gone; the failure that led here is what is told.
    }
  }

  private void addLine(PublicKeyLine line) throws IOException {
    AtomicSave saver = new AtomicSave(files, commands, journal);
    AtomicSave.Opened opened = saver.open(file, LARGEST);
    byte[] before = opened.content();
    boolean lineOpen = before.length > 0 && before[before.length - 1] != '\n';
    byte[] added = ((lineOpen ? "\n" : "") + line.text() + "\n").getBytes(StandardCharsets.UTF_8);
    byte[] after = java.util.Arrays.copyOf(before, before.length + added.length);
    System.arraycopy(added, 0, after, before.length, added.length);
    saver.save(opened.version(), after, List.of());
  }
}
