package zander.core.transfer.remote;

import java.io.IOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import zander.core.facts.TreeMark;
import zander.core.files.FileKind;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteBatch.NewFolder;
import zander.core.files.RemoteBatch.Setting;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFailure.Reason;
import zander.core.journal.ChangeKind;
import zander.core.journal.FileState;
import zander.core.journal.Journal;
import zander.core.journal.NewChange;
import zander.core.phrase.FilePhrase;
import zander.core.phrase.FileStep;
import zander.core.phrase.JournalPhrase;
import zander.core.rights.Mode;
import zander.core.transfer.endpoint.Endpoint;
import zander.core.transfer.endpoint.TransferItem;
import zander.core.transfer.server.RemoteContext;

/**
 * The folders that a transfer makes on a server. One that is made where nothing was stands in the
 * journal for all that comes into it, so that a tree of thousands is one entry and is put back as
 * one.
 */
final class RemoteFolders {
  private final RemoteContext context;

  /** Those that stand in the journal, by path; what is below them is covered. */
  private final Map<String, Journal.Pending> tops = new HashMap<>();

  private final Map<String, FileState> finished = new HashMap<>();

  RemoteFolders(RemoteContext context) {
    this.context = context;
  }

  /** Whether what is made at a path is told by the entry of a folder above it. */
  synchronized boolean covers(String path) {
    for (String at = Endpoint.folderOf(path); !at.isEmpty(); at = Endpoint.folderOf(at)) {
      if (tops.containsKey(at)) {
        return true;
      }
    }
    return false;
  }

  List<IOException> make(List<TransferItem> folders) throws IOException {
    List<NewFolder> wanted = new ArrayList<>();
    List<Journal.Pending> begun = new ArrayList<>();
    for (TransferItem folder : folders) {
      // Open for filling; its real mode is set when everything is in it.
      Mode filling = folder.mode() == null ? null : new Mode(0700);
      wanted.add(new NewFolder(context.at(folder.to()), filling));
      begun.add(covers(folder.to()) ? null : begin(folder));
    }
    List<RemoteFailure> refused;
    try {
      refused = context.files().batch().makeFolders(wanted);
    } catch (RemoteFailure e) {
      for (Journal.Pending pending : begun) {
        if (pending != null) {
          pending.failed(e);
        }
      }
      throw e;
    }
    List<IOException> failures = new ArrayList<>();
    for (int i = 0; i < folders.size(); i++) {
      RemoteFailure failure = refused.get(i);
      if (failure != null && failure.reason() == Reason.FAILED) {
        failure = takenOrFailed(failure, wanted.get(i));
      }
      if (begun.get(i) != null) {
        if (failure != null) {
          begun.get(i).failed(failure);
        } else {
          synchronized (this) {
            tops.put(folders.get(i).to(), begun.get(i));
          }
        }
      }
      failures.add(failure);
    }
    return failures;
  }

  private Journal.Pending begin(TransferItem folder) throws IOException {
    return context
        .journal()
        .begin(
            NewChange.of(ChangeKind.SEND_UP, context.at(folder.to()))
                .group(context.group())
                .note(JournalPhrase.FOLDER_WITH_ALL));
  }

  private RemoteFailure takenOrFailed(RemoteFailure failure, NewFolder folder) throws IOException {
    boolean taken = context.files().batch().look(List.of(folder.path())).get(0) != null;
    return taken
        ? new RemoteFailure(
            Reason.ALREADY_EXISTS,
            FileStep.MAKE_FOLDER,
            folder.path(),
            FilePhrase.EXISTS.of(),
            failure)
        : failure;
  }

  List<IOException> finish(List<TransferItem> folders) throws IOException {
    List<Setting> settings = new ArrayList<>();
    int uid = context.ownerUid();
    int gid = context.ownerGid();
    List<IOException> failures = new ArrayList<>();
    for (TransferItem folder : folders) {
      settings.add(new Setting(context.at(folder.to()), folder.mode(), folder.modified()));
      failures.add(null);
      if (uid >= 0 || gid >= 0) {
        failures.set(failures.size() - 1, give(folder, uid, gid));
      }
    }
    List<RemoteFailure> refused = context.files().batch().set(settings);
    for (int i = 0; i < folders.size(); i++) {
      if (refused.get(i) != null) {
        failures.set(i, refused.get(i));
      }
      note(folders.get(i));
    }
    return failures;
  }

  private @Nullable IOException give(TransferItem folder, int uid, int gid) throws IOException {
    try {
      RemoteAttributes now = context.files().look(context.at(folder.to()));
      context
          .files()
          .setOwner(context.at(folder.to()), uid < 0 ? now.uid() : uid, gid < 0 ? now.gid() : gid);
      return null;
    } catch (RemoteFailure e) {
      if (e.reason() == Reason.LINE_LOST) {
        throw e;
      }
      return e;
    }
  }

  private synchronized void note(TransferItem folder) {
    if (tops.containsKey(folder.to())) {
      Mode mode = folder.mode() == null ? new Mode(0755) : folder.mode();
      if (folder.modified() >= 0) {
        finished.put(
            folder.to(),
            FileState.of(
                new RemoteAttributes(
                    FileKind.FOLDER, 0, -1, -1, mode, folder.modified(), folder.modified())));
      }
    }
  }

  /** Ends the entries: the folders are there, with as much in them as was transferred. */
  synchronized void end() {
    tops.forEach(
        (path, pending) -> {
          try {
            FileState state = finished.get(path);
            if (state == null) {
              state = FileState.of(context.files().look(context.at(path)));
            }
            pending.done(state.withDigest(mark(path)), List.of());
          } catch (IOException e) {
            lost(pending);
          }
        });
    tops.clear();
  }

  /** {@code null} where the line is gone by now: what was sent is there all the same. */
  private @Nullable String mark(String path) {
    try {
      return new TreeMark(context.files(), context.channels().commands()).of(context.at(path));
    } catch (IOException e) {
      return null;
    }
  }

  private static void lost(Journal.Pending pending) {
    try {
      pending.lost();
    } catch (IOException e) {
      // The journal keeps it as under way, and the next start looks what became of it.
    }
  }
}
