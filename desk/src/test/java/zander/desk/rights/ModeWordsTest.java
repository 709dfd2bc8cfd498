package zander.desk.rights;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import zander.core.rights.Mode;

/** A mode in a sentence: one owner and one group do, and others, who are many, do too. */
class ModeWordsTest {
  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "0664|false|Owner reads and writes, group reads and writes, others read.",
        "0644|false|Owner reads and writes, everyone else reads.",
        "4701|false|Owner reads, writes and runs, group nothing, others run. Runs as its owner.",
        "0754|true|Owner lists, adds and removes and enters, group lists and enters,"
            + " others only see names.",
        "0742|true|Owner lists, adds and removes and enters, group only sees names, others nothing.",
        "0773|true|Owner lists, adds and removes and enters, group lists, adds and removes and"
            + " enters, others add and remove and enter.",
      })
  void saysWhoDoesWhat(String octal, boolean folder, String sentence) {
    assertThat(ModeWords.sentence(Mode.ofOctal(octal), folder)).isEqualTo(sentence);
  }
}
