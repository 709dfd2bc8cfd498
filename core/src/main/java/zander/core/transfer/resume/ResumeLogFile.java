package zander.core.transfer.resume;

import com.fasterxml.jackson.annotation.JsonInclude;
import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.Closeable;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.ArrayList;
import java.util.Base64;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import zander.core.seal.ContentSeal;
import zander.core.seal.StillSealed;
import zander.core.transfer.progress.Progress;
import zander.core.transfer.progress.Progress.Problem;
import zander.core.work.BlockingCalls;

/**
 * One transfer's file: what it is in the first line, then what happened, a line each, only ever
 * appended, so that it can be continued after the program ended at whatever byte. Lines are JSON;
 * where there is a vault, each is sealed.
 */
public final class ResumeLogFile implements ResumeLog, Closeable {
  private static final ObjectMapper JSON = new ObjectMapper();

  /** One line; what does not belong to it is {@code null}. */
  @JsonInclude(JsonInclude.Include.NON_NULL)
  record Line(
      @Nullable SavedTransfer transfer,
      @Nullable String folderMade,
      @Nullable String folderFinished,
      @Nullable String partOf,
      @Nullable Begun begun,
      @Nullable String partEnded,
      @Nullable Problem problem,
      @Nullable End end) {}

  /**
   * How it ended.
   *
   * @param problems how many files did not make it
   */
  public record End(
      Progress.Phase phase, long at, long files, long bytes, long skipped, long problems) {}

  private static final String SEALED = "sealed ";

  private final Path file;
  private final ContentSeal seal;
  private final SavedTransfer transfer;
  private final boolean continues;
  private final Set<String> folders = new HashSet<>();
  private final Map<String, Begun> parts = new HashMap<>();
  private final List<Problem> problems = new ArrayList<>();
  private @Nullable FileChannel out;
  private @Nullable End end;

  private ResumeLogFile(Path file, ContentSeal seal, SavedTransfer transfer, boolean continues) {
    this.file = file;
    this.seal = seal;
    this.transfer = transfer;
    this.continues = continues;
  }

  /** Begins the file of a new transfer in a folder. */
  static ResumeLogFile begin(Path folder, SavedTransfer transfer, ContentSeal seal)
      throws IOException {
    Files.createDirectories(
        folder, PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString("rwx------")));
    ResumeLogFile log =
        new ResumeLogFile(folder.resolve(transfer.id() + ".log"), seal, transfer, false);
    log.write(new Line(transfer, null, null, null, null, null, null, null));
    return log;
  }

  /**
   * Reads one that was written, to look at it or to go on with it.
   *
   * @param mayAsk whether the person may be asked to open the vault
   * @return {@code null} when the file is not one of these
   * @throws StillSealed when it is sealed and the vault is closed, or its key gone
   */
  static @Nullable ResumeLogFile read(Path file, ContentSeal seal, boolean mayAsk)
      throws IOException {
    BlockingCalls.check("reading a transfer");
    List<Line> lines = new ArrayList<>();
    // Any bytes are read, so that a damaged one spoils only its own line.
    String all = new String(Files.readAllBytes(file), StandardCharsets.UTF_8);
    for (String text : all.split("\n")) {
      try {
        lines.add(JSON.readValue(opened(text, file, seal, mayAsk), Line.class));
      } catch (JsonProcessingException | IllegalArgumentException e) {
        // The last line of a program that was killed may be cut.
      } catch (StillSealed e) {
        if (e.reason() != StillSealed.Reason.DAMAGED) {
          throw e;
        }
      }
    }
    if (lines.isEmpty() || lines.get(0).transfer() == null) {
      return null;
    }
    ResumeLogFile log = new ResumeLogFile(file, seal, lines.get(0).transfer(), true);
    lines.forEach(log::take);
    return log;
  }

  private static String about(Path file) {
    return "transfer " + file.getFileName();
  }

  private static String opened(String text, Path file, ContentSeal seal, boolean mayAsk)
      throws StillSealed {
    if (!text.startsWith(SEALED)) {
      return text;
    }
    byte[] sealed = Base64.getDecoder().decode(text.substring(SEALED.length()));
    return new String(seal.open(sealed, about(file), mayAsk), StandardCharsets.UTF_8);
  }

  private void take(Line line) {
    if (line.folderMade() != null) {
      folders.add(line.folderMade());
    }
    if (line.folderFinished() != null) {
      folders.remove(line.folderFinished());
    }
    if (line.partOf() != null) {
      parts.put(line.partOf(), line.begun());
    }
    if (line.partEnded() != null) {
      parts.remove(line.partEnded());
    }
    if (line.problem() != null) {
      problems.add(line.problem());
    }
    if (line.end() != null) {
      end = line.end();
    }
  }

  private void write(Line line) {
    try {
      byte[] json = JSON.writeValueAsBytes(line);
      append(
          (seal.lasts()
                  ? SEALED + Base64.getEncoder().encodeToString(seal.seal(json, about(file)))
                  : new String(json, StandardCharsets.UTF_8))
              + "\n");
    } catch (IOException e) {
      // Nothing of a person's is lost with it: what was transferred is seen by comparing both
      // sides.
    }
  }

  /** Opened at the first line, so that who only looks at it leaves it as it is. */
  private synchronized void append(String text) throws IOException {
    BlockingCalls.check("writing down a transfer");
    String line = text;
    if (out == null) {
      out =
          FileChannel.open(
              file,
              Set.of(StandardOpenOption.CREATE, StandardOpenOption.APPEND),
              PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString("rw-------")));
      // A line that was cut is ended, so that the next stands alone.
      line = continues ? "\n" + text : text;
    }
    for (ByteBuffer left = ByteBuffer.wrap(line.getBytes(StandardCharsets.UTF_8));
        left.hasRemaining(); ) {
      out.write(left);
    }
  }

  public SavedTransfer transfer() {
    return transfer;
  }

  public Path file() {
    return file;
  }

  /** How it ended; {@code null} while it runs, and when the program ended first. */
  public @Nullable End end() {
    return end;
  }

  /** What did not make it, as far as it was written down at the end. */
  public List<Problem> problems() {
    return List.copyOf(problems);
  }

  /** Whether there is something to go on with. */
  public boolean isUnfinished() {
    return end == null || end.phase() == Progress.Phase.BROKEN;
  }

  /** Writes down how it ended. */
  public void ended(Progress last) {
    for (Problem problem : last.problems()) {
      write(new Line(null, null, null, null, null, null, problem, null));
    }
    end =
        new End(
            last.phase(),
            System.currentTimeMillis(),
            last.files() - last.skipped(),
            last.bytes(),
            last.skipped(),
            last.failed());
    problems.clear();
    problems.addAll(last.problems());
    write(new Line(null, null, null, null, null, null, null, end));
  }

  @Override
  public Set<String> foldersBefore() {
    return folders;
  }

  @Override
  public Map<String, Begun> partsBefore() {
    return parts;
  }

  @Override
  public boolean continues() {
    return continues;
  }

  @Override
  public void folderMade(String to) {
    write(new Line(null, to, null, null, null, null, null, null));
  }

  @Override
  public void folderFinished(String to) {
    write(new Line(null, null, to, null, null, null, null, null));
  }

  @Override
  public void partBegun(String to, Begun part) {
    write(new Line(null, null, null, to, part, null, null, null));
  }

  @Override
  public void partEnded(String to) {
    write(new Line(null, null, null, null, null, to, null, null));
  }

  @Override
  public synchronized void close() throws IOException {
    if (out != null) {
      out.close();
    }
  }
}
