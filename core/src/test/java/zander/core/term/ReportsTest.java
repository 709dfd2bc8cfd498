package zander.core.term;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What the terminal answers, and tells whoever shows it. */
class ReportsTest {
  private final Shown shown = new Shown(80, 24);

  @ParameterizedTest
  @CsvSource({
    "'^[c', '^[?64;6;21;22c'",
    "'^[>c', '^[>41;400;0c'",
    "'^[=c', '^P!|00000000^\\'",
    "'^Z', '^[?64;6;21;22c'",
    "'^[5n', '^[0n'",
    "'^[3;7H^[6n', '^[3;7R'",
    "'^[3;7H^[?6n', '^[?3;7;1R'",
    "'^[5;9r^[?6h^[2;2H^[6n', '^[2;2R'",
    "'^[>q', '^P>|Zander^\\'",
    "'^[?25$p', '^[?25;1$y'",
    "'^[?25l^[?25$p', '^[?25;2$y'",
    "'^[?1006h^[?1006$p', '^[?1006;1$y'",
    "'^[?1005h^[?1005$p', '^[?1005;4$y'",
    "'^[?7777$p', '^[?7777;0$y'",
    "'^[4$p', '^[4;2$y'",
    "'^[18t', '^[8;24;80t'",
    "'^[14t^[20t^[21t^[13t', ''",
    "'^[1;4;38;5;9m^P$qm^\\', '^P1$r0;1;4:1;38:5:9m^\\'",
    "'^[3;9r^P$qr^\\', '^P1$r3;9r^\\'",
    "'^[4 q^P$q q^\\', '^P1$r4 q^\\'",
    "'^P$qwhatever^\\', '^P0$r^\\'",
    "'^P+q544e^\\', '^P0+r^\\'",
    "'^]4;1;#102030^\\^]4;1;?^\\', '^]4;1;rgb:1010/2020/3030^\\'",
    "'^]11;rgb:ff/80/0^\\^]11;?^\\', '^]11;rgb:ffff/8080/0000^\\'",
    "'^]11;#102030^\\^]111^\\^]11;?^\\', '^]11;rgb:0000/0000/0000^\\'",
    "'^]52;c;?^\\', ''",
    "'^]2;^[c rm -r^\\^[21t', '^[?64;6;21;22c'",
    "'^E', ''",
  })
  void answersWithFixedText(String asked, String answer) {
    shown.feed(asked);
    assertThat(shown.answered()).isEqualTo(answer);
  }

  @Test
  void tellsWhatIsNotOnTheScreen() {
    shown.feed("\007^]0;levels-web: \u202e site^\\^]7;file://levels-web/srv/a%20b^\\");
    shown.feed("^]52;c;aGVyb24=^\\^]7;https://elsewhere/^\\^]7;file://x/%0a^\\^]52;c;@@^\\");
    assertThat(shown.told)
        .containsExactly(
            "bell", "title levels-web:  site", "folder levels-web /srv/a b", "clipboard heron");
  }

  @Test
  void answersAreBounded() {
    shown.feed("^[c".repeat(100_000));
    assertThat(shown.answers.size()).isLessThan(3_000_000);
  }

  @Test
  void anotherProgramFindsNothingOfTheOneBefore() {
    shown.feed("first^[?1049h^[?1003;2004h^[5;9r^[?25l^[1;31mFULL^]2;not ended");
    shown.terminal.renew();
    shown.feed("second");
    assertThat(shown.rows()).isEqualTo("first|second");
    assertThat(shown.style(0, 1)).isZero();
    assertThat(shown.terminal.modes().mouse()).isEqualTo(TerminalModes.Mouse.NONE);
    assertThat(shown.terminal.modes().isCursorVisible()).isTrue();
  }

  /** As while a full scrollback is being wrapped anew: whoever draws must not wait for it. */
  @Test
  void aPictureIsNotWaitedFor() throws Exception {
    CountDownLatch busy = new CountDownLatch(1);
    CountDownLatch done = new CountDownLatch(1);
    Thread wrapping =
        new Thread(
            () ->
                shown.terminal.look(
                    screen -> {
                      busy.countDown();
                      try {
                        return done.await(1, TimeUnit.MINUTES);
                      } catch (InterruptedException e) {
                        throw new IllegalStateException(e);
                      }
                    }));
    wrapping.start();
    busy.await();
    assertThat(shown.terminal.picture(TerminalPicture.SCREEN, null)).isNull();
    done.countDown();
    wrapping.join();
    assertThat(shown.terminal.picture(TerminalPicture.SCREEN, null)).isNotNull();
  }

  @Test
  void modesAreAsTheyWereAtTheStartAfterAReset() {
    shown.feed("^[?1;9;1003;1006;1004;2004;5h^[?25l^[>4;2m^[5 q^=^c");
    TerminalModes modes = shown.terminal.modes();
    assertThat(modes.isApplicationCursor() || modes.isApplicationKeypad()).isFalse();
    assertThat(modes.isBracketedPaste() || modes.isFocusReported()).isFalse();
    assertThat(modes.isCursorVisible()).isTrue();
    assertThat(modes.mouse()).isEqualTo(TerminalModes.Mouse.NONE);
    assertThat(modes.modifyOtherKeys()).isZero();
    assertThat(modes.cursorShape()).isEqualTo(TerminalModes.CursorShape.BLOCK);
  }
}
