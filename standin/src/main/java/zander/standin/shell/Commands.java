package zander.standin.shell;

import java.util.HashMap;
import java.util.Map;
import zander.standin.shell.command.AccessListCommand;
import zander.standin.shell.command.CopyCommands;
import zander.standin.shell.command.CurlCommand;
import zander.standin.shell.command.CutCommand;
import zander.standin.shell.command.FileCommands;
import zander.standin.shell.command.FindCommand;
import zander.standin.shell.command.GaugeCommand;
import zander.standin.shell.command.GrepCommand;
import zander.standin.shell.command.LevelsdCommand;
import zander.standin.shell.command.ListCommand;
import zander.standin.shell.command.LoginCommands;
import zander.standin.shell.command.RightsCommands;
import zander.standin.shell.command.SetAccessListCommand;
import zander.standin.shell.command.SftpServerCommand;
import zander.standin.shell.command.StatCommand;
import zander.standin.shell.command.SudoCommand;
import zander.standin.shell.command.TarCommand;
import zander.standin.shell.command.TestCommand;
import zander.standin.shell.command.TextCommands;
import zander.standin.shell.process.Command;

/** The commands there are, by name. */
final class Commands {
  private static final Map<String, Command> ALL = new HashMap<>();

  static {
    ALL.put("ls", ListCommand::run);
    ALL.put("stat", StatCommand::run);
    ALL.put("getfacl", AccessListCommand::run);
    ALL.put("setfacl", SetAccessListCommand::run);
    ALL.put("find", FindCommand::run);
    ALL.put("grep", GrepCommand::run);
    ALL.put("tar", TarCommand::run);
    ALL.put("curl", CurlCommand::run);
    ALL.put("cut", CutCommand::run);
    ALL.put("sudo", SudoCommand::run);
    ALL.put("test", TestCommand::run);
    ALL.put("[", TestCommand::run);
    ALL.put(SftpServerCommand.PATH, SftpServerCommand::run);
    ALL.put("gauge", GaugeCommand::run);
    ALL.put("levelsd", LevelsdCommand::run);
    LoginCommands.addTo(ALL);
    ShellCommands.addTo(ALL);
    FileCommands.addTo(ALL);
    CopyCommands.addTo(ALL);
    RightsCommands.addTo(ALL);
    TextCommands.addTo(ALL);
  }

  private Commands() {}

  /** The command of that name, given plainly or by a path in a bin folder; {@code null} if none. */
  static Command find(String name) {
    return ALL.get(name.replaceFirst("^(/usr)?/s?bin/", ""));
  }
}
