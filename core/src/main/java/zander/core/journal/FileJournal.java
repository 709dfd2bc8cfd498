package zander.core.journal;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.Closeable;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.PosixFilePermissions;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HexFormat;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.zip.GZIPInputStream;
import java.util.zip.GZIPOutputStream;
import zander.core.work.BlockingCalls;

/**
 * A journal in one folder on this computer: {@code journal.jsonl}, one line of JSON for each
 * beginning and each end, only ever appended to; and {@code content/}, each replaced content once,
 * packed, under its digest.
 *
 * <p>A line cut off by a crash is skipped when reading; the change it began had not been made.
 */
public final class FileJournal implements Journal, Closeable {
  private static final ObjectMapper JSON = new ObjectMapper();

  private final Path contents;
  private final FileChannel log;
  private final Map<Long, JournalEntry> entries = new LinkedHashMap<>();
  private long lastId;

  /** Opens or makes the journal of one server. */
  public FileJournal(Path folder) throws IOException {
    BlockingCalls.check("opening the journal");
    contents = folder.resolve("content");
    Files.createDirectories(
        contents,
        PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString("rwx------")));
    Path file = folder.resolve("journal.jsonl");
    if (Files.exists(file)) {
      Files.readAllLines(file, StandardCharsets.UTF_8).forEach(this::readLine);
    }
    log =
        FileChannel.open(
            file,
            Set.of(StandardOpenOption.CREATE, StandardOpenOption.APPEND),
            PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString("rw-------")));
    // A line cut off by a crash is ended, so that the next one stands alone.
    log.write(ByteBuffer.wrap(new byte[] {'\n'}));
  }

  private void readLine(String line) {
    if (line.isBlank()) {
      return;
    }
    try {
      JsonNode node = JSON.readTree(line);
      long id = node.path("id").asLong();
      if (node.has("ended")) {
        entries.computeIfPresent(id, (key, entry) -> entry.ended(node.path("ended").asText()));
        return;
      }
      JournalEntry entry =
          new JournalEntry(
              id,
              node.path("at").asLong(),
              ChangeKind.valueOf(node.path("kind").asText()),
              node.path("path").asText(),
              node.path("before").asText(),
              node.path("after").asText(),
              node.path("content").asText(null),
              "");
      entries.put(id, entry);
      lastId = Math.max(lastId, id);
    } catch (JsonProcessingException | IllegalArgumentException e) {
      // Cut off or from a newer version: the line stays in the file, and is not shown.
    }
  }

  @Override
  public synchronized Pending begin(
      ChangeKind kind, String path, String before, String after, byte[] content)
      throws IOException {
    BlockingCalls.check("writing the journal");
    String contentId = content == null ? null : keep(content);
    JournalEntry entry =
        new JournalEntry(
            ++lastId, System.currentTimeMillis(), kind, path, before, after, contentId, "");
    ObjectNode node = JSON.createObjectNode();
    node.put("id", entry.id())
        .put("at", entry.at())
        .put("kind", kind.name())
        .put("path", path)
        .put("before", before)
        .put("after", after);
    if (contentId != null) {
      node.put("content", contentId);
    }
    // A new file has nothing before it that could be lost, and there may be thousands.
    append(node, kind != ChangeKind.SEND_UP);
    entries.put(entry.id(), entry);
    return new Pending() {
      @Override
      public void done() throws IOException {
        end(entry, "done");
      }

      @Override
      public void failed(String why) throws IOException {
        end(entry, "failed: " + why);
      }
    };
  }

  private synchronized void end(JournalEntry entry, String how) throws IOException {
    entries.put(entry.id(), entry.ended(how));
    append(JSON.createObjectNode().put("id", entry.id()).put("ended", how), false);
  }

  private void append(ObjectNode node, boolean sync) throws IOException {
    byte[] line = (JSON.writeValueAsString(node) + "\n").getBytes(StandardCharsets.UTF_8);
    log.write(ByteBuffer.wrap(line));
    if (sync) {
      log.force(false);
    }
  }

  private String keep(byte[] content) throws IOException {
    String id = digest(content);
    Path kept = contents.resolve(id + ".gz");
    if (!Files.exists(kept)) {
      ByteArrayOutputStream packed = new ByteArrayOutputStream();
      try (GZIPOutputStream out = new GZIPOutputStream(packed)) {
        out.write(content);
      }
      Path part = contents.resolve(id + ".part");
      try (FileChannel out =
          FileChannel.open(
              part,
              Set.of(
                  StandardOpenOption.CREATE,
                  StandardOpenOption.TRUNCATE_EXISTING,
                  StandardOpenOption.WRITE),
              PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString("rw-------")))) {
        out.write(ByteBuffer.wrap(packed.toByteArray()));
        out.force(true);
      }
      Files.move(part, kept, StandardCopyOption.ATOMIC_MOVE);
    }
    return id;
  }

  private static String digest(byte[] content) {
    try {
      return HexFormat.of().formatHex(MessageDigest.getInstance("SHA-256").digest(content));
    } catch (NoSuchAlgorithmException e) {
      throw new IllegalStateException(e);
    }
  }

  @Override
  public synchronized List<JournalEntry> about(String path) {
    List<JournalEntry> about = new ArrayList<>();
    for (JournalEntry entry : entries.values()) {
      if (entry.path().equals(path)) {
        about.add(entry);
      }
    }
    Collections.reverse(about);
    return about;
  }

  @Override
  public byte[] contentBefore(JournalEntry entry) throws IOException {
    BlockingCalls.check("reading the journal");
    if (entry.contentId() == null) {
      return null;
    }
    byte[] packed = Files.readAllBytes(contents.resolve(entry.contentId() + ".gz"));
    try (GZIPInputStream in = new GZIPInputStream(new ByteArrayInputStream(packed))) {
      return in.readAllBytes();
    }
  }

  @Override
  public synchronized void close() throws IOException {
    log.close();
  }
}
