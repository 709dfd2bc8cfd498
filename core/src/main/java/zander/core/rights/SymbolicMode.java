package zander.core.rights;

import java.util.ArrayList;
import java.util.List;
import java.util.StringJoiner;
import zander.core.phrase.InputPhrase;
import zander.core.phrase.InvalidInput;
import zander.core.rights.Mode.May;
import zander.core.rights.Mode.Who;

/**
 * A change of mode in the symbolic notation of POSIX {@code chmod} (XCU, chmod, extended
 * description): clauses such as {@code u+rwX,go=r,a-s}, with a copy of one class to another ({@code
 * g=u}) and the file creation mask where no class is named.
 *
 * <p>Parsing is done once; applying is pure arithmetic. Where POSIX leaves a choice the common
 * Linux behaviour is taken: on a folder, {@code =} without {@code s} leaves the set-id bits alone.
 */
public final class SymbolicMode {
  private static final String PERMISSIONS = "rwxXst";

  private record Action(char operator, String permissions, char copyFrom) {}

  private record Clause(String who, List<Action> actions) {}

  private final List<Clause> clauses;

  private SymbolicMode(List<Clause> clauses) {
    this.clauses = clauses;
  }

  /**
   * @throws IllegalArgumentException when the text is not in the notation; the message says where,
   *     for the user
   */
  public static SymbolicMode parse(String text) {
    List<Clause> clauses = new ArrayList<>();
    for (String part : text.strip().split(",", -1)) {
      clauses.add(parseClause(part));
    }
    return new SymbolicMode(clauses);
  }

  private static Clause parseClause(String part) {
    int at = 0;
    while (at < part.length() && "ugoa".indexOf(part.charAt(at)) >= 0) {
      at++;
    }
    String who = part.substring(0, at);
    List<Action> actions = new ArrayList<>();
    while (at < part.length()) {
      char operator = part.charAt(at++);
      if ("+-=".indexOf(operator) < 0) {
        throw new InvalidInput(InputPhrase.MODE_OPERATOR.of(operator));
      }
      int start = at;
      if (at < part.length() && "ugo".indexOf(part.charAt(at)) >= 0) {
        actions.add(new Action(operator, "", part.charAt(at++)));
        continue;
      }
      while (at < part.length() && PERMISSIONS.indexOf(part.charAt(at)) >= 0) {
        at++;
      }
      actions.add(new Action(operator, part.substring(start, at), '\0'));
    }
    if (actions.isEmpty()) {
      throw new InvalidInput(
          part.isEmpty()
              ? InputPhrase.CLAUSE_MISSING.of()
              : InputPhrase.MODE_OPERATOR_AFTER.of(part));
    }
    return new Clause(who, actions);
  }

  /**
   * The mode after the change.
   *
   * @param umask 0 to 0777: bits that stay as they are in clauses that name no class
   * @param folder whether it is for a folder, which decides {@code X} and the set-id bits
   */
  public Mode apply(Mode before, int umask, boolean folder) {
    int bits = before.bits();
    for (Clause clause : clauses) {
      for (Action action : clause.actions) {
        bits = applyAction(bits, clause.who, action, umask, folder);
      }
    }
    return new Mode(bits);
  }

  private static int applyAction(int bits, String who, Action action, int umask, boolean folder) {
    int affected = affected(who);
    int value = value(bits, action, folder) & affected;
    if (who.isEmpty()) {
      value &= ~umask;
    }
    return switch (action.operator) {
      case '+' -> bits | value;
      case '-' -> bits & ~value;
      default -> {
        int keep = folder ? bits & (Mode.SET_UID | Mode.SET_GID) : 0;
        // With no class named, '=' clears all classes and only what it sets is masked.
        yield (bits & ~affected) | value | (keep & affected);
      }
    };
  }

  /** The bits that a clause for these classes can change. */
  private static int affected(String who) {
    if (who.isEmpty() || who.indexOf('a') >= 0) {
      return 07777;
    }
    int mask = 0;
    for (Who one : Who.values()) {
      if (who.contains(one.letter())) {
        mask |= (7 << one.shift()) | one.setId();
      }
    }
    // The sticky bit belongs to 'o' only in that 'o=' clears it; 't' sets it for 'a' and none.
    return who.indexOf('o') >= 0 ? mask | Mode.STICKY : mask;
  }

  private static int value(int bits, Action action, boolean folder) {
    if (action.copyFrom != '\0') {
      for (Who one : Who.values()) {
        if (one.letter().charAt(0) == action.copyFrom) {
          int digit = (bits >> one.shift()) & 7;
          return digit << 6 | digit << 3 | digit;
        }
      }
    }
    int value = 0;
    for (char permission : action.permissions.toCharArray()) {
      value |=
          switch (permission) {
            case 'r' -> 0444;
            case 'w' -> 0222;
            case 'x' -> 0111;
            case 'X' -> folder || (bits & 0111) != 0 ? 0111 : 0;
            case 's' -> Mode.SET_UID | Mode.SET_GID;
            default -> Mode.STICKY;
          };
    }
    return value;
  }

  /** The notation that sets exactly this mode on a file: {@code u=rw,go=r}. */
  public static String of(Mode mode) {
    StringJoiner text = new StringJoiner(",");
    String owner = permissions(mode, Who.OWNER);
    String group = permissions(mode, Who.GROUP);
    String others = permissions(mode, Who.OTHERS);
    if (owner.equals(group) && group.equals(others)) {
      text.add("a=" + owner);
    } else if (group.equals(others)) {
      text.add("u=" + owner).add("go=" + group);
    } else if (owner.equals(group)) {
      text.add("ug=" + owner).add("o=" + others);
    } else {
      text.add("u=" + owner).add("g=" + group).add("o=" + others);
    }
    if (mode.has(Mode.STICKY)) {
      text.add("+t");
    }
    return text.toString();
  }

  private static String permissions(Mode mode, Who who) {
    StringBuilder text = new StringBuilder();
    for (May may : May.values()) {
      if (mode.allows(who, may)) {
        text.append(may.letter());
      }
    }
    return who.setId() != 0 && mode.has(who.setId()) ? text + "s" : text.toString();
  }
}
