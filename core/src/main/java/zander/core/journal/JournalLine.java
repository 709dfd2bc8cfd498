package zander.core.journal;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.zip.CRC32C;
import org.jspecify.annotations.Nullable;
import zander.core.files.FileKind;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemotePath;
import zander.core.rights.Mode;

/**
 * One line of a journal's file: a checksum (CRC-32C in eight hexadecimal digits), a space, and one
 * JSON object, which begins an entry or ends one. A line whose checksum does not fit is no line.
 */
record JournalLine(
    @Nullable JournalEntry begun,
    long ends,
    String how,
    @Nullable FileState now,
    List<FolderTime> touched) {
  private static final ObjectMapper JSON = new ObjectMapper();

  static byte[] begin(JournalEntry entry) throws JsonProcessingException {
    ObjectNode node = JSON.createObjectNode();
    node.put("id", entry.id())
        .put("at", entry.at())
        .put("desk", entry.desk())
        .put("kind", entry.kind().name())
        .put("path", entry.path().wire());
    putPath(node, "to", entry.to());
    putPath(node, "part", entry.part());
    putState(node, "before", entry.before());
    putState(node, "after", entry.after());
    if (entry.contentId() != null) {
      node.put("content", entry.contentId());
    }
    if (entry.group() != 0) {
      node.put("group", entry.group());
    }
    if (entry.undoes() != 0) {
      node.put("undoes", entry.undoes());
    }
    if (!entry.as().isEmpty()) {
      node.put("as", entry.as());
    }
    if (!entry.note().isEmpty()) {
      node.put("note", entry.note());
    }
    return line(node);
  }

  static byte[] end(JournalEntry entry) throws JsonProcessingException {
    ObjectNode node = JSON.createObjectNode();
    node.put("ends", entry.id()).put("how", entry.outcome());
    putState(node, "now", entry.after());
    if (!entry.folders().isEmpty()) {
      ArrayNode folders = node.putArray("folders");
      for (FolderTime one : entry.folders()) {
        folders
            .addObject()
            .put("path", one.folder().wire())
            .put("before", one.before())
            .put("after", one.after());
      }
    }
    return line(node);
  }

  private static byte[] line(ObjectNode node) throws JsonProcessingException {
    String json = JSON.writeValueAsString(node);
    return (checksum(json) + " " + json + "\n").getBytes(StandardCharsets.UTF_8);
  }

  private static String checksum(String json) {
    CRC32C sum = new CRC32C();
    sum.update(json.getBytes(StandardCharsets.UTF_8));
    return String.format("%08x", sum.getValue());
  }

  private static void putPath(ObjectNode node, String name, @Nullable RemotePath path) {
    if (path != null) {
      node.put(name, path.wire());
    }
  }

  private static void putState(ObjectNode node, String name, @Nullable FileState state) {
    if (state == null) {
      return;
    }
    RemoteAttributes attributes = state.attributes();
    ObjectNode object = node.putObject(name);
    object
        .put("kind", attributes.kind().name())
        .put("size", attributes.size())
        .put("uid", attributes.uid())
        .put("gid", attributes.gid())
        .put("mode", attributes.mode().octal())
        .put("modified", attributes.modified())
        .put("accessed", attributes.accessed());
    if (state.digest() != null) {
      object.put("digest", state.digest());
    }
    if (state.target() != null) {
      object.put("target", state.target());
    }
  }

  /** The line, or {@code null} when it is damaged or says what this version does not know. */
  static @Nullable JournalLine read(String text) {
    if (text.length() < 10 || text.charAt(8) != ' ') {
      return null;
    }
    String json = text.substring(9);
    if (!checksum(json).equals(text.substring(0, 8))) {
      return null;
    }
    try {
      JsonNode node = JSON.readTree(json);
      return node.has("ends")
          ? new JournalLine(
              null,
              node.path("ends").asLong(),
              node.path("how").asText(),
              state(node.get("now")),
              folders(node.path("folders")))
          : new JournalLine(entry(node), 0, "", null, List.of());
    } catch (JsonProcessingException | IllegalArgumentException e) {
      return null;
    }
  }

  private static JournalEntry entry(JsonNode node) {
    return new JournalEntry(
        node.path("id").asLong(),
        node.path("at").asLong(),
        node.path("desk").asText(),
        ChangeKind.valueOf(node.path("kind").asText()),
        needed(node),
        path(node.get("to")),
        state(node.get("before")),
        state(node.get("after")),
        node.path("content").asText(null),
        path(node.get("part")),
        node.path("group").asLong(),
        node.path("undoes").asLong(),
        node.path("note").asText(),
        node.path("as").asText(),
        List.of(),
        "");
  }

  private static RemotePath needed(JsonNode node) {
    RemotePath path = path(node.get("path"));
    if (path == null) {
      throw new IllegalArgumentException("it names no path");
    }
    return path;
  }

  private static @Nullable RemotePath path(JsonNode node) {
    return node == null ? null : RemotePath.ofWire(node.asText());
  }

  private static @Nullable FileState state(JsonNode node) {
    if (node == null) {
      return null;
    }
    return new FileState(
        new RemoteAttributes(
            FileKind.valueOf(node.path("kind").asText()),
            node.path("size").asLong(),
            node.path("uid").asInt(),
            node.path("gid").asInt(),
            Mode.ofOctal(node.path("mode").asText()),
            node.path("modified").asLong(),
            node.path("accessed").asLong()),
        node.path("digest").asText(null),
        node.path("target").asText(null));
  }

  private static List<FolderTime> folders(JsonNode nodes) {
    List<FolderTime> folders = new ArrayList<>();
    for (JsonNode node : nodes) {
      folders.add(
          new FolderTime(needed(node), node.path("before").asLong(), node.path("after").asLong()));
    }
    return folders;
  }
}
