package zander.core.files.sftp;

import java.io.IOException;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import java.util.function.Consumer;
import java.util.regex.Pattern;
import org.apache.sshd.common.util.buffer.Buffer;
import zander.core.files.AccountNames;
import zander.core.files.AnswerBounds;
import zander.core.files.FileKind;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFailure.Reason;
import zander.core.files.RemotePath;
import zander.core.files.WireName;
import zander.core.files.sftp.wire.RequestBody;
import zander.core.files.sftp.wire.SftpWire;
import zander.core.files.sftp.wire.WireAttributes;
import zander.core.phrase.FilePhrase;
import zander.core.phrase.FileStep;

/**
 * Reads one folder. READDIR requests are kept under way, four times as many after each answer,
 * because a server gives about a hundred names in each and the line's delay would be paid for every
 * one.
 */
final class SftpListing {
  private static final int FIRST_UNDER_WAY = 32;
  private static final int MOST_UNDER_WAY = 128;

  private static final Pattern LINK_LINE = Pattern.compile("l[-rwxsStT]{9}[ .+@]");

  /** An entry before links are followed. */
  record Raw(RemotePath path, RemoteAttributes attributes) {}

  private final SftpWire wire;
  private final RemotePath folder;
  private final SftpWire.Sent opening;
  private final AccountNames accounts;

  private SftpListing(
      SftpWire wire, RemotePath folder, SftpWire.Sent opening, AccountNames accounts) {
    this.wire = wire;
    this.folder = folder;
    this.opening = opening;
    this.accounts = accounts;
  }

  /**
   * @param accounts learns the names of owners that it does not know from the long lines
   */
  static SftpListing of(SftpWire wire, RemotePath folder, AccountNames accounts)
      throws RemoteFailure {
    return opened(
        wire,
        folder,
        wire.send(SftpWire.OPENDIR, SftpWire.body(folder), FileStep.OPEN_FOLDER, folder),
        accounts);
  }

  /**
   * Continues one whose OPENDIR has been sent.
   *
   * @param folder where its names are, which may have become known only since
   */
  static SftpListing opened(
      SftpWire wire, RemotePath folder, SftpWire.Sent opening, AccountNames accounts) {
    return new SftpListing(wire, folder, opening, accounts);
  }

  List<Raw> read(Consumer<List<Raw>> portion) throws IOException {
    byte[] handle = wire.expectHandle(opening);
    Deque<SftpWire.Sent> underWay = new ArrayDeque<>();
    List<Raw> all = new ArrayList<>();
    try {
      int allowed = FIRST_UNDER_WAY;
      boolean ended = false;
      int empty = 0;
      while (!ended) {
        while (underWay.size() < allowed) {
          underWay.addLast(
              wire.send(SftpWire.READDIR, handleBody(handle), FileStep.LIST_FOLDER, folder));
        }
        List<Raw> names = wire.expectNames(underWay.removeFirst(), this::names);
        if (names == null) {
          ended = true;
        } else {
          all.addAll(names);
          portion.accept(names);
          empty = names.isEmpty() ? empty + 1 : 0;
          allowed = Math.min(MOST_UNDER_WAY, allowed * 4);
        }
        if (all.size() > AnswerBounds.entries() || empty > AnswerBounds.EMPTY_ANSWERS) {
          throw new RemoteFailure(
              Reason.BAD_ANSWER,
              FileStep.LIST_FOLDER,
              folder,
              FilePhrase.FOLDER_DOES_NOT_END.of(),
              null);
        }
      }
    } finally {
      close(handle, underWay);
    }
    return all;
  }

  private void close(byte[] handle, Deque<SftpWire.Sent> underWay) throws RemoteFailure {
    wire.forget(wire.send(SftpWire.CLOSE, handleBody(handle), FileStep.CLOSE, folder));
    underWay.forEach(wire::forget);
  }

  private static RequestBody handleBody(byte[] handle) {
    RequestBody body = SftpWire.body();
    body.putBytes(handle);
    return body;
  }

  private List<Raw> names(Buffer body) {
    int count = body.getInt();
    if (count < 0 || count > body.available()) {
      throw new IllegalStateException(
          count + " names in an answer of " + body.available() + " bytes");
    }
    List<Raw> names = new ArrayList<>();
    for (int i = 0; i < count; i++) {
      String name = WireName.fromBytes(body.getBytes());
      if (name.length() > AnswerBounds.NAME) {
        throw new IllegalStateException("a name of " + name.length() + " bytes");
      }
      byte[] longLine = body.getBytes();
      RemoteAttributes attributes = linkIfEither(longLine, WireAttributes.read(body));
      // "." and ".." are expected here; any other unsafe name is a lie that must lead nowhere.
      if (WireName.isSafe(name)) {
        learn(longLine, attributes);
        names.add(new Raw(folder.child(name), attributes));
      }
    }
    return names;
  }

  /** Some servers show a link in one form and what it leads to in the other. */
  private static RemoteAttributes linkIfEither(byte[] longLine, RemoteAttributes shown) {
    boolean link =
        longLine.length > 0
            && longLine[0] == 'l'
            && LINK_LINE.matcher(WireName.fromBytes(longLine)).lookingAt();
    return link && shown.kind() != FileKind.LINK ? shown.as(FileKind.LINK) : shown;
  }

  /** The owner and group of an {@code ls -l} line are its third and fourth words. */
  private void learn(byte[] longLine, RemoteAttributes attributes) {
    if (accounts.knowsUser(attributes.uid()) && accounts.knowsGroup(attributes.gid())) {
      return;
    }
    String[] words = WireName.fromBytes(longLine).split(" +", 6);
    if (words.length == 6 && words[0].length() >= 10) {
      if (!words[2].matches("[0-9]*")) {
        accounts.learnUser(attributes.uid(), WireName.toText(words[2]));
      }
      if (!words[3].matches("[0-9]*")) {
        accounts.learnGroup(attributes.gid(), WireName.toText(words[3]));
      }
    }
  }
}
