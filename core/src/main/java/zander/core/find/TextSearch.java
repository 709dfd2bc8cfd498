package zander.core.find;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CancellationException;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.Future;
import java.util.function.Consumer;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import zander.core.connect.command.Commands;
import zander.core.connect.command.ExecResult;
import zander.core.connect.command.ShellWords;
import zander.core.edit.NotTextException;
import zander.core.edit.TextFile;
import zander.core.files.FileKind;
import zander.core.files.RemoteEntry;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.listing.Narrowing;
import zander.core.work.Cancellation;
import zander.core.work.Workers;

/**
 * Finds lines in the files below a folder. Where there is a shell with a {@code grep} that ends
 * names by NUL, the server gives the lines that may fit ({@link GrepPattern}), and they are judged
 * here; otherwise the files are read. Either way the same lines are found. Binary files are
 * skipped.
 */
public final class TextSearch {
  /** Larger files are not read over the line; the server's own grep reads them. */
  private static final long LARGEST = 16L << 20;

  private static final int READERS = 8;

  private final RemoteFiles files;
  private final Commands commands;

  public TextSearch(RemoteFiles files, Commands commands) {
    this.files = files;
    this.commands = commands;
  }

  /**
   * @param names which files to look into
   * @param found given lines as they are found, on one thread at a time
   * @throws java.util.regex.PatternSyntaxException when the expression is none
   * @throws CancellationException when it was stopped
   */
  public NameSearch.Outcome run(
      RemotePath folder,
      SearchText wanted,
      Narrowing names,
      Consumer<List<SearchMatch>> found,
      Cancellation stop)
      throws IOException {
    Pattern pattern = wanted.pattern();
    String forGrep = GrepPattern.of(wanted);
    if (forGrep == null || names.forFind(files.names()).size() != wordsIn(names)) {
      return byReading(folder, pattern, names, found, stop);
    }
    return commands.byShellOr(
        () -> byServer(folder, forGrep, pattern, names, found, stop),
        () -> byReading(folder, pattern, names, found, stop));
  }

  private NameSearch.Outcome byServer(
      RemotePath folder,
      String forGrep,
      Pattern pattern,
      Narrowing names,
      Consumer<List<SearchMatch>> found,
      Cancellation stop)
      throws IOException {
    GrepOutput output = new GrepOutput(pattern, found);
    ExecResult result = commands.stream(script(folder, forGrep, names), output::add, stop);
    if (result.exit() != 0 && !output.hasSeen() && !NameSearch.couldRun(result)) {
      return byReading(folder, pattern, names, found, stop);
    }
    read(output.end(), pattern, found, stop);
    return new NameSearch.Outcome(true, NameSearch.unreadable(result));
  }

  /** Two for each word that {@code find} can judge as well as we can. */
  private static int wordsIn(Narrowing names) {
    return names.meanings().size() * 2;
  }

  private String script(RemotePath folder, String forGrep, Narrowing names) {
    StringBuilder script = new StringBuilder("find " + ShellWords.quote(folder) + " -type f");
    names
        .forFind(files.names())
        .forEach(word -> script.append(' ').append(ShellWords.quoteWire(word)));
    return script
        .append(" -exec grep -nHI --null -E -e ")
        .append(ShellWords.quoteWire(forGrep))
        .append(" -- {} +")
        .toString();
  }

  private NameSearch.Outcome byReading(
      RemotePath folder,
      Pattern pattern,
      Narrowing names,
      Consumer<List<SearchMatch>> found,
      Cancellation stop)
      throws IOException {
    List<RemotePath> candidates = new ArrayList<>();
    NameSearch.Outcome walked =
        new NameSearch(files, commands)
            .run(folder, names, entries -> addFiles(entries, candidates), stop);
    read(candidates, pattern, found, stop);
    return new NameSearch.Outcome(false, walked.unreadable());
  }

  /** Looks into these files here. */
  private void read(
      List<RemotePath> candidates,
      Pattern pattern,
      Consumer<List<SearchMatch>> found,
      Cancellation stop)
      throws IOException {
    try (Workers readers = new Workers("text-search", READERS)) {
      List<Future<List<SearchMatch>>> read = new ArrayList<>();
      for (RemotePath file : candidates) {
        read.add(readers.submit(() -> in(file, pattern, stop)));
      }
      for (Future<List<SearchMatch>> one : read) {
        List<SearchMatch> hits = one.get();
        if (!hits.isEmpty()) {
          found.accept(hits);
        }
      }
    } catch (ExecutionException e) {
      if (e.getCause() instanceof CancellationException stopped) {
        throw stopped;
      }
      throw e.getCause() instanceof IOException io ? io : new IOException(e.getCause());
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new CancellationException("interrupted");
    }
  }

  private static void addFiles(List<RemoteEntry> entries, List<RemotePath> into) {
    for (RemoteEntry entry : entries) {
      if (entry.kind() == FileKind.FILE && entry.attributes().size() <= LARGEST) {
        into.add(entry.path());
      }
    }
  }

  private List<SearchMatch> in(RemotePath file, Pattern pattern, Cancellation stop)
      throws IOException {
    stop.throwIfStopped();
    try {
      return lines(file, TextFile.decode(files.readAll(file, LARGEST)).text(), pattern);
    } catch (NotTextException e) {
      return List.of();
    } catch (RemoteFailure e) {
      if (e.reason() == RemoteFailure.Reason.LINE_LOST) {
        throw e;
      }
      // Removed meanwhile, or not ours to read: nothing is found in it.
      return List.of();
    }
  }

  private static List<SearchMatch> lines(RemotePath file, String text, Pattern pattern) {
    List<SearchMatch> hits = new ArrayList<>();
    int number = 0;
    // What comes behind the last line end is no line.
    String whole = text.endsWith("\n") ? text.substring(0, text.length() - 1) : text;
    for (String line : text.isEmpty() ? new String[0] : whole.split("\n", -1)) {
      number++;
      Matcher matcher = pattern.matcher(line);
      if (matcher.find()) {
        hits.add(SearchMatch.of(file, number, line, matcher.start(), matcher.end()));
      }
    }
    return hits;
  }
}
