package zander.core.page;

import java.io.IOException;
import java.io.InputStream;
import java.net.URI;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.time.Duration;
import zander.core.work.BlockingCalls;

/**
 * What the server of a page answers (RFC 9110, section 15).
 *
 * @param status 100 to 599
 * @param leadsTo where a redirection leads; empty for none
 * @param took until the answer began
 */
public record PageAnswer(int status, String leadsTo, Duration took) {
  static final Duration PATIENCE = Duration.ofSeconds(20);

  /** Whether the page is not there, not allowed, or broken. */
  public boolean isError() {
    return status >= 400;
  }

  /**
   * Asks for a page and reads no further than where its content begins; waits. A certificate that
   * does not hold is a failure.
   *
   * @throws javax.net.ssl.SSLException when the certificate or the protocol is wrong
   * @throws IOException when there is no answer
   */
  public static PageAnswer ask(URI page, PageProxy by) throws IOException {
    BlockingCalls.check("a page");
    long began = System.nanoTime();
    try {
      HttpResponse<InputStream> answer =
          by.client()
              .send(
                  HttpRequest.newBuilder(page).timeout(PATIENCE).GET().build(),
                  HttpResponse.BodyHandlers.ofInputStream());
      answer.body().close();
      return new PageAnswer(
          answer.statusCode(),
          answer.headers().firstValue("Location").orElse(""),
          Duration.ofNanos(System.nanoTime() - began));
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new java.io.InterruptedIOException("nobody waits for the page any more");
    }
  }
}
