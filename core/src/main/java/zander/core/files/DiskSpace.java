package zander.core.files;

/**
 * The file system that a path lies on (statvfs).
 *
 * @param id the same for all paths on one file system
 * @param free bytes free for this account
 * @param total bytes in all
 * @param freeNames how many more files can be made; -1 where the file system does not count them
 * @param readOnly whether it is mounted so that nothing can be written
 */
public record DiskSpace(long id, long free, long total, long freeNames, boolean readOnly) {}
