package zander.desk.template;

import com.fasterxml.jackson.core.type.TypeReference;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import zander.core.listing.NaturalOrder;
import zander.desk.work.Background;
import zander.desk.work.SavedByPlace;

/** The templates and snippets that a person keeps. Interface thread only. */
public final class Templates {
  private final SavedByPlace<Template> templates;
  private final SavedByPlace<Snippet> snippets;

  /**
   * What new files begin with.
   *
   * @param server the address of the one it is for; empty for all
   * @param folder where its links are relative to, in wire form
   * @param file the name of the file that it was made of
   * @param text with fields in it
   */
  public record Template(String server, String folder, String file, String text) {}

  /**
   * A piece of text with stops.
   *
   * @param language the one it is offered for; empty for all
   */
  public record Snippet(String language, String text) {}

  /**
   * Reads what is kept in the background.
   *
   * @param folder on this computer
   */
  public Templates(Path folder, Background background) {
    templates =
        new SavedByPlace<>(
            folder.resolve("templates.json"), new TypeReference<>() {}, background, () -> {});
    snippets =
        new SavedByPlace<>(
            folder.resolve("snippets.json"), new TypeReference<>() {}, background, () -> {});
  }

  private static final Map<String, Snippet> OURS = read();

  private static Map<String, Snippet> read() {
    try (InputStream in = Templates.class.getResourceAsStream("snippets.json")) {
      return new ObjectMapper().readValue(in, new TypeReference<>() {});
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  /** The names of those for a server, and for all. */
  List<String> names(String server) {
    return templates.all().entrySet().stream()
        .filter(one -> one.getValue().server().isEmpty() || one.getValue().server().equals(server))
        .map(Map.Entry::getKey)
        .sorted(NaturalOrder.NAMES)
        .toList();
  }

  /** {@code null} for none of that name. */
  Template template(String name) {
    return templates.of(name);
  }

  /**
   * @param template {@code null} for none of that name any more
   */
  void keep(String name, Template template) {
    templates.keep(name, template);
  }

  /** The snippets for a language by their names, those that came with the program among them. */
  Map<String, Snippet> snippets(String language) {
    Map<String, Snippet> all = new TreeMap<>(NaturalOrder.NAMES);
    all.putAll(OURS);
    all.putAll(snippets.all());
    all.values().removeIf(one -> !one.language().isEmpty() && !one.language().equals(language));
    return all;
  }

  void keep(String name, Snippet snippet) {
    snippets.keep(name, snippet);
  }
}
