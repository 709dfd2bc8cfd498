package zander.suite.servers;

import java.nio.file.Path;
import zander.core.connect.Connection;
import zander.core.files.RemotePath;

/**
 * A server of the table while it runs.
 *
 * @param connecting signs in; fails as it fails for a person
 * @param disk where the work folder is on this machine
 * @param remote the same as the server shows it
 * @param account who owns what is in it
 * @param stop ends it and takes away what it needed
 */
record OpenServer(Connecting connecting, Path disk, RemotePath remote, String account, Stop stop) {
  interface Connecting {
    Connection open() throws Exception;
  }

  interface Stop {
    void run() throws Exception;
  }

  /** The same, with something more to be taken away first. */
  OpenServer stoppingFirst(Stop more) {
    return new OpenServer(
        connecting,
        disk,
        remote,
        account,
        () -> {
          more.run();
          stop.run();
        });
  }
}
