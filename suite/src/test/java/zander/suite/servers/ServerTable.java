package zander.suite.servers;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import zander.core.files.RemotePath;
import zander.suite.SystemSshd;

/** The servers that everything is tried on, each as it is met in the field. */
final class ServerTable {
  /** Of this process alone: another one may run tests on its own at the same time. */
  static final String ACCOUNT = "zndtable" + System.getProperty("test.fork", "");

  private static final String EXTERNAL = "Subsystem sftp /usr/lib/openssh/sftp-server";
  private static final String NOLOGIN = "/usr/sbin/nologin";

  private ServerTable() {}

  /**
   * @param what the server as a person would say it
   */
  record Row(String what, Starting starting) {}

  interface Starting {
    OpenServer in(Path folder) throws Exception;
  }

  static List<Row> rows() {
    List<Row> rows = new ArrayList<>();
    rows.add(row("OpenSSH", "/bin/sh"));
    rows.add(row("OpenSSH, file service as a program", "/bin/bash", EXTERNAL));
    rows.add(row("OpenSSH, account without a shell", NOLOGIN));
    rows.add(new Row("OpenSSH, locked into a folder", ServerTable::jail));
    rows.add(row("OpenSSH, file service read-only", NOLOGIN, "Subsystem sftp internal-sftp -R"));
    rows.add(
        row(
            "OpenSSH, none of its extensions, no shell",
            NOLOGIN,
            "Subsystem sftp internal-sftp -P posix-rename,hardlink,statvfs,fstatvfs,fsync,"
                + "lsetstat,limits,copy-data,users-groups-by-id,expand-path,home-directory"));
    rows.add(row("OpenSSH, one session a connection", "/bin/sh", "MaxSessions 1"));
    rows.add(row("OpenSSH, two sessions a connection", "/bin/sh", "MaxSessions 2"));
    rows.add(row("OpenSSH, one sign-in at a time", "/bin/sh", "MaxStartups 1"));
    rows.add(row("OpenSSH, no terminals", "/bin/sh", "PermitTTY no"));
    rows.add(row("OpenSSH, new keys every megabyte", "/bin/sh", "RekeyLimit 1M"));
    rows.add(row("OpenSSH, five seconds to sign in", "/bin/sh", "LoginGraceTime 5"));
    rows.add(row("OpenSSH, ChaCha20 alone", "/bin/sh", "Ciphers chacha20-poly1305@openssh.com"));
    rows.add(
        row(
            "OpenSSH, algorithms of 2012",
            "/bin/sh",
            "KexAlgorithms diffie-hellman-group14-sha1",
            "Ciphers aes128-cbc",
            "MACs hmac-sha1"));
    rows.add(start("start file that prints", "echo Welcome; echo 'Quota: 41 %'\n"));
    rows.add(start("start file that starts another program", "exec echo Menu of levels-web\n"));
    rows.add(start("start file that takes three seconds", "sleep 3\n"));
    for (String shell :
        List.of("/usr/bin/fish", "/bin/tcsh", "/bin/csh", "/bin/zsh", "/bin/mksh")) {
      String name = shell.substring(shell.lastIndexOf('/') + 1);
      rows.add(
          new Row(
              "OpenSSH, login shell " + name,
              folder -> {
                OpenServer server = openSsh(folder, shell, EXTERNAL);
                // Without one, zsh asks at its first start what should be in it.
                Files.createFile(server.disk().resolveSibling(".zshrc"));
                return server;
              }));
    }
    rows.add(row("OpenSSH, login shell rbash", "/bin/rbash"));
    rows.add(new Row("OpenSSH over BusyBox", ServerTable::busyBox));
    rows.add(
        new Row("dropbear", folder -> other(OtherServer.dropbear(folder, ACCOUNT, "/bin/sh"))));
    rows.add(new Row("ProFTPD", folder -> other(OtherServer.proftpd(folder, ACCOUNT))));
    rows.add(new Row("bind mounts of one file system", Mounts::bound));
    rows.add(new Row("disk full", Mounts::full));
    rows.add(new Row("disk full, no shell", folder -> noShell(Mounts.full(folder))));
    rows.add(new Row("no more inodes", Mounts::noInodes));
    rows.add(new Row("file system mounted read-only", Mounts::readOnly));
    rows.add(new Row("exFAT by FUSE", Mounts::exFat));
    rows.add(new Row("exFAT by FUSE, no shell", folder -> noShell(Mounts.exFat(folder))));
    return rows;
  }

  private static OpenServer noShell(OpenServer server) throws Exception {
    SystemSshd.run("usermod", "-s", NOLOGIN, ACCOUNT);
    return server;
  }

  private static Row row(String what, String shell, String... config) {
    return new Row(what, folder -> openSsh(folder, shell, config));
  }

  private static Row start(String what, String bashrc) {
    return new Row(
        "OpenSSH, " + what,
        folder -> {
          OpenServer server = openSsh(folder, "/bin/bash", EXTERNAL);
          Path file = server.disk().resolveSibling(".bashrc");
          Files.writeString(file, bashrc);
          return server;
        });
  }

  static OpenServer openSsh(Path folder, String shell, String... config) throws Exception {
    SystemSshd sshd = new SystemSshd(folder, List.of(ACCOUNT), Arrays.asList(config));
    SystemSshd.run("usermod", "-s", shell, ACCOUNT);
    Path work = Files.createDirectories(folder.resolve(ACCOUNT + "/work"));
    return new OpenServer(
        () -> sshd.open(ACCOUNT), work, RemotePath.of(work.toString()), ACCOUNT, sshd::close);
  }

  private static OpenServer other(OtherServer server) throws Exception {
    Path work = Files.createDirectories(server.account().home().resolve("work"));
    return new OpenServer(
        server::open, work, RemotePath.of(work.toString()), ACCOUNT, server::close);
  }

  /** A folder that nobody but root may write above, as sshd wants it for ChrootDirectory. */
  private static Path rootFolder() throws Exception {
    Path root = Files.createTempDirectory(Path.of("/var/lib"), "zander-suite");
    SystemSshd.run("chmod", "755", root.toString());
    return root;
  }

  private static OpenServer jailed(Path folder, Path root) throws Exception {
    List<String> lines = List.of("Match User " + ACCOUNT, "ChrootDirectory " + root);
    SystemSshd sshd = new SystemSshd(folder, List.of(ACCOUNT), lines);
    SystemSshd.run("usermod", "-d", "/home", ACCOUNT);
    Path home = Files.createDirectories(root.resolve("home/work"));
    SystemSshd.run("chown", "-R", ACCOUNT + ":", root.resolve("home").toString());
    return new OpenServer(
        () -> sshd.open(ACCOUNT),
        home,
        RemotePath.of("/home/work"),
        ACCOUNT,
        () -> {
          sshd.close();
          SystemSshd.run("rm", "-rf", root.toString());
        });
  }

  private static OpenServer jail(Path folder) throws Exception {
    return jailed(folder, rootFolder());
  }

  /** All that a small system has: one program under many names. */
  private static OpenServer busyBox(Path folder) throws Exception {
    Path root = rootFolder();
    SystemSshd.run(
        "sh",
        "-c",
        "cd $0 && mkdir bin dev etc tmp usr usr/bin && cp /bin/busybox bin/ && for name in $(bin/busybox"
            + " --list); do ln -s /bin/busybox bin/$name 2>/dev/null; done; ln -sf /bin/busybox"
            + " bin/sh; chmod 1777 tmp; mknod -m 666 dev/null c 1 3; mknod -m 666 dev/tty c 5 0",
        root.toString());
    OpenServer server = jailed(folder, root);
    SystemSshd.run(
        "sh",
        "-c",
        "grep ^$1: /etc/passwd > $0/etc/passwd; grep ^$1: /etc/group > $0/etc/group",
        root.toString(),
        ACCOUNT);
    return server;
  }
}
