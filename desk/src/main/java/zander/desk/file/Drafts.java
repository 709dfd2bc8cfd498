package zander.desk.file;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import zander.core.files.RemotePath;
import zander.core.files.WireName;
import zander.core.transfer.endpoint.Sha256;
import zander.core.work.AtomicFile;
import zander.core.work.BlockingCalls;

/**
 * Texts that are being edited and not saved yet, kept on this computer so that a crash loses none:
 * one file each, closed to others, gone when the text is saved or thrown away.
 */
public final class Drafts {
  private static final ObjectMapper JSON = new ObjectMapper();
  private static final String END = ".draft";

  private final Path folder;

  public Drafts(Path folder) {
    this.folder = folder;
  }

  /**
   * A text that was not saved.
   *
   * @param digest of the server's version it is based on
   */
  public record Draft(RemotePath path, String digest, String text) {}

  private Path file(RemotePath path) {
    // All of the path's letters decide: two paths must not share a draft.
    String digest = Sha256.of(WireName.bytes(path.wire()));
    String name = path.name().replaceAll("[^A-Za-z0-9._-]", "_");
    String cut = name.substring(0, Math.min(60, name.length()));
    return folder.resolve(digest.substring(0, 32) + "-" + cut + END);
  }

  synchronized void keep(Draft draft) throws IOException {
    var node = JSON.createObjectNode();
    node.put("path", draft.path().wire()).put("digest", draft.digest()).put("text", draft.text());
    AtomicFile.write(file(draft.path()), JSON.writeValueAsBytes(node));
  }

  synchronized void drop(RemotePath path) throws IOException {
    BlockingCalls.check("removing a draft");
    Files.deleteIfExists(file(path));
  }

  /** All that are kept; one that cannot be read is left where it is. */
  public synchronized List<Draft> all() throws IOException {
    BlockingCalls.check("reading drafts");
    List<Draft> drafts = new ArrayList<>();
    if (!Files.isDirectory(folder)) {
      return drafts;
    }
    List<Path> files;
    try (Stream<Path> all = Files.list(folder)) {
      files = all.filter(file -> file.toString().endsWith(END)).sorted().toList();
    }
    for (Path file : files) {
      try {
        JsonNode node = JSON.readTree(file.toFile());
        drafts.add(
            new Draft(
                RemotePath.ofWire(node.path("path").asText()),
                node.path("digest").asText(),
                node.path("text").asText()));
      } catch (IOException | IllegalArgumentException e) {
        // Not one of ours, or damaged by a disk: nothing of it can be offered.
      }
    }
    return drafts;
  }

  /** The text for people to recognise: its file's name. */
  static String names(List<Draft> drafts) {
    return String.join(
        ", ", drafts.stream().limit(5).map(d -> WireName.toText(d.path().wireName())).toList());
  }
}
