package zander.standin.shell.command;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.util.ArrayList;
import java.util.List;
import org.apache.commons.compress.archivers.tar.TarArchiveEntry;
import org.apache.commons.compress.archivers.tar.TarArchiveInputStream;
import org.apache.commons.compress.archivers.tar.TarArchiveOutputStream;
import org.apache.commons.compress.archivers.tar.TarConstants;
import org.apache.commons.compress.compressors.gzip.GzipCompressorInputStream;
import org.apache.commons.compress.compressors.gzip.GzipCompressorOutputStream;
import zander.standin.shell.process.Call;
import zander.standin.shell.process.LongLine;
import zander.standin.shell.process.Options;
import zander.standin.shell.process.UsageError;
import zander.standin.world.OpenFile;
import zander.standin.world.Stat;
import zander.standin.world.World;

/** {@code tar}: create, list and extract, plain or with gzip, from and to files or streams. */
public final class TarCommand {
  private static final String BYTES = "ISO-8859-1";

  private final Call call;
  private final boolean gzip;
  private final boolean verbose;
  private final boolean keepRights;
  private final String archive;
  private String folder;

  private TarCommand(Call call, Options options, boolean plain) {
    this.call = call;
    this.gzip = options.has('z');
    this.verbose = options.has('v');
    this.keepRights = options.has('p') || (call.caller().isRoot() && !plain);
    this.archive = options.value('f') == null ? "-" : options.value('f');
    this.folder = options.value('C') == null ? call.path(".") : call.path(options.value('C'));
  }

  public static int run(Call call) throws IOException {
    List<String> words = new ArrayList<>(call.arguments().subList(1, call.arguments().size()));
    if (!words.isEmpty() && !words.get(0).startsWith("-")) {
      words.set(0, "-" + words.get(0));
    }
    boolean plainModes = words.remove("--no-same-permissions");
    boolean plain = words.remove("--no-same-owner") || plainModes;
    Options options = Options.parse(words, "cxtzvp", "fC");
    TarCommand tar = new TarCommand(call, options, plain);
    if (options.has('c')) {
      return tar.create(options.operands(1));
    }
    if (options.has('x') || options.has('t')) {
      if (!options.operands().isEmpty()) {
        throw new UsageError("naming members is not supported on this stand-in");
      }
      return tar.read(options.has('x'));
    }
    throw new UsageError("one of -c, -x or -t is needed");
  }

  private int create(List<String> operands) throws IOException {
    ByteArrayOutputStream packed = new ByteArrayOutputStream();
    OutputStream stream = gzip ? new GzipCompressorOutputStream(packed) : packed;
    try (TarArchiveOutputStream tar = new TarArchiveOutputStream(stream, BYTES)) {
      tar.setLongFileMode(TarArchiveOutputStream.LONGFILE_GNU);
      tar.setBigNumberMode(TarArchiveOutputStream.BIGNUMBER_POSIX);
      for (String operand : operands) {
        add(
            tar,
            operand.replaceFirst("^/+", ""),
            Call.at(operand.startsWith("/") ? "/" : folder, operand));
      }
    }
    if (archive.equals("-")) {
      call.out().write(packed.toByteArray());
      return 0;
    }
    OpenFile file =
        call.world()
            .open(
                call.caller(),
                call.path(archive),
                new World.Open(false, true, true, false, true, 0666 & ~call.session().umask));
    file.write(0, packed.toByteArray(), 0, packed.size());
    return 0;
  }

  private void add(TarArchiveOutputStream tar, String name, String path) throws IOException {
    Stat stat = call.world().lstat(call.caller(), path);
    TarArchiveEntry entry =
        stat.isLink()
            ? new TarArchiveEntry(name, TarConstants.LF_SYMLINK)
            : new TarArchiveEntry(stat.isFolder() ? name + "/" : name);
    entry.setMode(stat.mode());
    entry.setIds(stat.uid(), stat.gid());
    entry.setNames(
        LongLine.owner(stat, call.machine().accounts()),
        LongLine.group(stat, call.machine().accounts()));
    entry.setModTime(stat.modified() * 1000);
    byte[] content = stat.isFile() ? call.readFile(path) : new byte[0];
    if (stat.isLink()) {
      entry.setLinkName(call.world().readLink(call.caller(), path));
    } else {
      entry.setSize(content.length);
    }
    tar.putArchiveEntry(entry);
    tar.write(content);
    tar.closeArchiveEntry();
    if (stat.isFolder()) {
      for (String child : call.world().list(call.caller(), path)) {
        add(tar, name + "/" + child, Call.at(path, child));
      }
    }
  }

  private int read(boolean extract) throws IOException {
    byte[] packed =
        archive.equals("-") ? call.in().readAllBytes() : call.readFile(call.path(archive));
    InputStream stream = new ByteArrayInputStream(packed);
    stream = gzip ? new GzipCompressorInputStream(stream) : stream;
    List<TarArchiveEntry> folders = new ArrayList<>();
    try (TarArchiveInputStream tar = new TarArchiveInputStream(stream, BYTES)) {
      for (TarArchiveEntry entry; (entry = tar.getNextEntry()) != null; ) {
        if (!extract || verbose) {
          call.out().print(entry.getName() + "\n");
        }
        if (extract) {
          extract(entry, tar.readAllBytes());
          if (entry.isDirectory()) {
            folders.add(0, entry);
          }
        }
      }
    } catch (IOException e) {
      if (e instanceof zander.standin.world.PosixError) {
        throw e;
      }
      throw new UsageError("this does not look like a tar archive");
    }
    for (TarArchiveEntry entry : folders) {
      giveRights(entry, Call.at(folder, entry.getName()));
    }
    return 0;
  }

  private void extract(TarArchiveEntry entry, byte[] content) throws IOException {
    String name = entry.getName().replaceFirst("^/+", "");
    if (("/" + name + "/").contains("/../")) {
      throw new UsageError(name + ": member name contains '..'");
    }
    String path = Call.at(folder, name);
    World world = call.world();
    if (entry.isDirectory()) {
      if (!CopyCommands.isFolder(call, path)) {
        world.mkdir(call.caller(), path.replaceFirst("/+$", ""), 0700);
      }
      return;
    }
    if (CopyCommands.statOrNull(call, path) != null) {
      world.unlink(call.caller(), path);
    }
    if (entry.isSymbolicLink()) {
      world.symlink(call.caller(), entry.getLinkName(), path);
      return;
    }
    if (!entry.isFile()) {
      throw new UsageError(name + ": this kind of member is not supported on this stand-in");
    }
    OpenFile file =
        world.open(call.caller(), path, new World.Open(false, true, true, true, false, 0600));
    file.write(0, content, 0, content.length);
    giveRights(entry, path);
  }

  private void giveRights(TarArchiveEntry entry, String path) throws IOException {
    World world = call.world();
    if (call.caller().isRoot() && keepRights) {
      world.chown(
          call.caller(), path, (int) entry.getLongUserId(), (int) entry.getLongGroupId(), false);
    }
    int mode = entry.getMode() & (keepRights ? 07777 : 0777 & ~call.session().umask);
    world.chmod(call.caller(), path, mode);
    long time = entry.getLastModifiedTime().toInstant().getEpochSecond();
    world.setTimes(call.caller(), path, time, time);
  }
}
