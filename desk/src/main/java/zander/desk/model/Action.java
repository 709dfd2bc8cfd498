package zander.desk.model;

/**
 * Something the person can do, by name and by key.
 *
 * @param name as it stands in the go-to field
 * @param key in the form of JavaFX, {@code Ctrl+S}; empty for none
 */
public record Action(String name, String key, Runnable run) {}
