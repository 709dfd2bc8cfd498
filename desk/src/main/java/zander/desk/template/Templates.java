package zander.desk.template;

import com.fasterxml.jackson.core.type.TypeReference;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.file.Path;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;
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

  /** Those that came along, read when the first is asked for. */
  private static final class Ours {
    static final Map<String, Snippet> ALL = read();

    private static Map<String, Snippet> read() {
      try (InputStream in = Templates.class.getResourceAsStream("snippets.json")) {
        return new ObjectMapper().readValue(in, new TypeReference<>() {});
      } catch (IOException e) {
        throw new UncheckedIOException(e);
      }
    }
  }

  /** One of a server is another than that of the same name for all. */
  private static String place(String server, String name) {
    return server.isEmpty() ? name : server + " " + name;
  }

  /**
   * The name that is meant: the one typed, or the only one that begins so; {@code null} for none.
   */
  static @Nullable String meant(Collection<String> names, String typed) {
    String wanted = typed.strip();
    List<String> begin = names.stream().filter(name -> name.startsWith(wanted)).toList();
    return names.contains(wanted) ? wanted : begin.size() == 1 ? begin.get(0) : null;
  }

  /** The names of those for a server, and for all. */
  List<String> names(String server) {
    return templates.all().entrySet().stream()
        .filter(one -> List.of("", server).contains(one.getValue().server()))
        .map(one -> nameOf(one.getKey(), one.getValue().server()))
        .distinct()
        .sorted(NaturalOrder.NAMES)
        .toList();
  }

  /** Versions before kept those of a server under their names alone. */
  private static String nameOf(String place, String server) {
    return place.startsWith(place(server, ""))
        ? place.substring(place(server, "").length())
        : place;
  }

  /** The server's own, or else the one for all; {@code null} for none of that name. */
  @Nullable Template template(String server, String name) {
    Template own = templates.of(place(server, name));
    Template any = templates.of(name);
    boolean fits = any != null && List.of("", server).contains(any.server());
    return own != null ? own : fits ? any : null;
  }

  /** Whether one would be kept in the place of another. */
  boolean isTaken(String server, String name) {
    return templates.of(place(server, name)) != null;
  }

  void keep(String name, Template template) {
    templates.keep(place(template.server(), name), template);
  }

  /** Keeps it no longer. */
  void remove(String name, Template template) {
    templates.keep(place(template.server(), name), null);
    if (template.equals(templates.of(name))) {
      templates.keep(name, null);
    }
  }

  /** The snippets for a language by their names, those that came with the program among them. */
  Map<String, Snippet> snippets(String language) {
    Map<String, Snippet> all = new TreeMap<>(NaturalOrder.NAMES);
    all.putAll(Ours.ALL);
    all.putAll(snippets.all());
    all.values().removeIf(one -> !one.language().isEmpty() && !one.language().equals(language));
    return all;
  }

  /** Whether the person keeps one of that name. */
  boolean isTaken(String name) {
    return snippets.of(name) != null;
  }

  void keep(String name, Snippet snippet) {
    snippets.keep(name, snippet);
  }
}
