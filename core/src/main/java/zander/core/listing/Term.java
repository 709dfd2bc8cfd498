package zander.core.listing;

import java.util.List;
import java.util.function.Function;
import java.util.function.Predicate;
import zander.core.files.AccountNames;

/**
 * One word of a narrowing: what it asks for.
 *
 * @param words what it means, for people
 * @param find the same for POSIX {@code find} as far as that can say it, in wire form; a row that
 *     fits the test must fit this too
 * @param problem why it cannot be read; empty when it can
 */
record Term(
    String words,
    Predicate<Listed> test,
    Function<AccountNames, List<String>> find,
    String problem) {

  static Term of(String words, Predicate<Listed> test, List<String> find) {
    return new Term(words, test, names -> find, "");
  }

  static Term problem(String why) {
    return new Term("", row -> true, names -> List.of(), why);
  }

  /** A negated term narrows the server's search not at all: the test decides. */
  Term negated() {
    return problem.isEmpty()
        ? new Term("not " + words, test.negate(), names -> List.of(), "")
        : this;
  }
}
