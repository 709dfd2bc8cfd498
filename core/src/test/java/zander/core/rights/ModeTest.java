package zander.core.rights;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import org.junit.jupiter.api.Test;
import zander.core.phrase.InputPhrase;
import zander.core.rights.Mode.May;
import zander.core.rights.Mode.Who;

class ModeTest {
  @Test
  void writesLettersAsLsDoes() {
    assertThat(new Mode(0644).letters()).isEqualTo("rw-r--r--");
    assertThat(new Mode(04755).letters()).isEqualTo("rwsr-xr-x");
    assertThat(new Mode(02644).letters()).isEqualTo("rw-r-Sr--");
    assertThat(new Mode(01777).letters()).isEqualTo("rwxrwxrwt");
    assertThat(new Mode(01776).letters()).isEqualTo("rwxrwxrwT");
  }

  @Test
  void showsTheSum() {
    assertThat(new Mode(0640).sum(Who.OWNER)).isEqualTo("4+2 = 6");
    assertThat(new Mode(0640).sum(Who.GROUP)).isEqualTo("4 = 4");
    assertThat(new Mode(0640).sum(Who.OTHERS)).isEqualTo("0");
  }

  @Test
  void readsOctalAndSaysWhatIsWrong() {
    assertThat(Mode.ofOctal(" 0644 ")).isEqualTo(new Mode(0644));
    assertThat(Mode.ofOctal("7")).isEqualTo(new Mode(7));
    assertThat(Mode.ofOctal("02775")).isEqualTo(new Mode(02775));
    assertThatThrownBy(() -> Mode.ofOctal("698"))
        .hasMessage(InputPhrase.MODE_DIGITS.of().toString());
    for (String wrong : new String[] {"", "rw", "77777", "-1", "6 4"}) {
      assertThatThrownBy(() -> Mode.ofOctal(wrong)).isInstanceOf(IllegalArgumentException.class);
    }
  }

  @Property(seed = "1")
  void octalAndSymbolicSayTheSame(@ForAll @IntRange(min = 0, max = 07777) int bits) {
    Mode mode = new Mode(bits);
    assertThat(Mode.ofOctal(mode.octal())).isEqualTo(mode);
    assertThat(SymbolicMode.parse(SymbolicMode.of(mode)).apply(new Mode(0), 0, false))
        .isEqualTo(mode);
  }

  @Property(seed = "1")
  void aBitIsInTheDigitOfItsClass(
      @ForAll @IntRange(min = 0, max = 07777) int bits,
      @ForAll Who who,
      @ForAll May may,
      @ForAll boolean on) {
    Mode mode = new Mode(bits).with(who, may, on);
    assertThat(mode.allows(who, may)).isEqualTo(on);
    assertThat((mode.digit(who) & may.weight()) != 0).isEqualTo(on);
  }
}
