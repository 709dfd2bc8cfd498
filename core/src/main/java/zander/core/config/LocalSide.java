package zander.core.config;

import java.io.IOException;
import java.net.InetAddress;
import java.net.UnknownHostException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.function.Supplier;
import java.util.function.UnaryOperator;
import org.jspecify.annotations.Nullable;

/**
 * What a configuration may ask of this computer and of whoever sits at it.
 *
 * @param home the person's home folder
 * @param user their account
 * @param uid its number
 * @param host gives the computer's name, with its domain where it knows that; may wait
 * @param variable gives a variable of the environment; {@code null} for none
 * @param homeOf gives another account's home folder; {@code null} for none
 */
record LocalSide(
    Path home,
    String user,
    long uid,
    Supplier<String> host,
    UnaryOperator<String> variable,
    UnaryOperator<String> homeOf) {

  private static final int HOME = 5;

  static LocalSide of(Path home) {
    return new LocalSide(
        home,
        System.getProperty("user.name"),
        ownUid(home),
        LocalSide::ownHost,
        name -> name.equals("HOME") ? home.toString() : System.getenv(name),
        LocalSide::passwdHome);
  }

  private static long ownUid(Path home) {
    try {
      return Integer.toUnsignedLong((int) Files.getAttribute(home, "unix:uid"));
    } catch (IOException | UnsupportedOperationException e) {
      return 0;
    }
  }

  private static String ownHost() {
    try {
      return InetAddress.getLocalHost().getHostName();
    } catch (UnknownHostException e) {
      return "localhost";
    }
  }

  private static @Nullable String passwdHome(String account) {
    try {
      return Files.readAllLines(Path.of("/etc/passwd")).stream()
          .map(line -> line.split(":", -1))
          .filter(fields -> fields.length > HOME && fields[0].equals(account))
          .map(fields -> fields[HOME])
          .findFirst()
          .orElse(null);
    } catch (IOException e) {
      return null;
    }
  }
}
