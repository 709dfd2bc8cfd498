package zander.desk.reach;

import static java.util.Objects.requireNonNull;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import java.util.stream.Stream;
import javafx.beans.property.ReadOnlyBooleanProperty;
import javafx.beans.property.ReadOnlyBooleanWrapper;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.collections.FXCollections;
import javafx.collections.ObservableList;
import org.jspecify.annotations.Nullable;
import zander.core.connect.keys.Agent;
import zander.core.connect.keys.Certificate;
import zander.core.connect.keys.KeyFailure;
import zander.core.connect.keys.KeyFile;
import zander.core.connect.keys.KeyMaker;
import zander.core.connect.keys.PublicKeyLine;
import zander.core.trust.WireKey;
import zander.core.work.SecretBytes;
import zander.desk.words.Phrases;
import zander.desk.words.Words;
import zander.desk.work.Background;
import zander.desk.work.HomePath;
import zander.desk.work.Message;

/** The person's keys: in files, in the agent; making new ones. */
public final class KeysModel {
  private static final Words WORDS = Words.of(KeysModel.class);

  /**
   * A key.
   *
   * @param file its private half; {@code null} for one that only the agent holds
   * @param line its public half; {@code null} when it cannot be told without the passphrase
   * @param where what holds it, in words
   * @param problem why it cannot be used; empty when it can
   */
  public record Row(
      @Nullable Path file, @Nullable PublicKeyLine line, String where, String problem) {
    public String name() {
      return file != null
          ? file.getFileName().toString()
          : requireNonNull(line, "the agent's keys have one").comment();
    }
  }

  private final Background background;
  private final Path folder;
  private final @Nullable Agent agent;
  private final ObservableList<Row> rows = FXCollections.observableArrayList();
  private final ReadOnlyObjectWrapper<Message> notice = new ReadOnlyObjectWrapper<>();
  private final ReadOnlyBooleanWrapper busy = new ReadOnlyBooleanWrapper(false);

  /**
   * @param folder where keys are kept: {@code ~/.ssh}
   * @param agent {@code null} when none is running
   */
  public KeysModel(Background background, Path folder, @Nullable Agent agent) {
    this.background = background;
    this.folder = folder;
    this.agent = agent;
  }

  /** A path as people write it: from the home folder on. */
  public String shown(Path path) {
    return HomePath.shown(path, folder.getParent());
  }

  public Path folder() {
    return folder;
  }

  /** Looks at the folder and asks the agent. */
  public void read() {
    background.run(
        this::find,
        rows::setAll,
        failure -> notice.set(new Message(WORDS.say("theKeysCouldNot"), Phrases.of(failure))));
  }

  private List<Row> find() throws IOException {
    List<Agent.Held> held = held();
    List<Row> found = new ArrayList<>();
    if (Files.isDirectory(folder)) {
      try (Stream<Path> files = Files.list(folder)) {
        for (Path file : files.sorted().toList()) {
          Row row = row(file, held);
          if (row != null) {
            found.add(row);
          }
        }
      }
    }
    for (Agent.Held one : held) {
      boolean shown =
          found.stream().anyMatch(r -> r.line() != null && r.line().key().equals(one.key()));
      if (!shown) {
        found.add(
            new Row(
                null,
                new PublicKeyLine(one.key(), one.comment()),
                WORDS.say("inTheAgentOnly"),
                ""));
      }
    }
    return found;
  }

  private List<Agent.Held> held() {
    try {
      return agent == null ? List.of() : agent.keys();
    } catch (IOException e) {
      return List.of();
    }
  }

  private static @Nullable Row row(Path file, List<Agent.Held> held) {
    boolean open = file.toString().endsWith(".pub");
    if (open || !Files.isRegularFile(file)) {
      return null;
    }
    PublicKeyLine beside =
        PublicKeyLine.read(file.resolveSibling(file.getFileName() + ".pub")).orElse(null);
    try {
      KeyFile key = KeyFile.read(file);
      WireKey half = key.publicHalf().orElse(null);
      String comment = beside == null ? "" : beside.comment();
      PublicKeyLine line = half == null ? null : new PublicKeyLine(half, comment);
      boolean inAgent = held.stream().anyMatch(one -> one.key().equals(half));
      String where =
          (key.isLocked() ? WORDS.say("underAPassphrase") : WORDS.say("noPassphrase"))
              + (inAgent ? WORDS.say("inTheAgent") : "")
              + (Certificate.beside(file).isPresent() ? WORDS.say("withACertificate") : "");
      return new Row(file, line, where, "");
    } catch (KeyFailure e) {
      return e.reason() == KeyFailure.Reason.OPEN_TO_OTHERS
          ? new Row(file, beside, WORDS.say("openToOthers"), Phrases.of(e))
          : null;
    }
  }

  /**
   * Makes a key pair.
   *
   * @param passphrase wiped
   */
  public void make(
      KeyMaker.Kind kind, String comment, char[] passphrase, String name, Consumer<Row> made) {
    if (!name.matches("[A-Za-z0-9._@+-]{1,100}") || name.startsWith(".")) {
      SecretBytes.wipe(passphrase);
      notice.set(new Message(WORDS.say("noKeyWasMade"), WORDS.say("aKeysFileName")));
      return;
    }
    busy.set(true);
    background.run(
        () -> {
          try {
            Path file = folder.resolve(name);
            PublicKeyLine line = KeyMaker.make(kind, comment.strip(), passphrase, file);
            String where =
                passphrase.length == 0 ? WORDS.say("noPassphrase") : WORDS.say("underAPassphrase");
            return new Row(file, line, where, "");
          } finally {
            SecretBytes.wipe(passphrase);
          }
        },
        row -> {
          busy.set(false);
          notice.set(null);
          rows.add(row);
          made.accept(row);
        },
        failure -> {
          busy.set(false);
          notice.set(
              failure instanceof java.nio.file.FileAlreadyExistsException taken
                  ? new Message(
                      WORDS.say("noKeyWasMade"), WORDS.say("isThereAlready", taken.getFile()))
                  : new Message(WORDS.say("noKeyWasMade"), Phrases.of(failure)));
        });
  }

  /** Closes a key file to others. */
  public void close(Path file, Runnable done) {
    background.run(
        () -> {
          KeyFile.closeToOthers(file);
          return file;
        },
        closed -> {
          notice.set(
              new Message(
                  WORDS.say("isClosedToOthers", file.getFileName()), WORDS.say("itsModeIs600")));
          read();
          done.run();
        },
        failure -> notice.set(new Message(WORDS.say("couldNotMakeIt"), Phrases.of(failure))));
  }

  public ObservableList<Row> rows() {
    return rows;
  }

  /** What is to be told; {@code null} for nothing. */
  public ReadOnlyObjectProperty<Message> noticeProperty() {
    return notice.getReadOnlyProperty();
  }

  public ReadOnlyBooleanProperty busyProperty() {
    return busy.getReadOnlyProperty();
  }
}
