package zander.desk.folder.action;

import java.util.List;
import org.jspecify.annotations.Nullable;
import zander.core.book.MarkedFolder;
import zander.core.book.ServerEntry;
import zander.core.connect.command.ShellWords;
import zander.core.files.RemotePath;
import zander.core.files.WireName;
import zander.desk.folder.FolderModel;
import zander.desk.sheet.OpenDesk;

/** Texts about the selection that a person takes elsewhere; one line for each path. */
public final class CopyText {
  private final FolderModel folder;
  private final OpenDesk desk;

  public CopyText(FolderModel folder) {
    this.folder = folder;
    this.desk = folder.desk();
  }

  private List<RemotePath> paths() {
    List<RemotePath> selected = folder.selectedPaths();
    return selected.isEmpty() ? List.of(folder.path()) : selected;
  }

  private static String text(RemotePath path) {
    byte[] bytes = WireName.bytes(path.wire());
    return new String(bytes, java.nio.charset.StandardCharsets.UTF_8);
  }

  private String lines(java.util.function.Function<RemotePath, String> words) {
    return String.join("\n", paths().stream().map(words).filter(w -> w != null).toList());
  }

  public String path() {
    return lines(CopyText::text);
  }

  /** In single quotes, for a POSIX shell. */
  public String quoted() {
    return lines(
        path ->
            new String(
                WireName.bytes(ShellWords.quote(path)), java.nio.charset.StandardCharsets.UTF_8));
  }

  /** {@code sftp://account@host/path}, with bytes that an address cannot hold as {@code %XX}. */
  public String address() {
    return lines(path -> desk.address() + percent(path));
  }

  /** The public address; empty where no marked folder has one. */
  public String publicAddress() {
    return lines(desk::publicAddress);
  }

  /** The path from the folder of another file, as a link in that file would have it. */
  public String relativeTo(RemotePath file) {
    return lines(path -> path.relativeTo(file.parent()));
  }

  /** The public address that goes with a path, by its marked folder; {@code null} for none. */
  public static @Nullable String publicAddress(ServerEntry entry, RemotePath path) {
    for (MarkedFolder marked : entry.folders()) {
      RemotePath base = RemotePath.of(marked.path());
      if (marked.address() != null && path.chain().contains(base)) {
        String rest = percent(path).substring(percent(base).length());
        return marked.address().replaceFirst("/+$", "") + rest;
      }
    }
    return null;
  }

  /** {@code sftp://account@host:port}. */
  public static String address(ServerEntry entry) {
    String port = entry.port() == 22 ? "" : ":" + entry.port();
    return "sftp://" + entry.account() + "@" + entry.host() + port;
  }

  private static String percent(RemotePath path) {
    StringBuilder text = new StringBuilder();
    for (byte b : WireName.bytes(path.wire())) {
      char c = (char) (b & 0xff);
      boolean plain =
          (c >= 'a' && c <= 'z')
              || (c >= 'A' && c <= 'Z')
              || (c >= '0' && c <= '9')
              || "/-._~".indexOf(c) >= 0;
      text.append(plain ? String.valueOf(c) : String.format("%%%02X", (int) c));
    }
    return text.toString();
  }
}
