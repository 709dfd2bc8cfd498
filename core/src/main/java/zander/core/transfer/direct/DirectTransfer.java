package zander.core.transfer.direct;

import java.io.IOException;
import java.util.Iterator;
import java.util.List;
import java.util.Queue;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.Executors;
import java.util.concurrent.RejectedExecutionException;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicLong;
import java.util.function.LongConsumer;
import org.jspecify.annotations.Nullable;
import zander.core.connect.AgentLoan;
import zander.core.connect.command.ExecResult;
import zander.core.connect.command.Pipe;
import zander.core.connect.command.ShellWords;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemotePath;
import zander.core.files.WireName;
import zander.core.phrase.CarrierPhrase;
import zander.core.phrase.Phrase;
import zander.core.phrase.TransferPhrase;
import zander.core.rights.Mode;
import zander.core.transfer.direct.DirectTransferProcess.Starter;
import zander.core.transfer.endpoint.DirectRoute.NotDirect;
import zander.core.transfer.endpoint.Endpoint;
import zander.core.transfer.endpoint.SmallFile;
import zander.core.transfer.endpoint.TransferItem;
import zander.core.transfer.server.ArrivingFile;
import zander.core.transfer.server.RemoteContext;

/**
 * Carries contents straight from one server to another; this computer only says what goes where,
 * looks what arrived, and puts it in its place. One of the servers signs in at the other with a key
 * lent for the transfer. What cannot go this way goes through this computer. For several threads.
 */
public final class DirectTransfer {
  private static final int MOST_FAILED = 3;
  private static final long LOOK_EVERY_MILLIS = 400;

  private final RemoteContext source;
  private final RemoteContext target;
  private final LongConsumer carried;
  private final Queue<Pipe> running = new ConcurrentLinkedQueue<>();
  private final ScheduledExecutorService looking =
      Executors.newSingleThreadScheduledExecutor(
          task -> {
            Thread thread = new Thread(task, "transfer-look");
            thread.setDaemon(true);
            return thread;
          });
  private final Iterator<Starter> starters = List.of(Starter.values()).iterator();
  private final List<Phrase> reasons = new CopyOnWriteArrayList<>();

  /** {@code null} when neither can. Changed under the lock, asked without it. */
  private volatile @Nullable Starter starter = starters.next();

  private volatile boolean over;
  private @Nullable AgentLoan loan;
  private int failed;
  private boolean proved;

  /**
   * @param carried told how many bytes more have arrived
   */
  public DirectTransfer(RemoteContext source, RemoteContext target, LongConsumer carried) {
    this.source = source;
    this.target = target;
    this.carried = carried;
  }

  /** Whether something may go this way: not after it turned out that nothing can. */
  public boolean takes(TransferItem item) {
    return starter != null
        && !over
        && !item.followed()
        && item.from().equals(item.to())
        && target.partialNames().fixed(Endpoint.nameOf(item.to())) != null
        && target.takesPrograms(item.to());
  }

  /** How it goes, and why not otherwise. Does not wait. */
  public Phrase carrier() {
    Starter by = starter;
    if (by == null) {
      return CarrierPhrase.VIA_LOCAL.of(
          reasons.stream().reduce((one, next) -> CarrierPhrase.AND.of(one, next)).orElseThrow());
    }
    String from = source.channels().host();
    String to = target.channels().host();
    return by == Starter.SOURCE
        ? CarrierPhrase.DIRECT_SIGNS_IN.of(from, to)
        : CarrierPhrase.DIRECT_SIGNED_INTO.of(from, to);
  }

  /** Signs in where that is needed, which others wait for. */
  private synchronized DirectTransferProcess begin() throws IOException {
    while (starter != null && !over) {
      RemoteContext near = starter == Starter.SOURCE ? source : target;
      RemoteContext far = starter == Starter.SOURCE ? target : source;
      if (loan != null && loan.isOpen()) {
        return new DirectTransferProcess(loan, starter);
      }
      Phrase why = near.channels().whyNotLend(far.channels());
      if (why == null) {
        loan = near.channels().lend(far.channels());
        return new DirectTransferProcess(loan, starter);
      }
      next(why);
    }
    throw new NotDirect(TransferPhrase.NOT_DIRECTLY.of());
  }

  /** The other way round; this one did not work. */
  private synchronized void next(Phrase why) {
    reasons.add(why);
    starter = starters.hasNext() ? starters.next() : null;
    failed = 0;
    if (loan != null) {
      loan.close();
      loan = null;
    }
  }

  private synchronized void went(Starter by, boolean arrived, ExecResult result) {
    if (by != starter) {
      return;
    }
    if (arrived) {
      failed = 0;
      proved = true;
    } else if (++failed >= MOST_FAILED
        || (!proved && result.exit() == DirectTransferProcess.NOT_THERE)) {
      RemoteContext near = by == Starter.SOURCE ? source : target;
      RemoteContext far = by == Starter.SOURCE ? target : source;
      String said = result.errorText().strip().lines().findFirst().map(WireName::toText).orElse("");
      Phrase why =
          CarrierPhrase.COULD_NOT_SIGN_IN.of(near.channels().host(), far.channels().host());
      next(said.isEmpty() ? why : TransferPhrase.BECAUSE.of(why, said));
    }
  }

  private ExecResult run(
      DirectTransferProcess run, String first, String second, byte[] names, Runnable line)
      throws IOException {
    Pipe[] mine = {null};
    try {
      return run.run(
          first,
          second,
          names,
          told -> line.run(),
          pipe -> {
            mine[0] = pipe;
            running.add(pipe);
            if (over) {
              pipe.close();
            }
          });
    } catch (IOException e) {
      // If a desk's line went, this tells; the lent session alone is no lost line.
      source.files().batch().look(List.of(source.base()));
      target.files().batch().look(List.of(target.base()));
      return new ExecResult(
          DirectTransferProcess.NOT_THERE, new byte[0], WireName.bytes("it broke off"));
    } finally {
      if (mine[0] != null) {
        running.remove(mine[0]);
      }
    }
  }

  /** Writes the temporary files of a load by {@code tar} at both ends; says of each how it went. */
  public void write(List<ArrivingFile> waiting) throws IOException {
    boolean again = true;
    while (again) {
      DirectTransferProcess run;
      try {
        run = begin();
      } catch (NotDirect e) {
        waiting.forEach(one -> one.smallFile.failure = e);
        return;
      }
      waiting.forEach(one -> one.smallFile.failure = null);
      boolean arrived = write(run, waiting);
      again = !arrived && otherWayThan(run);
    }
  }

  /** Whether it was found meanwhile that the other server should start. */
  private boolean otherWayThan(DirectTransferProcess run) {
    Starter now = starter;
    return now != null && now != run.starter() && !over;
  }

  private boolean write(DirectTransferProcess run, List<ArrivingFile> waiting) throws IOException {
    TransferItem like = waiting.get(0).smallFile.item;
    StringBuilder names = new StringBuilder();
    waiting.forEach(one -> names.append("./").append(one.smallFile.item.from()).append('\0'));
    String first =
        "cd "
            + ShellWords.quote(source.base())
            + " && exec tar -Scf - --format=gnu --no-recursion --hard-dereference --null -T -";
    // The names it is to have are given at the target: hard links are renamed with the rest, and
    // lead to nothing that was there before.
    String second =
        (like.mode() == null ? "" : "umask 077; ")
            + "cd "
            + ShellWords.quote(target.base())
            + " && exec tar -xvio"
            + (like.modified() == TransferItem.OF_ARRIVAL ? "m" : "")
            + "f - --warning=no-timestamp"
            + (" --transform=" + ShellWords.quoteWire(target.partialNames().transform()))
            + run.takingOnlyTheNames();
    Iterator<ArrivingFile> begun = waiting.iterator();
    SmallFile[] last = {null};
    ExecResult result =
        run(
            run,
            first,
            second,
            WireName.bytes(names.toString()),
            () -> {
              tell(last[0]);
              last[0] = begun.hasNext() ? begun.next().smallFile : null;
            });
    boolean arrived = ArrivedFiles.look(target, waiting, result);
    went(run.starter(), arrived, result);
    return arrived;
  }

  private void tell(SmallFile smallFile) {
    if (smallFile != null && smallFile.told == 0) {
      smallFile.told = smallFile.item.node().size();
      carried.accept(smallFile.told);
    }
  }

  /**
   * Carries one large file into its temporary file.
   *
   * @param from how much of it is there
   * @return how much is there now
   * @throws NotDirect when it broke off; what is there may be gone on with
   */
  public long stream(TransferItem item, RemotePath part, long from) throws IOException {
    while (true) {
      DirectTransferProcess run = begin();
      try {
        return stream(run, item, part, from);
      } catch (NotDirect e) {
        RemoteAttributes there = target.files().batch().look(List.of(part)).get(0);
        if (!otherWayThan(run) || (there != null && there.size() > from)) {
          throw e;
        }
        if (there != null && from == 0) {
          // An empty file that nothing came into is in the way of the next try.
          target.files().batch().removeFiles(List.of(part));
        }
      }
    }
  }

  private long stream(DirectTransferProcess run, TransferItem item, RemotePath part, long from)
      throws IOException {
    String file = ShellWords.quote(source.at(item.from()));
    String goal = ShellWords.quote(part);
    String first = from == 0 ? "exec cat < " + file : "exec tail -c +" + (from + 1) + " < " + file;
    AtomicLong seen = new AtomicLong(from);
    var looks =
        looking.scheduleWithFixedDelay(
            () -> see(seen, lookQuietly(part)),
            LOOK_EVERY_MILLIS,
            LOOK_EVERY_MILLIS,
            TimeUnit.MILLISECONDS);
    boolean whole = false;
    try {
      ExecResult result = run(run, first, into(item.mode(), goal, from), new byte[0], () -> {});
      looks.cancel(false);
      RemoteAttributes there = target.files().batch().look(List.of(part)).get(0);
      long size = there == null ? 0 : there.size();
      went(run.starter(), size > from || result.exit() == 0, result);
      see(seen, there);
      whole = result.exit() == 0 && size >= item.node().size();
      if (!whole) {
        throw new NotDirect(TransferPhrase.BROKE_OFF.of());
      }
      return size;
    } finally {
      looks.cancel(false);
      if (!whole) {
        carried.accept(from - seen.get());
      }
    }
  }

  /** Tells how much more there is of a file that grows. */
  private void see(AtomicLong seen, @Nullable RemoteAttributes there) {
    if (there != null) {
      long more = there.size() - seen.getAndAccumulate(there.size(), Math::max);
      if (more > 0) {
        carried.accept(more);
      }
    }
  }

  private String into(@Nullable Mode mode, String goal, long from) throws IOException {
    if (from > 0) {
      return "exec cat >> " + goal;
    }
    return (mode == null ? "" : "umask 077; ")
        + (target.strategy().holes()
            ? "exec dd bs=262144 iflag=fullblock conv=sparse,excl status=none of=" + goal
            : "set -C; exec cat > " + goal);
  }

  private @Nullable RemoteAttributes lookQuietly(RemotePath part) {
    try {
      return target.files().batch().look(List.of(part)).get(0);
    } catch (IOException e) {
      return null;
    }
  }

  /** Ends what is under way; nothing more is begun. Does not wait. */
  public void giveUp() {
    over = true;
    try {
      looking.execute(() -> running.forEach(Pipe::close));
    } catch (RejectedExecutionException e) {
      // All has ended.
    }
  }

  /** The lent key is of no use any more, and its session is closed. Does not fail. */
  public synchronized void end() {
    over = true;
    looking.shutdown();
    if (loan != null) {
      loan.close();
    }
  }
}
