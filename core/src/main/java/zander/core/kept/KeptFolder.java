package zander.core.kept;

import zander.core.files.RemotePath;

/**
 * A folder of a server that keeps rights.
 *
 * @param path where it is
 */
public record KeptFolder(RemotePath path, KeptRights rights) {}
