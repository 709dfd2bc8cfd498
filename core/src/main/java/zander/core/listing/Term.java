package zander.core.listing;

import java.util.List;
import java.util.function.Function;
import java.util.function.Predicate;
import org.jspecify.annotations.Nullable;
import zander.core.files.AccountNames;
import zander.core.phrase.Phrase;
import zander.core.phrase.TermPhrase;

/**
 * One word of a narrowing: what it asks for.
 *
 * @param meaning {@code null} for nothing
 * @param find the same for POSIX {@code find} as far as that can say it, in wire form; a row that
 *     fits the test must fit this too
 * @param problem why it cannot be read; {@code null} when it can
 */
record Term(
    @Nullable Phrase meaning,
    Predicate<Listed> test,
    Function<AccountNames, List<String>> find,
    @Nullable Phrase problem) {

  static Term of(@Nullable Phrase meaning, Predicate<Listed> test, List<String> find) {
    return new Term(meaning, test, names -> find, null);
  }

  static Term problem(TermPhrase why) {
    return new Term(null, row -> true, names -> List.of(), why.of());
  }

  /** A negated term narrows the server's search not at all: the test decides. */
  Term negated() {
    return problem == null && meaning != null
        ? new Term(TermPhrase.NOT.of(meaning), test.negate(), names -> List.of(), null)
        : this;
  }
}
