package zander.core.listing;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.TreeSet;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import zander.core.files.AccountNames;
import zander.core.files.FileKind;
import zander.core.phrase.TermPhrase;
import zander.core.rights.Mode;

/**
 * What words narrow a folder to, as {@code find} sees it.
 *
 * <p>Judged: what narrowing shows, and what the server is asked for it | {@code find} | 1,000 words
 * on 24 rows ({@code find.cases})
 */
class JudgedByFindTest {
  private static final int CASES = Integer.getInteger("find.cases", 1_000);

  private static final String[] NAMES =
      ("a.conf~A.CONF~b.conf~é.conf~über~[x]~a]~a-b~a b~x*y~x\\y~^~!a~level-1~"
              + "level-12~Ähre~ab~_~.hidden~naïve.txt~1~-rf~a\nb~😀.txt")
          .split("~");

  // Not [[:upper:]]: find -iname makes small letters first, and finds nothing by it.
  private static final String[] PIECES =
      ("a~b~x~*~?~[ab]~[!ab]~[^a]~[a-c]~[[:digit:]]~[[:alpha:]]~[]a]~\\*~\\[~é~.~-~"
              + "level~conf~1~[a\\]]")
          .split("~");

  @TempDir Path folder;
  private final List<Listed> rows = new ArrayList<>();

  @BeforeEach
  void plant() throws Exception {
    Random random = new Random(3);
    for (String name : NAMES) {
      Path file = Files.createFile(folder.resolve(name));
      int bits = random.nextInt(010000) | 0400;
      int wanted = random.nextInt(3) * 500;
      if (isRoot()) {
        Files.setAttribute(file, "unix:uid", wanted);
      }
      Files.setAttribute(file, "unix:mode", bits);
      int owner = (int) Files.getAttribute(file, "unix:uid");
      int is = (int) Files.getAttribute(file, "unix:mode") & 07777;
      String user = owner == 0 ? "root" : Integer.toString(owner);
      rows.add(
          new Listed(
              name,
              FileKind.FILE,
              0,
              0,
              new Mode(is),
              new Listed.Account(user, owner),
              Listed.Account.of("")));
    }
  }

  private static boolean isRoot() {
    return System.getProperty("user.name").equals("root");
  }

  private Set<String> found(List<String> expression, String locale) throws Exception {
    List<String> command =
        new ArrayList<>(List.of("find", folder.toString(), "-mindepth", "1", "-maxdepth", "1"));
    command.addAll(expression);
    command.addAll(List.of("-printf", "%f\\0"));
    ProcessBuilder find = new ProcessBuilder(command);
    find.environment().putAll(Map.of("LC_ALL", locale));
    Process run = find.redirectErrorStream(true).start();
    String out = new String(run.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
    assertThat(run.waitFor()).as("%s %s", expression, out).isZero();
    Set<String> names = new TreeSet<>(List.of(out.split("\0")));
    names.remove("");
    return names;
  }

  /** A word, and how {@code find} says it. */
  private record Case(String word, List<String> judge) {}

  private static Case made(Random random) {
    switch (random.nextInt(4)) {
      case 0 -> {
        String number = Integer.toString(random.nextInt(3) * 500);
        return new Case("owner:" + number, List.of("-uid", number));
      }
      case 1 -> {
        String octal = Integer.toOctalString(0100 + random.nextInt(0700));
        return new Case("mode:" + octal, List.of("-perm", octal));
      }
      case 2 -> {
        String who = List.of("", "a", "u", "g", "o", "ug", "go", "uo").get(random.nextInt(8));
        String letters = List.of("r", "w", "x", "rw", "wx").get(random.nextInt(5));
        if (random.nextInt(5) == 0) {
          boolean set = who.contains("u") || who.contains("g");
          letters = set ? "s" : "t";
          who = set ? who.replace("o", "") : "o";
        }
        String bits = (who.isEmpty() ? "a" : who) + "+" + letters;
        return random.nextBoolean()
            ? new Case("mode:" + who + "+" + letters, List.of("-perm", "-" + bits))
            : new Case("mode:" + who + "-" + letters, List.of("!", "-perm", "/" + bits));
      }
      default -> {
        StringBuilder glob = new StringBuilder();
        for (int i = 1 + random.nextInt(4); i > 0; i--) {
          glob.append(PIECES[random.nextInt(PIECES.length)]);
        }
        boolean isGlob = glob.toString().matches("(?s).*[*?\\[].*");
        String judge = isGlob ? glob.toString() : "*" + glob + "*";
        return new Case(glob.toString(), List.of("-iname", judge));
      }
    }
  }

  @Test
  void theSameRowsFitAndTheServersSearchLosesNone() throws Exception {
    for (int i = 0; i < CASES; i++) {
      Random random = new Random(i);
      Case made = made(random);
      boolean not = random.nextInt(4) == 0;
      Narrowing narrowing = Narrowing.parse((not ? "!" : "") + made.word, 0);
      assertThat(narrowing.problem()).as(made.word).isNull();
      Set<String> fit = new HashSet<>();
      rows.stream().filter(narrowing::fits).forEach(row -> fit.add(row.name()));
      List<String> judge = new ArrayList<>(not ? List.of("!") : List.of());
      judge.add("(");
      judge.addAll(made.judge);
      judge.add(")");
      assertThat(fit).as("%s, case %s", made, i).isEqualTo(found(judge, "C.UTF-8"));
      List<String> asked = narrowing.forFind(new AccountNames());
      if (!asked.isEmpty()) {
        assertThat(found(asked, "C")).as("%s for the server", made).containsAll(fit);
      }
    }
  }

  @Test
  void eachWordSaysWhatItMeansOrWhatIsWrong() {
    assertThat(Narrowing.parse("mode:u+x", 0).meanings())
        .containsExactly(TermPhrase.HAS.of(TermPhrase.THE_OWNER, "x"));
    assertThat(Narrowing.parse("mode:og-w", 0).meanings())
        .containsExactly(
            TermPhrase.LACK.of(
                TermPhrase.BOTH.of(TermPhrase.THE_GROUP, TermPhrase.THE_OTHERS), "w"));
    assertThat(Narrowing.parse("!mode:a+r", 0).meanings())
        .containsExactly(TermPhrase.NOT.of(TermPhrase.EVERYONE_HAS.of("r")));
    assertThat(Narrowing.parse("mode:o+s", 0).problem()).isEqualTo(TermPhrase.SET_ID_FORM.of());
    assertThat(Narrowing.parse("a[b", 0).problem()).isEqualTo(TermPhrase.BRACKET_OPEN.of());
  }
}
