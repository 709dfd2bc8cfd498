package zander.desk.crossing;

import com.fasterxml.jackson.core.type.TypeReference;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import java.util.TreeMap;
import zander.core.crossing.LeaveOut;
import zander.core.crossing.Rules;
import zander.core.crossing.SavedCrossing.Kept;
import zander.core.crossing.WhenExists;
import zander.core.work.WholeFile;
import zander.desk.work.Background;

/**
 * The rules of crossings that a person chose, for each marked folder and for all other folders of a
 * server, in one file on this computer. Interface thread only.
 */
public final class KeptRules {
  /** Ask about what exists, keep modes and times, leave the usual litter out. */
  public static final Rules USUAL = Rules.of(WhenExists.ASK).leaveOut(new LeaveOut(LeaveOut.USUAL));

  private static final ObjectMapper JSON = new ObjectMapper();

  private final Path file;
  private final Background background;
  private final Map<String, Kept> kept = new TreeMap<>();
  private Runnable read = () -> {};

  /** Reads the file in the background; until then the usual rules hold. */
  public KeptRules(Path file, Background background) {
    this.file = file;
    this.background = background;
    background.run(
        () ->
            Files.exists(file)
                ? JSON.readValue(file.toFile(), new TypeReference<Map<String, Kept>>() {})
                : Map.<String, Kept>of(),
        all -> {
          all.forEach(kept::putIfAbsent);
          read.run();
        },
        failure -> {});
  }

  /** Told once the file was read. */
  public void whenRead(Runnable listener) {
    read = listener;
  }

  public Rules of(String place) {
    Kept rules = kept.get(place);
    return rules == null ? USUAL : rules.rules();
  }

  public void keep(String place, Rules rules) {
    kept.put(place, Kept.of(rules));
    Map<String, Kept> now = new TreeMap<>(kept);
    background.run(() -> write(now));
  }

  private synchronized void write(Map<String, Kept> now) {
    try {
      WholeFile.write(file, JSON.writerWithDefaultPrettyPrinter().writeValueAsBytes(now));
    } catch (IOException e) {
      // They hold until the program ends; nothing of a person's work depends on them.
    }
  }
}
