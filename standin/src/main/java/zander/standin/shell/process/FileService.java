package zander.standin.shell.process;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import zander.standin.world.Caller;

/** The file service of the machine, as a program that a command starts. */
public interface FileService {
  /** Serves until the input ends. */
  void serve(Caller caller, String home, InputStream in, OutputStream out) throws IOException;
}
