package zander.desk.rights.kept;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import zander.core.kept.KeptRights;

class KeptWordsTest {
  private static String of(String line) {
    KeptRights read = new KeptRights(line);
    return read.problems().isEmpty()
        ? KeptWords.of(read.rules().get(0))
        : KeptWords.of(read.problems().get(0));
  }

  @Test
  void aLineIsSaidInASentence() {
    assertThat(of("* deploy web 0644+X 2755"))
        .isEqualTo(
            "This folder and all in it: owner deploy, group web, files 0644, what can be run stays"
                + " so, folders 2755.");
    assertThat(of("/ - web")).isEqualTo("This folder itself: group web.");
    assertThat(of("/uploads/ - - - g+s"))
        .isEqualTo("The folder /uploads/ and all in it: folders g+s.");
    assertThat(of("!/vendor/")).isEqualTo("The folder /vendor/ and all in it: left alone.");
    assertThat(of("odd\\ name\\\\ - - 0600"))
        .isEqualTo("What fits odd\\ name\\\\, and all in it: files 0600.");
  }

  @Test
  void whatCannotBeReadIsSaidWithItsLine() {
    assertThat(of("* - - 0649")).isEqualTo("Line 1: 0649 is not a mode: an octal digit is 0 to 7.");
    assertThat(of("[a deploy")).isEqualTo("Line 1: the pattern [a can fit nothing.");
    assertThat(of("*.x")).isEqualTo("Line 1: says nothing of *.x.");
  }
}
