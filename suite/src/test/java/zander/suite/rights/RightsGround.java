package zander.suite.rights;

import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import zander.core.files.WireName;
import zander.suite.SystemSshd;

/** Trees of all rights, and what the system says of them. */
final class RightsGround {
  /** Two classes use them, which may run at once. */
  private static final String FORK = System.getProperty("test.fork", "");

  static final String OWNER = "zndkeeper" + FORK;
  static final String OTHER = "zndvisitor" + FORK;

  /** Kinds, modes, owners, links, and lists, each with what it is of; as the system tells them. */
  private static final String DESCRIBE =
      "cd \"$0\"; find . -printf '%y %m %U %G %P -> %l\\0' | sort -z | tr '\\0\\n' '\\n?';"
          + " getfacl -R -p -n . | sed '/^# file/!{/^#/d}'";

  private RightsGround() {}

  private static String any(Random random, String... from) {
    return from[random.nextInt(from.length)];
  }

  /** A script that makes a tree in the folder it is run in. */
  static String script(Random random, int entries) {
    StringBuilder script = new StringBuilder("mkdir t\n");
    StringBuilder rights = new StringBuilder();
    String[] folders = new String[entries];
    folders[0] = "t";
    int made = 1;
    for (int i = 1; i < entries; i++) {
      String name = any(random, "a b-", "it'\\''s-", "-n ", "new\nline-", "plain-", "ü") + i;
      String path = folders[random.nextInt(made)] + "/" + name;
      String quoted = "'" + path + "'";
      switch (random.nextInt(8)) {
        case 0, 1 -> {
          folders[made++] = path;
          script.append("mkdir ").append(quoted).append('\n');
        }
        case 2 ->
            script
                .append("ln -s ")
                .append(any(random, "/etc/passwd", "..", "nowhere"))
                .append(' ')
                .append(quoted)
                .append('\n');
        case 3 -> script.append("mkfifo ").append(quoted).append('\n');
        default -> script.append("echo ").append(i).append(" > ").append(quoted).append('\n');
      }
      // From the innermost on, so that each can still be reached.
      rights.insert(0, rights(random, quoted));
    }
    return script.append(rights).toString();
  }

  private static String rights(Random random, String name) {
    StringBuilder rights = new StringBuilder();
    String owner = any(random, "root", OWNER, OWNER, OTHER) + ":" + any(random, OWNER, OTHER);
    rights.append("chown -h ").append(owner).append(' ').append(name).append('\n');
    int mode = random.nextInt(3) == 0 ? random.nextInt(010000) : random.nextInt(01000) | 0500;
    rights.append("test -L ").append(name).append(" || chmod ");
    rights.append(String.format("%05o", mode)).append(' ').append(name).append('\n');
    if (random.nextInt(4) == 0) {
      String list =
          any(random, "u:" + OTHER, "g:" + OTHER) + ":" + any(random, "r--", "rwx", "--x");
      rights.append("test -L ").append(name).append(" || setfacl -m ");
      rights.append(list).append(' ').append(name).append('\n');
    }
    return rights.toString();
  }

  static String describe(Path tree) throws Exception {
    return SystemSshd.run("sh", "-c", DESCRIBE, tree.toString());
  }

  static void run(Path in, String script) throws Exception {
    Path file = Files.createTempFile(in, "script", ".sh");
    Files.write(file, script.getBytes(StandardCharsets.UTF_8));
    SystemSshd.run("sh", "-ec", "cd \"$0\"; . \"$1\"", in.toString(), file.toString());
    Files.delete(file);
  }

  /**
   * What the system's tools made of a tree. They set anew what needs no change, by which what is
   * not of one's own group loses its set-group-id bit: there it is what it was before.
   *
   * @param planned from the tree, in wire form
   */
  static List<String> judged(String before, String after, Set<String> planned) {
    Map<String, String> modes = new HashMap<>();
    before.lines().filter(line -> line.matches("[fd] .*")).forEach(line -> put(modes, line));
    Set<String> changed = new HashSet<>();
    planned.forEach(path -> changed.add(WireName.toText(path.replace('\n', '?'))));
    List<String> judged = new ArrayList<>();
    for (String line : after.lines().toList()) {
      String was = line.matches("[fd] .*") ? modes.get(line.split(" ", 3)[2]) : null;
      boolean lost =
          was != null
              && !changed.contains(line.split(" ", 5)[4].replace(" -> ", ""))
              && Integer.parseInt(was, 8) == (Integer.parseInt(line.split(" ", 3)[1], 8) | 02000);
      judged.add(lost ? line.replaceFirst(" [0-7]+ ", " " + was + " ") : line);
    }
    java.util.Collections.sort(judged);
    return judged;
  }

  private static void put(Map<String, String> modes, String line) {
    String[] fields = line.split(" ", 3);
    modes.put(fields[2], fields[1]);
  }
}
