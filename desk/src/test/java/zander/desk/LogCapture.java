package zander.desk;

import ch.qos.logback.classic.Level;
import ch.qos.logback.classic.Logger;
import ch.qos.logback.classic.spi.ILoggingEvent;
import ch.qos.logback.classic.spi.ThrowableProxyUtil;
import ch.qos.logback.core.AppenderBase;
import org.slf4j.LoggerFactory;

/** Takes in everything that is logged, down to the level that a troubled person would turn on. */
final class LogCapture extends AppenderBase<ILoggingEvent> implements AutoCloseable {
  private final StringBuffer text = new StringBuffer();
  private final Logger root = (Logger) LoggerFactory.getLogger(Logger.ROOT_LOGGER_NAME);
  private final Logger library = (Logger) LoggerFactory.getLogger("org.apache.sshd");
  private final Level before = library.getLevel();

  LogCapture() {
    setContext(root.getLoggerContext());
    start();
    root.addAppender(this);
    library.setLevel(Level.DEBUG);
  }

  @Override
  protected void append(ILoggingEvent event) {
    text.append(event.getFormattedMessage()).append('\n');
    if (event.getThrowableProxy() != null) {
      text.append(ThrowableProxyUtil.asString(event.getThrowableProxy()));
    }
  }

  String text() {
    return text.toString();
  }

  @Override
  public void close() {
    library.setLevel(before);
    root.detachAppender(this);
    stop();
  }
}
