package zander.core.transfer.remote;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.Future;
import org.jspecify.annotations.Nullable;
import zander.core.connect.command.ExecResult;
import zander.core.connect.command.Pipe;
import zander.core.connect.command.ShellWords;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteBatch;
import zander.core.files.RemoteBatch.Got;
import zander.core.files.RemoteBatch.Wanted;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFailure.Reason;
import zander.core.files.RemotePath;
import zander.core.files.WireName;
import zander.core.transfer.endpoint.Sha256;
import zander.core.transfer.server.RemoteContext;
import zander.core.work.Cancellation;
import zander.core.work.Workers;

/** Checksums on a server: by its own {@code sha256sum} where it has one, read back otherwise. */
final class RemoteDigests {
  private static final int DIGITS = 64;

  /** Of what is read back: in files, which bounds the memory to some 16 MiB. */
  private static final int TOGETHER = 64;

  private static final int READERS = 4;

  private final RemoteContext context;

  RemoteDigests(RemoteContext context) {
    this.context = context;
  }

  String of(RemotePath file, long length) throws IOException {
    if (context.strategy().sums()) {
      String quoted = ShellWords.quote(file);
      String script =
          length < 0
              ? "sha256sum < " + quoted
              : "head -c " + length + " < " + quoted + " | sha256sum";
      ExecResult result = context.channels().commands().script(script);
      String text = result.outText();
      if (result.exit() == 0 && text.length() > DIGITS) {
        return text.substring(0, DIGITS);
      }
    }
    try (InputStream in = context.files().read(file)) {
      return Sha256.of(in, length);
    }
  }

  /** In the same order; {@code null} for what cannot be read. */
  List<String> of(List<RemotePath> files) throws IOException {
    Map<String, String> byName = new HashMap<>();
    if (!files.isEmpty() && context.strategy().sums()) {
      byServer(files, byName);
    }
    List<RemotePath> left = files.stream().filter(one -> !byName.containsKey(one.wire())).toList();
    readBack(left, byName);
    return files.stream().map(one -> byName.get(one.wire())).toList();
  }

  /** The small ones many at once, the others several at a time. */
  private void readBack(List<RemotePath> files, Map<String, String> byName) throws IOException {
    List<RemoteAttributes> looks = context.files().batch().look(files);
    List<Wanted> small = new ArrayList<>();
    List<RemotePath> large = new ArrayList<>();
    for (int i = 0; i < files.size(); i++) {
      RemoteAttributes is = looks.get(i);
      if (is != null && is.size() <= RemoteBatch.LARGEST) {
        small.add(new Wanted(files.get(i), is.size()));
      } else if (is != null) {
        large.add(files.get(i));
      }
    }
    for (int from = 0; from < small.size(); from += TOGETHER) {
      List<Wanted> some = small.subList(from, Math.min(small.size(), from + TOGETHER));
      List<Got> got = context.files().batch().get(some, new Cancellation());
      for (int i = 0; i < some.size(); i++) {
        byte[] content = got.get(i).content();
        if (content != null) {
          byName.put(some.get(i).path().wire(), Sha256.of(content));
        }
      }
    }
    try (Workers readers = new Workers("transfer-digests", READERS)) {
      Map<RemotePath, Future<String>> begun = new LinkedHashMap<>();
      for (RemotePath file : large) {
        begun.put(file, readers.submit(() -> readBack(file)));
      }
      for (var one : begun.entrySet()) {
        byName.put(one.getKey().wire(), one.getValue().get());
      }
    } catch (ExecutionException e) {
      throw e.getCause() instanceof IOException io ? io : new IOException(e.getCause());
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new IOException("interrupted", e);
    }
  }

  private @Nullable String readBack(RemotePath file) throws IOException {
    try {
      return of(file, -1);
    } catch (RemoteFailure e) {
      if (e.reason() == Reason.LINE_LOST) {
        throw e;
      }
      return null;
    }
  }

  /** Names go and come ended by NUL, so that none is written in another way. */
  private void byServer(List<RemotePath> files, Map<String, String> byName) throws IOException {
    StringBuilder names = new StringBuilder();
    files.forEach(file -> names.append(file.wire()).append('\0'));
    try (Pipe pipe = context.channels().commands().pipe("exec xargs -0 sha256sum -z --")) {
      OutputStream in = pipe.in();
      Thread feeding =
          new Thread(
              () -> {
                try (in) {
                  in.write(WireName.bytes(names.toString()));
                } catch (IOException e) {
                  // It ended early; what has no answer is read back.
                }
              },
              "transfer-names");
      feeding.setDaemon(true);
      feeding.start();
      String answer = WireName.fromBytes(pipe.out().readAllBytes());
      for (String line : answer.split("\0")) {
        if (line.length() > DIGITS + 2) {
          byName.put(line.substring(DIGITS + 2), line.substring(0, DIGITS));
        }
      }
      pipe.finish();
    } catch (RemoteFailure e) {
      throw e;
    } catch (IOException e) {
      context.strategy().noRoom();
    }
  }
}
