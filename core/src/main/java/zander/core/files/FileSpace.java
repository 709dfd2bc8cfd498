package zander.core.files;

/**
 * The file system that a path lies on (statvfs).
 *
 * @param id the same for all paths on one file system
 * @param free bytes free for this account
 * @param total bytes in all
 */
public record FileSpace(long id, long free, long total) {}
