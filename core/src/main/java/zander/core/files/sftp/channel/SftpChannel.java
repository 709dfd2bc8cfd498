package zander.core.files.sftp.channel;

import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.Map;
import java.util.TreeMap;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicInteger;
import org.apache.sshd.client.channel.ChannelSession;
import org.apache.sshd.client.session.ClientSession;
import org.apache.sshd.common.SshConstants;
import org.apache.sshd.common.channel.exception.SshChannelClosedException;
import org.apache.sshd.common.session.ConnectionService;
import org.apache.sshd.common.util.buffer.Buffer;
import org.apache.sshd.common.util.buffer.ByteArrayBuffer;
import org.jspecify.annotations.Nullable;
import zander.core.phrase.ExplainedException;
import zander.core.phrase.SignInPhrase;
import zander.core.work.CappedOutput;

/**
 * The channel that SFTP version 3 messages go over (draft-ietf-secsh-filexfer-02, section 3). Each
 * answer is handed to the one thread that waits for it, without a common queue in between. Safe for
 * several threads.
 */
public final class SftpChannel extends ChannelSession {
  private static final int INIT = 1;
  private static final int VERSION = 2;
  private static final int VERSION_NUMBER = 3;

  /** What INIT took of the server's window before that is looked at. */
  private static final int INIT_BYTES = 9;

  /** As much as goes into one packet (RFC 4253, section 6.1). */
  private static final int TOGETHER = 30 * 1024;

  /** Each time that the window is opened again costs a packet; it is 16 MiB wide. */
  private static final int RELEASE_EVERY = 512 * 1024;

  private static final byte[] NOTHING = {};
  private static final byte[] SUBSYSTEM = "sftp".getBytes(StandardCharsets.US_ASCII);

  /** Of what is said on the error stream, where nothing is said in ordinary times. */
  private static final int MOST_SAID = 4096;

  private final ResponseBuffers memory = new ResponseBuffers();
  private final KeptRequests kept = new KeptRequests(all -> out(all, NOTHING, 0, 0));
  private final Map<Integer, AwaitedAnswer> awaited = new ConcurrentHashMap<>();
  private final Map<String, byte[]> extensions = new TreeMap<>();
  private final AtomicInteger ids = new AtomicInteger();
  private final AwaitedAnswer version = new AwaitedAnswer();

  private final CappedOutput complaints = new CappedOutput(MOST_SAID);

  private final ServiceOutput output;
  private int unreleased;
  private volatile long window;

  /** {@code null} for the account's own service. */
  private final @Nullable ServiceStart start;

  /** Where a terminal shows all that is said, the service's messages too; {@code null} for none. */
  private final @Nullable OutputStream terminal;

  /** {@code null} where a file service speaks for itself. */
  private final @Nullable TranslatedRequests translated;

  private SftpChannel(@Nullable ServiceStart start) {
    this.start = start;
    // Messages are taken as they come; nothing is kept in a stream.
    setOut(OutputStream.nullOutputStream());
    ServiceTranslator translator = start == null ? null : start.translator(new TranslatedAnswers());
    output = new ServiceOutput(translator, new MessageCutter(memory, this::hand, this::tooLong));
    translated = translator == null ? null : new TranslatedRequests(translator);
    terminal =
        start != null && start.wantsTerminal() ? start.errors(new Arrived(this::arrived)) : null;
    setErr(start == null || terminal != null ? complaints : start.errors(complaints));
    addCloseFutureListener(
        closed -> {
          failAll(new IOException("the channel is closed"));
          if (start != null) {
            start.ended();
          }
        });
  }

  private String kind() {
    return start == null ? CHANNEL_SUBSYSTEM : CHANNEL_EXEC;
  }

  /** Asks for the subsystem, or for the command in its place (RFC 4254, section 6.5). */
  @Override
  protected void doOpen() throws IOException {
    byte[] what = start == null ? SUBSYSTEM : start.command(() -> close(false));
    if (terminal != null) {
      writePacket(RawTerminal.request(this));
    }
    Buffer request = getSession().createBuffer(SshConstants.SSH_MSG_CHANNEL_REQUEST);
    request.putUInt(getRecipient());
    request.putString(kind());
    request.putBoolean(true);
    request.putBytes(what);
    addPendingRequest(kind(), true);
    writePacket(request);
    super.doOpen();
  }

  @Override
  public void handleSuccess() {
    removePendingRequest(kind());
  }

  @Override
  public void handleFailure() {
    if (removePendingRequest(kind()) != null) {
      close(false);
    }
  }

  /**
   * Opens the file service on a session; waits.
   *
   * @param patience for each of its three steps
   * @param start {@code null} for the account's own service
   */
  public static SftpChannel open(
      ClientSession session, Duration patience, @Nullable ServiceStart start) throws IOException {
    SftpChannel channel = new SftpChannel(start);
    try {
      session.getService(ConnectionService.class).registerChannel(channel);
      channel.open().verify(patience);
      if (start != null) {
        start.await(channel.getInvertedIn());
      }
      channel.begin(patience);
      return channel;
    } catch (IllegalStateException e) {
      throw new ExplainedException(SignInPhrase.CLOSED.of(), e);
    } catch (IOException | RuntimeException e) {
      // At once, the server would not hear of it, and keep what it has begun.
      channel.close(!channel.isOpen());
      throw e;
    }
  }

  private void begin(Duration patience) throws IOException {
    Buffer init = new ByteArrayBuffer();
    init.putInt(5);
    init.putByte((byte) INIT);
    init.putInt(VERSION_NUMBER);
    try {
      write(init, NOTHING, 0, 0);
    } catch (SshChannelClosedException e) {
      // The server ended it before it was begun; the library's words name its own classes.
      throw missing(SignInPhrase.SERVICE_ENDED);
    }
    Buffer body;
    try {
      body = version.await(patience);
    } catch (IOException e) {
      throw getSession().isOpen() ? missing(SignInPhrase.SERVICE_ENDED) : e;
    }
    if (body == null) {
      throw missing(SignInPhrase.SERVICE_SILENT);
    }
    window = getRemoteWindow().getSize() + INIT_BYTES;
    try {
      body.getUByte();
      int number = body.getInt();
      if (number != VERSION_NUMBER) {
        throw new ExplainedException(SignInPhrase.SERVICE_OF_VERSION.of(number));
      }
      while (body.available() > 0) {
        extensions.put(body.getString(), body.getBytes());
      }
    } catch (RuntimeException e) {
      throw new ExplainedException(SignInPhrase.SERVICE_AGAINST_PROTOCOL.of(), e);
    }
  }

  private IOException missing(SignInPhrase why) {
    if (!getSession().isOpen()) {
      return new ExplainedException(SignInPhrase.CLOSED.of());
    }
    String printed = output.printed() + FileServiceMissing.plain(complaints.toByteArray());
    return new FileServiceMissing(why, printed);
  }

  /** How many bytes the server lets be under way to it on this channel (RFC 4254, section 5.2). */
  public long window() {
    return window;
  }

  public boolean offers(String extension) {
    return extensions.containsKey(extension);
  }

  /** What sends requests and waits for none of them. */
  public interface Asking<E extends Exception> {
    void run() throws E;
  }

  /**
   * Keeps back the requests of this thread while it sends many, and sends them as few packets: each
   * costs a cipher and a system call.
   *
   * @throws IOException when they could not be sent
   */
  public <E extends Exception> void together(Asking<E> asking) throws IOException, E {
    kept.together(asking, TOGETHER);
  }

  /** The same, with nothing of another thread's in between, however many they are. */
  public <E extends Exception> void inOneRun(Asking<E> asking) throws IOException, E {
    kept.together(asking, Integer.MAX_VALUE);
  }

  /** Work of this thread that waits for answers although it is in the midst of sending many. */
  public interface Waiting<T, E extends Exception> {
    T run() throws E;
  }

  /** Sends what was kept back so far, and keeps nothing back while the work runs. */
  public <T, E extends Exception> T apart(Waiting<T, E> work) throws IOException, E {
    return kept.apart(work);
  }

  /** Whether any thread has kept requests back: they go out later than they were made. */
  public boolean isKeepingBack() {
    return kept.isAny();
  }

  private void write(Buffer message, byte[] data, int offset, int length) throws IOException {
    if (!kept.put(message, data, offset, length)) {
      out(message, data, offset, length);
    }
  }

  private void out(Buffer message, byte[] data, int offset, int length) throws IOException {
    if (message.available() == 0) {
      return;
    }
    OutputStream out = getInvertedIn();
    if (out == null) {
      throw new IOException("the channel is closed");
    }
    synchronized (out) {
      int count = message.available();
      if (translated == null) {
        out.write(message.array(), message.rpos(), count);
        out.write(data, offset, length);
      } else {
        translated.write(out, message.array(), message.rpos(), count, data, offset, length);
      }
      out.flush();
    }
  }

  /** What the translator makes of what the server wrote. */
  private final class TranslatedAnswers implements ServiceTranslator.Answers {
    @Override
    public void message(byte[] message) {
      hand(message, message.length);
    }

    @Override
    public void refused(String why) {
      byte[] words = why.getBytes(StandardCharsets.UTF_8);
      complaints.write(words, 0, words.length);
      failAll(new IOException(why));
    }
  }

  /** Sends a request; the answer comes under the number that is returned. */
  public int send(int type, Buffer body) throws IOException {
    return send(type, body, NOTHING, 0, 0);
  }

  /**
   * The same with content after the body, which is not copied on its way.
   *
   * @param bytes of content
   */
  public int send(int type, Buffer body, byte[] data, int offset, int bytes) throws IOException {
    int id = ids.incrementAndGet();
    int length = body.available();
    Buffer message = new ByteArrayBuffer(length + 9, false);
    message.putInt(length + 5L + bytes);
    message.putByte((byte) type);
    message.putInt(id);
    message.putRawBytes(body.array(), body.rpos(), length);
    awaited.put(id, new AwaitedAnswer());
    try {
      if (isClosing() || isClosed()) {
        throw new IOException("the channel is closed");
      }
      write(message, data, offset, bytes);
    } catch (IOException | RuntimeException e) {
      awaited.remove(id);
      throw e;
    }
    return id;
  }

  /**
   * Waits for an answer.
   *
   * @return from its type on; {@code null} when none came in time
   */
  public @Nullable Buffer receive(int id, Duration patience) throws IOException {
    AwaitedAnswer answer = awaited.get(id);
    if (answer == null) {
      throw new IOException("nothing was asked under this number");
    }
    try {
      if (isClosing() || isClosed()) {
        answer.fail(new IOException("the channel is closed"));
      }
      return answer.await(patience);
    } finally {
      awaited.remove(id);
    }
  }

  /** Nobody will wait for this answer: it is dropped when it comes. */
  public void forget(int id) {
    awaited.remove(id);
  }

  private void failAll(IOException why) {
    version.fail(why);
    awaited.values().forEach(answer -> answer.fail(why));
  }

  @Override
  public void handleEof() throws IOException {
    super.handleEof();
    failAll(new IOException("the file service has ended"));
  }

  @Override
  protected void doWriteData(byte[] data, int offset, long length) throws IOException {
    if (terminal != null) {
      terminal.write(data, offset, (int) length);
    } else {
      arrived(data, offset, (int) length);
    }
  }

  private void arrived(byte[] data, int offset, int length) throws IOException {
    try {
      output.take(data, offset, length);
    } catch (IOException e) {
      failAll(e);
      close(true);
      return;
    }
    unreleased += length;
    if (unreleased >= RELEASE_EVERY) {
      getLocalWindow().release(unreleased);
      unreleased = 0;
    }
  }

  private void tooLong(long length) {
    failAll(new IOException("an answer of " + length + " bytes"));
    close(true);
  }

  /** Takes the memory of an answer back that nobody will look at any more. */
  public void recycle(byte[] answer) {
    memory.recycle(answer);
  }

  private void hand(byte[] whole, int length) {
    Buffer buffer = new ByteArrayBuffer(whole, 0, length);
    if (whole[0] == VERSION) {
      if (version.isThere()) {
        // Whoever waits for an answer would wait for one that does not come.
        failAll(new IOException("the file service began twice"));
        close(true);
      }
      version.come(buffer);
      return;
    }
    AwaitedAnswer answer = awaited.get(new ByteArrayBuffer(whole, 1, 4).getInt());
    if (answer != null) {
      answer.come(buffer);
    }
  }
}
