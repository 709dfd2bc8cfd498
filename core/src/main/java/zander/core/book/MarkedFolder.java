package zander.core.book;

/**
 * A path worth a name.
 *
 * @param name how the person calls it
 * @param path on the server
 * @param local the folder on this computer that goes with it, or {@code null}
 * @param address the public address it is seen at, or {@code null}
 */
public record MarkedFolder(String name, String path, String local, String address) {}
