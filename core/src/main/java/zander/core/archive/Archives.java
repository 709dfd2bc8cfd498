package zander.core.archive;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import zander.core.change.RemoteChanges;
import zander.core.change.place.EnteredFolder;
import zander.core.change.place.TemporaryName;
import zander.core.connect.command.Commands;
import zander.core.connect.command.ExecResult;
import zander.core.connect.command.ShellWords;
import zander.core.files.RemoteEntry;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFailure.Reason;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.files.ToolErrors;
import zander.core.files.WireName;
import zander.core.journal.ChangeKind;
import zander.core.journal.NewChange;
import zander.core.phrase.FilePhrase;
import zander.core.phrase.FileStep;
import zander.core.phrase.InputPhrase;
import zander.core.phrase.InvalidInput;
import zander.core.rights.Mode;
import zander.core.work.Cancellation;

/**
 * Packs and unpacks on the server with its own {@code tar}, {@code zip} and {@code unzip}. What is
 * made is whole or not there: it is made beside its place and renamed.
 */
public final class Archives {
  /** What a shell ends with when there is no such program (POSIX XCU 2.8.2). */
  private static final int NOT_FOUND = 127;

  /**
   * GNU tar reads {@code \057} in a name that it is given as a slash (its manual, "Quoting Member
   * Names"): a file named so would have it pack another, outside the folder. Others have no such
   * option, and no such habit.
   */
  private static final String NAMES_AS_THEY_ARE =
      "plain=; tar --no-unquote --version >/dev/null 2>&1 && plain=--no-unquote; ";

  private final RemoteFiles files;
  private final Commands commands;
  private final RemoteChanges changes;

  public Archives(RemoteFiles files, Commands commands, RemoteChanges changes) {
    this.files = files;
    this.commands = commands;
    this.changes = changes;
  }

  /**
   * Packs entries of one folder.
   *
   * @param archive where to; its ending says the kind
   * @throws IllegalArgumentException when the name has no ending of an archive
   */
  public void pack(List<RemotePath> paths, RemotePath archive, Cancellation stop)
      throws IOException {
    ArchiveKind kind = ArchiveKind.of(archive.name());
    if (kind == null) {
      throw new InvalidInput(InputPhrase.ARCHIVE_ENDING.of());
    }
    RemotePath folder = paths.get(0).parent();
    boolean turnable = files.othersMayTurn(archive) || files.othersMayTurn(paths.get(0));
    if (turnable && !folder.equals(archive.parent())) {
      throw new RemoteFailure(
          Reason.NOT_SUPPORTED,
          FileStep.PACK,
          archive,
          FilePhrase.ARCHIVE_IN_TURNABLE_FOLDER.of(),
          null);
    }
    if (!kind.isTar() && turnable) {
      // It looks at a name and opens it later; tar opens without following links.
      throw new RemoteFailure(
          Reason.NOT_SUPPORTED,
          FileStep.PACK,
          archive,
          FilePhrase.ZIP_IN_TURNABLE_FOLDER.of(),
          null);
    }
    // Names with ./ before them are never options.
    String names =
        paths.stream()
            .map(path -> ShellWords.quoteWire("./" + path.wireName()))
            .collect(Collectors.joining(" "));
    changes.whole(
        NewChange.of(ChangeKind.PACK, archive).note(paths.size() + " packed"),
        part -> {
          String tool =
              kind.isTar() ? "tar $plain -c" + kind.tarLetter() + "f - -- " : "zip -q -r -y - ";
          boolean beside = folder.equals(part.parent());
          String to = beside ? EnteredFolder.name(part) : ShellWords.quote(part);
          // What the shell makes must not be there yet, as a link might be.
          String script = EnteredFolder.enter(files, folder) + NAMES_AS_THEY_ARE + "set -C; ";
          run(FileStep.PACK, archive, script + tool + names + " > " + to, stop);
        });
  }

  /**
   * What an archive holds.
   *
   * @param names as the tool lists them, at most some thousand
   * @param count of all
   * @param outside names that would lead out of the folder it is unpacked in
   */
  public record Content(List<String> names, long count, List<String> outside) {}

  private static final int MOST_NAMES = 5000;

  /** Looks at the names in an archive; nothing is unpacked. */
  public Content look(RemotePath archive, Cancellation stop) throws IOException {
    ArchiveKind kind = ArchiveKind.of(archive.name());
    if (kind == null) {
      throw new RemoteFailure(
          Reason.NOT_SUPPORTED, FileStep.UNPACK, archive, FilePhrase.NO_ARCHIVE.of(), null);
    }
    String quoted = ShellWords.quote(archive);
    String out =
        run(
            FileStep.LOOK_INTO,
            archive,
            kind.isTar() ? "tar -t" + kind.tarLetter() + "f " + quoted : "unzip -Z1 " + quoted,
            stop);
    List<String> names = new ArrayList<>();
    List<String> outside = new ArrayList<>();
    long count = 0;
    for (String name : out.split("\n")) {
      if (name.isEmpty()) {
        continue;
      }
      count++;
      if (names.size() < MOST_NAMES) {
        names.add(WireName.toText(name));
      }
      if (name.startsWith("/") || ("/" + name + "/").contains("/../")) {
        outside.add(WireName.toText(name));
      }
    }
    return new Content(names, count, outside);
  }

  /**
   * Unpacks into a folder of its own, beside the archive, named like it, or like the one folder
   * that everything in it is in.
   *
   * @param keepRights whether owners (where the account may) and modes come from the archive,
   *     rather than being those of new files
   * @return the folder or file that was made
   * @throws RemoteFailure with {@code FAILED} when a name in it leads outside; nothing is unpacked
   */
  public RemotePath unpack(RemotePath archive, boolean keepRights, Cancellation stop)
      throws IOException {
    Content content = look(archive, stop);
    if (!content.outside().isEmpty()) {
      throw new RemoteFailure(
          Reason.FAILED,
          FileStep.UNPACK,
          archive,
          FilePhrase.LEADS_OUTSIDE.of(
              String.join(", ", content.outside().stream().limit(3).toList())),
          null);
    }
    String only = onlyTop(content);
    String name = only == null ? ArchiveKind.stem(archive.wireName()) : WireName.fromText(only);
    RemotePath goal = archive.parent().child(name);
    if (files.lookAll(List.of(goal)).get(0) != null) {
      throw new RemoteFailure(
          Reason.ALREADY_EXISTS, FileStep.UNPACK_INTO, goal, FilePhrase.EXISTS.of(), null);
    }
    changes.whole(
        NewChange.of(ChangeKind.UNPACK, goal).note(archive.name()),
        part -> {
          // Closed to others until all is in it: nobody changes what the tool is working on.
          files.makeFolder(part, new Mode(0700));
          unpackInto(archive, part, keepRights, stop);
          openToOthers(part);
          if (only != null) {
            liftOut(part);
          }
        });
    return goal;
  }

  /** The one name at the top that all others are below; {@code null} when there are several. */
  private static @Nullable String onlyTop(Content content) {
    if (content.count() > content.names().size()) {
      return null;
    }
    List<String> tops =
        content.names().stream()
            .map(name -> name.replaceFirst("^(\\./)+", ""))
            .filter(name -> !name.isEmpty())
            .map(name -> name.split("/")[0])
            .distinct()
            .toList();
    boolean plain =
        tops.size() == 1
            && !tops.get(0).contains("\\")
            && WireName.isSafe(WireName.fromText(tops.get(0)));
    return plain ? tops.get(0) : null;
  }

  private void unpackInto(
      RemotePath archive, RemotePath part, boolean keepRights, Cancellation stop)
      throws IOException {
    ArchiveKind kind = Objects.requireNonNull(ArchiveKind.of(archive.name()));
    // Below a folder of ours, the one above it is always the same.
    String from = ShellWords.quoteWire("../" + archive.wireName());
    String rights = keepRights ? " -p" : " --no-same-owner --no-same-permissions";
    String tool =
        kind.isTar()
            ? "tar -x" + kind.tarLetter() + "f " + from + rights
            : "unzip -q -o " + (keepRights ? "-K " : "") + from;
    String special =
        run(
            FileStep.UNPACK,
            archive,
            EnteredFolder.enter(files, part)
                + tool
                + " && find . ! -type f ! -type d ! -type l | head -n 1",
            stop);
    if (!special.isBlank()) {
      throw new RemoteFailure(
          Reason.NOT_SUPPORTED, FileStep.UNPACK, archive, FilePhrase.HOLDS_DEVICES.of(), null);
    }
  }

  /** What a new folder would have, as the umask there wants it. */
  private void openToOthers(RemotePath part) throws IOException {
    RemotePath like = TemporaryName.beside(part);
    files.makeFolder(like, new Mode(0777));
    Mode usual = files.look(like).mode();
    files.removeFolder(like);
    files.setMode(part, usual);
  }

  /** Puts the one thing in a temporary folder in that folder's place. */
  private void liftOut(RemotePath part) throws IOException {
    List<RemoteEntry> inside = files.list(part, portion -> {});
    RemotePath outer = part.parent().child(part.wireName() + "-o");
    files.rename(part, outer);
    files.rename(outer.child(inside.get(0).path().wireName()), part);
    files.removeFolders(List.of(outer));
  }

  private String run(FileStep step, RemotePath about, String script, Cancellation stop)
      throws IOException {
    if (!commands.hasShell()) {
      throw commands.noShell(step, about);
    }
    java.io.ByteArrayOutputStream out = new java.io.ByteArrayOutputStream();
    ExecResult result = commands.stream(script, out::writeBytes, stop);
    EnteredFolder.check(result, step, about.parent());
    if (result.exit() != 0) {
      if (result.exit() == NOT_FOUND) {
        throw new RemoteFailure(
            Reason.NOT_SUPPORTED, step, about, FilePhrase.NO_ARCHIVER.of(), null);
      }
      throw ToolErrors.failure(
          step, about, result.errorText(), FilePhrase.PROGRAM_ENDED.of(result.exit()));
    }
    return WireName.fromBytes(out.toByteArray());
  }
}
