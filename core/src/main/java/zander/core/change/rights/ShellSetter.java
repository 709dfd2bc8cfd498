package zander.core.change.rights;

import java.io.IOException;
import java.util.HashMap;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import zander.core.connect.command.Commands;
import zander.core.connect.command.Pipe;
import zander.core.connect.command.ShellWords;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFailure.Reason;
import zander.core.files.WireName;
import zander.core.phrase.FileStep;
import zander.core.rights.Mode;
import zander.core.rights.Rights;
import zander.core.rights.RightsStep;
import zander.core.rights.TreeRights;

/**
 * Sets rights by the server's own tools: one shell is fed with commands, each for many names of the
 * same change. GNU {@code find} looks once more at each, so that nothing is set of what became a
 * link or another thing.
 */
final class ShellSetter implements RightsSetter {
  /** Commands have an end (ARG_MAX), and between two of them it can be stopped. */
  private static final int MOST_NAMES = 1000;

  private static final int MOST_BYTES = 90_000;

  /** What may be under way without an answer. */
  private static final int UNDER_WAY = 12;

  /** More different changes at once are not collected. */
  private static final int MOST_OPEN = 64;

  private final Pipe pipe;
  private final Map<RightsStep, Names> open = new HashMap<>();
  private int unanswered;

  private static final class Names {
    private final StringBuilder words = new StringBuilder();
    private int count;
  }

  /**
   * @param enter the beginning of a script that goes into the base
   */
  ShellSetter(Commands commands, String enter) throws IOException {
    pipe = commands.pipe(enter + "exec sh");
  }

  @Override
  public void set(String path, RightsStep step) throws IOException {
    if (!open.containsKey(step) && open.size() >= MOST_OPEN) {
      sendAll();
    }
    Names names = open.computeIfAbsent(step, one -> new Names());
    names.words.append(' ').append(ShellWords.quoteWire(path.isEmpty() ? "." : "./" + path));
    names.count++;
    if (names.count >= MOST_NAMES || names.words.length() >= MOST_BYTES) {
      open.remove(step);
      send(step, names);
    }
  }

  @Override
  public void inOrder() throws IOException {
    sendAll();
  }

  private void sendAll() throws IOException {
    for (Map.Entry<RightsStep, Names> one : open.entrySet()) {
      send(one.getKey(), one.getValue());
    }
    open.clear();
  }

  private void send(RightsStep step, Names names) throws IOException {
    while (unanswered >= UNDER_WAY) {
      awaitAnswer();
    }
    String find = "find" + names.words + " -prune -type " + (step.folder() ? 'd' : 'f');
    StringBuilder script = new StringBuilder();
    Rights after = step.after();
    String are = owners(step.before());
    if (step.changesOwner()) {
      String owner =
          Integer.toUnsignedString(after.uid()) + ":" + Integer.toUnsignedString(after.gid());
      add(script, find + are + " -perm " + digits(step.before().mode()), "chown -h " + owner);
      are = owners(after);
    }
    if (step.changesMode() || step.changesOwner()) {
      add(
          script,
          find + are + was(step) + " ! -perm " + digits(after.mode()),
          "chmod " + digits(after.mode()));
    }
    script.append("echo\n");
    try {
      pipe.in().write(WireName.bytes(script.toString()));
      pipe.in().flush();
    } catch (IOException e) {
      throw ended(e);
    }
    unanswered++;
  }

  /** Why the shell takes no more: it ended, or the line is lost. */
  private RemoteFailure ended(@Nullable IOException why) {
    try {
      String said = pipe.finish().errorText().strip();
      return new RemoteFailure(Reason.FAILED, FileStep.SET_RIGHTS, null, said, why);
    } catch (RemoteFailure e) {
      return e;
    } catch (IOException e) {
      return new RemoteFailure(Reason.LINE_LOST, FileStep.SET_RIGHTS, null, "", e);
    }
  }

  /** The modes an entry may have by then: a new owner may have cleared the set-id bits. */
  private static String was(RightsStep step) {
    Mode before = step.before().mode();
    if (!step.changesOwner()) {
      return " -perm " + digits(before);
    }
    Mode cleared = TreeRights.afterNewOwner(before, step.folder());
    return " \\( -perm "
        + digits(before)
        + " -o -perm "
        + digits(cleared)
        + " -o -perm "
        + digits(cleared.withBit(Mode.SET_GID, false))
        + " \\)";
  }

  private static void add(StringBuilder script, String find, String tool) {
    script.append(find).append(" -exec ").append(tool).append(" {} + 2>/dev/null\n");
  }

  private static String owners(Rights rights) {
    return " -uid "
        + Integer.toUnsignedString(rights.uid())
        + " -gid "
        + Integer.toUnsignedString(rights.gid());
  }

  /** Five digits: with fewer, GNU's {@code chmod} leaves the set-id bits of folders. */
  private static String digits(Mode mode) {
    return "0" + mode.octal();
  }

  private void awaitAnswer() throws IOException {
    int answer;
    try {
      answer = pipe.out().read();
    } catch (IOException e) {
      throw ended(e);
    }
    if (answer < 0) {
      throw ended(null);
    }
    unanswered--;
  }

  @Override
  public void flush() throws IOException {
    sendAll();
    while (unanswered > 0) {
      awaitAnswer();
    }
  }

  @Override
  public void close() {
    pipe.close();
  }
}
