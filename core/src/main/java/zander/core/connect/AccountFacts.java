package zander.core.connect;

import static java.util.Objects.requireNonNull;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.Future;
import java.util.concurrent.TimeUnit;
import org.apache.sshd.client.session.ClientSession;
import org.apache.sshd.common.channel.Channel;
import org.apache.sshd.common.channel.ChannelListener;
import org.apache.sshd.common.session.ConnectionService;
import org.jspecify.annotations.Nullable;
import zander.core.connect.channel.SessionPool;
import zander.core.connect.channel.StreamChannel;
import zander.core.connect.channel.Timeouts;
import zander.core.connect.command.ScriptRun;
import zander.core.files.AccountNames;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFailure.Reason;
import zander.core.phrase.ExplainedException;
import zander.core.phrase.FilePhrase;
import zander.core.phrase.FileStep;
import zander.core.phrase.Phrase;
import zander.core.phrase.SignInPhrase;
import zander.core.work.BlockingCalls;
import zander.core.work.Cancellation;

/**
 * Who one is on a server, and whether its shell runs scripts. Asked by a script beside the file
 * service; what is not known by then may come later, and is asked once more when it is needed: one
 * slow answer or one refused channel says nothing about the rest of the day. For any thread.
 */
final class AccountFacts {
  /** What is known of the account's shell. */
  enum Shell {
    UNKNOWN,
    RUNS,
    NONE
  }

  private static final String ASK =
      """
      id
      echo ---
      getent passwd 2>/dev/null || cat /etc/passwd
      echo ---
      getent group 2>/dev/null || cat /etc/group
      """;

  /** Directories of a whole company are no news for a listing. */
  private static final int MOST_NAMES = 8 << 20;

  /** Of {@code id}, whose one line has a group in each few letters. */
  private static final int MOST_ID = 256 * 1024;

  /** How long what needs a shell waits for one whose start files are slow. */
  private static final Duration PATIENCE = Duration.ofSeconds(60);

  private static final Duration BETWEEN_TRIES = Duration.ofSeconds(15);

  private final SessionPool lines;
  private final AccountNames names;
  private final CompletableFuture<Void> namesKnown = new CompletableFuture<>();
  private Shell shell = Shell.UNKNOWN;
  private String idLine = "";
  private @Nullable Phrase why;
  private boolean asking;
  private long retriedAt = System.nanoTime() - BETWEEN_TRIES.toNanos();

  AccountFacts(SessionPool lines, AccountNames names) {
    this.lines = lines;
    this.names = names;
  }

  /**
   * Begins when the first channel is granted, which the file service has asked for: a server that
   * grants only one must not spend it on this.
   */
  void askOnceFilesAreOpen() {
    ClientSession session = lines.first();
    CompletableFuture<Void> granted = new CompletableFuture<>();
    session.addChannelListener(
        new ChannelListener() {
          @Override
          public void channelOpenSuccess(Channel channel) {
            granted.complete(null);
          }
        });
    session.addCloseFutureListener(closed -> granted.complete(null));
    asking = true;
    granted.thenRunAsync(
        () -> askOn(session),
        task -> {
          // It may take as long as the account's start files, so it is given a thread of its own.
          Thread thread = new Thread(task, "account-facts");
          thread.setDaemon(true);
          thread.start();
        });
  }

  /** On the first session alone: not yet a reason to sign in once more. */
  private void askOn(ClientSession session) {
    ask(
        run -> {
          StreamChannel channel = run.channel();
          run.attach(channel);
          try {
            session.getService(ConnectionService.class).registerChannel(channel);
            channel.open().verify(Timeouts.OPENING);
            run.run(channel, new Cancellation());
          } catch (IllegalStateException e) {
            throw new ExplainedException(SignInPhrase.CLOSED.of(), e);
          } finally {
            channel.close(false);
          }
        });
  }

  private interface Asking {
    void by(ScriptRun run) throws IOException;
  }

  private void ask(Asking way) {
    Answer answer = new Answer();
    try {
      if (lines.elevation() != null && lines.elevation().whyNoCommands() != null) {
        none(lines.elevation().whyNoCommands());
        return;
      }
      way.by(new ScriptRun(ASK, answer::take, lines.elevation()));
      answer.end();
    } catch (RemoteFailure e) {
      if (e.reason() == Reason.NO_SHELL && !(e.getCause() instanceof IOException)) {
        none(e.detail());
      }
    } catch (IOException | RuntimeException e) {
      // Not known, then: a channel may be free the next time.
    } finally {
      namesKnown.complete(null);
      ended();
    }
  }

  private synchronized void ended() {
    asking = false;
    notifyAll();
  }

  private synchronized void none(Phrase said) {
    if (shell == Shell.UNKNOWN) {
      shell = Shell.NONE;
      why = said;
    }
  }

  private synchronized void runs(String id) {
    shell = Shell.RUNS;
    idLine = id;
    notifyAll();
  }

  /** What the script writes; the first line counts as soon as it is there. */
  private final class Answer {
    private final ByteArrayOutputStream text = new ByteArrayOutputStream();
    private boolean known;

    void take(byte[] part) throws RemoteFailure {
      text.writeBytes(part);
      if (!known) {
        String so = text.toString(StandardCharsets.UTF_8);
        int end = so.indexOf("---\n");
        if (end >= 0) {
          known = true;
          runs(so.substring(0, end));
        }
      }
      if (text.size() > (known ? MOST_NAMES : MOST_ID)) {
        throw new RemoteFailure(
            Reason.BAD_ANSWER,
            FileStep.ASK_FOR_THE_ACCOUNT,
            null,
            FilePhrase.TOO_MUCH_WRITTEN.of(),
            null);
      }
    }

    void end() {
      String[] parts = text.toString(StandardCharsets.UTF_8).split("(?m)^---\n", -1);
      if (parts.length == 3) {
        names.learnPasswd(parts[1]);
        names.learnGroupFile(parts[2]);
      }
    }
  }

  /** Ends when the names are known, or will not come in time for a first listing. */
  Future<?> namesFor(Duration patience) {
    return namesKnown.copy().completeOnTimeout(null, patience.toMillis(), TimeUnit.MILLISECONDS);
  }

  /** Waits until it is known who one is, or the patience is over. */
  synchronized void await(Duration patience) throws IOException {
    long end = System.nanoTime() + patience.toNanos();
    try {
      while (shell == Shell.UNKNOWN && asking) {
        long left = (end - System.nanoTime()) / 1_000_000;
        if (left <= 0) {
          return;
        }
        wait(left);
      }
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new IOException("interrupted", e);
    }
  }

  synchronized String idLine() {
    return idLine;
  }

  synchronized Shell shell() {
    return shell;
  }

  /** Why there is no shell; {@code null} while there may be one. */
  synchronized @Nullable Phrase why() {
    return why;
  }

  /** The same, once there is known to be none. */
  synchronized Phrase whyNone() {
    return requireNonNull(why);
  }

  /** Whether scripts can be run. Waits where that is not known yet, and asks again if it must. */
  boolean hasShell() {
    if (shell() == Shell.UNKNOWN) {
      BlockingCalls.check("asking for a shell");
      try {
        await(PATIENCE);
        if (mayAskAgain()) {
          ask(run -> run.run(lines, new Cancellation()));
        }
      } catch (IOException e) {
        return false;
      }
    }
    return shell() == Shell.RUNS;
  }

  private synchronized boolean mayAskAgain() {
    long now = System.nanoTime();
    boolean may = shell == Shell.UNKNOWN && !asking && now - retriedAt > BETWEEN_TRIES.toNanos();
    if (may) {
      asking = true;
      retriedAt = now;
    }
    return may;
  }
}
