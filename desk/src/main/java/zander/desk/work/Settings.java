package zander.desk.work;

import com.fasterxml.jackson.core.type.TypeReference;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.nio.file.Path;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.UnaryOperator;
import javafx.beans.property.BooleanProperty;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.SimpleBooleanProperty;
import javafx.beans.property.SimpleObjectProperty;
import javafx.beans.value.ObservableValue;
import zander.core.change.HeldThings;
import zander.core.journal.JournalRules;

/** What a person chose for all desks, kept in a file. Used on the interface thread. */
public final class Settings {
  /** Whether entries are listed whose names begin with a dot. */
  public static final Setting<Boolean> SHOW_HIDDEN = Setting.yesOrNo("showHidden", false);

  /** Whether folders stand before files, whatever the order. */
  public static final Setting<Boolean> FOLDERS_FIRST = Setting.yesOrNo("foldersFirst", true);

  /** The dark look in the place of the light one. */
  public static final Setting<Boolean> DARK = Setting.yesOrNo("dark", false);

  /** Whether this computer's folder is folded away. */
  public static final Setting<Boolean> LOCAL_FOLDED = Setting.yesOrNo("localFolded", false);

  /** The same while a text is in front. */
  public static final Setting<Boolean> LOCAL_FOLDED_BY_TEXT =
      Setting.yesOrNo("localFoldedByText", true);

  /** The height of this computer's folder in pixels; 0 for a part of the window. */
  public static final Setting<Long> LOCAL_HEIGHT = Setting.number("localHeight", 0, 0);

  /** Whether the panel beside the sheets is folded away. */
  public static final Setting<Boolean> PANEL_FOLDED = Setting.yesOrNo("panelFolded", false);

  /** The same in a narrow window. */
  public static final Setting<Boolean> PANEL_FOLDED_NARROW =
      Setting.yesOrNo("panelFoldedNarrow", true);

  /** The width of the panel in pixels. */
  public static final Setting<Long> PANEL_WIDTH = Setting.number("panelWidth", 288, 0);

  /** Widths that somebody gave to columns, in pixels, each by its kind of folder and its name. */
  public static final Setting<Map<String, Long>> COLUMN_WIDTHS = Setting.numbers("columnWidths");

  /** Columns that folder sheets leave out. */
  public static final Setting<Set<String>> HIDDEN_COLUMNS = Setting.names("hiddenColumns");

  /** Days for which what was deleted is held on the server. */
  public static final Setting<Long> HELD_DAYS =
      Setting.number("heldDays", HeldThings.Rules.USUAL.days(), 0);

  /** Bytes that are held on a server at most. */
  public static final Setting<Long> HELD_BYTES =
      Setting.number("heldBytes", HeldThings.Rules.USUAL.bytes(), 0);

  /** Days for which the journal is kept. */
  public static final Setting<Long> JOURNAL_DAYS =
      Setting.number("journalDays", JournalRules.USUAL.days(), 1);

  /** Bytes of old versions that the journal keeps at most. */
  public static final Setting<Long> JOURNAL_BYTES =
      Setting.number("journalBytes", JournalRules.USUAL.bytes(), 0);

  /** Seconds without a key or a press after which a desk as root ends; 0 for never. */
  public static final Setting<Long> ACTING_SECONDS = Setting.number("actingSeconds", 15 * 60, 0);

  /** The size of the text in shells, in points. */
  public static final Setting<Long> SHELL_TEXT = Setting.number("shellText", 13, 8);

  /** The colours of shells, by their number. */
  public static final Setting<Long> SHELL_COLOURS = Setting.number("shellColours", 0, 0);

  /** Programs of this computer that files are opened in, by the end of their names. */
  public static final Setting<Map<String, String>> PROGRAMS = Setting.texts("programs");

  /** What people said that files are encoded in, by the server's address and the path. */
  public static final Setting<Map<String, String>> ENCODINGS = Setting.texts("encodings");

  /** The same for languages. */
  public static final Setting<Map<String, String>> LANGUAGES = Setting.texts("languages");

  /** The ways in which the pages of sites are reached, by their origin. */
  public static final Setting<Map<String, String>> PAGE_WAYS = Setting.texts("pageWays");

  private static final ObjectMapper JSON = new ObjectMapper();

  /** What was chosen, by names; what this version does not know is among it. */
  public record Values(Map<String, JsonNode> chosen) {
    static final Values USUAL = new Values(Map.of());

    public Values {
      chosen = Map.copyOf(chosen);
    }

    /** What holds: what was chosen if it can be understood, else what is usual. */
    public <T> T of(Setting<T> setting) {
      JsonNode node = chosen.get(setting.name());
      T read = node == null ? null : setting.read().apply(node);
      return read == null ? setting.usual() : read;
    }

    public <T> Values with(Setting<T> setting, T value) {
      Map<String, JsonNode> changed = new TreeMap<>(chosen);
      changed.put(setting.name(), JSON.valueToTree(value));
      return new Values(changed);
    }

    public HeldThings.Rules held() {
      return new HeldThings.Rules(days(HELD_DAYS), of(HELD_BYTES));
    }

    public JournalRules journal() {
      return new JournalRules(days(JOURNAL_DAYS), of(JOURNAL_BYTES));
    }

    private int days(Setting<Long> setting) {
      return (int) Math.min(Integer.MAX_VALUE, of(setting));
    }

    public Values with(HeldThings.Rules held, JournalRules journal) {
      return with(HELD_DAYS, (long) held.days())
          .with(HELD_BYTES, held.bytes())
          .with(JOURNAL_DAYS, (long) journal.days())
          .with(JOURNAL_BYTES, journal.bytes());
    }
  }

  private final KeptFile<Map<String, JsonNode>> file;
  private final Background background;
  private final ObjectProperty<Values> values = new SimpleObjectProperty<>(Values.USUAL);

  /** Reads the file in the background; until then, and without one, the usual values hold. */
  public Settings(Path file, Background background) {
    this.file = new KeptFile<>(file, new TypeReference<>() {}, Map.of());
    this.background = background;
    background.run(
        this.file::read,
        read -> values.set(new Values(withoutNothing(read))),
        failure -> values.set(Values.USUAL));
  }

  private static Map<String, JsonNode> withoutNothing(Map<String, JsonNode> read) {
    Map<String, JsonNode> some = new TreeMap<>(read);
    some.values().removeIf(node -> node == null || node.isNull());
    return some;
  }

  public Values now() {
    return values.get();
  }

  /** What holds now. */
  public <T> T get(Setting<T> setting) {
    return now().of(setting);
  }

  public <T> void set(Setting<T> setting, T value) {
    change(now -> now.with(setting, value));
  }

  /** What holds of one of them: who listens hears of no other. */
  public <T> ObservableValue<T> value(Setting<T> setting) {
    return values.map(now -> now.of(setting));
  }

  /** What is chosen for one of them, to be bound to and set; for as long as the program runs. */
  public BooleanProperty property(Setting<Boolean> setting) {
    return property(new SimpleObjectProperty<>(setting));
  }

  /**
   * The same for one of several.
   *
   * @param which the one that counts now, never of nothing
   */
  public BooleanProperty property(ObservableValue<Setting<Boolean>> which) {
    ObservableValue<Boolean> chosen = which.flatMap(this::value);
    BooleanProperty property = new SimpleBooleanProperty(chosen.getValue());
    chosen.addListener((observed, old, now) -> property.set(now));
    property.addListener(
        (observed, old, now) -> {
          if (!now.equals(get(which.getValue()))) {
            set(which.getValue(), now);
          }
        });
    return property;
  }

  public void change(UnaryOperator<Values> change) {
    values.set(change.apply(values.get()));
    file.writeSoon(values.get().chosen(), background);
  }
}
