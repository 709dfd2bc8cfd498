package zander.core.edit;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayDeque;
import java.util.Deque;
import java.util.HashMap;
import java.util.Map;
import java.util.Random;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Judged: which bracket belongs to which | a stack for each kind | 300 texts */
class BracketsTest {
  /** A stack of each kind is the judge. */
  @Property(tries = 300, seed = "1")
  void partnersAreThoseOfAStack(@ForAll long seed) {
    Random random = new Random(seed);
    StringBuilder text = new StringBuilder();
    for (int i = random.nextInt(60); i > 0; i--) {
      text.append("()[]{}a ".charAt(random.nextInt(8)));
    }
    Map<Integer, Integer> partners = new HashMap<>();
    for (char opening : "([{".toCharArray()) {
      Deque<Integer> open = new ArrayDeque<>();
      for (int i = 0; i < text.length(); i++) {
        if (text.charAt(i) == opening) {
          open.push(i);
        } else if (text.charAt(i) == Brackets.closing(opening) && !open.isEmpty()) {
          partners.put(i, open.peek());
          partners.put(open.pop(), i);
        }
      }
    }
    for (int i = 0; i < text.length(); i++) {
      char c = text.charAt(i);
      if (Brackets.isOpening(c) || Brackets.isClosing(c)) {
        assertThat(Brackets.at(text, i + 1))
            .isEqualTo(new Brackets.Pair(i, partners.getOrDefault(i, -1)));
      }
    }
  }

  @Test
  void theOneBeforeTheCursorComesFirst() {
    assertThat(Brackets.at("a)(b)", 2)).isEqualTo(new Brackets.Pair(1, -1));
    assertThat(Brackets.at("a (b)", 2)).isEqualTo(new Brackets.Pair(2, 4));
    assertThat(Brackets.at("a b", 1)).isNull();
    assertThat(Brackets.at("", 0)).isNull();
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "<html><body><p>text | true | p",
        "<html><body><p>text</p> | true | body",
        "<ul><li>one<li>two</ul><h1 title='a > b'> | true | h1",
        "<p><br><img src=\"a>b.png\"> | true | p",
        "<p><br><station/> | false | br",
        "<DIV></div> | true | ",
        "<Div></div> | false | Div",
        "<!-- <p> --><em> | true | em",
        "<p></p></p> | true | ",
        "a < b and c > d <b> | true | b",
        "plain | true | "
      })
  void theInnermostElementIsTheOneToClose(String text, boolean isHtml, String expected) {
    assertThat(OpenTags.innermost(text, isHtml)).isEqualTo(expected);
  }

  @Test
  void textsWithoutEndAreLookedThroughInTheirLength() {
    assertThat(OpenTags.innermost("<p " + "a='".repeat(50_000), true)).isNull();
    assertThat(OpenTags.innermost("<".repeat(200_000) + "<p>", true)).isEqualTo("p");
  }
}
