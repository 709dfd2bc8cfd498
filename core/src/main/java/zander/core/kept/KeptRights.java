package zander.core.kept;

import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import zander.core.files.PathPattern;
import zander.core.phrase.Phrase;
import zander.core.rights.Mode;
import zander.core.rights.ModeRule;
import zander.core.rights.SymbolicMode;

/**
 * The rights that a folder keeps, as a text that people read and write: a line for each pattern,
 * with owner, group, and the modes of files and of folders behind it.
 *
 * <pre>
 * # pattern   owner   group  files   folders
 * *           deploy  web    0644+X  0755
 * /uploads/   -       -      0664    2775
 * *.key       -       -      0600
 * !/vendor/
 * </pre>
 *
 * Patterns are those of {@code gitignore}(5) and mean what is in a folder too; {@code /} alone is
 * the folder itself. The last line that says something decides, each field for itself; {@code -}
 * says nothing; {@code !} leaves alone what it fits. Modes are octal, octal with {@code +X} (what
 * somebody may run can be run by all who may read it), or symbolic. Safe for several threads.
 */
public final class KeptRights {
  /** What a text that was made or learnt begins with. */
  public static final String HEAD = "# pattern";

  /** More lines than anybody reads are a mistake. */
  static final int MOST_LINES = 300;

  private static final int FIELDS = 5;
  private static final String OPEN = "-";
  private static final String RUNS = "+X";

  private final String text;
  private final List<KeptRule> rules = new ArrayList<>();
  private final List<KeptProblem> problems = new ArrayList<>();

  /** Reads what can be read; what cannot is among the {@link #problems()}. */
  public KeptRights(String text) {
    this.text = text;
    int number = 0;
    for (String line : text.lines().toList()) {
      number++;
      String read = PathPattern.withoutBlanksBehind(line.replace('\t', ' ')).stripLeading();
      if (read.isBlank() || read.startsWith("#")) {
        continue;
      }
      if (rules.size() == MOST_LINES) {
        problems.add(new KeptProblem(number, KeptProblem.Kind.TOO_MANY_LINES, "", null));
        break;
      }
      new Line(number).read(read);
    }
  }

  /** One line while it is read. */
  private final class Line {
    private final int number;

    Line(int number) {
      this.number = number;
    }

    void read(String line) {
      int found = problems.size();
      int end = endOfPattern(line);
      String shown = line.substring(0, end);
      boolean freed = shown.startsWith("!");
      String glob = freed ? shown.substring(1) : shown;
      String rest = line.substring(end).strip();
      List<String> fields = rest.isEmpty() ? List.of() : List.of(rest.split(" +"));
      PathPattern pattern = PathPattern.of(glob);
      if (pattern == null ? !glob.equals(KeptRule.ITSELF) : !pattern.canFit()) {
        refuse(KeptProblem.Kind.PATTERN, shown, null);
      }
      if (fields.size() > (freed ? 0 : FIELDS - 1)) {
        refuse(KeptProblem.Kind.TOO_MANY_FIELDS, fields.get(freed ? 0 : FIELDS - 1), null);
      }
      KeptRule rule =
          new KeptRule(
              number,
              shown,
              pattern,
              freed,
              name(fields, 0),
              name(fields, 1),
              mode(fields, 2),
              mode(fields, 3),
              name(fields, 2),
              name(fields, 3));
      if (!freed
          && found == problems.size()
          && rule.owner() == null
          && rule.group() == null
          && rule.files() == null
          && rule.folders() == null) {
        refuse(KeptProblem.Kind.SAYS_NOTHING, shown, null);
      }
      if (found == problems.size()) {
        rules.add(rule);
      }
    }

    private void refuse(KeptProblem.Kind kind, String what, @Nullable Phrase detail) {
      problems.add(new KeptProblem(number, kind, what, detail));
    }

    /** A blank ends it, unless a backslash is before it. */
    private static int endOfPattern(String line) {
      int at = 0;
      while (at < line.length() && line.charAt(at) != ' ') {
        at += line.charAt(at) == '\\' ? 2 : 1;
      }
      return Math.min(at, line.length());
    }

    private static @Nullable String name(List<String> fields, int which) {
      return fields.size() <= which || fields.get(which).equals(OPEN) ? null : fields.get(which);
    }

    private @Nullable ModeRule mode(List<String> fields, int which) {
      String written = name(fields, which);
      try {
        return written == null ? null : KeptRights.mode(written);
      } catch (IllegalArgumentException e) {
        refuse(KeptProblem.Kind.MODE, written, Phrase.of(e));
        return null;
      }
    }
  }

  /**
   * A mode as a line has it.
   *
   * @throws IllegalArgumentException when it is none; the message is for the person
   */
  static ModeRule mode(String written) {
    boolean runs = written.endsWith(RUNS) && Character.isDigit(written.charAt(0));
    String rest = runs ? written.substring(0, written.length() - RUNS.length()) : written;
    return Character.isDigit(rest.charAt(0))
        ? new ModeRule.Exact(Mode.ofOctal(rest), runs)
        : new ModeRule.Symbolic(SymbolicMode.parse(rest), ModeRule.USUAL_UMASK);
  }

  public List<KeptRule> rules() {
    return List.copyOf(rules);
  }

  /** What could not be read; what a folder keeps is only right without any. */
  public List<KeptProblem> problems() {
    return List.copyOf(problems);
  }

  /** Whether no folder is asked to keep anything by it. */
  public boolean isNothing() {
    return rules.isEmpty();
  }

  public String text() {
    return text;
  }
}
