package zander.core.transfer.endpoint;

import org.jspecify.annotations.Nullable;
import zander.core.files.FileKind;
import zander.core.rights.Mode;

/**
 * One file, folder or link on a side.
 *
 * @param name in wire form
 * @param size bytes; 0 for what is not a file
 * @param modified seconds since 1970-01-01 UTC
 * @param target where a link points, in wire form; {@code null} for others
 * @param owner whose it is, {@code deploy:web}; empty where that is not told
 */
public record TreeEntry(
    String name,
    FileKind kind,
    long size,
    long modified,
    Mode mode,
    @Nullable String target,
    String owner) {}
