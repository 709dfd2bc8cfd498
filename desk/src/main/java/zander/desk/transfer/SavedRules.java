package zander.desk.transfer;

import com.fasterxml.jackson.core.type.TypeReference;
import java.nio.file.Path;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import zander.core.transfer.resume.SavedTransfer.Kept;
import zander.core.transfer.rules.ConflictRule;
import zander.core.transfer.rules.IgnorePatterns;
import zander.core.transfer.rules.TransferRules;
import zander.desk.work.Background;
import zander.desk.work.SavedByPlace;

/**
 * The rules of transfers that a person chose, and what is to run after them, for each marked folder
 * and for all other folders of a server. Interface thread only.
 */
public final class SavedRules {
  /** Ask about what exists, keep modes and times, leave the usual litter out. */
  public static final TransferRules USUAL =
      TransferRules.of(ConflictRule.ASK).leaveOut(new IgnorePatterns(IgnorePatterns.USUAL));

  private final SavedByPlace<Kept> rules;
  private final SavedByPlace<String> commands;
  private final ReadOnlyObjectWrapper<Integer> read = new ReadOnlyObjectWrapper<>(0);

  /**
   * Reads its files in the background; until then the usual rules hold.
   *
   * @param folder of the program's state
   */
  public SavedRules(Path folder, Background background) {
    Runnable told = () -> read.set(read.get() + 1);
    this.rules =
        new SavedByPlace<>(
            folder.resolve("crossing-rules.json"), new TypeReference<>() {}, background, told);
    this.commands =
        new SavedByPlace<>(
            folder.resolve("crossing-commands.json"), new TypeReference<>() {}, background, told);
  }

  /** How many of its files were read. */
  public ReadOnlyObjectProperty<Integer> readProperty() {
    return read.getReadOnlyProperty();
  }

  public TransferRules of(String place) {
    Kept kept = rules.of(place);
    return kept == null ? USUAL : kept.rules();
  }

  public void keep(String place, TransferRules changed) {
    rules.keep(place, Kept.of(changed));
  }

  /** The command for after sending up; empty for none. */
  public String commandOf(String place) {
    String command = commands.of(place);
    return command == null ? "" : command;
  }

  /**
   * @param command empty for none
   */
  public void keepCommand(String place, String command) {
    commands.keep(place, command.isEmpty() ? null : command);
  }
}
