package zander.desk.model;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Supplier;
import zander.core.book.ServerEntry;
import zander.core.connect.Connection;
import zander.core.connect.channel.WayUp;
import zander.core.files.RemotePath;
import zander.desk.reach.SignInRunner;
import zander.desk.sheet.OpenDesk;

/**
 * That all on a desk is done as another account.
 *
 * @param own the desk over whose connection it is done
 * @param server that desk's
 * @param connection that desk's, which is another one after the line broke
 * @param ways by which of the server's programs, the first that is there
 */
record ActsAs(
    OpenDesk own,
    ServerEntry server,
    Supplier<Connection> connection,
    String account,
    List<WayUp> ways) {
  static final String ROOT = "root";

  /** What a server has is found by trying. */
  private static final List<WayUp> WHAT_IS_THERE = List.of(WayUp.SUDO, WayUp.DOAS, WayUp.SU);

  /** The ways that there may be, the one first that was gone the last time. */
  static List<WayUp> ways(ServerEntry server, String account) {
    List<WayUp> ways = new ArrayList<>(WHAT_IS_THERE);
    WayUp last = server.ways().get(account);
    if (last != null) {
      ways.remove(last);
      ways.add(0, last);
    }
    return ways;
  }

  /** The same, with the password of the account that is acted as. */
  ActsAs byItsPassword() {
    return by(List.of(WayUp.SU));
  }

  /** The same, with one's own password. */
  ActsAs byOwnPassword() {
    return by(List.of(WayUp.SUDO, WayUp.DOAS));
  }

  private ActsAs by(List<WayUp> others) {
    return new ActsAs(own, server, connection, account, others);
  }

  /**
   * @param folder to begin in; {@code null} for the account's home
   */
  SignInRunner.Acting from(RemotePath folder) {
    return new SignInRunner.Acting(account, ways, folder == null ? null : folder.text());
  }
}
