package zander.core.transfer;

import java.io.IOException;
import java.util.List;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.files.WireName;
import zander.core.journal.FileState;
import zander.core.journal.Journal;

/** Links that arrive on a server. */
final class RemoteLinks {
  private RemoteLinks() {}

  /** One that replaces something is made beside it and renamed over it. */
  static void make(RemoteEndpoint side, TransferItem link) throws IOException {
    RemoteFiles files = side.files();
    RemotePath at = side.at(link.to());
    String target = link.node().target();
    boolean replaces = link.there() != null;
    RemotePath part = replaces ? at.parent().child(side.partNames().of(at.wireName())) : null;
    RemoteAttributes old = replaces ? side.files().batch().look(List.of(at)).get(0) : null;
    ReplacedFiles.Held held = ReplacedFiles.hold(side, at, old);
    Journal.Pending pending = begin(side, link, at, part, old, held);
    try {
      if (replaces) {
        files.makeLink(part, target);
        if (files.renamesOver() && !held.moves()) {
          files.renameOver(part, at);
        } else {
          RemoteFailure failure =
              ReplacedFiles.inSteps(side, part, at, held.moves() ? held.name() : null);
          if (failure != null) {
            throw failure;
          }
        }
      } else {
        files.makeLink(at, target);
      }
      pending.done(FileState.of(files.look(at)).withTarget(target), List.of());
    } catch (IOException e) {
      if (part != null && side.isLost(e)) {
        side.leave(part);
      }
      pending.failed(e);
      throw e;
    }
  }

  private static Journal.Pending begin(
      RemoteEndpoint side,
      TransferItem link,
      RemotePath at,
      RemotePath part,
      RemoteAttributes old,
      ReplacedFiles.Held held)
      throws IOException {
    if (part == null && side.madeFolders().covers(link.to())) {
      return ReplacedFiles.ENDED;
    }
    return side.journal()
        .begin(
            ReplacedFiles.change(side, at, part, part != null, old, held.name())
                .note("a link to " + WireName.toText(link.node().target())));
  }
}
