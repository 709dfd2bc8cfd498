package zander.core.transfer.server;

import org.jspecify.annotations.Nullable;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemotePath;
import zander.core.journal.Journal;
import zander.core.transfer.endpoint.Endpoint;
import zander.core.transfer.endpoint.PartialNames;
import zander.core.transfer.endpoint.SmallFile;

/** One file between its journal entry and its place. */
public final class ArrivingFile {
  public final SmallFile smallFile;
  public final RemotePath target;
  public RemotePath part;
  public String partPath;

  /** Whether a program may still write under its temporary name. */
  public boolean isSpoilt;

  public @Nullable RemoteAttributes old;
  public @Nullable RemotePath held;

  /** Whether what is replaced goes to its held place only when this takes its own. */
  public boolean moves;

  public Journal.@Nullable Pending pending;

  public ArrivingFile(RemoteContext context, SmallFile smallFile) throws Endpoint.NameNotPossible {
    this.smallFile = smallFile;
    this.target = context.at(smallFile.item.to());
    String fixed = smallFile.direct ? context.partialNames().fixed(target.wireName()) : null;
    name(fixed == null ? context.partialNames().of(target.wireName()) : fixed);
  }

  private void name(String name) {
    part = target.parent().child(name);
    partPath = Endpoint.join(Endpoint.folderOf(smallFile.item.to()), name);
  }

  public void newName(PartialNames names) {
    name(names.of(target.wireName()));
    isSpoilt = false;
  }

  public boolean replaces() {
    return smallFile.item.there() != null;
  }

  public boolean waits() {
    return smallFile.waits();
  }
}
