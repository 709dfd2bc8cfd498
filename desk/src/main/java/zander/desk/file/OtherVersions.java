package zander.desk.file;

import java.io.IOException;
import java.time.Clock;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.concurrent.TimeUnit;
import zander.core.edit.BackupNames;
import zander.core.edit.LineDifference;
import zander.core.edit.TextFile;
import zander.core.files.FileKind;
import zander.core.files.RemoteEntry;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.journal.Journal;
import zander.core.journal.JournalEntry;
import zander.desk.save.EditedFile;
import zander.desk.sheet.OpenDesk;
import zander.desk.sheet.Question;
import zander.desk.sheet.Question.Choice;
import zander.desk.sheet.Texts;
import zander.desk.work.FailureWords;
import zander.desk.work.Message;

/**
 * Other versions of an open file, compared with its text one after the other: what the journal has
 * kept, and backups that lie beside it. Interface thread only.
 */
final class OtherVersions {
  private final OpenDesk desk;
  private final EditedFile file;

  OtherVersions(OpenDesk desk, EditedFile file) {
    this.desk = desk;
    this.file = file;
  }

  private interface Content {
    byte[] read() throws IOException;
  }

  /**
   * A version.
   *
   * @param at when it was the newest, in seconds since 1970-01-01 UTC
   */
  private record Version(String name, long at, Content content) {}

  /** Looks for them, and shows the newest. */
  void show() {
    RemotePath real = file.version().real();
    RemoteFiles files = desk.files();
    Journal journal = desk.journal();
    desk.background()
        .run(
            () -> {
              List<Version> all = kept(journal, real);
              all.addAll(beside(files, real));
              all.sort(Comparator.comparingLong(Version::at).reversed());
              return all;
            },
            all -> {
              if (all.isEmpty()) {
                tell(
                    "No other versions of " + file.path().name() + " are known",
                    "The journal has none, and no backup lies beside it.");
              } else {
                show(all, 0);
              }
            },
            this::failed);
  }

  private static List<Version> kept(Journal journal, RemotePath real) throws IOException {
    List<Version> kept = new ArrayList<>();
    for (JournalEntry entry : journal.about(real)) {
      if (entry.isDone() && entry.path().equals(real) && journal.keepsContent(entry)) {
        long at = TimeUnit.MILLISECONDS.toSeconds(entry.at());
        kept.add(
            new Version(
                "The version until "
                    + Texts.when(at, Clock.systemDefaultZone())
                    + ", from the journal",
                at,
                () -> journal.contentBefore(entry)));
      }
    }
    return kept;
  }

  private static List<Version> beside(RemoteFiles files, RemotePath real) throws IOException {
    List<Version> found = new ArrayList<>();
    for (RemoteEntry entry : files.list(real.parent(), portion -> {})) {
      boolean fits =
          entry.kind() == FileKind.FILE
              && BackupNames.isOneOf(real.wireName(), entry.path().wireName());
      if (fits && entry.attributes().size() <= ServerCopy.LARGEST) {
        long at = entry.attributes().modified();
        found.add(
            new Version(
                entry.path().name() + ", changed " + Texts.when(at, Clock.systemDefaultZone()),
                at,
                () -> files.readAll(entry.path(), ServerCopy.LARGEST)));
      }
    }
    return found;
  }

  private record Read(String text, List<LineDifference.Line> difference) {}

  private void show(List<Version> all, int at) {
    Version version = all.get(at);
    String mine = file.text();
    desk.background()
        .run(
            () -> {
              String text = TextFile.decode(version.content.read()).text();
              return new Read(text, LineDifference.of(text, mine));
            },
            read -> ask(all, at, read),
            this::failed);
  }

  private void ask(List<Version> all, int at, Read read) {
    List<Choice> choices = new ArrayList<>();
    boolean same = read.difference.isEmpty();
    if (!same) {
      choices.add(
          new Choice(
              "Put its text here",
              ticked -> {
                file.dismissQuestion();
                file.putIn(read.text);
              }));
    }
    if (all.size() > 1) {
      int next = (at + 1) % all.size();
      choices.add(new Choice("The next one", ticked -> show(all, next)));
    }
    choices.add(new Choice("Close", ticked -> file.dismissQuestion()));
    String which = all.size() > 1 ? (at + 1) + " of " + all.size() + ". " : "";
    file.ask(
        Question.notice(
                new Message(
                    all.get(at).name,
                    which
                        + (same
                            ? "It has the same text as here."
                            : "Lines with - are only there, lines with + only here.")),
                false,
                choices.toArray(Choice[]::new))
            .withDifference(read.difference));
  }

  private void failed(Throwable failure) {
    Message said = FailureWords.of(failure);
    tell(said.headline(), said.detail());
  }

  private void tell(String headline, String detail) {
    file.ask(
        Question.notice(
            new Message(headline, detail),
            false,
            new Choice("Close", ticked -> file.dismissQuestion())));
  }
}
