package zander.core.files.sftp;

import java.io.IOException;
import java.util.List;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.Future;
import org.jspecify.annotations.Nullable;
import zander.core.files.AccountNames;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFailure.Reason;
import zander.core.files.RemoteFiles.Landing;
import zander.core.files.RemotePath;
import zander.core.files.WireName;
import zander.core.files.sftp.wire.RequestBody;
import zander.core.files.sftp.wire.SftpWire;
import zander.core.phrase.FileStep;

/** Where a person lands on a server: home, and the first folder, asked for together. */
final class SftpLanding {
  private SftpLanding() {}

  /**
   * @param wanted a path, from home where it is relative; {@code null} for home
   * @param namesAsked waited for before names are looked up in another way
   * @throws IOException when home is not told, or the line is lost
   */
  static Landing at(
      @Nullable String wanted,
      SftpWire wire,
      AccountNames names,
      EntryReader entries,
      Future<?> namesAsked)
      throws IOException {
    RequestBody dot = SftpWire.body();
    SftpWire.putName(dot, ".");
    RequestBody where = SftpWire.body();
    // A relative path is one from home, as the server itself reads it.
    SftpWire.putName(where, wanted == null ? "." : WireName.fromText(wanted));
    // Both at once: where home is, and the folder to land in, which may be home itself.
    SftpWire.Sent asked = wire.send(SftpWire.REALPATH, dot, FileStep.RESOLVE, null);
    SftpWire.Sent opening = wire.send(SftpWire.OPENDIR, where, FileStep.OPEN_FOLDER, null);
    RemotePath home = RemotePath.ofWire(wire.expectName(asked));
    RemotePath folder = wanted == null ? home : home.resolve(wanted);
    try {
      var raw = SftpListing.opened(wire, folder, opening, names).read(part -> {});
      awaitQuietly(namesAsked);
      entries.learnNames(raw);
      return new Landing(home, folder, entries.follow(raw, null), null);
    } catch (RemoteFailure e) {
      if (e.reason() == Reason.LINE_LOST) {
        throw e;
      }
      return new Landing(home, folder, List.of(), e.about(folder));
    }
  }

  private static void awaitQuietly(Future<?> work) {
    try {
      work.get();
    } catch (ExecutionException e) {
      // Names are asked for in another way then.
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    }
  }
}
