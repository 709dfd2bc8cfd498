package zander.standin.shell.command;

import java.io.IOException;
import java.io.InputStream;
import java.net.HttpURLConnection;
import java.net.URI;
import java.util.ArrayList;
import java.util.List;
import zander.standin.shell.process.Call;
import zander.standin.shell.process.Options;
import zander.standin.shell.process.UsageError;
import zander.standin.world.OpenFile;
import zander.standin.world.World;

/** {@code curl -o FILE URL} over HTTP: fetches for real, so that a test's own server can answer. */
public final class CurlCommand {
  private static final int COULD_NOT_CONNECT = 7;
  private static final int HTTP_ERROR = 22;

  private CurlCommand() {}

  public static int run(Call call) throws IOException {
    List<String> words = new ArrayList<>(call.arguments().subList(1, call.arguments().size()));
    int proto = words.indexOf("--proto");
    if (proto >= 0) {
      words.remove(proto + 1);
      words.remove(proto);
    }
    Options options = Options.parse(words, "fsSL", "o");
    String address = options.operands(1).get(0);
    if (options.value('o') == null) {
      throw new UsageError("only -o FILE is supported on this stand-in");
    }
    HttpURLConnection connection = (HttpURLConnection) URI.create(address).toURL().openConnection();
    try (InputStream in = answer(connection)) {
      if (connection.getResponseCode() >= 400) {
        call.complain("(22) The requested URL returned error: " + connection.getResponseCode());
        return HTTP_ERROR;
      }
      OpenFile file =
          call.world()
              .open(
                  call.caller(),
                  call.path(options.value('o')),
                  new World.Open(false, true, true, false, true, 0666 & ~call.session().umask));
      byte[] buffer = new byte[8192];
      for (int count; (count = in.read(buffer)) >= 0; ) {
        file.write(file.size(), buffer, 0, count);
      }
      return 0;
    } catch (java.net.ConnectException e) {
      call.complain("(7) Failed to connect");
      return COULD_NOT_CONNECT;
    } finally {
      connection.disconnect();
    }
  }

  private static InputStream answer(HttpURLConnection connection) throws IOException {
    return connection.getResponseCode() >= 400
        ? InputStream.nullInputStream()
        : connection.getInputStream();
  }
}
