package zander.desk.edit;

import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import zander.core.edit.TextLinks;
import zander.core.files.RemotePath;
import zander.desk.sheet.OpenDesk;

/** What the links of a text lead to on the server. Interface thread. */
public final class LinkTargets {
  /** A scheme of an address (RFC 3986, section 3.1), or what a program puts in later. */
  private static final Pattern NOT_A_PATH =
      Pattern.compile("^(?:[A-Za-z][A-Za-z0-9+.-]*:|//|#|\\?|~).*|.*(?:<\\?|\\{\\{|[$*]).*");

  private final RemotePath folder;

  /** Where paths of the site begin; {@code null} where that is not known. */
  private final @Nullable RemotePath site;

  private final Language language;

  /**
   * @param file whose links they are
   */
  public LinkTargets(OpenDesk desk, RemotePath file, Language language) {
    this.language = language;
    this.folder =
        language.linksFrom() == null || language.isOfSites()
            ? file.parent()
            : RemotePath.of(language.linksFrom());
    this.site =
        file.chain().stream()
            .filter(part -> desk.publicAddress(part) != null)
            .findFirst()
            .orElse(null);
  }

  /** {@code null} for what is no path of this server. */
  public @Nullable RemotePath of(String target) {
    String path = language.isOfSites() ? target.replaceFirst("[?#].*", "") : target;
    if (path.isBlank() || NOT_A_PATH.matcher(target).matches()) {
      return null;
    }
    boolean whole = path.startsWith("/");
    String wire = wire(path);
    RemotePath from = !whole ? folder : language.isOfSites() ? site : RemotePath.ROOT;
    if (from == null) {
      return null;
    }
    try {
      return RemotePath.ofWire(from.wire() + "/" + wire);
    } catch (IllegalArgumentException e) {
      return null;
    }
  }

  /** In addresses, what is no letter stands by its number (RFC 3986, section 2.1). */
  private String wire(String path) {
    byte[] bytes = path.getBytes(StandardCharsets.UTF_8);
    StringBuilder wire = new StringBuilder();
    for (int i = 0; i < bytes.length; i++) {
      int high = language.isOfSites() && i + 2 < bytes.length ? digit(bytes[i + 1]) : -1;
      int low = high < 0 ? -1 : digit(bytes[i + 2]);
      if (bytes[i] == '%' && low >= 0) {
        wire.append((char) (high * 16 + low));
        i += 2;
      } else {
        wire.append((char) (bytes[i] & 0xff));
      }
    }
    return wire.toString();
  }

  private static int digit(byte letter) {
    return Character.digit((char) letter, 16);
  }

  /** A name as it is written into a link. */
  public String written(String name) {
    if (!language.isOfSites()) {
      return name;
    }
    StringBuilder text = new StringBuilder();
    for (byte b : name.getBytes(StandardCharsets.UTF_8)) {
      char c = (char) (b & 0xff);
      boolean plain = c > ' ' && c < 0x7f && "\"'<>%#?`{}".indexOf(c) < 0;
      text.append(plain ? String.valueOf(c) : String.format("%%%02X", (int) c));
    }
    return text.toString();
  }

  /**
   * A text with its relative links as they are from another folder, so that they lead to where they
   * led.
   */
  public String moved(String text, RemotePath to) {
    if (to.equals(folder) || (language.linksFrom() != null && !language.isOfSites())) {
      return text;
    }
    StringBuilder moved = new StringBuilder();
    for (String line : text.split("(?<=\n)")) {
      int at = 0;
      for (TextLinks.Link link : TextLinks.in(line, language.links())) {
        moved.append(line, at, link.start()).append(from(to, link.target()));
        at = link.end();
      }
      moved.append(line.substring(at));
    }
    return moved.toString();
  }

  private String from(RemotePath to, String target) {
    RemotePath path = target.startsWith("/") ? null : of(target);
    if (path == null) {
      return target;
    }
    int end = language.isOfSites() ? target.replaceFirst("[?#].*", "").length() : target.length();
    String slash = target.substring(0, end).endsWith("/") ? "/" : "";
    String[] names = path.relativeTo(to).split("/");
    return Arrays.stream(names).map(this::written).collect(Collectors.joining("/"))
        + slash
        + target.substring(end);
  }
}
