package zander.core.files;

import org.jspecify.annotations.Nullable;

/**
 * One row of a listing: a name in its folder and what is there, links not followed.
 *
 * @param owner the account's name, or the number where the server tells no name
 * @param group the same for the group
 * @param target where a link points, in wire form; {@code null} for what is not a link, and for one
 *     that was not followed yet
 * @param behind what a link leads to; {@code null} for a broken link and for what is not a link
 */
public record RemoteEntry(
    RemotePath path,
    RemoteAttributes attributes,
    String owner,
    String group,
    @Nullable String target,
    @Nullable RemoteAttributes behind) {

  public String name() {
    return path.name();
  }

  public FileKind kind() {
    return attributes.kind();
  }

  /** A link that leads nowhere; one that was not followed yet is not known to be. */
  public boolean isBrokenLink() {
    return kind() == FileKind.LINK && behind == null && target != null;
  }

  /** Whether one can go into it: a folder, or a link to one. */
  public boolean leadsToFolder() {
    return attributes.isFolder() || (behind != null && behind.isFolder());
  }

  /** Whether one can open it as a file: a file, or a link to one. */
  public boolean leadsToFile() {
    return kind() == FileKind.FILE || (behind != null && behind.kind() == FileKind.FILE);
  }
}
