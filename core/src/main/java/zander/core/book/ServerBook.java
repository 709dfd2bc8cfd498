package zander.core.book;

import com.fasterxml.jackson.annotation.JsonIgnoreProperties;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.SerializationFeature;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import zander.core.work.BlockingCalls;

/**
 * The saved servers, read from one file of JSON that people can read too.
 *
 * @param version the form of the file, now 1
 */
@JsonIgnoreProperties(ignoreUnknown = true)
public record ServerBook(int version, List<ServerEntry> servers) {
  private static final int VERSION = 1;
  private static final ObjectMapper JSON =
      new ObjectMapper().enable(SerializationFeature.INDENT_OUTPUT);

  public static ServerBook of(List<ServerEntry> servers) {
    return new ServerBook(VERSION, List.copyOf(servers));
  }

  /**
   * Reads the book; an empty one when there is no file.
   *
   * @throws IOException when the file is damaged or of a newer version; it is left as it is
   */
  public static ServerBook read(Path file) throws IOException {
    BlockingCalls.check("reading the server book");
    if (!Files.exists(file)) {
      return of(List.of());
    }
    ServerBook book = JSON.readValue(file.toFile(), ServerBook.class);
    if (book.version > VERSION) {
      throw new IOException(file + " is of version " + book.version + ", newer than this program");
    }
    return book.servers == null ? of(List.of()) : book;
  }

  /** Writes the book beside and renames it over. */
  public void write(Path file) throws IOException {
    BlockingCalls.check("writing the server book");
    Files.createDirectories(file.toAbsolutePath().getParent());
    Path part = file.resolveSibling(file.getFileName() + ".part");
    JSON.writeValue(part.toFile(), this);
    Files.move(part, file, java.nio.file.StandardCopyOption.ATOMIC_MOVE);
  }

  public Optional<ServerEntry> named(String name) {
    return servers.stream().filter(entry -> entry.name().equals(name)).findFirst();
  }
}
