package zander.standin.shell.command;

import java.io.IOException;
import java.io.InputStream;
import java.net.HttpURLConnection;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import zander.standin.shell.process.Call;
import zander.standin.shell.process.Options;
import zander.standin.shell.process.UsageError;

/**
 * {@code curl} with an address in its configuration ({@code -K -}), to its output, over HTTP:
 * fetches for real, so that a test's own server can answer.
 */
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
    Options options = Options.parse(words, "fsSL", "K");
    if (!"-".equals(options.value('K'))) {
      throw new UsageError("only -K - is supported on this stand-in");
    }
    String config = new String(call.in().readAllBytes(), StandardCharsets.ISO_8859_1).strip();
    if (!config.matches("url = \"[^\"]+\"")) {
      throw new UsageError("only an address is supported in the configuration on this stand-in");
    }
    String address = config.substring(config.indexOf('"') + 1, config.length() - 1);
    HttpURLConnection connection = (HttpURLConnection) URI.create(address).toURL().openConnection();
    try (InputStream in = answer(connection)) {
      if (connection.getResponseCode() >= 400) {
        call.complain("(22) The requested URL returned error: " + connection.getResponseCode());
        return HTTP_ERROR;
      }
      in.transferTo(call.out());
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
