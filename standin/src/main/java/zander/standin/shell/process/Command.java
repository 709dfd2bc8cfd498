package zander.standin.shell.process;

import java.io.IOException;

/** A command of the stand-in's shell. */
@FunctionalInterface
public interface Command {
  /**
   * @return the exit status
   */
  int run(Call call) throws IOException;
}
