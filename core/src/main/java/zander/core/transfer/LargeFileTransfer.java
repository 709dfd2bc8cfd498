package zander.core.transfer;

import java.io.IOException;
import java.io.InputStream;
import java.security.MessageDigest;
import org.jspecify.annotations.Nullable;
import zander.core.files.FileKind;
import zander.core.phrase.ExplainedException;
import zander.core.phrase.Phrase;
import zander.core.phrase.TransferPhrase;
import zander.core.transfer.endpoint.DirectRoute;
import zander.core.transfer.endpoint.Sha256;
import zander.core.transfer.endpoint.Source;
import zander.core.transfer.endpoint.Target;
import zander.core.transfer.endpoint.TransferItem;
import zander.core.transfer.endpoint.TreeEntry;
import zander.core.transfer.progress.ProgressCounter;
import zander.core.transfer.progress.RateLimiter;
import zander.core.transfer.resume.ResumeLog;
import zander.core.transfer.rules.TransferRules;

/**
 * Carries large files, each by itself, and goes on with what is there of one when the line breaks.
 * For several threads.
 */
final class LargeFileTransfer {
  /** As much as one request carries, so that none is cut in two. */
  private static final int BUFFER = 255 * 1024;

  /** A file that goes on growing while it is read must not fill the other side. */
  private static final long MOST_GROWTH = 256L << 20;

  private final Source source;
  private final Target target;
  private final TransferRules rules;
  private final Retrier retrier;
  private final ProgressCounter counter;
  private final RateLimiter limiter;
  private final ResumeLog resumeLog;

  /** {@code null} where all goes through this computer. */
  private final @Nullable DirectRoute direct;

  LargeFileTransfer(TransferContext context) {
    this.source = context.source();
    this.target = context.target();
    this.rules = context.rules();
    this.retrier = context.retrier();
    this.counter = context.counter();
    this.limiter = context.limiter();
    this.resumeLog = context.resumeLog();
    this.direct = context.direct();
  }

  /** Carries one large file, going on from where it was when the line broke. */
  void carry(TransferItem item) {
    counter.begin(source.show(item.from()));
    Target.Part part = proved(item, before(item));
    while (true) {
      Target.Part[] left = {null};
      int asked = retrier.roomAnswers();
      try {
        Phrase lost = file(item, part, left);
        resumeLog.partEnded(item.to());
        counter.fileDone();
        if (lost != null) {
          retrier.problem(item.to(), lost, true);
        }
        return;
      } catch (IOException e) {
        if (!retrier.isLost(e)) {
          resumeLog.partEnded(item.to());
          if (retrier.isFull(e, asked) && retrier.awaitRoom(item.from(), e, asked)) {
            part = null;
            continue;
          }
          retrier.failed(item.from(), e);
          counter.skip(item.node().size());
          return;
        }
        retrier.awaitLine(item.from(), e);
        Boolean there = retrier.attempt(item.from(), () -> isAt(item));
        if (there != null && there) {
          resumeLog.partEnded(item.to());
          counter.carried(item.node().size());
          counter.fileDone();
          return;
        }
        part = proved(item, left[0]);
      }
    }
  }

  private boolean isAt(TransferItem item) throws IOException {
    TreeEntry there = target.look(item.to());
    return there != null
        && there.kind() == FileKind.FILE
        && there.size() == item.node().size()
        && item.modified() >= 0
        && there.modified() == item.modified();
  }

  private Target.@Nullable Part before(TransferItem item) {
    ResumeLog.Begun begun = resumeLog.partsBefore().get(item.to());
    return begun != null
            && begun.size() == item.node().size()
            && begun.modified() == item.node().modified()
        ? new Target.Part(begun.part(), Long.MAX_VALUE)
        : null;
  }

  /**
   * What of an earlier try can be gone on with: as much as is there, if its checksum shows that it
   * is the beginning of the same file. Anything else is taken away.
   */
  private Target.@Nullable Part proved(TransferItem item, Target.@Nullable Part left) {
    if (left == null) {
      return null;
    }
    return retrier.attempt(
        item.from(),
        () -> {
          Target.Part there = target.part(left.path());
          if (there == null) {
            return null;
          }
          long size = Math.min(left.size(), there.size());
          TreeEntry now = source.look(item.from());
          boolean same =
              size > 0
                  && size <= item.node().size()
                  && now != null
                  && now.size() == item.node().size()
                  && now.modified() == item.node().modified()
                  && source.digest(item.from(), size).equals(target.digest(left.path(), size));
          if (same) {
            return new Target.Part(left.path(), size);
          }
          target.remove(left.path());
          return null;
        });
  }

  /**
   * @param left gets what is left on the other side when the line breaks
   */
  private @Nullable Phrase file(TransferItem item, Target.@Nullable Part part, Target.Part[] left)
      throws IOException {
    if (direct != null && direct.takes(item)) {
      try {
        return fileDirect(direct, item, part, left);
      } catch (DirectRoute.NotDirect e) {
        part = proved(item, left[0]);
        left[0] = null;
      }
    }
    long from = part == null ? 0 : part.size();
    MessageDigest digest = rules.check() && from == 0 ? Sha256.begin() : null;
    byte[] buffer = new byte[BUFFER];
    long at = from;
    counter.carried(from);
    try (InputStream in = source.read(item, from);
        Target.Incoming incoming = target.create(item, part)) {
      resumeLog.partBegun(
          item.to(),
          new ResumeLog.Begun(incoming.part().path(), item.node().size(), item.node().modified()));
      try {
        for (int count; (count = in.read(buffer)) >= 0; ) {
          limiter.pass(count);
          incoming.write(buffer, 0, count);
          counter.carried(count);
          at += count;
          if (digest != null) {
            digest.update(buffer, 0, count);
          }
          if (at - item.node().size() > MOST_GROWTH) {
            throw new ExplainedException(TransferPhrase.GREW_WHILE_READ.of());
          }
        }
        Phrase lost = incoming.arrive(timeOf(item, at), expected(item, digest));
        counter.correct(item.node().size(), at);
        return lost == null && at != item.node().size()
            ? TransferPhrase.CHANGED_MEANWHILE.of()
            : lost;
      } catch (IOException e) {
        if (retrier.isLost(e)) {
          incoming.leave();
          left[0] = incoming.part();
        }
        throw e;
      }
    } catch (IOException | RuntimeException e) {
      counter.carried(-at);
      throw e;
    }
  }

  /** What broke off is left, to be gone on with. */
  private @Nullable Phrase fileDirect(
      DirectRoute route, TransferItem item, Target.@Nullable Part part, Target.Part[] left)
      throws IOException {
    long from = part == null ? 0 : part.size();
    long carried = from;
    counter.carried(from);
    try (DirectRoute.Arrival incoming = route.create(item, part)) {
      resumeLog.partBegun(
          item.to(),
          new ResumeLog.Begun(incoming.part().path(), item.node().size(), item.node().modified()));
      try {
        long size = incoming.stream(from);
        carried = size;
        Phrase lost = incoming.arrive(timeOf(item, size), expected(item, null));
        counter.correct(item.node().size(), size);
        return lost == null && size != item.node().size()
            ? TransferPhrase.CHANGED_MEANWHILE.of()
            : lost;
      } catch (IOException e) {
        retrier.throwIfStopped();
        boolean lost = retrier.isLost(e);
        if (lost || e instanceof DirectRoute.NotDirect) {
          incoming.leave(lost);
          left[0] = new Target.Part(incoming.part().path(), Long.MAX_VALUE);
        }
        throw e;
      }
    } catch (IOException | RuntimeException e) {
      counter.carried(-carried);
      throw e;
    }
  }

  private @Nullable String expected(TransferItem item, @Nullable MessageDigest digest)
      throws IOException {
    if (!rules.check()) {
      return null;
    }
    return digest == null ? source.digest(item.from(), -1) : Sha256.end(digest.digest());
  }

  /** A file that changed while it was transferred has a time of its own by now. */
  private long timeOf(TransferItem item, long carried) throws IOException {
    if (item.modified() < 0 || carried == item.node().size()) {
      return item.modified();
    }
    TreeEntry now = source.look(item.from());
    return now == null ? item.modified() : now.modified();
  }
}
