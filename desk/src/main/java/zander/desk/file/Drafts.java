package zander.desk.file;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import zander.core.files.RemotePath;
import zander.core.files.WireName;
import zander.core.seal.ContentSeal;
import zander.core.transfer.endpoint.Sha256;
import zander.core.work.AtomicFile;
import zander.core.work.BlockingCalls;

/**
 * Texts that are being edited and not saved yet, kept on this computer so that a crash loses none:
 * one file each, closed to others, gone when the text is saved or thrown away. Where there is a
 * vault the text is sealed; where there is none, that of a file closed to others is not kept.
 */
public final class Drafts {
  private static final ObjectMapper JSON = new ObjectMapper();
  private static final String END = ".draft";
  private static final int LONGEST_NAME = 60;

  private final Path folder;
  private final ContentSeal seal;

  public Drafts(Path folder, ContentSeal seal) {
    this.folder = folder;
    this.seal = seal;
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
    return folder.resolve(digest.substring(0, 32) + "-" + cut(path) + END);
  }

  /**
   * Keeps a text.
   *
   * @param closed whether others may not read the file on the server
   * @return whether it is kept
   */
  synchronized boolean keep(Draft draft, boolean closed) throws IOException {
    boolean sealing = seal.lasts();
    if (closed && !sealing) {
      return false;
    }
    var node = JSON.createObjectNode();
    node.put("path", draft.path().wire()).put("digest", draft.digest());
    if (sealing) {
      byte[] text = draft.text().getBytes(StandardCharsets.UTF_8);
      node.put("sealed", seal.seal(text, about(draft.path())));
    } else {
      node.put("text", draft.text());
    }
    AtomicFile.write(file(draft.path()), JSON.writeValueAsBytes(node));
    dropOfOlder(draft.path());
    return true;
  }

  private static String about(RemotePath path) {
    return "draft " + path.wire();
  }

  synchronized void drop(RemotePath path) throws IOException {
    BlockingCalls.check("removing a draft");
    Files.deleteIfExists(file(path));
    dropOfOlder(path);
  }

  /** Until 2026-11-27 a file was named by a short number of the path, which others could share. */
  private void dropOfOlder(RemotePath path) throws IOException {
    Path older =
        folder.resolve(Integer.toHexString(path.wire().hashCode()) + "-" + cut(path) + END);
    try {
      if (Files.exists(older)
          && JSON.readTree(older.toFile()).path("path").asText().equals(path.wire())) {
        Files.delete(older);
      }
    } catch (JsonProcessingException e) {
      // Not one of ours.
    }
  }

  private static String cut(RemotePath path) {
    String name = path.name().replaceAll("[^A-Za-z0-9._-]", "_");
    return name.substring(0, Math.min(LONGEST_NAME, name.length()));
  }

  /** The files of which there are texts; one that cannot be read is left where it is. */
  synchronized List<RemotePath> paths() throws IOException {
    List<RemotePath> paths = new ArrayList<>();
    for (JsonNode node : nodes()) {
      paths.add(RemotePath.ofWire(node.path("path").asText()));
    }
    return paths;
  }

  /**
   * All that are kept; the person may be asked to open the vault, for which this waits.
   *
   * @throws zander.core.seal.StillSealed when one of them cannot be opened
   */
  public List<Draft> all() throws IOException {
    List<Draft> drafts = new ArrayList<>();
    for (JsonNode node : nodes()) {
      RemotePath path = RemotePath.ofWire(node.path("path").asText());
      byte[] sealed = node.path("sealed").binaryValue();
      String text =
          sealed == null
              ? node.path("text").asText()
              : new String(seal.open(sealed, about(path), true), StandardCharsets.UTF_8);
      drafts.add(new Draft(path, node.path("digest").asText(), text));
    }
    return drafts;
  }

  private synchronized List<JsonNode> nodes() throws IOException {
    BlockingCalls.check("reading drafts");
    List<JsonNode> nodes = new ArrayList<>();
    if (!Files.isDirectory(folder)) {
      return nodes;
    }
    List<Path> files;
    try (Stream<Path> all = Files.list(folder)) {
      files = all.filter(file -> file.toString().endsWith(END)).sorted().toList();
    }
    for (Path file : files) {
      try {
        JsonNode node = JSON.readTree(file.toFile());
        RemotePath.ofWire(node.path("path").asText());
        nodes.add(node);
      } catch (IOException | IllegalArgumentException e) {
        // Not one of ours, or damaged by a disk: nothing of it can be offered.
      }
    }
    return nodes;
  }

  /** The text for people to recognise: its file's name. */
  static String names(List<RemotePath> drafts) {
    return String.join(
        ", ", drafts.stream().limit(5).map(path -> WireName.toText(path.wireName())).toList());
  }
}
