package zander.desk.term;

import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.HashMap;
import java.util.Map;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;
import zander.desk.term.KeyEncoder.Held;
import zander.desk.term.KeyEncoder.Modes;

/**
 * Judged: what keys of the terminal send | {@code infocmp xterm-256color} | 24 function keys and 14
 * others
 */
class KeyEncoderTest {
  private static final Modes NONE = Modes.NONE;

  private static String pressed(KeyCode code, String held, boolean application) {
    byte[] bytes =
        KeyEncoder.pressed(
            code,
            new Held(held.contains("S"), held.contains("A"), held.contains("C")),
            new Modes(application, application, false, false, 0));
    return new String(bytes, StandardCharsets.UTF_8).replace("\033", "^").replace("\177", "DEL");
  }

  @ParameterizedTest
  @CsvSource({
    "UP, '', ^[A", "UP, C, ^[1;5A", "LEFT, S, ^[1;2D", "HOME, AC, ^[1;7H", "DELETE, '', ^[3~",
    "PAGE_UP, C, ^[5;5~", "F1, '', ^OP", "F4, S, ^[1;2S", "F12, '', ^[24~", "TAB, S, ^[Z",
    "BACK_SPACE, '', DEL", "BACK_SPACE, A, ^DEL", "ESCAPE, '', ^"
  })
  void sendsWhatTerminalsSend(KeyCode code, String held, String expected) {
    assertThat(pressed(code, held, false)).isEqualTo(expected);
  }

  @Test
  void followsTheProgramsCursorMode() {
    assertThat(pressed(KeyCode.UP, "", true)).isEqualTo("^OA");
    assertThat(pressed(KeyCode.UP, "C", true)).isEqualTo("^[1;5A");
  }

  @ParameterizedTest
  @EnumSource(names = {"CONTROL", "SHIFT", "ALT", "META", "CAPS", "ALT_GRAPH"})
  void aModifierAloneSendsNothing(KeyCode code) {
    assertThat(pressed(code, "C", false)).isEmpty();
    assertThat(pressed(code, "", false)).isEmpty();
  }

  @Test
  void controlLettersAreControlCharacters() {
    assertThat(KeyEncoder.pressed(KeyCode.C, new Held(false, false, true), NONE))
        .containsExactly(3);
    assertThat(KeyEncoder.pressed(KeyCode.SPACE, new Held(false, false, true), NONE))
        .containsExactly(0);
    assertThat(KeyEncoder.pressed(KeyCode.X, new Held(false, true, true), NONE))
        .containsExactly(27, 24);
    assertThat(KeyEncoder.pressed(KeyCode.DIGIT1, new Held(false, false, true), NONE)).isEmpty();
  }

  @Test
  void typedLettersGoOutAsUtf8() {
    assertThat(KeyEncoder.typed("ü", Held.NONE, NONE))
        .isEqualTo("ü".getBytes(StandardCharsets.UTF_8));
    assertThat(KeyEncoder.typed("b", new Held(false, true, false), NONE)).containsExactly(27, 'b');
    assertThat(KeyEncoder.typed("\u0003", new Held(false, false, true), NONE)).isEmpty();
    // AltGr comes as Ctrl and Alt together, and types a letter.
    assertThat(KeyEncoder.typed("@", new Held(false, true, true), NONE)).containsExactly('@');
  }

  /** With the keypad in application mode, as {@code smkx} of the description asks for it. */
  @Test
  void sendsWhatTheTerminalDescriptionSays() throws Exception {
    Map<String, String> told = description();
    for (int i = 1; i <= 24; i++) {
      assertThat(pressed(KeyCode.valueOf("F" + i), "", true)).isEqualTo(told.get("kf" + i));
    }
    Map<String, KeyCode> keys =
        Map.ofEntries(
            Map.entry("kcuu1", KeyCode.UP),
            Map.entry("kcud1", KeyCode.KP_DOWN),
            Map.entry("kcuf1", KeyCode.RIGHT),
            Map.entry("kcub1", KeyCode.KP_LEFT),
            Map.entry("khome", KeyCode.HOME),
            Map.entry("kend", KeyCode.END),
            Map.entry("kbeg", KeyCode.BEGIN),
            Map.entry("kich1", KeyCode.INSERT),
            Map.entry("kdch1", KeyCode.DELETE),
            Map.entry("kpp", KeyCode.PAGE_UP),
            Map.entry("knp", KeyCode.PAGE_DOWN));
    keys.forEach(
        (name, key) -> assertThat(pressed(key, "", true)).as(name).isEqualTo(told.get(name)));
    assertThat(pressed(KeyCode.UP, "S", true)).isEqualTo(told.get("kri"));
    assertThat(pressed(KeyCode.TAB, "S", true)).isEqualTo(told.get("kcbt"));
    assertThat(pressed(KeyCode.DELETE, "S", true)).isEqualTo(told.get("kDC"));
  }

  private static Map<String, String> description() throws Exception {
    Process infocmp = new ProcessBuilder("infocmp", "-1x", "xterm-256color").start();
    Map<String, String> told = new HashMap<>();
    for (String line :
        new String(infocmp.getInputStream().readAllBytes(), UTF_8).lines().toList()) {
      int at = line.indexOf('=');
      if (at > 0) {
        told.put(
            line.substring(0, at).strip(),
            line.substring(at + 1, line.length() - 1).replace("\\E", "^"));
      }
    }
    return told;
  }

  /** DEC's VT220 and VT100 manuals. */
  @Test
  void theKeypadFollowsItsModeAndDigitsAreControlCharacters() {
    assertThat(pressed(KeyCode.NUMPAD7, "", true)).isEqualTo("^Ow");
    assertThat(pressed(KeyCode.ADD, "", true)).isEqualTo("^Ok");
    assertThat(pressed(KeyCode.NUMPAD7, "", false)).isEmpty();
    int[] sent = {0, 27, 28, 29, 30, 31, 127};
    for (int i = 0; i < sent.length; i++) {
      KeyCode digit = KeyCode.valueOf("DIGIT" + (i + 2));
      assertThat(KeyEncoder.pressed(digit, new Held(false, false, true), NONE))
          .containsExactly(sent[i]);
    }
    assertThat(KeyEncoder.pressed(KeyCode.AT, new Held(false, false, true), NONE))
        .containsExactly(0);
  }
}
