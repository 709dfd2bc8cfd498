package zander.core.transfer.compare;

import static org.assertj.core.api.Assertions.assertThat;
import static zander.core.transfer.rules.ConflictPrompt.For.REST;

import java.io.IOException;
import java.lang.reflect.InvocationTargetException;
import java.lang.reflect.Proxy;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Instant;
import java.util.List;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;
import zander.core.phrase.Phrase;
import zander.core.phrase.TransferPhrase;
import zander.core.transfer.Transfer;
import zander.core.transfer.compare.TransferPlan.Deed;
import zander.core.transfer.compare.TreeComparison.Difference;
import zander.core.transfer.endpoint.Source;
import zander.core.transfer.local.LocalEndpoint;
import zander.core.transfer.progress.Progress;
import zander.core.transfer.resume.ResumeLog;
import zander.core.transfer.rules.ConflictPrompt;
import zander.core.transfer.rules.ConflictPrompt.Answer;
import zander.core.transfer.rules.ConflictRule;
import zander.core.transfer.rules.IgnorePatterns;
import zander.core.transfer.rules.TransferRules;
import zander.core.work.Cancellation;

/** Plans and checks of two folders of this computer: every standing by every rule. */
class TransferPlanTest {
  private static final List<String> NAMES = List.of("site");
  private static final String[] FILES = {"new", "same", "newer", "older", "differs"};

  /** An answer, so that a question does not stop what else is under way. */
  private static final ConflictPrompt LEAVES_IT = question -> new Answer(ConflictRule.SKIP, REST);

  @TempDir Path folder;
  private Path from;
  private Path to;

  @BeforeEach
  void make() throws IOException {
    from = Files.createDirectories(folder.resolve("from/site")).getParent();
    to = Files.createDirectories(folder.resolve("to/site")).getParent();
    for (String name : FILES) {
      write(from, name, "from here", 2000);
    }
    write(from, "way", "a file", 2000);
    write(from, "notes~", "litter", 2000);
    write(to, "same", "over here", 2000);
    write(to, "newer", "over here!", 1000);
    write(to, "older", "over here!", 3000);
    write(to, "differs", "longer over here", 2000);
    write(to, "only-there", "x", 1000);
    Files.createDirectories(to.resolve("site/way"));
  }

  private static void write(Path base, String name, String text, long time) throws IOException {
    Path file = base.resolve("site").resolve(name);
    Files.writeString(file, text);
    Files.setLastModifiedTime(file, FileTime.from(Instant.ofEpochSecond(time)));
  }

  private TransferPlan.Result plan(TransferRules rules) throws IOException {
    return new TransferPlan(
            new LocalEndpoint(from), new LocalEndpoint(to), rules, new Cancellation())
        .make(NAMES, soFar -> {});
  }

  private static Deed deed(TransferPlan.Result plan, String name) {
    return plan.rows().stream()
        .filter(row -> row.path().equals("site/" + name))
        .map(TransferPlan.Row::deed)
        .findFirst()
        .orElse(Deed.IS_SAME);
  }

  @ParameterizedTest
  @CsvSource({
    "ASK, ARRIVES, IS_SAME, IS_ASKED, IS_ASKED, IS_ASKED, IS_ASKED",
    "REPLACE, ARRIVES, REPLACES, REPLACES, REPLACES, REPLACES, IS_ASKED",
    "SKIP, ARRIVES, IS_SAME, STAYS, STAYS, STAYS, STAYS",
    "NEWER, ARRIVES, IS_SAME, REPLACES, STAYS, STAYS, STAYS",
    "DIFFERENT, ARRIVES, IS_SAME, REPLACES, REPLACES, REPLACES, STAYS",
    "DIFFERENT_CONTENT, ARRIVES, IS_COMPARED, REPLACES, REPLACES, REPLACES, STAYS",
    "KEEP_BOTH, ARRIVES, BESIDE, BESIDE, BESIDE, BESIDE, BESIDE",
  })
  void saysWhatEachRuleDoes(
      ConflictRule rule, Deed fresh, Deed same, Deed newer, Deed older, Deed differs, Deed way)
      throws IOException {
    TransferPlan.Result plan =
        plan(TransferRules.of(rule).leaveOut(new IgnorePatterns(IgnorePatterns.USUAL)));
    assertThat(plan.complete()).isTrue();
    assertThat(
            List.of(
                deed(plan, "new"),
                deed(plan, "same"),
                deed(plan, "newer"),
                deed(plan, "older"),
                deed(plan, "differs"),
                deed(plan, "way")))
        .containsExactly(fresh, same, newer, older, differs, way);
    assertThat(deed(plan, "notes~")).isEqualTo(Deed.LEFT_OUT);
    assertThat(deed(plan, "only-there")).isEqualTo(Deed.ONLY_THERE);
    assertThat(plan.leftOut()).containsEntry(Phrase.quoted("*~"), 1L);
  }

  /** A plan that is not what happens would be worse than none. */
  @ParameterizedTest
  @EnumSource(
      value = ConflictRule.class,
      names = {"SKIP", "NEWER", "DIFFERENT", "KEEP_BOTH"})
  void whatHappensIsWhatWasPlanned(ConflictRule rule) throws IOException {
    TransferPlan.Result plan = plan(TransferRules.of(rule));
    Progress progress =
        new Transfer(
                new LocalEndpoint(from),
                new LocalEndpoint(to),
                rule,
                question -> {
                  throw new AssertionError("asked");
                },
                new Cancellation())
            .run(NAMES);
    assertThat(progress.problems()).isEmpty();
    long carried =
        plan.sum(Deed.ARRIVES).count()
            + plan.sum(Deed.REPLACES).count()
            + plan.sum(Deed.BESIDE).count();
    assertThat(progress.files() - progress.skipped()).isEqualTo(carried);
    assertThat(progress.bytes()).isEqualTo(plan.bytes());
    assertThat(progress.same()).isEqualTo(plan.sum(Deed.IS_SAME).count());
  }

  @Test
  void contentDecidesWhereTheRuleSaysSo() throws IOException {
    write(from, "equal", "the same bytes", 2000);
    write(to, "equal", "the same bytes", 1000);
    Progress progress =
        new Transfer(
                new LocalEndpoint(from),
                new LocalEndpoint(to),
                ConflictRule.DIFFERENT_CONTENT,
                LEAVES_IT,
                new Cancellation())
            .run(NAMES);
    assertThat(progress.same()).isEqualTo(1);
    assertThat(to.resolve("site/same")).hasContent("from here");
    assertThat(Files.getLastModifiedTime(to.resolve("site/equal")).toInstant().getEpochSecond())
        .isEqualTo(1000);
  }

  /** A link to a folder stands for all that is in the folder, as it does when it is sent. */
  @Test
  void followedLinksArePlannedAsWhatTheyLeadTo() throws IOException {
    Path shared = Files.createDirectories(folder.resolve("shared/deep"));
    for (String name : List.of("one", "two", "deep/three")) {
      Files.writeString(shared.getParent().resolve(name), name);
    }
    Files.createSymbolicLink(from.resolve("site/shared"), shared.getParent());
    Files.createSymbolicLink(from.resolve("site/broken"), Path.of("nowhere"));
    Files.createSymbolicLink(from.resolve("site/round"), Path.of("."));
    TransferRules rules = TransferRules.of(ConflictRule.SKIP).links(TransferRules.Links.FOLLOWED);
    TransferPlan.Result plan = plan(rules);
    Progress progress =
        new Transfer(
                new LocalEndpoint(from),
                new LocalEndpoint(to),
                rules,
                LEAVES_IT,
                new Cancellation(),
                ResumeLog.NONE)
            .run(NAMES);
    assertThat(deed(plan, "shared/deep/three")).isEqualTo(Deed.ARRIVES);
    assertThat(deed(plan, "broken")).isEqualTo(Deed.CANNOT);
    assertThat(progress.bytes()).isEqualTo(plan.bytes());
    assertThat(progress.files() - progress.skipped()).isEqualTo(plan.sum(Deed.ARRIVES).count());
    assertThat(progress.problems())
        .hasSize((int) plan.rows().stream().filter(row -> row.deed() == Deed.CANNOT).count());
  }

  /** A source that counts how often it is asked where links lead: each is a round trip. */
  private Source counting(AtomicInteger asked) {
    LocalEndpoint real = new LocalEndpoint(from);
    return (Source)
        Proxy.newProxyInstance(
            getClass().getClassLoader(),
            new Class<?>[] {Source.class},
            (proxy, method, arguments) -> {
              asked.addAndGet(method.getName().equals("lookThroughAll") ? 1 : 0);
              try {
                return method.invoke(real, arguments);
              } catch (InvocationTargetException e) {
                throw e.getCause();
              }
            });
  }

  @Test
  void linksOfAFolderAreFollowedTogether() throws IOException {
    for (int i = 0; i < 3000; i++) {
      Files.createSymbolicLink(from.resolve("site/link-" + i), Path.of("newer"));
    }
    TransferRules rules =
        TransferRules.of(ConflictRule.REPLACE).links(TransferRules.Links.FOLLOWED);
    AtomicInteger planned = new AtomicInteger();
    TransferPlan.Result plan =
        new TransferPlan(counting(planned), new LocalEndpoint(to), rules, new Cancellation())
            .make(NAMES, soFar -> {});
    assertThat(plan.sum(Deed.ARRIVES).count()).isGreaterThan(3000);
    assertThat(planned).hasValueLessThanOrEqualTo(2);
    AtomicInteger sent = new AtomicInteger();
    Progress progress =
        new Transfer(
                counting(sent),
                new LocalEndpoint(to),
                rules,
                LEAVES_IT,
                new Cancellation(),
                ResumeLog.NONE)
            .run(NAMES);
    assertThat(progress.phase()).isEqualTo(Progress.Phase.DONE);
    assertThat(to.resolve("site/link-2999")).hasContent("from here").isRegularFile();
    assertThat(sent).hasValueLessThanOrEqualTo(2);
  }

  @Test
  void aMirrorListsWhatItDeletes() throws IOException {
    TransferPlan.Result plan = plan(TransferRules.of(ConflictRule.REPLACE).mirror(true));
    assertThat(plan.toDelete()).containsExactly("site/only-there");
  }

  /** However many there are: what is counted is what goes. */
  @Test
  void aMirrorDeletesAllThatItCounts() throws IOException {
    for (int i = 0; i < 20_500; i++) {
      Files.createFile(to.resolve("site/old-" + i));
    }
    TransferPlan.Result plan = plan(TransferRules.of(ConflictRule.REPLACE).mirror(true));
    assertThat(plan.sum(TransferPlan.Deed.DELETED).count()).isEqualTo(20_501);
    assertThat(plan.toDelete()).hasSize(20_501).doesNotHaveDuplicates();
  }

  @Test
  void aCheckTellsEveryDifference() throws IOException {
    Files.setAttribute(to.resolve("site/newer"), "unix:mode", 0600);
    TreeComparison.Report report =
        new TreeComparison(
                new LocalEndpoint(from),
                new LocalEndpoint(to),
                new IgnorePatterns(IgnorePatterns.USUAL),
                new Cancellation())
            .run(NAMES, soFar -> {});
    assertThat(report.rows())
        .extracting(row -> row.path().substring(5) + " " + row.difference())
        .contains(
            "new " + Difference.ONLY_HERE,
            "only-there " + Difference.ONLY_THERE,
            "way " + Difference.OTHER_KIND,
            "same " + Difference.OTHER_CONTENT,
            "newer " + Difference.OTHER_MODE,
            "older " + Difference.OTHER_TIME,
            "differs " + Difference.OTHER_CONTENT);
    assertThat(report.equal()).isZero();
  }

  @Test
  void fixedModesFollowedLinksAndTimesOfNow() throws IOException {
    Files.createSymbolicLink(from.resolve("site/link"), Path.of("newer"));
    Files.createSymbolicLink(from.resolve("site/round"), Path.of("."));
    Files.createSymbolicLink(from.resolve("site/broken"), Path.of("nowhere"));
    Path goal = Files.createDirectories(folder.resolve("goal"));
    TransferRules rules =
        TransferRules.of(ConflictRule.ASK)
            .modes(
                TransferRules.Modes.FIXED,
                new zander.core.rights.Mode(0640),
                new zander.core.rights.Mode(0750))
            .keepTimes(false)
            .links(TransferRules.Links.FOLLOWED);
    Progress progress =
        new Transfer(
                new LocalEndpoint(from),
                new LocalEndpoint(goal),
                rules,
                LEAVES_IT,
                new Cancellation(),
                ResumeLog.NONE)
            .run(NAMES);
    assertThat(progress.problems()).extracting(Progress.Problem::path).contains("site/broken");
    assertThat(progress.problems())
        .anyMatch(problem -> problem.why().is(TransferPhrase.LEADS_ROUND));
    Path link = goal.resolve("site/link");
    assertThat(link).hasContent("from here").isRegularFile();
    assertThat((Integer) Files.getAttribute(link, "unix:mode") & 07777).isEqualTo(0640);
    assertThat((Integer) Files.getAttribute(goal.resolve("site"), "unix:mode") & 07777)
        .isEqualTo(0750);
    assertThat(Files.getLastModifiedTime(link).toInstant().getEpochSecond()).isGreaterThan(5000);
  }
}
