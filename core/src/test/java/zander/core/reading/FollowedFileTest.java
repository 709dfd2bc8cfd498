package zander.core.reading;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;
import zander.core.files.RemotePath;
import zander.core.reading.FollowedFile.Growth;
import zander.core.reading.FollowedFile.Turn;

/**
 * What is told of a log that grows, is moved, emptied and made anew between any two requests.
 *
 * <p>Judged: no line lost or told twice while a log grows, is moved and made anew between any two
 * requests | the writer | 300 runs of 60 looks
 */
class FollowedFileTest {
  private static final RemotePath OLD = RemotePath.of("/var/log/levels/levels.log.1");

  private final GrowingFiles files = new GrowingFiles();
  private int number;

  private FollowedFile follow() throws IOException {
    PagedFile file = PagedFile.open(files.files(), GrowingFiles.LOG);
    return FollowedFile.from(files.files(), file, file.size());
  }

  private byte[] lines(int count) {
    StringBuilder text = new StringBuilder();
    for (int i = 0; i < count; i++) {
      text.append("reading ").append(number++).append(" of Weir 3\n");
    }
    return text.toString().getBytes(StandardCharsets.UTF_8);
  }

  private static void add(List<Growth> grown, List<String> texts, List<Turn> turns) {
    for (Growth growth : grown) {
      turns.add(growth.turn());
      growth.lines().forEach(line -> texts.add(line.text()));
    }
  }

  private List<String> expected(int from) {
    List<String> all = new ArrayList<>();
    for (int i = from; i < number; i++) {
      all.add("reading " + i + " of Weir 3");
    }
    return all;
  }

  /** The writer goes on between any two requests; whole lines, as loggers write them. */
  @Property(tries = 300, seed = "1")
  void noLineIsLostOrToldTwiceOverMovesOfTheFile(@ForAll long seed) throws IOException {
    Random random = new Random(seed);
    files.put(GrowingFiles.LOG, lines(random.nextInt(30)));
    int first = number;
    FollowedFile followed = follow();
    GrowingFiles.Content[] writtenTo = {files.at(GrowingFiles.LOG)};
    int[] looks = {0, 0};
    files.before =
        () -> {
          int what = random.nextInt(24);
          if (what < 8) {
            files.append(writtenTo[0], lines(random.nextInt(5)));
          } else if (what == 8
              && files.at(GrowingFiles.LOG) == writtenTo[0]
              && looks[0] > looks[1] + 1) {
            // Moved away; its writer goes on with it until it is told to open its log anew. Of a
            // file that came and went between two looks nobody can know.
            looks[1] = looks[0];
            files.move(GrowingFiles.LOG, OLD);
            if (random.nextBoolean()) {
              files.put(GrowingFiles.LOG, new byte[0]);
            }
          } else if (what == 9 && files.at(OLD) == writtenTo[0]) {
            if (files.at(GrowingFiles.LOG) == null) {
              files.put(GrowingFiles.LOG, new byte[0]);
              looks[1] = looks[0];
            }
            writtenTo[0] = files.at(GrowingFiles.LOG);
          }
        };
    List<String> texts = new ArrayList<>();
    List<Turn> turns = new ArrayList<>();
    for (int i = 0; i < 60; i++) {
      looks[0]++;
      add(followed.look(), texts, turns);
    }
    files.before = () -> {};
    for (int i = 0; i < 3; i++) {
      add(followed.look(), texts, turns);
    }
    assertThat(texts).doesNotHaveDuplicates().containsExactlyInAnyOrderElementsOf(expected(first));
    assertThat(turns).doesNotContain(Turn.EMPTIED, Turn.REPLACED_UNSEEN);
  }

  @Test
  void aFileThatIsEmptiedIsReadFromItsFront() throws IOException {
    files.put(GrowingFiles.LOG, lines(20));
    FollowedFile followed = follow();
    assertThat(followed.look()).isEmpty();
    files.at(GrowingFiles.LOG).bytes = lines(3);
    assertThat(followed.look())
        .singleElement()
        .satisfies(
            growth -> {
              assertThat(growth.turn()).isEqualTo(Turn.EMPTIED);
              assertThat(growth.lines()).extracting(FileLine::text).isEqualTo(expected(20));
            });
  }

  @Test
  void aFileThatIsEmptiedAndIsLongerByNowIsNoticedToo() throws IOException {
    files.put(GrowingFiles.LOG, lines(20));
    FollowedFile followed = follow();
    followed.look();
    files.at(GrowingFiles.LOG).bytes = lines(50);
    assertThat(followed.look()).extracting(Growth::turn).containsExactly(Turn.EMPTIED);
  }

  @Test
  void theBeginningOfALineIsToldWhenNothingMoreComes() throws IOException {
    files.put(GrowingFiles.LOG, new byte[0]);
    FollowedFile followed = follow();
    files.append(files.at(GrowingFiles.LOG), "pump 2 ".getBytes(StandardCharsets.UTF_8));
    assertThat(followed.look()).isEmpty();
    assertThat(followed.look().get(0).lines()).containsExactly(new FileLine(0, 7, "pump 2 ", true));
    files.append(files.at(GrowingFiles.LOG), "runs\n".getBytes(StandardCharsets.UTF_8));
    assertThat(followed.look().get(0).lines()).containsExactly(new FileLine(7, 12, "runs", false));
  }

  @Test
  void aFileThatIsGoneIsToldOnceAndComesBack() throws IOException {
    files.put(GrowingFiles.LOG, lines(2));
    FollowedFile followed = follow();
    files.move(GrowingFiles.LOG, OLD);
    assertThat(followed.look()).extracting(Growth::turn).containsExactly(Turn.GONE);
    assertThat(followed.look()).isEmpty();
    PagedFile first = followed.file();
    files.put(GrowingFiles.LOG, lines(1));
    assertThat(followed.look()).extracting(Growth::turn).containsExactly(Turn.REPLACED);
    assertThat(followed.fileBefore(followed.file())).isSameAs(first);
    assertThat(first.last()).hasSize(2);
  }

  @Test
  void aReplacedFileThatIsEmptiedStaysBehindTheNewOne() throws IOException {
    files.put(GrowingFiles.LOG, lines(5));
    FollowedFile followed = follow();
    followed.look();
    files.move(GrowingFiles.LOG, OLD);
    files.put(GrowingFiles.LOG, lines(1));
    followed.look();
    files.at(OLD).bytes = lines(2);
    assertThat(followed.look())
        .singleElement()
        .satisfies(
            growth -> {
              assertThat(growth.turn()).isEqualTo(Turn.EMPTIED);
              assertThat(growth.late()).isTrue();
              assertThat(followed.fileAfter(growth.file())).isSameAs(followed.file());
            });
  }

  @Test
  void aLengthThatIsMadeUpIsNotAskedForWithoutEnd() throws IOException {
    files.put(GrowingFiles.LOG, lines(20));
    FollowedFile followed = follow();
    followed.look();
    files.at(GrowingFiles.LOG).madeUp = Long.MAX_VALUE / 2;
    assertThat(followed.look()).isEmpty();
    assertThat(followed.hasMore()).isFalse();
    files.append(files.at(GrowingFiles.LOG), lines(2));
    assertThat(followed.look().get(0).lines()).hasSize(2);
    assertThat(followed.file().last()).isEmpty();
  }

  @Test
  void overAnotherConnectionItGoesOnWhereItWas() throws IOException {
    files.put(GrowingFiles.LOG, lines(20));
    FollowedFile followed = follow();
    followed.look();
    files.append(files.at(GrowingFiles.LOG), lines(5));
    List<Growth> grown = followed.goOn(files.files());
    assertThat(grown).extracting(Growth::turn).containsExactly(Turn.GREW);
    assertThat(grown.get(0).lines()).extracting(FileLine::text).isEqualTo(expected(20));
    files.move(GrowingFiles.LOG, OLD);
    files.put(GrowingFiles.LOG, lines(40));
    assertThat(followed.goOn(files.files()))
        .extracting(Growth::turn)
        .containsExactly(Turn.REPLACED_UNSEEN);
  }
}
