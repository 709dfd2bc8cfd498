package zander.desk.save;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonIgnore;
import com.fasterxml.jackson.annotation.JsonProperty;
import java.time.Duration;
import zander.core.change.effect.EffectCommand;
import zander.core.change.save.StagedCheck;
import zander.core.work.Cancellation;

/**
 * What goes with each save of a file. Commands are for {@code sh} on the server; {@link
 * StagedCheck#FILE} in them stands for the file; each may be empty for none.
 *
 * @param check looks at the new content before it counts
 * @param after looks at all that belongs together when it is in its place; when it refuses, the
 *     version before is put back
 * @param effect makes a saved change take effect
 * @param asks whether it is asked each time before that is run
 * @param seconds after which the server itself puts the version before back, unless a new sign-in
 *     works; 0 for never
 */
public record SaveRules(String check, String after, String effect, boolean asks, int seconds) {
  public static final SaveRules NONE = new SaveRules("", "", "", true, 0);

  static final int LEAST_SECONDS = 10;
  static final int MOST_SECONDS = 3600;

  /** As it was kept when a check before was all there was. */
  @JsonCreator(mode = JsonCreator.Mode.DELEGATING)
  static SaveRules ofCheck(String check) {
    return NONE.checkedBy(check);
  }

  @JsonCreator
  static SaveRules read(
      @JsonProperty("check") String check,
      @JsonProperty("after") String after,
      @JsonProperty("effect") String effect,
      @JsonProperty("asks") Boolean asks,
      @JsonProperty("seconds") int seconds) {
    return new SaveRules(
        orEmpty(check),
        orEmpty(after),
        orEmpty(effect),
        asks == null || asks,
        seconds <= 0 ? 0 : Math.max(LEAST_SECONDS, Math.min(MOST_SECONDS, seconds)));
  }

  private static String orEmpty(String kept) {
    return kept == null ? "" : kept;
  }

  SaveRules checkedBy(String command) {
    return new SaveRules(command, after, effect, asks, seconds);
  }

  SaveRules triedBy(String command) {
    return new SaveRules(check, command, effect, asks, seconds);
  }

  SaveRules takenInBy(String command) {
    return new SaveRules(check, after, command, asks, seconds);
  }

  SaveRules withoutAsking(boolean never) {
    return new SaveRules(check, after, effect, !never, seconds);
  }

  SaveRules guardedFor(int time) {
    return new SaveRules(check, after, effect, asks, time);
  }

  @JsonIgnore
  boolean isNone() {
    return check.isEmpty() && after.isEmpty() && effect.isEmpty() && seconds == 0;
  }

  /** Whether a command looks at what is saved. */
  @JsonIgnore
  boolean isChecked() {
    return !check.isEmpty() || !after.isEmpty();
  }

  @JsonIgnore
  boolean isGuarded() {
    return seconds > 0;
  }

  StagedCheck before(Cancellation stop) {
    return new StagedCheck(check, stop);
  }

  StagedCheck afterwards(Cancellation stop) {
    return new StagedCheck(after, stop);
  }

  EffectCommand effectCommand() {
    return new EffectCommand(effect.isEmpty() ? "true" : effect);
  }

  Duration time() {
    return Duration.ofSeconds(seconds);
  }
}
