package zander.desk.term;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;
import zander.desk.term.KeyEncoder.Held;

class KeyEncoderTest {
  private static String pressed(KeyCode code, String held, boolean application) {
    byte[] bytes =
        KeyEncoder.pressed(
            code,
            new Held(held.contains("S"), held.contains("A"), held.contains("C")),
            application);
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
    assertThat(KeyEncoder.pressed(KeyCode.C, new Held(false, false, true), false))
        .containsExactly(3);
    assertThat(KeyEncoder.pressed(KeyCode.SPACE, new Held(false, false, true), false))
        .containsExactly(0);
    assertThat(KeyEncoder.pressed(KeyCode.X, new Held(false, true, true), false))
        .containsExactly(27, 24);
    assertThat(KeyEncoder.pressed(KeyCode.DIGIT1, new Held(false, false, true), false)).isEmpty();
  }

  @Test
  void typedLettersGoOutAsUtf8() {
    assertThat(KeyEncoder.typed("ü", Held.NONE)).isEqualTo("ü".getBytes(StandardCharsets.UTF_8));
    assertThat(KeyEncoder.typed("b", new Held(false, true, false))).containsExactly(27, 'b');
    assertThat(KeyEncoder.typed("\u0003", new Held(false, false, true))).isEmpty();
    // AltGr comes as Ctrl and Alt together, and types a letter.
    assertThat(KeyEncoder.typed("@", new Held(false, true, true))).containsExactly('@');
  }
}
