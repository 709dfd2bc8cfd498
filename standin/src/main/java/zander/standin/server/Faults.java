package zander.standin.server;

import java.time.Duration;
import java.util.List;

/** What a made-up server does badly when it is told to. Read for each request by any thread. */
public final class Faults {
  private volatile Duration delay = Duration.ZERO;
  private volatile boolean shortReads;
  private volatile boolean fileService = true;
  private volatile boolean plainProtocol;
  private volatile boolean closeAfterSignIn;
  private volatile List<String> extraNames = List.of();

  /** Waits so long before each answer of the file service. */
  public void setDelay(Duration delay) {
    this.delay = delay;
  }

  public Duration delay() {
    return delay;
  }

  /** Answers each READ with at most 1,000 bytes, as a server may. */
  public void setShortReads(boolean shortReads) {
    this.shortReads = shortReads;
  }

  public boolean shortReads() {
    return shortReads;
  }

  /** Whether there is a file service at all. */
  public void setFileService(boolean on) {
    fileService = on;
  }

  public boolean fileService() {
    return fileService;
  }

  /** Ends each connection as soon as somebody has signed in. */
  public void setCloseAfterSignIn(boolean on) {
    closeAfterSignIn = on;
  }

  public boolean closesAfterSignIn() {
    return closeAfterSignIn;
  }

  /** Offers none of the extensions, as an old server. */
  public void setPlainProtocol(boolean plain) {
    plainProtocol = plain;
  }

  public boolean plainProtocol() {
    return plainProtocol;
  }

  /** Puts these names into every listing, though nothing is there: a server that lies. */
  public void setExtraNames(List<String> names) {
    extraNames = List.copyOf(names);
  }

  public List<String> extraNames() {
    return extraNames;
  }
}
