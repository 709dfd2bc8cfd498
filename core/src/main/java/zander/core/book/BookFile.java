package zander.core.book;

import com.fasterxml.jackson.core.JsonLocation;
import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.DeserializationFeature;
import com.fasterxml.jackson.databind.JsonMappingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.SerializationFeature;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.concurrent.atomic.AtomicReference;
import java.util.function.UnaryOperator;
import org.jspecify.annotations.Nullable;
import zander.core.phrase.ExplainedException;
import zander.core.phrase.InputPhrase;
import zander.core.phrase.Phrase;
import zander.core.work.AtomicFile;
import zander.core.work.BlockingCalls;
import zander.core.work.UnknownFields;

/**
 * The server book's file: JSON that people can read too, written whole. One that cannot be read, or
 * that a newer version wrote, is never written over: the first change puts it aside under another
 * name. Waits for the disk; safe for several threads.
 */
public final class BookFile {
  private static final ObjectMapper JSON =
      new ObjectMapper()
          .enable(SerializationFeature.INDENT_OUTPUT)
          .disable(DeserializationFeature.FAIL_ON_UNKNOWN_PROPERTIES)
          .enable(DeserializationFeature.READ_UNKNOWN_ENUM_VALUES_AS_NULL);

  private final Path file;

  public BookFile(Path file) {
    this.file = file;
  }

  /**
   * What was read.
   *
   * @param problem why the file could not be read, {@code null} when it was
   */
  public record Read(ServerBook book, @Nullable Phrase problem) {}

  public Path file() {
    return file;
  }

  /** Reads the book; an empty one when there is no file, or when it cannot be read. */
  public synchronized Read read() {
    BlockingCalls.check("reading the server book");
    return read(null);
  }

  /**
   * @param tree gets what the file holds, as this version would have written it; may be {@code
   *     null}
   */
  private Read read(@Nullable AtomicReference<JsonNode> tree) {
    if (!Files.exists(file)) {
      return new Read(ServerBook.of(java.util.List.of()), null);
    }
    try {
      ObjectNode found = tree();
      ServerBook book = JSON.treeToValue(found, ServerBook.class);
      if (tree != null) {
        tree.set(found);
      }
      return new Read(book, null);
    } catch (JsonMappingException e) {
      return unread(InputPhrase.BOOK_DAMAGED_IN.of(place(e)));
    } catch (JsonProcessingException e) {
      JsonLocation at = e.getLocation();
      return unread(InputPhrase.BOOK_DAMAGED_AT_LINE.of(at.getLineNr(), at.getColumnNr()));
    } catch (IOException | IllegalArgumentException e) {
      return unread(Phrase.of(e));
    }
  }

  /** {@code servers[2].port}. */
  private static String place(JsonMappingException e) {
    StringBuilder place = new StringBuilder();
    for (JsonMappingException.Reference step : e.getPath()) {
      if (step.getFieldName() == null) {
        place.append('[').append(step.getIndex()).append(']');
      } else {
        place.append(place.isEmpty() ? "" : ".").append(step.getFieldName());
      }
    }
    return place.toString();
  }

  private static Read unread(Phrase why) {
    return new Read(ServerBook.of(java.util.List.of()), why);
  }

  /** As this version would have written it. */
  private ObjectNode tree() throws IOException {
    JsonNode tree = JSON.readTree(file.toFile());
    if (!(tree instanceof ObjectNode top)) {
      throw new ExplainedException(InputPhrase.NO_BOOK.of());
    }
    int version = top.path("version").asInt();
    if (version > ServerBook.VERSION) {
      throw new ExplainedException(InputPhrase.BOOK_OF_VERSION.of(version));
    }
    if (version < 2) {
      top.path("servers").forEach(BookFile::toVersion2);
      top.put("version", ServerBook.VERSION);
    }
    return top;
  }

  /** Version 1 had the ways to sign in on the entry itself. */
  private static void toVersion2(JsonNode entry) {
    if (entry instanceof ObjectNode server && !server.has("signIn")) {
      ObjectNode signIn = server.putObject("signIn");
      signIn.set("keyFile", server.get("keyFile"));
      signIn.put("agent", false);
      signIn.put("password", server.path("password").asBoolean());
      server.remove(java.util.List.of("keyFile", "password"));
    }
  }

  /**
   * Changes the book as it is on the disk now, so that another window's changes are kept.
   *
   * @return the book as written
   */
  public synchronized ServerBook change(UnaryOperator<ServerBook> change) throws IOException {
    BlockingCalls.check("changing the server book");
    AtomicReference<JsonNode> before = new AtomicReference<>();
    Read now = read(before);
    ServerBook changed = change.apply(now.book());
    if (now.problem() != null) {
      AtomicFile.putAside(file);
    }
    JsonNode tree = JSON.valueToTree(changed);
    UnknownFields.keep(before.get(), JSON.valueToTree(now.book()), tree);
    AtomicFile.write(file, JSON.writeValueAsBytes(tree));
    return changed;
  }
}
