package zander.core.kept;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.OptionalInt;
import net.jqwik.api.Arbitraries;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;
import org.junit.jupiter.api.Test;
import zander.core.files.AccountNames;
import zander.core.files.RemotePath;
import zander.core.rights.Mode;
import zander.core.rights.Rights;
import zander.core.rights.TreeRights;
import zander.core.transfer.rules.IgnorePatterns;

class KeptRightsTest {
  private static final String SITE =
      """
      # the site of the station
      *            deploy  web  0644+X  0755
      /uploads/    -       -    0664    2775
      *.key        -       -    0600
      \tstart\\ here\\ \t-  33
      !/vendor/
      /vendor/our/ deploy
      /            -  - - 2755
      """;

  private final AccountNames names = new AccountNames();

  KeptRightsTest() {
    names.learnUser(1000, "deploy");
    names.learnGroup(33, "web");
  }

  private TreeRights of(String path, boolean folder) {
    KeptRights read = new KeptRights(SITE);
    assertThat(read.problems()).isEmpty();
    RemotePath top = RemotePath.of("/srv/www");
    return new KeptWish(List.of(new KeptFolder(top, read)), names).of(path, folder);
  }

  private static String mode(TreeRights rights, String before, boolean folder) {
    Rights had = new Rights(1, 1, Mode.ofOctal(before));
    return rights.of(had, folder).mode().octal();
  }

  @Test
  void theLastLineThatSaysSomethingDecidesEachField() {
    TreeRights page = of("/srv/www/levels/index.html", false);
    assertThat(page.uid()).hasValue(1000);
    assertThat(page.gid()).hasValue(33);
    assertThat(mode(page, "0600", false)).isEqualTo("0644");
    assertThat(mode(page, "0700", false)).isEqualTo("0755");
    TreeRights sent = of("/srv/www/uploads/today/photo.jpg", false);
    assertThat(sent.uid()).hasValue(1000);
    assertThat(mode(sent, "0700", false)).isEqualTo("0664");
    assertThat(mode(of("/srv/www/uploads", true), "0700", true)).isEqualTo("2775");
    assertThat(mode(of("/srv/www/uploads/a/tls.key", false), "0644", false)).isEqualTo("0600");
    assertThat(of("/srv/www/start here ", false).gid()).hasValue(33);
  }

  @Test
  void whatIsFreedIsLeftAloneUntilALaterLineSaysSomething() {
    assertThat(of("/srv/www/vendor/lib/a.key", false).isNothing()).isTrue();
    TreeRights ours = of("/srv/www/vendor/our/a.html", false);
    assertThat(ours.uid()).hasValue(1000);
    assertThat(ours.files()).isNull();
  }

  @Test
  void theFolderItselfIsMeantByASlashAndByAStar() {
    TreeRights top = of("/srv/www", true);
    assertThat(top.uid()).hasValue(1000);
    assertThat(mode(top, "0700", true)).isEqualTo("2755");
    assertThat(of("/srv/www2", true)).isNull();
    assertThat(of("/srv", true)).isNull();
  }

  @Test
  void theNearestFolderThatKeepsRightsDecides() {
    KeptFolder outer = new KeptFolder(RemotePath.of("/"), new KeptRights("* root root 0644 0755"));
    KeptFolder inner = new KeptFolder(RemotePath.of("/srv"), new KeptRights("* - - 0600"));
    names.learnUser(0, "root");
    names.learnGroup(0, "root");
    KeptWish wish = new KeptWish(List.of(outer, inner), names);
    assertThat(wish.of("/etc/hosts", false).uid()).hasValue(0);
    assertThat(wish.of("/", true).uid()).hasValue(0);
    assertThat(wish.of("/srv/a", false).uid()).isEmpty();
    assertThat(mode(wish.of("/srv/a", false), "0777", false)).isEqualTo("0600");
  }

  @Test
  void namesThatTheServerDoesNotHaveAreTold() {
    KeptRights read = new KeptRights("* nobody-here web\n*.x - 70000\n*.y - no-group");
    KeptWish wish = new KeptWish(List.of(new KeptFolder(RemotePath.of("/srv"), read)), names);
    assertThat(wish.unknownNames()).containsExactly("no-group", "nobody-here");
    assertThat(wish.of("/srv/a.x", false).gid()).isEqualTo(OptionalInt.of(70000));
  }

  @Test
  void linesThatCannotBeReadAreToldWithTheirNumber() {
    KeptRights read =
        new KeptRights(
            """
            * - - 0649
            # a remark
            [a - - 0644
            *.b
            *.c - - 0644 0755 more
            *.d - - u+q
            !*.e deploy
            ! deploy
            *.f deploy
            *.g - - 0644+x
            """);
    assertThat(read.problems())
        .extracting(problem -> problem.line() + " " + problem.kind() + " " + problem.what())
        .containsExactly(
            "1 MODE 0649",
            "3 PATTERN [a",
            "4 SAYS_NOTHING *.b",
            "5 TOO_MANY_FIELDS more",
            "6 MODE u+q",
            "7 TOO_MANY_FIELDS deploy",
            "8 PATTERN !",
            "8 TOO_MANY_FIELDS deploy",
            "10 MODE 0644+x");
    assertThat(read.rules()).extracting(KeptRule::shown).containsExactly("*.f");
    KeptRights many = new KeptRights("* deploy\n".repeat(KeptRights.MOST_LINES + 5));
    assertThat(many.problems())
        .extracting(KeptProblem::line)
        .containsExactly(KeptRights.MOST_LINES + 1);
  }

  @Test
  void whatIsReadyCanBeRead() {
    for (ReadyRights ready : ReadyRights.values()) {
      KeptRights read = new KeptRights(ready.text("deploy", "web"));
      assertThat(read.problems()).as(ready.name()).isEmpty();
      assertThat(read.rules()).as(ready.name()).isNotEmpty();
    }
    assertThat(ReadyRights.SHARED_BY_GROUP.text("deploy", "web"))
        .isEqualTo(
            """
            # pattern  owner  group  files   folders
            *          -      web    0660+X  2770
            """);
  }

  /** A pattern means the same as where it says what is left out, which git judges. */
  @Property(tries = 2000, seed = "1")
  void patternsMeanWhatTheyMeanElsewhere(
      @ForAll("patterns") List<String> patterns, @ForAll("paths") List<String> paths) {
    String lines = String.join("\n", patterns);
    IgnorePatterns ignore = new IgnorePatterns(lines);
    KeptRights read = new KeptRights(String.join(" deploy\n", patterns) + " deploy");
    KeptWish wish = new KeptWish(List.of(new KeptFolder(RemotePath.of("/srv"), read)), names);
    for (String path : paths) {
      boolean meant = ignore.by(path, false) != null;
      for (int at = path.indexOf('/'); at >= 0; at = path.indexOf('/', at + 1)) {
        meant |= ignore.by(path.substring(0, at), true) != null;
      }
      TreeRights said = wish.of("/srv/" + path, false);
      assertThat(said != null && said.uid().isPresent()).as(lines + "|" + path).isEqualTo(meant);
    }
  }

  @Provide
  Arbitrary<List<String>> patterns() {
    return Arbitraries.of(
            "a", "b/", "/a", "/a/b", "*.c", "**/b", "a/**", "a/*/c.c", "[ab]", "?", "/*", "b*/")
        .list()
        .ofMinSize(1)
        .ofMaxSize(3);
  }

  @Provide
  Arbitrary<List<String>> paths() {
    return Arbitraries.of("a", "b", "c.c", "ab")
        .list()
        .ofMinSize(1)
        .ofMaxSize(4)
        .map(parts -> String.join("/", parts))
        .list()
        .ofMinSize(1)
        .ofMaxSize(6);
  }
}
