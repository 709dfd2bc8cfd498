package zander.desk.rights.kept;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CancellationException;
import javafx.beans.property.ReadOnlyBooleanProperty;
import javafx.beans.property.ReadOnlyBooleanWrapper;
import javafx.beans.property.ReadOnlyStringProperty;
import javafx.beans.property.ReadOnlyStringWrapper;
import javafx.beans.property.SimpleStringProperty;
import javafx.beans.property.StringProperty;
import zander.core.files.AccountNames;
import zander.core.files.RemotePath;
import zander.core.kept.KeptFolder;
import zander.core.kept.KeptLearner;
import zander.core.kept.KeptLook;
import zander.core.kept.KeptRights;
import zander.core.kept.KeptRule;
import zander.core.kept.KeptWish;
import zander.core.kept.ReadyRights;
import zander.core.work.AtomicFile;
import zander.core.work.Cancellation;
import zander.desk.rights.tree.RightsRequest;
import zander.desk.sheet.OpenDesk;
import zander.desk.sheet.Texts;
import zander.desk.words.Words;
import zander.desk.work.FailureWords;
import zander.desk.work.Subscriptions;

/** The rights that a folder keeps, while they are written. Interface thread only. */
public final class KeptRequest implements RightsRequest {
  private static final Words WORDS = Words.of(KeptRequest.class);

  /** A file with more is no such file. */
  private static final int LARGEST_FILE = 256 * 1024;

  private final OpenDesk desk;
  private final RemotePath folder;
  private final StringProperty text = new SimpleStringProperty("");
  private final ReadOnlyStringWrapper status = new ReadOnlyStringWrapper("");
  private final ReadOnlyBooleanWrapper kept = new ReadOnlyBooleanWrapper();
  private final ReadOnlyBooleanWrapper learning = new ReadOnlyBooleanWrapper();
  private final Subscriptions subscriptions = new Subscriptions();
  private Cancellation stop = new Cancellation();

  /**
   * @param folder the one that keeps them
   */
  public KeptRequest(OpenDesk desk, RemotePath folder) {
    this.desk = desk;
    this.folder = folder;
    text.set(keptText());
    text.addListener((observed, old, now) -> showKept());
    subscriptions.on(desk.marked().changesProperty(), now -> showKept());
    showKept();
  }

  private String keptText() {
    return desk.marked().all().stream()
        .filter(one -> one.path().equals(folder.text()) && !one.rights().isEmpty())
        .map(one -> String.join("\n", one.rights()) + "\n")
        .findFirst()
        .orElse("");
  }

  private void showKept() {
    kept.set(text.get().strip().equals(keptText().strip()));
  }

  private KeptRights read() {
    return new KeptRights(text.get());
  }

  @Override
  public String problem(AccountNames names) {
    KeptRights read = read();
    if (!read.problems().isEmpty()) {
      return KeptWords.of(read.problems().get(0));
    }
    List<String> unknown = wish(names).unknownNames();
    if (!unknown.isEmpty()) {
      return WORDS.say("thisServerHasNo", String.join(", ", unknown));
    }
    return read.isNothing() ? WORDS.say("sayWhatItKeeps") : "";
  }

  /** Those of the folders further down are as they are kept there. */
  @Override
  public KeptWish wish(AccountNames names) {
    List<KeptFolder> all =
        new ArrayList<>(
            desk.marked().keeping().stream().filter(one -> !one.path().equals(folder)).toList());
    all.add(new KeptFolder(folder, read()));
    return new KeptWish(all, names);
  }

  @Override
  public String words() {
    int lines = read().rules().size();
    return lines == 0 ? "" : WORDS.say("asKeepsThem", folder.text(), Texts.count(lines, "rule"));
  }

  @Override
  public boolean isTyped() {
    return true;
  }

  @Override
  public void onChange(Runnable changed) {
    text.addListener((observed, old, now) -> changed.run());
  }

  @Override
  public KeptRequest copyFor(OpenDesk other) {
    KeptRequest copy = new KeptRequest(other, folder);
    copy.text.set(text.get());
    return copy;
  }

  @Override
  public String heading(String about) {
    return WORDS.say("rightsThatKeeps", folder.isRoot() ? folder.text() : folder.name());
  }

  /** What the line means in which the person writes; empty for one that means nothing. */
  public String explain(int line) {
    for (KeptRule rule : read().rules()) {
      if (rule.line() == line) {
        return KeptWords.of(rule);
      }
    }
    return read().problems().stream()
        .filter(problem -> problem.line() == line)
        .map(KeptWords::of)
        .findFirst()
        .orElse("");
  }

  /** Begins with what folders of a purpose usually keep: owner and group as the folder has them. */
  public void begin(ReadyRights ready) {
    desk.background()
        .run(
            () -> desk.files().entry(folder),
            is -> {
              String service = desk.serviceAccount();
              boolean ownGroup = service.isEmpty() || ready == ReadyRights.SHARED_BY_GROUP;
              text.set(ready.text(is.owner(), ownGroup ? is.group() : service));
              status.set("");
            },
            failure -> {
              status.set(FailureWords.of(failure).headline());
              desk.checkLine();
            });
  }

  /** Learns from what is there; what is written is replaced. */
  public void learn() {
    stop.stop();
    stop = new Cancellation();
    Cancellation mine = stop;
    learning.set(true);
    status.set(WORDS.say("lookingAtWhatIs"));
    desk.background()
        .run(
            () -> learnt(mine),
            found -> {
              if (mine == stop) {
                learning.set(false);
                text.set(found.text);
                status.set(found.words());
              }
            },
            failure -> {
              if (mine == stop) {
                learning.set(false);
                status.set(
                    failure instanceof CancellationException
                        ? ""
                        : FailureWords.of(failure).headline());
                desk.checkLine();
              }
            });
  }

  private record Learnt(String text, int seen) {
    String words() {
      return seen == 0
          ? WORDS.say("thereIsNothingTo")
          : WORDS.say(
              "learntFromWhatFits",
              seen < KeptLearner.MOST_ENTRIES ? "" : WORDS.say("theFirst"),
              Texts.count(seen, "entry"));
    }
  }

  private Learnt learnt(Cancellation mine) throws Exception {
    KeptLearner learner = new KeptLearner(desk.files().names());
    int seen =
        new KeptLook(desk.files(), desk.commands(), learner, mine)
            .run(folder, looked -> tell(mine, looked));
    return new Learnt(learner.text(), seen);
  }

  private void tell(Cancellation mine, long looked) {
    desk.background()
        .show(
            () -> {
              if (mine == stop && learning.get()) {
                status.set(WORDS.say("lookedAt", Texts.count(looked, "entry")));
              }
            });
  }

  @Override
  public void close() {
    stop.stop();
    subscriptions.end();
  }

  /** Keeps what is written, with the server's entry; nothing is set by that. */
  public void keep() {
    desk.marked()
        .keep(
            folder,
            text.get().isBlank() ? List.of() : text.get().stripTrailing().lines().toList(),
            () ->
                status.set(
                    text.get().isBlank()
                        ? WORDS.say("nothingIsAskedOf")
                        : WORDS.say("keptWithTheServers")));
  }

  /** Whether it may be kept as it is written: read without a problem, or nothing at all. */
  public boolean mayKeep() {
    return !kept.get() && read().problems().isEmpty();
  }

  /** Writes it to a file of this computer, over one that holds rights and no other. */
  public void writeTo(Path file) {
    String now = text.get();
    desk.background()
        .run(
            () -> {
              boolean may = !Files.exists(file) || holdsRights(file);
              if (may) {
                AtomicFile.write(file, now.getBytes(StandardCharsets.UTF_8));
              }
              return may;
            },
            written ->
                status.set(
                    written
                        ? WORDS.say("writtenTo", file)
                        : WORDS.say("holdsSomethingElseNothing", file)),
            failure -> status.set(FailureWords.of(failure).headline()));
  }

  /** By the head that such files begin with. */
  private static boolean holdsRights(Path file) throws IOException {
    return Files.size(file) <= LARGEST_FILE
        && Files.readString(file, StandardCharsets.ISO_8859_1).startsWith(KeptRights.HEAD);
  }

  /** Reads it from a file of this computer. */
  public void readFrom(Path file) {
    desk.background()
        .run(
            () -> Files.size(file) > LARGEST_FILE ? null : Files.readString(file),
            found -> {
              if (found == null) {
                status.set(WORDS.say("isTooLargeFor", file));
              } else {
                text.set(found);
                status.set(WORDS.say("readFromNothingIs", file));
              }
            },
            failure -> status.set(FailureWords.of(failure).headline()));
  }

  /** A name for the file. */
  public String fileName() {
    return "rights-of-" + (folder.isRoot() ? "root" : folder.name()) + ".txt";
  }

  public StringProperty textProperty() {
    return text;
  }

  /** What became of the last step; may be empty. */
  public ReadOnlyStringProperty statusProperty() {
    return status.getReadOnlyProperty();
  }

  /** Whether what is written is what is kept. */
  public ReadOnlyBooleanProperty keptProperty() {
    return kept.getReadOnlyProperty();
  }

  public ReadOnlyBooleanProperty learningProperty() {
    return learning.getReadOnlyProperty();
  }
}
