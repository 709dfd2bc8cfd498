package zander.core.transfer.remote;

import static java.util.Objects.requireNonNull;

import java.io.IOException;
import java.util.List;
import org.jspecify.annotations.Nullable;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.files.WireName;
import zander.core.journal.FileState;
import zander.core.journal.Journal;
import zander.core.phrase.JournalPhrase;
import zander.core.transfer.endpoint.TransferItem;
import zander.core.transfer.server.RemoteContext;

/** Links that arrive on a server. */
final class RemoteLinks {
  private RemoteLinks() {}

  /** One that replaces something is made beside it and renamed over it. */
  static void make(RemoteContext context, RemoteFolders folders, TransferItem link)
      throws IOException {
    RemoteFiles files = context.files();
    RemotePath at = context.at(link.to());
    String target = target(link);
    boolean replaces = link.there() != null;
    RemotePath part = replaces ? at.parent().child(context.partialNames().of(at.wireName())) : null;
    RemoteAttributes old = replaces ? context.files().batch().look(List.of(at)).get(0) : null;
    ReplacedFiles.Held held = ReplacedFiles.hold(context, at, old);
    Journal.Pending pending = begin(context, folders, link, at, part, old, held);
    try {
      if (part != null) {
        files.makeLink(part, target);
        if (files.renamesOver() && !held.moves()) {
          files.renameOver(part, at);
        } else {
          RemoteFailure failure =
              ReplacedFiles.inSteps(context, part, at, held.moves() ? held.name() : null);
          if (failure != null) {
            throw failure;
          }
        }
      } else {
        files.makeLink(at, target);
      }
      pending.done(FileState.of(files.look(at)).withTarget(target), List.of());
    } catch (IOException e) {
      if (part != null && RemoteContext.isLost(e)) {
        context.leave(part);
      }
      pending.failed(e);
      throw e;
    }
  }

  private static String target(TransferItem link) {
    return requireNonNull(link.node().target(), "a link leads somewhere");
  }

  private static Journal.Pending begin(
      RemoteContext context,
      RemoteFolders folders,
      TransferItem link,
      RemotePath at,
      @Nullable RemotePath part,
      @Nullable RemoteAttributes old,
      ReplacedFiles.Held held)
      throws IOException {
    if (part == null && folders.covers(link.to())) {
      return ReplacedFiles.ENDED;
    }
    return context
        .journal()
        .begin(
            ReplacedFiles.change(context, at, part, part != null, old, held.name())
                .note(JournalPhrase.LINK_TO.of(WireName.toText(target(link))).toString()));
  }
}
