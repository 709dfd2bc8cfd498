package zander.core.journal;

import zander.core.files.RemotePath;

/**
 * The time of a folder whose entries a change touched, before it and after it, in seconds since
 * 1970-01-01 UTC. Putting back gives the time before, if nobody touched the folder since.
 */
public record FolderTime(RemotePath folder, long before, long after) {}
