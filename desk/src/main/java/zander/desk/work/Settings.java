package zander.desk.work;

import com.fasterxml.jackson.annotation.JsonIgnoreProperties;
import com.fasterxml.jackson.core.type.TypeReference;
import java.nio.file.Path;
import java.util.Objects;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.UnaryOperator;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import zander.core.change.HeldThings;
import zander.core.journal.JournalRules;

/** What a person chose for all desks, kept in a file. Used on the interface thread. */
public final class Settings {
  /**
   * The choices.
   *
   * <p>What a file does not say, {@code null}, is as usual.
   *
   * @param hiddenColumns names of columns that folder sheets leave out
   */
  @JsonIgnoreProperties(ignoreUnknown = true)
  public record Values(
      Boolean showHidden,
      Boolean foldersFirst,
      Set<String> hiddenColumns,
      Integer heldDays,
      Long heldBytes,
      Integer journalDays,
      Long journalBytes) {

    public Values {
      showHidden = Objects.requireNonNullElse(showHidden, false);
      foldersFirst = Objects.requireNonNullElse(foldersFirst, true);
      hiddenColumns = hiddenColumns == null ? Set.of() : Set.copyOf(new TreeSet<>(hiddenColumns));
      heldDays = atLeast(0, heldDays, HeldThings.Rules.USUAL.days());
      heldBytes = atLeast(0L, heldBytes, HeldThings.Rules.USUAL.bytes());
      journalDays = atLeast(1, journalDays, JournalRules.USUAL.days());
      journalBytes = atLeast(0L, journalBytes, JournalRules.USUAL.bytes());
    }

    static final Values USUAL = new Values(null, null, null, null, null, null, null);

    private static <N extends Comparable<N>> N atLeast(N least, N given, N usual) {
      N number = given == null ? usual : given;
      return number.compareTo(least) < 0 ? least : number;
    }

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

  private final KeptFile<Values> file;
  private final Background background;
  private final ReadOnlyObjectWrapper<Values> values = new ReadOnlyObjectWrapper<>(Values.USUAL);

  /** Reads the file in the background; until then, and without one, the usual values hold. */
  public Settings(Path file, Background background) {
    this.file = new KeptFile<>(file, new TypeReference<>() {}, Values.USUAL);
    this.background = background;
    background.run(this.file::read, values::set, failure -> values.set(Values.USUAL));
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
    background.run(() -> file.write(kept));
  }
}
