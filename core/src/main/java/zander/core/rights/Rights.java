package zander.core.rights;

/**
 * Who owns a file and what its mode is.
 *
 * @param uid the owner's number, 0 to 2^32-2 as an int's bits
 * @param gid the group's number, the same
 */
public record Rights(int uid, int gid, Mode mode) {}
