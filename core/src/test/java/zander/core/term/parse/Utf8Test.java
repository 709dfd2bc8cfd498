package zander.core.term.parse;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.HexFormat;
import net.jqwik.api.Arbitraries;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.Example;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;
import net.jqwik.api.constraints.IntRange;

/**
 * Text is decoded as elsewhere.
 *
 * <p>Judged: UTF-8, well formed or not, cut anywhere | the decoder of Java | 10,000 arrays of bytes
 */
class Utf8Test {
  /** Keeps what is text, and none of the rest. */
  private static final class Text implements SequenceHandler {
    private final StringBuilder text = new StringBuilder();

    @Override
    public void text(byte[] bytes, int from, int to) {
      text.append(new String(bytes, from, to - from, StandardCharsets.US_ASCII));
    }

    @Override
    public void print(int codePoint) {
      text.appendCodePoint(codePoint);
    }

    @Override
    public void control(int code) {
      text.append((char) code);
    }

    @Override
    public void escape(int intermediates, int last) {}

    @Override
    public void sequence(int marker, int intermediates, int last, Parameters parameters) {}

    @Override
    public void command(String told) {}

    @Override
    public void device(
        int marker, int intermediates, int last, Parameters parameters, String told) {}
  }

  /** The Unicode Standard, tables 3-8 to 3-11: what each replacement stands for. */
  @Example
  void examplesOfTheStandard() {
    String[][] examples = {
      {"61f1808ee180c262806380bf64", "a???b?c??d"},
      {"c0afe080bff0818241", "????????A"},
      {"eda080edbfbfedaf41", "????????A"},
      {"f4919293ff4180bf42", "?????A??B"},
      {"e180e2f09192f1bf41", "????A"},
    };
    for (String[] example : examples) {
      byte[] bytes = HexFormat.of().parseHex(example[0]);
      Text text = new Text();
      new SequenceParser(text).take(bytes, 0, bytes.length);
      assertThat(text.text.toString().replace('\ufffd', '?')).isEqualTo(example[1]);
    }
  }

  /** Those at the edges of the table of what is well formed come often. */
  @Provide
  Arbitrary<int[]> bytes() {
    Arbitrary<Integer> edges =
        Arbitraries.of(
            0xe0, 0xe1, 0xed, 0xef, 0xf0, 0xf3, 0xf4, 0xf5, 0xc0, 0xc3, 0xdf, 0x80, 0x8f, 0x90,
            0x9f, 0xa0, 0xbf, 0xff, 0x61);
    return Arbitraries.oneOf(edges, edges, Arbitraries.integers().between(0x40, 0xff))
        .array(int[].class)
        .ofMaxSize(12);
  }

  @Property(tries = 10_000, seed = "1")
  void malformedBytesAreReplacedAsElsewhere(
      @ForAll("bytes") int[] values, @ForAll @IntRange(max = 12) int cut) {
    byte[] bytes = new byte[values.length];
    for (int i = 0; i < bytes.length; i++) {
      // Controls of C1 are sequences here, and DEL is left out.
      bytes[i] = (byte) (values[i] == 0x7f || values[i] == 0xc2 ? 'x' : values[i]);
      if (i > 0 && bytes[i - 1] == (byte) 0xed && values[i] >= 0xa0) {
        // Half a surrogate pair is one fault to Java, and three to Unicode: see the examples.
        bytes[i] = 'y';
      }
    }
    Text text = new Text();
    SequenceParser parser = new SequenceParser(text);
    int at = Math.min(cut, bytes.length);
    parser.take(bytes, 0, at);
    parser.take(bytes, at, bytes.length);
    parser.take(new byte[] {'.'}, 0, 1);
    String expected = new String(bytes, StandardCharsets.UTF_8) + ".";
    assertThat(text.text).as(HexFormat.of().formatHex(bytes)).hasToString(expected);
  }
}
