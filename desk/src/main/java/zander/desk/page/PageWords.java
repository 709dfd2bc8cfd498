package zander.desk.page;

import java.io.IOException;
import java.net.UnknownHostException;
import java.net.http.HttpTimeoutException;
import java.security.cert.CertificateException;
import java.security.cert.CertificateExpiredException;
import java.security.cert.CertificateNotYetValidException;
import java.util.Locale;
import javax.net.ssl.SSLException;
import org.jspecify.annotations.Nullable;
import zander.core.connect.ServerPort;
import zander.core.files.RemoteFailure;
import zander.core.page.ErrorLog;
import zander.core.page.PageAnswer;
import zander.core.page.PageOrigin;
import zander.core.page.PageRoutes;
import zander.core.phrase.Phrase;
import zander.desk.words.Phrases;
import zander.desk.words.Words;
import zander.desk.work.FailureWords;
import zander.desk.work.Message;

/** How a page is, in words. */
final class PageWords {
  private static final Words WORDS = Words.of(PageWords.class);

  private PageWords() {}

  /** The number of an answer, and what it stands for (RFC 9110, section 15). */
  static String status(PageAnswer answer) {
    String name =
        switch (answer.status()) {
          case 200 -> WORDS.say("ok");
          case 204 -> WORDS.say("noContent");
          case 301, 302, 303, 307, 308 -> WORDS.say("leadsOn");
          case 401 -> WORDS.say("signInWanted");
          case 403 -> WORDS.say("forbidden");
          case 404, 410 -> WORDS.say("notFound");
          case 500 -> WORDS.say("serverError");
          case 502, 503, 504 -> WORDS.say("notAvailable");
          default -> "";
        };
    return (answer.status() + " " + name).strip();
  }

  static String took(PageAnswer answer) {
    return WORDS.say("milliseconds", answer.took().toMillis());
  }

  /** What helps to understand an answer that is no page; empty for nothing. */
  static String detail(PageAnswer answer, ErrorLog.@Nullable Line line) {
    if (!answer.leadsTo().isEmpty()) {
      return WORDS.say("to", answer.leadsTo());
    }
    if (line == null) {
      return answer.isError() ? WORDS.say("noLogNamesIt") : "";
    }
    return line.text().isEmpty()
        ? WORDS.say("logIsClosed", line.log())
        : WORDS.say("logSays", line.log(), line.text());
  }

  /** Why there is no answer. */
  static Message failure(PageOrigin origin, PageRoutes.Way way, Throwable failure) {
    String where = origin.text();
    for (Throwable e = failure; e != null; e = e.getCause()) {
      if (e instanceof CertificateException wrong) {
        return new Message(WORDS.say("certificateOf", where), certificate(wrong));
      }
    }
    if (failure instanceof SSLException) {
      return new Message(WORDS.say("noSealedLine", where), said(failure));
    }
    if (failure instanceof ServerPort.Refused refused) {
      return refused.isForbidden()
          ? new Message(WORDS.say("serverForwardsNothing"), WORDS.say("allowForwarding"))
          : new Message(WORDS.say("notReachedThrough", where), said(failure));
    }
    if (failure instanceof UnknownHostException) {
      return new Message(WORDS.say("noSuchComputer", origin.host()), WORDS.say("anotherWay"));
    }
    if (failure instanceof RemoteFailure remote) {
      return FailureWords.of(remote);
    }
    if (failure instanceof HttpTimeoutException) {
      return new Message(WORDS.say("noAnswerInTime", where), WORDS.say("lookAgainLater"));
    }
    boolean fromHere = way == PageRoutes.Way.FROM_HERE;
    return failure instanceof IOException
        ? new Message(
            WORDS.say("notReached", where),
            said(failure) + (fromHere ? " " + WORDS.say("anotherWay") : ""))
        : FailureWords.of(failure);
  }

  private static String certificate(CertificateException wrong) {
    String said = String.valueOf(wrong.getMessage()).toLowerCase(Locale.ROOT);
    if (has(wrong, CertificateExpiredException.class)) {
      return WORDS.say("certificateExpired");
    }
    if (has(wrong, CertificateNotYetValidException.class)) {
      return WORDS.say("certificateNotYetValid");
    }
    if (said.contains("subject alternative") || said.contains("no name matching")) {
      return WORDS.say("certificateOfAnother");
    }
    if (said.contains("unable to find valid certification path")) {
      return WORDS.say("certificateOfNobodyKnown");
    }
    return said(wrong);
  }

  private static boolean has(Throwable wrong, Class<?> kind) {
    for (Throwable e = wrong; e != null; e = e.getCause()) {
      if (kind.isInstance(e)) {
        return true;
      }
    }
    return false;
  }

  private static String said(Throwable failure) {
    String said = failure.getMessage();
    return said == null || said.isBlank()
        ? WORDS.say("noReasonGiven")
        : Phrases.sentence(Phrase.of(failure));
  }
}
