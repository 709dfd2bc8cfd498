package zander.core.kept;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;
import zander.core.files.AccountNames;
import zander.core.files.RemotePath;
import zander.core.rights.Mode;
import zander.core.rights.Rights;
import zander.core.rights.TreeRights;

class KeptLearnerTest {
  private static final RemotePath TOP = RemotePath.of("/srv/www");

  private final AccountNames names = new AccountNames();
  private final Map<String, Rights> tree = new LinkedHashMap<>();

  KeptLearnerTest() {
    names.learnUser(1000, "deploy");
    names.learnUser(0, "root");
    names.learnGroup(33, "web");
    names.learnGroup(0, "root");
  }

  private void put(String path, int uid, int gid, String mode) {
    tree.put(path, new Rights(uid, gid, Mode.ofOctal(mode)));
  }

  private String learnt() {
    KeptLearner learner = new KeptLearner(names);
    tree.forEach((path, rights) -> learner.add(below(path), isFolder(path), rights));
    return learner.text();
  }

  private static boolean isFolder(String path) {
    return path.isEmpty() || path.endsWith("/");
  }

  private static String below(String path) {
    return path.endsWith("/") ? path.substring(0, path.length() - 1) : path;
  }

  /** How many entries are not as the lines say, or not named by them at all. */
  private int notAs(String lines) {
    KeptRights read = new KeptRights(lines);
    assertThat(read.problems()).as(lines).isEmpty();
    KeptWish wish = new KeptWish(List.of(new KeptFolder(TOP, read)), names);
    int not = 0;
    for (var one : tree.entrySet()) {
      String path = one.getKey().isEmpty() ? TOP.wire() : TOP.wire() + "/" + below(one.getKey());
      TreeRights said = wish.of(path, isFolder(one.getKey()));
      not += said.of(one.getValue(), isFolder(one.getKey())).equals(one.getValue()) ? 0 : 1;
    }
    return not;
  }

  @Test
  void aSiteIsLearntAsAPersonWouldWriteIt() {
    put("", 1000, 33, "2755");
    for (String folder : List.of("levels/", "uploads/", "uploads/may/", "bin/")) {
      put(folder, 1000, 33, folder.startsWith("uploads") ? "2775" : "2755");
      for (int i = 0; i < 6; i++) {
        String mode = folder.startsWith("up") ? "0664" : folder.equals("bin/") ? "0755" : "0644";
        put(folder + "file-" + i + (folder.equals("bin/") ? ".sh" : ".html"), 1000, 33, mode);
      }
    }
    put("levels/tls.key", 0, 33, "0640");
    put("uploads/may/own.key", 0, 33, "0640");
    put("odd name!.txt", 0, 0, "0600");
    assertThat(learnt())
        .isEqualTo(
            """
            # pattern        owner   group  files   folders
            *                deploy  web    0644+X  2755
            /uploads/        -       -      0664    2775
            *.key            root    -      0640    -
            /odd\\ name!.txt  root    root   0600    -
            """);
    assertThat(notAs(learnt())).isZero();
  }

  @Test
  void nothingIsLearntFromNothing() {
    assertThat(learnt()).isEmpty();
  }

  /** What rules made is explained again, in whatever lines; names that are odd included. */
  @Property(tries = 300, seed = "1")
  void whatWasMadeByRulesIsExplained(@ForAll long chance) {
    Random random = new Random(chance);
    tree.clear();
    String[] modes = {"0644", "0640", "0600", "0664"};
    String[] words = {"a", "b*", "[c]", "d e", "é", "!f"};
    put("", 1000, 33, "0755");
    for (int i = 0; i < 60; i++) {
      String folder = words[random.nextInt(words.length)] + "/";
      boolean own = folder.hashCode() % 2 == 0;
      put(wire(folder), own ? 0 : 1000, 33, own ? "0750" : "0755");
      String ending = "." + words[random.nextInt(2)];
      String mode = ending.equals(".a") ? modes[1] : modes[own ? 2 : 0];
      put(wire(folder + "n" + i + ending), own ? 0 : 1000, 33, mode);
    }
    for (int i = random.nextInt(5); i > 0; i--) {
      put(wire("one " + i), random.nextInt(2) * 1000, 0, modes[random.nextInt(4)]);
    }
    String lines = learnt();
    assertThat(notAs(lines)).as(lines).isZero();
    assertThat(lines.lines().count()).as(lines).isLessThan(16);
  }

  private static String wire(String text) {
    return zander.core.files.WireName.fromText(text);
  }
}
