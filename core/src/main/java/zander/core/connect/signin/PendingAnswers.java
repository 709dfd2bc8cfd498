package zander.core.connect.signin;

import java.util.List;
import zander.core.work.SecretBytes;

/**
 * What a person gave in answer to a server's question, kept until the server has answered: it may
 * have hung up while they were thinking, and is dialled again then. Wiped in every case.
 *
 * @param way the method of RFC 4252 that asked
 * @param prompts what it asked; none for a password
 */
record PendingAnswers(String way, List<String> prompts, List<char[]> letters) {
  /** Keeps a copy; the letters themselves are wiped by who sends them. */
  static PendingAnswers of(String way, List<String> prompts, List<char[]> letters) {
    return new PendingAnswers(way, prompts, letters.stream().map(char[]::clone).toList());
  }

  /** Whether it is the answer to this question. */
  boolean answers(String otherWay, List<String> otherPrompts) {
    return way.equals(otherWay) && prompts.equals(otherPrompts);
  }

  List<char[]> copy() {
    return letters.stream().map(char[]::clone).toList();
  }

  void wipe() {
    letters.forEach(SecretBytes::wipe);
  }

  /** Says nothing of what it holds. */
  @Override
  public String toString() {
    return "letters for " + way;
  }
}
