package zander.core.transfer.rules;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import zander.core.files.WireName;

/**
 * Made-up patterns over a tree of odd names, as {@code git check-ignore} reads them.
 *
 * <p>Judged: what ignore patterns leave out | {@code git check-ignore} | 1,500 pattern sets on each
 * path of a tree ({@code ignore.sets})
 */
class JudgedByGitIgnoreTest {
  private static final int SETS = Integer.getInteger("ignore.sets", 1_500);

  private static final String[] NAMES =
      ("a~b~ab~a.c~abc~A~-~]~[a]~a b~ a~a ~#a~!a~a\\b~é~level-1~level-12~a\nb~**~^~" + "x^y~a]")
          .split("~");

  private static final String[] PIECES =
      ("a~b~c~ab~*~**~?~/~/~**/~/**~[ab]~[!a]~[^a]~[a-c]~[c-a]~[]a]~[!]a]~[a~"
              + "[[:alpha:]]~[[:digit:]-]~[[:no:]]~[[:alpha:]~[\\]a]~[a-]~[-a]~[a\\-c]~[a/b]~"
              + "\\a~\\*~\\~\\ ~ ~#~!~é~.~-~level~1~]~^~***~[é]~[^/]~[--a]~[[a]")
          .split("~");

  /**
   * "Other consecutive asterisks are considered regular asterisks" (gitignore): git compares plain
   * letters before the first of them by themselves, and takes what is behind for the beginning.
   */
  private static final Pattern AGAINST_ITS_MANUAL =
      Pattern.compile("(?m)^!?[^*?\\[\\\\\\n]*[^*?\\[\\\\\\n/]\\*\\*");

  @TempDir Path folder;

  private final Set<String> paths = new TreeSet<>();

  private void plant() throws Exception {
    for (String top : NAMES) {
      boolean isFolder = top.hashCode() % 3 != 0;
      if (!isFolder) {
        plantFile(top);
        continue;
      }
      for (String below : NAMES) {
        if (below.hashCode() % 5 == 0) {
          plantFile(top + "/" + below + "/a");
          plantFile(top + "/" + below + "/a.c");
        } else {
          plantFile(top + "/" + below);
        }
      }
    }
  }

  private void plantFile(String path) throws Exception {
    Path file = folder.resolve(path);
    Files.createDirectories(file.getParent());
    Files.createFile(file);
    paths.add(path);
    for (int at = path.indexOf('/'); at >= 0; at = path.indexOf('/', at + 1)) {
      paths.add(path.substring(0, at));
    }
  }

  private static String patterns(Random random) {
    StringBuilder text = new StringBuilder();
    for (int line = 1 + random.nextInt(3); line > 0; line--) {
      text.append(random.nextInt(6) == 0 ? "!" : "");
      for (int piece = 1 + random.nextInt(4); piece > 0; piece--) {
        text.append(PIECES[random.nextInt(PIECES.length)]);
      }
      text.append(random.nextInt(8) == 0 ? "  " : "").append('\n');
    }
    return text.toString();
  }

  private Set<String> judged(String patterns) throws Exception {
    Files.writeString(folder.resolve(".gitignore"), patterns);
    Process git =
        new ProcessBuilder("git", "check-ignore", "--no-index", "-z", "--stdin")
            .directory(folder.toFile())
            .redirectError(ProcessBuilder.Redirect.DISCARD)
            .start();
    ByteArrayOutputStream all = new ByteArrayOutputStream();
    for (String path : paths) {
      all.writeBytes(("./" + path + "\0").getBytes(StandardCharsets.UTF_8));
    }
    Thread feeding =
        new Thread(
            () -> {
              try (var in = git.getOutputStream()) {
                in.write(all.toByteArray());
              } catch (java.io.IOException e) {
                // It ended; its answer tells.
              }
            });
    feeding.start();
    String out = new String(git.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
    feeding.join();
    assertThat(git.waitFor()).as(patterns).isIn(0, 1);
    Set<String> ignored = new HashSet<>();
    for (String path : out.split("\0")) {
      ignored.add(path.startsWith("./") ? path.substring(2) : path);
    }
    ignored.remove("");
    return ignored;
  }

  /** With all that is below a folder which is left out. */
  private Set<String> ours(String patterns) {
    IgnorePatterns ignore = new IgnorePatterns(patterns);
    Set<String> out = new HashSet<>();
    for (String path : paths) {
      int slash = path.lastIndexOf('/');
      boolean below = slash >= 0 && out.contains(path.substring(0, slash));
      boolean isFolder = Files.isDirectory(folder.resolve(path));
      if (below || ignore.by(WireName.fromText(path), isFolder) != null) {
        out.add(path);
      }
    }
    return out;
  }

  @Test
  void theSamePathsAreLeftOut() throws Exception {
    assertThat(new ProcessBuilder("git", "init", "-q", folder.toString()).start().waitFor())
        .isZero();
    plant();
    List<String> differ = new ArrayList<>();
    long leftOut = 0;
    for (int i = 0; i < SETS; i++) {
      String patterns = patterns(new Random(i));
      if (AGAINST_ITS_MANUAL.matcher(patterns).find()) {
        continue;
      }
      Set<String> judged = judged(patterns);
      Set<String> ours = ours(patterns);
      leftOut += judged.size();
      if (!judged.equals(ours)) {
        Set<String> wrong = new TreeSet<>(judged);
        wrong.removeAll(ours);
        Set<String> much = new TreeSet<>(ours);
        much.removeAll(judged);
        differ.add(patterns + " only git " + wrong + " only here " + much);
      }
    }
    assertThat(differ).isEmpty();
    assertThat(leftOut).isGreaterThan(SETS * 10L);
  }
}
