package zander.core.find;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
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
import zander.core.files.WireName;
import zander.core.listing.Narrowing;
import zander.core.work.Cancellation;
import zander.core.work.Workers;

/**
 * Finds lines in the files below a folder: by the server's {@code grep} where there is a shell with
 * one that ends names by NUL, by reading the files otherwise. Binary files are skipped. Text that
 * is not ASCII is looked for in UTF-8 and in ISO 8859-1.
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
    if (names.forFind(files.names()).size() != wordsIn(names)) {
      return byReading(folder, pattern, names, found, stop);
    }
    return commands.byShellOr(
        () -> byServer(folder, wanted, names, found, stop),
        () -> byReading(folder, pattern, names, found, stop));
  }

  private NameSearch.Outcome byServer(
      RemotePath folder,
      SearchText wanted,
      Narrowing names,
      Consumer<List<SearchMatch>> found,
      Cancellation stop)
      throws IOException {
    GrepOutput output = new GrepOutput(wanted.pattern(), found);
    ExecResult result = commands.stream(script(folder, wanted, names), output::add, stop);
    if (result.exit() != 0 && !output.hasSeen() && !NameSearch.couldRun(result)) {
      return byReading(folder, wanted.pattern(), names, found, stop);
    }
    return new NameSearch.Outcome(true, result.errorText().lines().count());
  }

  /** Two for each word that {@code find} can judge as well as we can. */
  private static int wordsIn(Narrowing names) {
    return names.words().size() * 2;
  }

  private String script(RemotePath folder, SearchText wanted, Narrowing names) {
    StringBuilder script = new StringBuilder("find " + ShellWords.quote(folder) + " -type f");
    names
        .forFind(files.names())
        .forEach(word -> script.append(' ').append(ShellWords.quoteWire(word)));
    script.append(" -exec grep -nHI --null ");
    script.append(wanted.expression() ? "-E " : "-F ").append(wanted.matchCase() ? "" : "-i ");
    script.append(wanted.wholeWord() ? "-w " : "");
    Set<String> forms = new LinkedHashSet<>();
    forms.add(WireName.fromText(wanted.text()));
    if (StandardCharsets.ISO_8859_1.newEncoder().canEncode(wanted.text())) {
      forms.add(wanted.text());
    }
    forms.forEach(form -> script.append("-e ").append(ShellWords.quoteWire(form)).append(' '));
    return script.append("-- {} +").toString();
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
    return new NameSearch.Outcome(false, walked.unreadable());
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
    for (String line : text.split("\n", -1)) {
      number++;
      Matcher matcher = pattern.matcher(line);
      if (matcher.find()) {
        hits.add(SearchMatch.of(file, number, line, matcher.start(), matcher.end()));
      }
    }
    return hits;
  }
}
