package zander.suite.servers;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import zander.suite.SystemSshd;

/** Servers whose work folder lies on a file system with something about it. */
final class Mounts {
  private Mounts() {}

  /** Mounts something as the work folder, and has the tree in it before it becomes odd. */
  private static OpenServer mounted(Path folder, String... mount) throws Exception {
    OpenServer server = ServerTable.openSsh(folder, "/bin/sh");
    Path work = server.disk();
    String[] command = new String[mount.length + 1];
    System.arraycopy(mount, 0, command, 0, mount.length);
    command[mount.length] = work.toString();
    SystemSshd.run(command);
    SystemSshd.run("chown", ServerTable.ACCOUNT + ":", work.toString());
    return server.stoppingFirst(() -> unmount(work));
  }

  static void unmount(Path path) throws IOException, InterruptedException {
    SystemSshd.run("umount", "-l", path.toString());
  }

  private static void shell(String script, Path at) throws Exception {
    SystemSshd.run("sh", "-c", script, at.toString());
  }

  static OpenServer full(Path folder) throws Exception {
    OpenServer server = mounted(folder, "mount", "-t", "tmpfs", "-o", "size=12m", "none");
    WorkTree.make(server);
    shell("dd if=/dev/zero of=$0/ballast bs=4096 2>/dev/null || true", server.disk());
    return server;
  }

  static OpenServer noInodes(Path folder) throws Exception {
    OpenServer server = mounted(folder, "mount", "-t", "tmpfs", "-o", "nr_inodes=60", "none");
    WorkTree.make(server);
    shell(
        "cd $0 && mkdir ballast; while touch ballast/$i.; do i=x$i; done 2>/dev/null",
        server.disk());
    return server;
  }

  static OpenServer readOnly(Path folder) throws Exception {
    OpenServer server = mounted(folder, "mount", "-t", "tmpfs", "none");
    WorkTree.make(server);
    SystemSshd.run("mount", "-o", "remount,ro", server.disk().toString());
    return server;
  }

  /** One file system in two places: nothing tells, and no rename leads from one to the other. */
  static OpenServer bound(Path folder) throws Exception {
    OpenServer server = ServerTable.openSsh(folder, "/bin/sh");
    Path other = Files.createDirectories(server.disk().resolveSibling("elsewhere"));
    SystemSshd.run("chown", ServerTable.ACCOUNT + ":", other.toString());
    SystemSshd.run("mount", "--bind", other.toString(), server.disk().toString());
    return server.stoppingFirst(() -> unmount(server.disk()));
  }

  /** No hard links, no links, no modes, no owners, few names. */
  static OpenServer exFat(Path folder) throws Exception {
    OpenServer server = ServerTable.openSsh(folder, "/bin/sh");
    Path image = folder.resolve("image");
    SystemSshd.run("truncate", "-s", "64M", image.toString());
    SystemSshd.run("mkfs.exfat", image.toString());
    String device = SystemSshd.run("losetup", "-f", "--show", image.toString()).strip();
    String id = SystemSshd.run("id", "-u", ServerTable.ACCOUNT).strip();
    SystemSshd.run(
        "mount.exfat-fuse",
        "-o",
        "allow_other,uid=" + id + ",gid=" + id,
        device,
        server.disk().toString());
    return server.stoppingFirst(
        () -> {
          unmount(server.disk());
          SystemSshd.run("losetup", "-d", device);
        });
  }
}
