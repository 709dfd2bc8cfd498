package zander.standin.demo;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.List;
import java.util.Map;
import zander.standin.world.AccessList;
import zander.standin.world.Account;
import zander.standin.world.Accounts;
import zander.standin.world.Caller;
import zander.standin.world.Machine;
import zander.standin.world.OpenFile;
import zander.standin.world.World;

/** Builds a machine from a {@code .world} resource; the form is described in levels-web.world. */
final class WorldFile {
  private final Accounts accounts = new Accounts();
  private final Clock clock;
  private final World world;

  private WorldFile(Clock clock) {
    this.clock = clock;
    this.world = new World(clock);
  }

  static Machine load(String name, Clock clock) throws IOException {
    WorldFile file = new WorldFile(clock);
    List<String> lines = text(name + ".world").lines().toList();
    for (String line : lines) {
      if (!line.isBlank() && !line.startsWith("#")) {
        file.make(line.split(" +"));
      }
    }
    // Filling a folder changes its time, so the times are set once everything is there.
    for (String line : lines) {
      if (line.startsWith("dir ")) {
        String[] words = line.split(" +");
        file.setTime(words[4], words[3]);
      }
    }
    return new Machine(name, file.world, file.accounts, clock);
  }

  static String text(String resource) throws IOException {
    try (InputStream in = WorldFile.class.getResourceAsStream(resource)) {
      if (in == null) {
        throw new IOException("no resource " + resource);
      }
      return new String(in.readAllBytes(), StandardCharsets.UTF_8);
    }
  }

  private void make(String[] words) throws IOException {
    switch (words[0]) {
      case "group" -> accounts.addGroup(words[1], Integer.parseInt(words[2]));
      case "user" -> addUser(words);
      case "dir" -> {
        world.mkdir(Caller.ROOT, words[4], 0755);
        setRights(words[4], words[1], words[2]);
      }
      case "file" -> addFile(words[4], words[1], words[2], words[3], text("files/" + words[5]));
      case "many" -> {
        String template = text("files/" + words[6]);
        for (int i = 1; i <= Integer.parseInt(words[1]); i++) {
          String number = String.format("%03d", i);
          addFile(
              String.format(words[5], i),
              words[2],
              words[3],
              words[4],
              template.replace("{n}", number));
        }
      }
      case "name" -> world.link(Caller.ROOT, words[2], words[1]);
      case "user-entry" -> {
        AccessList list =
            new AccessList(
                world.stat(Caller.ROOT, words[3]).mode() >> 3 & 7,
                Map.of(uid(words[1]), Integer.parseInt(words[2])),
                Map.of());
        world.setList(words[3], list);
      }
      case "link" -> {
        world.symlink(Caller.ROOT, words[4], words[3]);
        String[] names = words[1].split(":");
        world.chown(Caller.ROOT, words[3], uid(names[0]), gid(names[1]), false);
        world.setLinkTime(words[3], seconds(words[2]));
      }
      default -> throw new IOException("unknown line: " + String.join(" ", words));
    }
  }

  private void addUser(String[] words) throws IOException {
    List<String> further = words[8].equals("-") ? List.of() : List.of(words[8].split(","));
    accounts.add(
        new Account(
            words[1],
            Integer.parseInt(words[2]),
            gid(words[3]),
            further,
            words[4],
            words[5],
            words[6].equals("-") ? "" : words[6],
            words[7].equals("-") ? "" : words[7]));
  }

  private void addFile(String path, String mode, String owner, String when, String content)
      throws IOException {
    OpenFile file =
        world.open(Caller.ROOT, path, new World.Open(false, true, true, true, false, 0600));
    byte[] bytes = content.getBytes(StandardCharsets.UTF_8);
    file.write(0, bytes, 0, bytes.length);
    setRights(path, mode, owner);
    setTime(path, when);
  }

  private void setRights(String path, String mode, String owner) throws IOException {
    String[] names = owner.split(":");
    world.chown(Caller.ROOT, path, uid(names[0]), gid(names[1]), false);
    world.chmod(Caller.ROOT, path, Integer.parseInt(mode, 8));
  }

  private void setTime(String path, String when) throws IOException {
    world.setTimes(Caller.ROOT, path, seconds(when), seconds(when));
  }

  private int uid(String name) throws IOException {
    return accounts.user(name).orElseThrow(() -> new IOException("no user " + name)).uid();
  }

  private int gid(String name) throws IOException {
    return accounts.gid(name).orElseThrow(() -> new IOException("no group " + name));
  }

  private long seconds(String when) {
    String[] parts = when.split("@");
    LocalDate date =
        parts[0].contains("-")
            ? LocalDate.parse(parts[0])
            : LocalDate.now(clock).minusDays(Integer.parseInt(parts[0]));
    long seconds =
        date.atTime(LocalTime.parse(parts[1])).atZone(ZoneId.systemDefault()).toEpochSecond();
    // Early in the day "today at 08:41" is still to come; nothing may have changed in the future.
    return Math.min(seconds, clock.instant().getEpochSecond() - 300);
  }
}
