package zander.suite;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;

/** Names that Linux allows, in wire form: those known to hurt, and random bytes. */
final class OddNames {
  /** A file of this name must never appear: somebody ran a name. */
  static final String CANARY = "canary";

  private static final String[] KNOWN = {
    "-rf",
    "--help",
    "-",
    "--",
    "a b",
    " lead and trail ",
    "new\nline",
    "\n",
    "'",
    "\"",
    "\\",
    "\\n",
    "a'b\"c`d",
    "$HOME",
    "$(touch canary)",
    "`touch canary`",
    "; touch canary;",
    "| touch canary",
    "&& touch canary",
    "\ntouch canary\n",
    "'; touch canary; '",
    "*",
    "?",
    "[a-z]*",
    "~",
    "#no comment",
    "!",
    "{a,b}",
    "a\tb",
    "\u0001\u001b[31m",
    "\u00ff\u00fe",
    "\u00c3\u00bc",
    "\u00c3",
    ".hidden",
    "...",
    "-C",
    "--to-command=touch canary",
    "--checkpoint-action=exec=touch canary",
    "-exec",
    "@file",
    "%s%n",
    "x.tar.gz",
    "=",
    "(",
    "x".repeat(255),
    "\u00ff".repeat(255),
  };

  private OddNames() {}

  static List<String> some(int random, long seed) {
    List<String> names = new ArrayList<>(List.of(KNOWN));
    Random dice = new Random(seed);
    while (names.size() < KNOWN.length + random) {
      int length = 1 + dice.nextInt(dice.nextBoolean() ? 12 : 255);
      StringBuilder name = new StringBuilder();
      while (name.length() < length) {
        char c = (char) (1 + dice.nextInt(255));
        if (c != '/') {
          name.append(c);
        }
      }
      String made = name.toString();
      if (!made.equals(".") && !made.equals("..") && !names.contains(made)) {
        names.add(made);
      }
    }
    return names;
  }
}
