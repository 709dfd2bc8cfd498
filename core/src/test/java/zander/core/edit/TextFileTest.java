package zander.core.edit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.CharRange;
import net.jqwik.api.constraints.Size;
import org.junit.jupiter.api.Test;

class TextFileTest {
  private static byte[] utf8(String text) {
    return text.getBytes(StandardCharsets.UTF_8);
  }

  @Property(seed = "1")
  void unedittedTextGivesTheSameBytes(@ForAll @Size(max = 400) byte[] bytes) throws IOException {
    for (byte b : bytes) {
      if (b == 0) {
        return;
      }
    }
    TextFile text = TextFile.decode(bytes);
    assertThat(text.encode(text.text())).isEqualTo(bytes);
  }

  @Property(seed = "1")
  void anyMixOfLineEndsSurvives(@ForAll @CharRange(from = '\n', to = '\r') String text)
      throws IOException {
    TextFile file = TextFile.decode(utf8(text));
    assertThat(file.encode(file.text())).isEqualTo(utf8(text));
    assertThat(file.text()).doesNotContain("\r");
  }

  @Test
  void newLinesGetTheUsualEndAndOthersKeepTheirs() throws IOException {
    TextFile crlf = TextFile.decode(utf8("a\r\nb\r\nlast"));
    assertThat(crlf.lineEnd()).isEqualTo(LineEnd.CRLF);
    assertThat(crlf.encode("a\nnew\nb\nlast")).isEqualTo(utf8("a\r\nnew\r\nb\r\nlast"));
    TextFile mixed = TextFile.decode(utf8("a\nb\r\nc\nd\n"));
    assertThat(mixed.hasMixedLineEnds()).isTrue();
    assertThat(mixed.encode("new\na\nb\nd\n")).isEqualTo(utf8("new\na\nb\r\nd\n"));
  }

  @Test
  void keepsTheMarkAndTheEncoding() throws IOException {
    TextFile marked = TextFile.decode(utf8("\uFEFFlevel\n"));
    assertThat(marked.hasMark()).isTrue();
    assertThat(marked.text()).isEqualTo("level\n");
    assertThat(marked.encode("river\n")).isEqualTo(utf8("\uFEFFriver\n"));
    byte[] wide = "\uFEFFpegel ü\r\n".getBytes(StandardCharsets.UTF_16LE);
    TextFile utf16 = TextFile.decode(wide);
    assertThat(utf16.charset()).isEqualTo(StandardCharsets.UTF_16LE);
    assertThat(utf16.encode(utf16.text())).isEqualTo(wide);
    byte[] old =
        "Brücke über den Fluss, Pegelstände für Äcker und Gärten\n"
            .getBytes(Charset.forName("windows-1252"));
    TextFile western = TextFile.decode(old);
    assertThat(western.text()).contains("Brücke");
    assertThat(western.encode(western.text())).isEqualTo(old);
  }

  @Test
  void saysWhereTextCannotBeKept() throws IOException {
    assertThatThrownBy(() -> TextFile.decode(new byte[] {'a', 0, 'b'}))
        .isInstanceOfSatisfying(NotTextException.class, e -> assertThat(e.at()).isEqualTo(1));
  }
}
