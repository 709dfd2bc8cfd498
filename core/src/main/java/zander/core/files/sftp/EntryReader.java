package zander.core.files.sftp;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.IntPredicate;
import org.jspecify.annotations.Nullable;
import zander.core.files.AccountNames;
import zander.core.files.FileKind;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteEntry;
import zander.core.files.sftp.SftpListing.Raw;
import zander.core.files.sftp.wire.Answers;
import zander.core.files.sftp.wire.SftpWire;
import zander.core.phrase.FileStep;

/** Makes entries of what is listed: with the names of owners, and where links lead. */
final class EntryReader {
  private final SftpWire wire;
  private final SftpExtensions extensions;
  private final AccountNames names;

  EntryReader(SftpWire wire, SftpExtensions extensions, AccountNames names) {
    this.wire = wire;
    this.extensions = extensions;
    this.names = names;
  }

  /** An entry before it is known where a link leads. */
  RemoteEntry unfollowed(Raw raw) {
    return entry(raw, null, null);
  }

  private RemoteEntry entry(Raw raw, @Nullable String target, @Nullable RemoteAttributes behind) {
    RemoteAttributes attributes = raw.attributes();
    return new RemoteEntry(
        raw.path(),
        attributes,
        names.user(attributes.uid()),
        names.group(attributes.gid()),
        target,
        behind);
  }

  /**
   * Asks for all links' targets and what is behind them before waiting for the first answer.
   *
   * @param made the entries as they were before, used for all that are no links; or {@code null}
   */
  List<RemoteEntry> follow(List<Raw> raw, @Nullable List<RemoteEntry> made) throws IOException {
    List<RemoteEntry> entries = new ArrayList<>(raw.size());
    for (int from = 0; from < raw.size(); from += 256) {
      List<Raw> part = raw.subList(from, Math.min(raw.size(), from + 256));
      List<SftpWire.Sent> sent = new ArrayList<>();
      for (Raw one : part) {
        if (one.attributes().kind() == FileKind.LINK) {
          sent.add(
              wire.send(
                  SftpWire.READLINK, SftpWire.body(one.path()), FileStep.READ_LINK, one.path()));
          sent.add(
              wire.send(SftpWire.STAT, SftpWire.body(one.path()), FileStep.LOOK_AT, one.path()));
        }
      }
      int next = 0;
      for (int i = 0; i < part.size(); i++) {
        Raw one = part.get(i);
        if (one.attributes().kind() == FileKind.LINK) {
          String target = Answers.takeOr(sent.get(next++), wire::expectName, "");
          RemoteAttributes behind =
              Answers.take(sent.get(next++), wire::expectAttributes, refused -> null);
          entries.add(entry(one, target, behind));
        } else {
          entries.add(made == null ? unfollowed(one) : made.get(from + i));
        }
      }
    }
    return entries;
  }

  /**
   * One request for all numbers that have no name yet, where the server takes it; whether it went.
   */
  boolean learnNames(List<Raw> raw) throws IOException {
    if (!extensions.namesById()) {
      return false;
    }
    Set<Integer> uids = new TreeSet<>();
    Set<Integer> gids = new TreeSet<>();
    for (Raw one : raw) {
      addUnknown(one.attributes().uid(), names::knowsUser, uids);
      addUnknown(one.attributes().gid(), names::knowsGroup, gids);
    }
    if (uids.isEmpty() && gids.isEmpty()) {
      return false;
    }
    extensions.learnNames(uids, gids, names);
    return true;
  }

  private static void addUnknown(int id, IntPredicate known, Set<Integer> into) {
    if (id != -1 && !known.test(id) && into.size() < 1000) {
      into.add(id);
    }
  }
}
