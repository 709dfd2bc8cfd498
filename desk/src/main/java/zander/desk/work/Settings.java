package zander.desk.work;

import com.fasterxml.jackson.annotation.JsonIgnoreProperties;
import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.UnaryOperator;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import zander.core.change.HeldThings;
import zander.core.journal.JournalRules;
import zander.core.work.AtomicFile;

/** What a person chose for all desks, kept in a file. Used on the interface thread. */
public final class Settings {
  /**
   * The choices.
   *
   * @param hiddenColumns names of columns that folder sheets leave out
   */
  @JsonIgnoreProperties(ignoreUnknown = true)
  public record Values(
      boolean showHidden,
      boolean foldersFirst,
      Set<String> hiddenColumns,
      int heldDays,
      long heldBytes,
      int journalDays,
      long journalBytes) {

    public Values {
      hiddenColumns = hiddenColumns == null ? Set.of() : Set.copyOf(new TreeSet<>(hiddenColumns));
      heldDays = Math.max(0, heldDays);
      heldBytes = Math.max(0, heldBytes);
      journalDays = Math.max(1, journalDays);
      journalBytes = Math.max(0, journalBytes);
    }

    static final Values USUAL =
        new Values(
            false,
            true,
            Set.of(),
            HeldThings.Rules.USUAL.days(),
            HeldThings.Rules.USUAL.bytes(),
            JournalRules.USUAL.days(),
            JournalRules.USUAL.bytes());

    public HeldThings.Rules held() {
      return new HeldThings.Rules(heldDays, heldBytes);
    }

    public JournalRules journal() {
      return new JournalRules(journalDays, journalBytes);
    }

    public Values withHidden(boolean shown) {
      return new Values(
          shown, foldersFirst, hiddenColumns, heldDays, heldBytes, journalDays, journalBytes);
    }

    public Values withFoldersFirst(boolean first) {
      return new Values(
          showHidden, first, hiddenColumns, heldDays, heldBytes, journalDays, journalBytes);
    }

    public Values withColumns(Set<String> hidden) {
      return new Values(
          showHidden, foldersFirst, hidden, heldDays, heldBytes, journalDays, journalBytes);
    }

    public Values withRules(HeldThings.Rules held, JournalRules journal) {
      return new Values(
          showHidden,
          foldersFirst,
          hiddenColumns,
          held.days(),
          held.bytes(),
          journal.days(),
          journal.bytes());
    }
  }

  private static final ObjectMapper JSON = new ObjectMapper();

  private final Path file;
  private final Background background;
  private final ReadOnlyObjectWrapper<Values> values = new ReadOnlyObjectWrapper<>(Values.USUAL);

  /** Reads the file in the background; until then, and without one, the usual values hold. */
  public Settings(Path file, Background background) {
    this.file = file;
    this.background = background;
    background.run(
        () -> Files.exists(file) ? JSON.readValue(file.toFile(), Values.class) : Values.USUAL,
        values::set,
        failure -> values.set(Values.USUAL));
  }

  public Values now() {
    return values.get();
  }

  public ReadOnlyObjectProperty<Values> valuesProperty() {
    return values.getReadOnlyProperty();
  }

  public void change(UnaryOperator<Values> change) {
    values.set(change.apply(values.get()));
    Values kept = values.get();
    background.run(() -> write(kept));
  }

  private synchronized void write(Values kept) {
    try {
      AtomicFile.write(file, JSON.writerWithDefaultPrettyPrinter().writeValueAsBytes(kept));
    } catch (JsonProcessingException e) {
      throw new IllegalStateException(e);
    } catch (IOException e) {
      // They hold until the program ends; nothing of a person's work depends on them.
    }
  }
}
