package zander.core.listing;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import zander.core.files.AccountNames;
import zander.core.phrase.Phrase;

/**
 * What a person typed to see less of a list, word by word; a row must fit all of them.
 *
 * <ul>
 *   <li>{@code text}: somewhere in the name, without regard to case; {@code "two words"}
 *   <li>{@code *.conf}: the whole name, with {@code *}, {@code ?} and {@code [a-z]}
 *   <li>{@code owner:root}, {@code group:web}: a name or a number
 *   <li>{@code mode:o+w}, {@code mode:g-r}, {@code mode:644}: bits that are set, not set, all
 *   <li>{@code >10M}, {@code <1K}: bytes, in units of 1,000
 *   <li>{@code changed:<2d}, {@code changed:>1y}: younger or older than minutes, hours, days,
 *       weeks, years
 *   <li>{@code type:file}, {@code type:folder}, {@code type:link}
 *   <li>{@code !} before any of them: not that
 * </ul>
 */
public final class Narrowing {
  public static final Narrowing NONE = new Narrowing(List.of());

  private static final Pattern WORD = Pattern.compile("!?\"[^\"]*\"?|\\S+");

  private final List<Term> terms;

  private Narrowing(List<Term> terms) {
    this.terms = terms;
  }

  /**
   * Reads what was typed; a word that cannot be read narrows nothing and is told.
   *
   * @param now seconds since 1970-01-01 UTC, from which ages count
   */
  public static Narrowing parse(String typed, long now) {
    List<Term> terms = new ArrayList<>();
    Matcher words = WORD.matcher(typed);
    while (words.find()) {
      String word = words.group();
      boolean not = word.startsWith("!") && word.length() > 1;
      Term term = TermReader.read(not ? word.substring(1) : word, now);
      terms.add(not ? term.negated() : term);
    }
    return new Narrowing(List.copyOf(terms));
  }

  public boolean isEmpty() {
    return terms.isEmpty();
  }

  /** Whether a row is to be shown. */
  public boolean fits(Listed row) {
    for (Term term : terms) {
      if (!term.test().test(row)) {
        return false;
      }
    }
    return true;
  }

  /** What each word means, in the order typed, without those that cannot be read. */
  public List<Phrase> meanings() {
    return terms.stream().map(Term::meaning).filter(Objects::nonNull).toList();
  }

  /** What is wrong with the first word that cannot be read; {@code null} when all can. */
  public @Nullable Phrase problem() {
    return terms.stream().map(Term::problem).filter(Objects::nonNull).findFirst().orElse(null);
  }

  /** Primaries for {@code find} that hold for all that fits, each an argument in wire form. */
  public List<String> forFind(AccountNames names) {
    List<String> primaries = new ArrayList<>();
    terms.forEach(term -> primaries.addAll(term.find().apply(names)));
    return primaries;
  }
}
