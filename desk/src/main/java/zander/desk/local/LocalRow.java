package zander.desk.local;

import java.nio.file.Path;
import org.jspecify.annotations.Nullable;
import zander.core.transfer.endpoint.TreeEntry;
import zander.core.transfer.rules.Comparison;

/**
 * One row of this computer's folder.
 *
 * @param comparison with the entry of the same name on the server; {@code null} for folders, and
 *     while the server's folder is no partner of this one
 */
public record LocalRow(Path path, TreeEntry node, @Nullable Comparison comparison) {

  public String name() {
    return zander.core.files.WireName.toText(node.name());
  }

  public boolean isFolder() {
    return node.kind() == zander.core.files.FileKind.FOLDER;
  }
}
