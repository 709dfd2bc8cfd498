package zander.core.connect;

import java.io.IOException;
import org.apache.sshd.client.session.ClientSession;
import zander.core.connect.channel.ActFailure;
import zander.core.connect.channel.Elevation;
import zander.core.connect.channel.SessionPool;
import zander.core.connect.command.ElevatedCommand;
import zander.core.connect.script.ScriptedService;
import zander.core.files.AccountNames;
import zander.core.files.RemoteFiles;
import zander.core.files.sftp.SftpFiles;
import zander.core.files.sftp.channel.FileServiceMissing;
import zander.core.files.sftp.channel.ServiceStart;
import zander.core.files.sftp.wire.FolderGuard;
import zander.core.phrase.AccountPhrase;
import zander.core.phrase.ExplainedException;

/**
 * Begins file services for an account: the server's own, or for another account the one that can be
 * started, or scripts where there is none. Its methods wait; for any thread.
 */
final class FileServices {
  private final SessionPool lines;
  private final AccountNames names;
  private final FolderGuard guard;

  /** Where the server has no file service to be started. */
  private volatile boolean byScripts;

  FileServices(SessionPool lines, AccountNames names, FolderGuard guard) {
    this.lines = lines;
    this.names = names;
    this.guard = guard;
  }

  /** The first, which finds out what the server has. */
  RemoteFiles open(ClientSession on) throws IOException {
    try {
      return begin(on);
    } catch (FileServiceMissing e) {
      if (lines.elevation() == null) {
        throw e;
      }
    }
    byScripts = true;
    try {
      return begin(on);
    } catch (FileServiceMissing e) {
      throw ActFailure.noFileService(e.printed(), e);
    }
  }

  private RemoteFiles begin(ClientSession on) throws IOException {
    Elevation right = lines.elevation();
    ServiceStart start = null;
    if (right != null) {
      start =
          byScripts
              ? ElevatedCommand.scripts(right, ScriptedService::new)
              : ElevatedCommand.fileService(right);
    }
    return SftpFiles.open(on, names, guard, start);
  }

  /** One more of the same; nobody signs in once more for it. */
  RemoteFiles openMore(ClientSession on) throws IOException {
    if (lines.elevation() != null && lines.elevation().asksEachTime()) {
      throw new ExplainedException(AccountPhrase.ASKS_EACH_TIME.of());
    }
    return begin(on);
  }
}
