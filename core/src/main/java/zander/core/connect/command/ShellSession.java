package zander.core.connect.command;

import java.io.Closeable;
import java.io.IOException;
import java.io.InputStream;

/** A shell with a terminal on the server (RFC 4254, sections 6.2 to 6.10). */
public interface ShellSession extends Closeable {
  /** What the terminal prints; ends when the shell does. Reading waits. */
  InputStream output();

  /** Sends what was typed. Waits while the line is full. */
  void type(byte[] bytes) throws IOException;

  /** Tells the server the terminal's new size, in characters. */
  void resize(int columns, int rows) throws IOException;

  boolean isOpen();

  /** What {@link ShellPlace} finds its process by; empty where it has none. */
  String mark();

  /** The exit status once the shell ended; -1 before, and when the server told none. */
  int exit();

  @Override
  void close();
}
