package zander.core.journal;

import java.io.ByteArrayOutputStream;
import java.io.Closeable;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.TimeUnit;
import org.jspecify.annotations.Nullable;
import zander.core.files.RemotePath;
import zander.core.phrase.JournalPhrase;
import zander.core.rights.Mode;
import zander.core.seal.ContentSeal;
import zander.core.work.BlockingCalls;

/**
 * The journal of one server in one folder on this computer: lines that are only ever appended, each
 * with a checksum, and the replaced contents, each once and packed.
 *
 * <p>A line that a crash cut off is skipped when reading; the change it began had not been made,
 * because that waits until the line is on the disk.
 */
public final class FileJournal implements Journal, Closeable {
  private static final String FAILED = "failed: ";

  private final String desk;
  private final KeptContents contents;
  private final JournalFiles files;
  private final Map<Long, JournalEntry> entries = new LinkedHashMap<>();
  private final Map<Long, Long> undoneBy = new HashMap<>();
  private final List<JournalEntry> left = new ArrayList<>();
  private JournalRules rules;
  private int damaged;
  private boolean alone = true;
  private long last;

  /**
   * Opens or makes the journal of one server, and lets go of what the rules do not keep.
   *
   * @param desk the name that new entries carry
   * @param seal seals the replaced contents
   */
  public FileJournal(Path folder, String desk, JournalRules rules, ContentSeal seal)
      throws IOException {
    BlockingCalls.check("opening the journal");
    this.desk = desk;
    this.rules = rules;
    Files.createDirectories(
        folder, PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString("rwx------")));
    contents = new KeptContents(folder.resolve("content"), seal);
    files = JournalFiles.open(folder);
    read();
    keepTo(rules);
    sealKept();
  }

  /** The same, with contents of closed files sealed for this object alone. */
  public FileJournal(Path folder, String desk, JournalRules rules) throws IOException {
    this(folder, desk, rules, ContentSeal.ofThisRun());
  }

  private void read() throws IOException {
    Set<Long> live = new HashSet<>();
    List<JournalLine> ends = new ArrayList<>();
    for (JournalFiles.Lines file : files.read()) {
      alone &= !file.live();
      for (String text : file.lines()) {
        JournalLine line = JournalLine.read(text);
        if (line == null) {
          damaged++;
        } else if (line.begun() == null) {
          ends.add(line);
        } else {
          remember(line.begun());
          if (file.live()) {
            live.add(line.begun().id());
          }
        }
      }
    }
    for (JournalLine end : ends) {
      last = Math.max(last, end.ends());
      entries.computeIfPresent(
          end.ends(), (id, entry) -> entry.ended(end.how(), end.now(), end.touched()));
    }
    // A number in a damaged line may be the last one given: what ended it would end another entry.
    last += (long) damaged * JournalFiles.MOST;
    entries.values().stream()
        .filter(entry -> entry.isUnderWay() && !live.contains(entry.id()))
        .forEach(left::add);
  }

  private void remember(JournalEntry entry) {
    entries.put(entry.id(), entry);
    last = Math.max(last, entry.id());
    if (entry.undoes() != 0) {
      undoneBy.put(entry.undoes(), entry.id());
    }
  }

  /** Numbers of several programs cannot meet: each counts in its own steps. */
  private long nextId() {
    return (last / JournalFiles.MOST + 1) * JournalFiles.MOST + files.slot();
  }

  @Override
  public synchronized long newGroup() {
    last = nextId();
    return last;
  }

  @Override
  public Pending begin(NewChange change) throws IOException {
    return begin(List.of(change)).get(0);
  }

  @Override
  public synchronized List<Pending> begin(List<NewChange> changes) throws IOException {
    BlockingCalls.check("writing the journal");
    ByteArrayOutputStream lines = new ByteArrayOutputStream();
    List<JournalEntry> begun = new ArrayList<>();
    boolean sync = false;
    for (NewChange change : changes) {
      String contentId =
          change.content() == null ? null : contents.keep(change.content(), isClosed(change));
      JournalEntry entry =
          JournalEntry.of(nextId(), System.currentTimeMillis(), desk, change, contentId);
      lines.writeBytes(JournalLine.begin(entry));
      last = entry.id();
      begun.add(entry);
      // What is sent up has nothing before it that could be lost, and there may be thousands.
      sync |= change.kind() != ChangeKind.SEND_UP;
    }
    files.append(lines.toByteArray(), sync);
    begun.forEach(this::remember);
    return begun.stream().<Pending>map(Ending::new).toList();
  }

  /** Whether others may not read it on the server. What is not known is taken for closed. */
  private static boolean isClosed(NewChange change) {
    FileState before = change.before();
    return switch (change.kind()) {
      // Names and rights, as the journal's own lines have them: no content of anybody's.
      case RIGHTS_OF_TREE, ACCESS_LIST, ACCESS_LISTS_OF_TREE -> false;
      default -> before == null || !before.mode().allows(Mode.Who.OTHERS, Mode.May.READ);
    };
  }

  private final class Ending implements Pending {
    private final JournalEntry entry;

    Ending(JournalEntry entry) {
      this.entry = entry;
    }

    @Override
    public long id() {
      return entry.id();
    }

    @Override
    public void done(@Nullable FileState now, List<FolderTime> touched) throws IOException {
      end(entry.ended(JournalEntry.DONE, now, touched));
    }

    @Override
    public void failed(String why) throws IOException {
      end(entry.ended(FAILED + why, null, List.of()));
    }

    @Override
    public void lost() {
      synchronized (FileJournal.this) {
        left.add(entry);
      }
    }
  }

  private synchronized void end(JournalEntry entry) throws IOException {
    entries.put(entry.id(), entry);
    files.append(JournalLine.end(entry), false);
  }

  @Override
  public void settleDone(JournalEntry entry) throws IOException {
    settle(entry, JournalEntry.DONE);
  }

  @Override
  public void settle(JournalEntry entry, JournalPhrase how) throws IOException {
    settle(entry, FAILED + how.of());
  }

  private synchronized void settle(JournalEntry entry, String outcome) throws IOException {
    BlockingCalls.check("writing the journal");
    left.removeIf(one -> one.id() == entry.id());
    end(entry.ended(outcome, null, List.of()));
  }

  @Override
  public synchronized List<JournalEntry> entries() {
    List<JournalEntry> all = new ArrayList<>(entries.values());
    Collections.reverse(all);
    return all;
  }

  @Override
  public synchronized List<JournalEntry> about(RemotePath path) {
    List<JournalEntry> about = new ArrayList<>();
    for (JournalEntry entry : entries.values()) {
      if (entry.path().equals(path) || path.equals(entry.to())) {
        about.add(entry);
      }
    }
    Collections.reverse(about);
    return about;
  }

  @Override
  public byte @Nullable [] contentBefore(JournalEntry entry, boolean mayAsk) throws IOException {
    BlockingCalls.check("reading the journal");
    return entry.contentId() == null ? null : contents.read(entry.contentId(), mayAsk);
  }

  @Override
  public boolean keepsContent(JournalEntry entry) throws IOException {
    BlockingCalls.check("reading the journal");
    return entry.contentId() != null && contents.has(entry.contentId());
  }

  @Override
  public boolean endsWithThisRun(JournalEntry entry) throws IOException {
    BlockingCalls.check("reading the journal");
    return entry.contentId() != null && contents.endsWithItsRun(entry.contentId());
  }

  /** Once there is a vault: seals for it what was kept in clear, or for this run alone. */
  public synchronized void sealKept() throws IOException {
    BlockingCalls.check("sealing the journal");
    contents.sealAll();
  }

  /**
   * Lets go of all replaced contents, and of the history too if wanted. Nothing under way goes.
   *
   * @return whether it was done; it is not while another program writes here
   */
  public synchronized boolean empty(boolean historyToo) throws IOException {
    BlockingCalls.check("emptying the journal");
    if (!alone) {
      return false;
    }
    if (historyToo) {
      entries.values().removeIf(entry -> !entry.isUnderWay());
      rewrite();
    }
    Set<String> kept = new HashSet<>();
    for (JournalEntry entry : entries.values()) {
      if (entry.isUnderWay() && entry.contentId() != null) {
        kept.add(entry.contentId());
      }
    }
    contents.retain(kept);
    return true;
  }

  private void rewrite() throws IOException {
    ByteArrayOutputStream lines = new ByteArrayOutputStream();
    for (JournalEntry entry : entries.values()) {
      lines.write(JournalLine.begin(entry));
      if (!entry.isUnderWay()) {
        lines.write(JournalLine.end(entry));
      }
    }
    files.rewrite(lines.toByteArray());
  }

  @Override
  public synchronized JournalEntry last(JournalEntry entry) {
    JournalEntry undoing = undoing(entry);
    return undoing == null ? entry : last(undoing);
  }

  private @Nullable JournalEntry undoing(JournalEntry entry) {
    Long by = undoneBy.get(entry.id());
    JournalEntry undoing = by == null ? null : entries.get(by);
    return undoing != null && undoing.isDone() ? undoing : null;
  }

  @Override
  public synchronized boolean isPutBack(JournalEntry entry) {
    JournalEntry undoing = undoing(entry);
    return undoing != null && !isPutBack(undoing);
  }

  @Override
  public synchronized List<JournalEntry> unfinished() {
    return List.copyOf(left);
  }

  /** How many lines could not be read, because something damaged the file or a crash cut one. */
  public int damaged() {
    return damaged;
  }

  public synchronized JournalRules rules() {
    return rules;
  }

  /**
   * Lets go of entries that are too old, and of the oldest contents while they take too much.
   * Nothing under way goes. While another program writes here, this is left for later.
   */
  public synchronized void keepTo(JournalRules wanted) throws IOException {
    BlockingCalls.check("tidying the journal");
    rules = wanted;
    if (!alone) {
      return;
    }
    long oldest = System.currentTimeMillis() - TimeUnit.DAYS.toMillis(wanted.days());
    boolean dropped =
        entries.values().removeIf(entry -> !entry.isUnderWay() && entry.at() < oldest);
    Set<String> kept = new HashSet<>();
    long bytes = 0;
    for (JournalEntry entry : entries()) {
      if (entry.contentId() != null && !kept.contains(entry.contentId())) {
        bytes += contents.size(entry.contentId());
        if (bytes <= wanted.bytes() || entry.isUnderWay()) {
          kept.add(entry.contentId());
        }
      }
    }
    if (dropped) {
      rewrite();
    }
    contents.retain(kept);
  }

  @Override
  public synchronized void close() throws IOException {
    files.close();
  }
}
