package zander.suite;

import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Assumptions;
import zander.core.connect.Connection;
import zander.core.connect.channel.Elevation;

/** The same attacks on a root that an ordinary account acts as, by the system's own sudo. */
class HostileAccountBySudoTest extends HostileAccountTest {
  private static final String WARDEN = "zndsudoer";

  private final SystemSudo sudo = new SystemSudo("hostile");
  private Connection own;

  @Override
  List<String> accounts() {
    Assumptions.assumeTrue(SystemSudo.isPossible(), "needs sudo");
    List<String> accounts = new ArrayList<>(super.accounts());
    accounts.add(WARDEN);
    return accounts;
  }

  @Override
  Connection root() throws Exception {
    sudo.rule(WARDEN + " ALL=(root) NOPASSWD: ALL");
    own = sshd.open(WARDEN);
    return own.actAs(new Elevation("root", wrong -> null), "/");
  }

  @AfterEach
  void signOut() throws Exception {
    sudo.close();
    if (own != null) {
      own.close();
    }
  }
}
