package zander.core.phrase;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.ObjectMapper;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import zander.core.transfer.progress.Progress.Problem;

class PhraseTest {
  private final ObjectMapper json = new ObjectMapper();
  private final Phrase nested =
      TransferPhrase.BECAUSE.of(
          TransferPhrase.SERVER_COULD_NOT.of(FileStep.WRITE), Phrase.quoted("quota \"web\"\n[\"x"));

  @Test
  void whatIsWrittenDownIsReadAsTheSame() throws JsonProcessingException {
    assertThat(Phrase.parse(nested.toString())).isEqualTo(nested);
    Problem problem = new Problem("site/a", nested, false, "site", false);
    String line = json.writeValueAsString(problem);
    assertThat(json.readValue(line, Problem.class)).isEqualTo(problem);
  }

  /** As versions before wrote it, or one that comes later. */
  @ParameterizedTest
  @ValueSource(strings = {"the server's disk is full", "[\"", "[1, 2]", "", "[]"})
  void anyOtherTextIsQuoted(String text) throws JsonProcessingException {
    assertThat(Phrase.parse(text)).isEqualTo(Phrase.quoted(text));
    String line = json.writeValueAsString(text);
    assertThat(json.readValue(line, Phrase.class)).isEqualTo(Phrase.quoted(text));
  }

  /** What a server says is never taken for what Zander found. */
  @ParameterizedTest
  @ValueSource(
      strings = {
        "[\"TransferPhrase.DISK_FULL\"]",
        "[\"TransferPhrase.DISK_FULL\"] denied",
        "[\"\",\"a\",\"b\"]",
        "[\"\""
      })
  void whatIsQuotedStaysQuoted(String said) {
    assertThat(Phrase.parse(Phrase.quoted(said).toString())).isEqualTo(Phrase.quoted(said));
  }

  @Test
  void whatWasFoundIsToldOfWhateverItWasWrappedIn() {
    Exception found = new InvalidInput(InputPhrase.MODE_DIGITS.of());
    assertThat(Phrase.of(new java.io.IOException("wrapped", found)))
        .isEqualTo(InputPhrase.MODE_DIGITS.of());
    assertThat(Phrase.of(new java.io.IOException("its own"))).isEqualTo(Phrase.quoted("its own"));
  }

  @Test
  void eachPlaceHasItsValue() {
    assertThatThrownBy(() -> TransferPhrase.BELONGS_TO.of("web"))
        .isInstanceOf(IllegalArgumentException.class);
    assertThat(TransferPhrase.BELONGS_TO.of("web", 33).values()).containsExactly("web", "33");
  }

  @Test
  void aStepIsWrittenAsTheJournalsOfAllVersionsHaveIt() {
    assertThat(FileStep.LOOK_AT.written()).isEqualTo("look at");
    for (FileStep step : FileStep.values()) {
      assertThat(FileStep.ofWritten(step.written())).isEqualTo(step);
    }
    assertThat(FileStep.ofWritten("turn round")).isNull();
  }
}
