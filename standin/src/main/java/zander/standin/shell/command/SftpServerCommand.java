package zander.standin.shell.command;

import java.io.IOException;
import zander.standin.shell.process.Call;
import zander.standin.shell.process.FileService;
import zander.standin.world.Account;
import zander.standin.world.Accounts;

/** {@code sftp-server}: the file service as a program, for whoever runs it. */
public final class SftpServerCommand {
  /** Where it is on the machines of the demo. */
  public static final String PATH = "/usr/lib/openssh/sftp-server";

  private SftpServerCommand() {}

  public static int run(Call call) throws IOException {
    FileService service = call.session().fileService;
    if (service == null) {
      return call.complain("there is no file service to start");
    }
    Accounts accounts = call.machine().accounts();
    String home =
        accounts
            .userName(call.caller().uid())
            .flatMap(accounts::user)
            .map(Account::home)
            .orElse("/");
    service.serve(call.caller(), home, call.in(), call.out());
    return 0;
  }
}
