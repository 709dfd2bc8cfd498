package zander.desk.view.file;

import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.function.Function;
import java.util.function.Supplier;
import javax.swing.text.Segment;
import org.fife.ui.rsyntaxtextarea.SyntaxConstants;
import org.fife.ui.rsyntaxtextarea.Token;
import org.fife.ui.rsyntaxtextarea.TokenMaker;
import org.fife.ui.rsyntaxtextarea.TokenMakerFactory;
import org.fife.ui.rsyntaxtextarea.TokenTypes;
import org.fxmisc.richtext.CodeArea;
import org.fxmisc.richtext.model.StyleSpans;
import org.fxmisc.richtext.model.StyleSpansBuilder;
import org.reactfx.Subscription;
import zander.core.edit.Brackets;
import zander.core.edit.HiddenCharacters;
import zander.core.edit.TextLinks;
import zander.core.find.TextPlaces.Place;
import zander.desk.edit.Language;
import zander.desk.edit.RuleColours;
import zander.desk.view.part.Soon;

/**
 * Colours the lines that are on screen, and no others: styling a whole document of 100,000 lines
 * takes a second and much memory. The lexer's state at the start of each line is kept as far as it
 * was needed, and dropped from the first changed line on.
 */
final class Highlighter {
  /** Longer lines are not coloured, in characters: each coloured word is a node of the window. */
  static final int LONG_LINE = 20_000;

  /** Lines that are read in one go, which takes some milliseconds. */
  private static final int AT_ONCE = 500;

  private final CodeArea area;
  private final Language language;
  private final TokenMaker lexer;
  private final List<Integer> startStates = new ArrayList<>(List.of(TokenTypes.NULL));
  private final Subscription subscription;
  private final Marks marks;
  private final Supplier<Brackets.Pair> pairs;
  private final boolean plain;
  private final Function<String, List<TextLinks.Link>> dead;

  /** Each line that comes into sight tells of itself: once for all of them is enough. */
  private final Soon styling = new Soon(this::styleVisible);

  /** Parts of the text that are marked besides. */
  interface Marks {
    /** Those that touch a part of the text, in order, none in another. */
    List<Place> within(int from, int to);
  }

  /**
   * @param pairs gives the brackets that are marked; or {@code null}
   * @param dead gives the links of a line that lead nowhere
   */
  Highlighter(
      CodeArea area,
      Language language,
      Marks marks,
      Supplier<Brackets.Pair> pairs,
      Function<String, List<TextLinks.Link>> dead) {
    this.area = area;
    this.dead = dead;
    this.marks = marks;
    this.pairs = pairs;
    this.language = language;
    String style = language.lexer() == null ? SyntaxConstants.SYNTAX_STYLE_NONE : language.lexer();
    lexer = TokenMakerFactory.getDefaultInstance().getTokenMaker(style);
    plain = language.lexer() == null;
    subscription =
        area.plainTextChanges()
            .subscribe(change -> changedFrom(change.getPosition()))
            .and(area.getVisibleParagraphs().changes().subscribe(change -> styling.wish()));
  }

  void stop() {
    subscription.unsubscribe();
  }

  private void changedFrom(int position) {
    int line =
        area.offsetToPosition(
                Math.min(position, area.getLength()),
                org.fxmisc.richtext.model.TwoDimensional.Bias.Backward)
            .getMajor();
    while (startStates.size() > line + 1) {
      startStates.remove(startStates.size() - 1);
    }
    styling.wish();
  }

  /** The marks are others. */
  void marksChanged() {
    styling.wish();
  }

  private void styleVisible() {
    if (area.getVisibleParagraphs().isEmpty()) {
      return;
    }
    int first = area.firstVisibleParToAllParIndex();
    int last = Math.min(area.lastVisibleParToAllParIndex(), area.getParagraphs().size() - 1);
    if (!plain && !readUpTo(first)) {
      styling.wish();
      return;
    }
    restyle(first, last);
  }

  /** All that differ at once: each change of styles costs a pass over the text. */
  private void restyle(int first, int last) {
    List<StyleSpans<Collection<String>>> wanted = new ArrayList<>();
    Brackets.Pair pair = pairs.get();
    int from = -1;
    int to = -1;
    for (int line = first; line <= last; line++) {
      StyleSpans<Collection<String>> spans =
          withPair(pair, line, withHidden(line, withDead(line, withMarks(line, spans(line)))));
      wanted.add(spans);
      if (!spans.equals(area.getStyleSpans(line))) {
        from = from < 0 ? line : from;
        to = line;
      }
    }
    if (from < 0) {
      return;
    }
    StyleSpansBuilder<Collection<String>> all = new StyleSpansBuilder<>();
    for (int line = from; line <= to; line++) {
      all.addAll(wanted.get(line - first));
      if (line < to) {
        all.add(List.of(), 1);
      }
    }
    area.setStyleSpans(area.getAbsolutePosition(from, 0), all.create());
  }

  /** Reads on towards a line, no further than the window can wait for; whether it got there. */
  private boolean readUpTo(int line) {
    startState(Math.min(line, startStates.size() - 1 + AT_ONCE));
    return startStates.size() > line;
  }

  /** The lexer's state at the start of a line; lines before it are run through when needed. */
  private int startState(int line) {
    while (startStates.size() <= line) {
      int before = startStates.size() - 1;
      startStates.add(lexer.getLastTokenTypeOnLine(segment(before), startStates.get(before)));
    }
    return startStates.get(line);
  }

  /** Of a long line nothing is read: what it leaves open is not seen. */
  private Segment segment(int line) {
    if (area.getParagraphLength(line) > LONG_LINE) {
      return new Segment(new char[0], 0, 0);
    }
    char[] text = area.getParagraph(line).getText().toCharArray();
    return new Segment(text, 0, text.length);
  }

  private StyleSpans<Collection<String>> withMarks(int line, StyleSpans<Collection<String>> spans) {
    int length = area.getParagraphLength(line);
    int start = area.getAbsolutePosition(line, 0);
    List<Place> marked = marks.within(start, start + length);
    if (marked.isEmpty() || length > LONG_LINE) {
      return spans;
    }
    StyleSpansBuilder<Collection<String>> found = new StyleSpansBuilder<>();
    int at = start;
    for (Place place : marked) {
      found.add(List.of(), place.start() - at);
      found.add(List.of("found"), place.end() - place.start());
      at = place.end();
    }
    found.add(List.of(), start + length - at);
    return spans.overlay(found.create(), Highlighter::both);
  }

  private StyleSpans<Collection<String>> withDead(int line, StyleSpans<Collection<String>> spans) {
    int length = area.getParagraphLength(line);
    List<TextLinks.Link> links =
        length > LONG_LINE ? List.of() : dead.apply(area.getParagraph(line).getText());
    if (links.isEmpty()) {
      return spans;
    }
    StyleSpansBuilder<Collection<String>> marked = new StyleSpansBuilder<>();
    int at = 0;
    for (TextLinks.Link link : links) {
      marked.add(List.of(), link.start() - at);
      marked.add(List.of("dead-link"), link.end() - link.start());
      at = link.end();
    }
    marked.add(List.of(), length - at);
    return spans.overlay(marked.create(), Highlighter::both);
  }

  private StyleSpans<Collection<String>> withHidden(
      int line, StyleSpans<Collection<String>> spans) {
    int length = area.getParagraphLength(line);
    String text = length > LONG_LINE ? "" : area.getParagraph(line).getText();
    List<HiddenCharacters.Hidden> hidden = HiddenCharacters.in(text);
    if (hidden.isEmpty()) {
      return spans;
    }
    StyleSpansBuilder<Collection<String>> marked = new StyleSpansBuilder<>();
    int at = 0;
    for (HiddenCharacters.Hidden one : hidden) {
      // What takes no room is seen by the letter before it.
      boolean bare = one.hasNoWidth() && one.start() > at;
      int from = bare ? text.offsetByCodePoints(one.start(), -1) : one.start();
      marked.add(List.of(), from - at);
      marked.add(List.of("hidden-character"), one.end() - from);
      at = one.end();
    }
    marked.add(List.of(), length - at);
    return spans.overlay(marked.create(), Highlighter::both);
  }

  /** The bracket beside the cursor, and its partner. */
  private StyleSpans<Collection<String>> withPair(
      Brackets.Pair pair, int line, StyleSpans<Collection<String>> spans) {
    if (pair == null || pair.partner() < 0) {
      return spans;
    }
    int start = area.getAbsolutePosition(line, 0);
    int length = area.getParagraphLength(line);
    StyleSpans<Collection<String>> marked = spans;
    for (int at : new int[] {pair.at() - start, pair.partner() - start}) {
      if (at >= 0 && at < length && length <= LONG_LINE) {
        StyleSpansBuilder<Collection<String>> one = new StyleSpansBuilder<>();
        one.add(List.of(), at).add(List.of("paired"), 1).add(List.of(), length - at - 1);
        marked = marked.overlay(one.create(), Highlighter::both);
      }
    }
    return marked;
  }

  private static Collection<String> both(Collection<String> one, Collection<String> other) {
    if (one.isEmpty() || other.isEmpty()) {
      return one.isEmpty() ? other : one;
    }
    List<String> both = new ArrayList<>(one);
    both.addAll(other);
    return both;
  }

  private StyleSpans<Collection<String>> spans(int line) {
    int length = area.getParagraphLength(line);
    if (length > 0 && length <= LONG_LINE && !language.rules().isEmpty()) {
      return byRules(area.getParagraph(line).getText());
    }
    if (plain || length == 0 || length > LONG_LINE) {
      return StyleSpans.singleton(List.of(), length);
    }
    StyleSpansBuilder<Collection<String>> spans = new StyleSpansBuilder<>();
    int covered = 0;
    Token token = lexer.getTokenList(segment(line), startState(line), 0);
    for (; token != null && token.isPaintable(); token = token.getNextToken()) {
      int within = Math.min(token.length(), length - covered);
      spans.add(styleOf(token.getType()), within);
      covered += within;
    }
    if (covered < length) {
      spans.add(List.of(), length - covered);
    }
    return spans.create();
  }

  private StyleSpans<Collection<String>> byRules(String line) {
    StyleSpansBuilder<Collection<String>> spans = new StyleSpansBuilder<>();
    int at = 0;
    for (RuleColours.Part part : RuleColours.of(line, language.rules())) {
      spans.add(List.of(), part.start() - at);
      spans.add(List.of("code-" + part.kind()), part.end() - part.start());
      at = part.end();
    }
    return spans.add(List.of(), line.length() - at).create();
  }

  private static List<String> styleOf(int type) {
    return switch (type) {
      case TokenTypes.COMMENT_EOL,
          TokenTypes.COMMENT_MULTILINE,
          TokenTypes.COMMENT_DOCUMENTATION,
          TokenTypes.COMMENT_MARKUP,
          TokenTypes.MARKUP_COMMENT ->
          List.of("code-comment");
      case TokenTypes.RESERVED_WORD,
          TokenTypes.RESERVED_WORD_2,
          TokenTypes.MARKUP_TAG_NAME,
          TokenTypes.FUNCTION,
          TokenTypes.DATA_TYPE ->
          List.of("code-word");
      case TokenTypes.LITERAL_STRING_DOUBLE_QUOTE,
          TokenTypes.LITERAL_CHAR,
          TokenTypes.LITERAL_BACKQUOTE,
          TokenTypes.MARKUP_TAG_ATTRIBUTE_VALUE ->
          List.of("code-string");
      case TokenTypes.LITERAL_NUMBER_DECIMAL_INT,
          TokenTypes.LITERAL_NUMBER_FLOAT,
          TokenTypes.LITERAL_NUMBER_HEXADECIMAL,
          TokenTypes.LITERAL_BOOLEAN,
          TokenTypes.VARIABLE ->
          List.of("code-number");
      case TokenTypes.MARKUP_TAG_ATTRIBUTE -> List.of("code-attribute");
      default -> List.of();
    };
  }
}
