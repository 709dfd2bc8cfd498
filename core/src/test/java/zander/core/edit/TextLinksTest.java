package zander.core.edit;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;

class TextLinksTest {
  private static final List<Pattern> HTML =
      List.of(
          Pattern.compile("(?i)\\b(?:href|src)\\s*=\\s*\"([^\"<>]*)\""),
          Pattern.compile("(?i)\\b(?:href|src)\\s*=\\s*'([^'<>]*)'"));

  @Test
  void linksOfALineAreFoundInTheirOrder() {
    String line = "<a href='a.html'><img src=\"b.svg\"></a><a HREF=\"\">";
    assertThat(TextLinks.in(line, HTML))
        .containsExactly(
            new TextLinks.Link(9, 15, "a.html"),
            new TextLinks.Link(27, 32, "b.svg"),
            new TextLinks.Link(47, 47, ""));
    assertThat(TextLinks.at(line, 12, HTML).target()).isEqualTo("a.html");
    assertThat(TextLinks.at(line, 18, HTML)).isNull();
  }

  @Test
  void aLinkThatIsBeingTypedIsFoundBeforeItIsClosed() {
    assertThat(TextLinks.begunAt("<a href=\"sta", 12, HTML).target()).isEqualTo("sta");
    assertThat(TextLinks.begunAt("<a href=\"stations/x\">", 15, HTML).target()).isEqualTo("statio");
    assertThat(TextLinks.begunAt("<a href=\"", 9, HTML).target()).isEmpty();
    assertThat(TextLinks.begunAt("<a title=\"sta", 13, HTML)).isNull();
    assertThat(TextLinks.begunAt("<a href=\"x\"> y", 14, HTML)).isNull();
  }
}
