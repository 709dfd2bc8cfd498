package zander.desk;

import javafx.application.Application;

/** Starts the program; apart from the application class, so that a plain class path will do. */
public final class Main {
  private Main() {}

  /**
   * @param arguments {@code demo} for the Riverwatch demo; {@code --folder} and a folder to keep
   *     everything in; an address to open; or nothing
   */
  public static void main(String[] arguments) {
    Application.launch(ZanderApp.class, arguments);
  }
}
