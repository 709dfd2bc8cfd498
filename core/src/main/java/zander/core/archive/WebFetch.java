package zander.core.archive;

import java.io.IOException;
import java.net.URI;
import java.net.URISyntaxException;
import java.util.List;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;
import java.util.function.LongConsumer;
import zander.core.change.RemoteChanges;
import zander.core.change.place.EnteredFolder;
import zander.core.connect.command.Commands;
import zander.core.connect.command.ExecResult;
import zander.core.connect.command.ShellWords;
import zander.core.facts.Checksums;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFailure.Reason;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.files.WireName;
import zander.core.journal.ChangeKind;
import zander.core.journal.NewChange;
import zander.core.phrase.FilePhrase;
import zander.core.phrase.FileStep;
import zander.core.phrase.InputPhrase;
import zander.core.phrase.InvalidInput;
import zander.core.phrase.Phrase;
import zander.core.work.Cancellation;

/**
 * Fetches a web address straight onto the server, with its own {@code curl} or {@code wget}. The
 * file is in its place only when it is whole and, if a checksum was given, the right one.
 */
public final class WebFetch {
  private static final long LOOK_EVERY_MILLIS = 400;

  /** What a shell ends with when there is no such program (POSIX XCU 2.8.2). */
  private static final int NOT_FOUND = 127;

  private static final String CURL = "curl -f -s -S -L --proto =http,https -K -";

  private final RemoteFiles files;
  private final Commands commands;
  private final RemoteChanges changes;

  public WebFetch(RemoteFiles files, Commands commands, RemoteChanges changes) {
    this.files = files;
    this.commands = commands;
    this.changes = changes;
  }

  /**
   * Reads what was typed.
   *
   * @throws IllegalArgumentException when it is no address that can be fetched
   */
  public static URI address(String typed) {
    try {
      URI address = new URI(typed.strip());
      boolean web = "http".equals(address.getScheme()) || "https".equals(address.getScheme());
      if (!web || address.getHost() == null) {
        throw new InvalidInput(InputPhrase.WEB_ADDRESS_BEGINS.of());
      }
      return address;
    } catch (URISyntaxException e) {
      throw new InvalidInput(InputPhrase.NO_WEB_ADDRESS.of(e.getReason()), e);
    }
  }

  /** The name that an address suggests for its file; empty when it suggests none. */
  public static String nameOf(URI address) {
    String path = address.getPath() == null ? "" : address.getPath();
    String name = path.substring(path.lastIndexOf('/') + 1);
    return WireName.isSafe(WireName.fromText(name)) ? name : "";
  }

  /**
   * @param sha256 what its checksum must be, in hexadecimal digits; empty for any
   * @param progress told how many bytes are there, on a thread of its own
   * @return the checksum of what was fetched
   * @throws java.util.concurrent.CancellationException when it was stopped
   */
  public String fetch(
      URI address, RemotePath target, String sha256, LongConsumer progress, Cancellation stop)
      throws IOException {
    if (!commands.hasShell()) {
      throw commands.noShell(FileStep.FETCH, target);
    }
    String wanted = sha256.strip().toLowerCase(java.util.Locale.ROOT);
    if (!wanted.isEmpty() && !wanted.matches("[0-9a-f]{64}")) {
      throw new InvalidInput(InputPhrase.CHECKSUM_FORM.of());
    }
    String[] found = new String[1];
    changes.whole(
        NewChange.of(ChangeKind.FETCH, target).note(withoutSecrets(address)),
        part -> {
          download(address, target, part, progress, stop);
          found[0] = new Checksums(files, commands).of(part, stop).digest();
          if (!wanted.isEmpty() && !wanted.equals(found[0])) {
            throw new RemoteFailure(
                Reason.FAILED,
                FileStep.FETCH,
                target,
                FilePhrase.CHECKSUM_DIFFERS.of(found[0]),
                null);
          }
        });
    return found[0];
  }

  /** What may be kept and shown of an address: a password or a token is often part of one. */
  static String withoutSecrets(URI address) {
    String port = address.getPort() < 0 ? "" : ":" + address.getPort();
    String path = address.getRawPath() == null ? "" : address.getRawPath();
    String query = address.getRawQuery() == null ? "" : "?...";
    return address.getScheme() + "://" + address.getHost() + port + path + query;
  }

  /**
   * The address is read by the tool, not one of its arguments, which everybody on the server may
   * see; {@code printf} is the shell's own. The file is made by the shell and must not be there
   * (POSIX XCU 2.14, {@code set -C}): a link in its place is not followed.
   */
  private String script(RemotePath part, String address, String tool) throws IOException {
    return EnteredFolder.enter(files, part.parent())
        + "set -C; printf '%s\\n' "
        + ShellWords.quote(address)
        + " | "
        + tool
        + " > "
        + EnteredFolder.name(part);
  }

  private ExecResult run(URI address, RemotePath part, Cancellation stop) throws IOException {
    String from = address.toASCIIString();
    String curl = script(part, "url = \"" + from + "\"", CURL);
    ExecResult result = commands.stream(curl, out -> {}, stop);
    if (result.exit() == NOT_FOUND) {
      // What the shell made for the first is in the way of the second.
      files.removeFiles(List.of(part));
      result = commands.stream(script(part, from, "wget -q -O - -i -"), out -> {}, stop);
    }
    EnteredFolder.check(result, FileStep.FETCH, part.parent());
    return result;
  }

  private void download(
      URI address, RemotePath target, RemotePath part, LongConsumer progress, Cancellation stop)
      throws IOException {
    ScheduledExecutorService look =
        Executors.newSingleThreadScheduledExecutor(
            task -> {
              Thread thread = new Thread(task, "fetch-progress");
              thread.setDaemon(true);
              return thread;
            });
    try {
      look.scheduleWithFixedDelay(
          () -> tell(part, progress), LOOK_EVERY_MILLIS, LOOK_EVERY_MILLIS, TimeUnit.MILLISECONDS);
      ExecResult result = run(address, part, stop);
      if (result.exit() != 0) {
        boolean missing = result.exit() == NOT_FOUND;
        throw new RemoteFailure(
            missing ? Reason.NOT_SUPPORTED : Reason.FAILED,
            FileStep.FETCH,
            target,
            missing
                ? FilePhrase.NO_FETCHER.of()
                : result
                    .errorText()
                    .strip()
                    .lines()
                    .findFirst()
                    .map(Phrase::quoted)
                    .orElseGet(() -> FilePhrase.PROGRAM_ENDED.of(result.exit())),
            null);
      }
    } finally {
      look.shutdownNow();
    }
  }

  private void tell(RemotePath part, LongConsumer progress) {
    try {
      RemoteAttributes now = files.look(part);
      progress.accept(now.size());
    } catch (IOException e) {
      // Not begun yet, or the line is gone; the fetching itself tells that.
    }
  }
}
