package zander.desk.folder.action;

import java.net.URI;
import java.util.List;
import javafx.beans.property.SimpleStringProperty;
import javafx.beans.property.StringProperty;
import zander.core.archive.ArchiveKind;
import zander.core.archive.Archives;
import zander.core.archive.WebFetch;
import zander.core.change.RemoteChanges;
import zander.core.facts.Checksums;
import zander.core.facts.FileType;
import zander.core.facts.MeasuredTree;
import zander.core.facts.TreeSize;
import zander.core.files.FileKind;
import zander.core.files.RemoteEntry;
import zander.core.files.RemotePath;
import zander.core.files.WireName;
import zander.desk.folder.FolderModel;
import zander.desk.sheet.OpenDesk;
import zander.desk.sheet.Question;
import zander.desk.sheet.Texts;
import zander.desk.words.Phrases;
import zander.desk.words.Words;
import zander.desk.work.FailureWords;
import zander.desk.work.Message;

/** What the server's own tools do in a folder: facts, archives, and fetching from the web. */
public final class ToolActions {
  private static final Words WORDS = Words.of(ToolActions.class);

  private static final int MOST_CHECKSUMS = 20;

  private final FolderModel folder;
  private final OpenDesk desk;

  public ToolActions(FolderModel folder) {
    this.folder = folder;
    this.desk = folder.desk();
  }

  private RemoteChanges changes() {
    return new RemoteChanges(desk.files(), desk.commands(), desk.journal());
  }

  private Archives archives() {
    return new Archives(desk.files(), desk.commands(), changes());
  }

  // Facts.

  /** Counts and sums the selection; kinds and checksums of the files in it. */
  public void facts() {
    List<RemotePath> paths = folder.selectedPaths();
    if (paths.isEmpty()) {
      new CreateActions(folder).selectFirst("look into");
      return;
    }
    List<RemoteEntry> plain =
        folder.selection().stream()
            .filter(entry -> entry.kind() == FileKind.FILE)
            .limit(MOST_CHECKSUMS)
            .toList();
    new FolderTask(folder, WORDS.say("lookingInto", CreateActions.what(paths)))
        .run(task -> look(task, paths, plain), this::tellFacts);
  }

  private record Facts(List<RemotePath> paths, MeasuredTree measured, List<Question.Fact> files) {}

  private Facts look(FolderTask task, List<RemotePath> paths, List<RemoteEntry> plain)
      throws java.io.IOException {
    MeasuredTree measured =
        new TreeSize(desk.files(), desk.commands())
            .of(
                paths,
                soFar -> task.tell(WORDS.say("soFar", DeleteActions.words(soFar))),
                task.stop());
    Checksums checksums = new Checksums(desk.files(), desk.commands());
    List<Question.Fact> facts = new java.util.ArrayList<>();
    facts.add(new Question.Fact("", WORDS.say("whatItIs"), WORDS.say("sha256")));
    for (RemoteEntry entry : plain) {
      task.tell(WORDS.say("checksumOf", entry.name()));
      task.stop().throwIfStopped();
      String type;
      String sum;
      try {
        type = Phrases.say(FileType.of(desk.files(), entry.path()));
        sum = checksums.of(entry.path(), task.stop()).digest();
      } catch (zander.core.files.RemoteFailure e) {
        type = FailureWords.of(e).headline();
        sum = "";
      }
      facts.add(
          new Question.Fact(
              entry.name(), type + ", " + Texts.count(entry.attributes().size(), "byte"), sum));
    }
    return new Facts(paths, measured, facts);
  }

  private void tellFacts(Facts facts) {
    folder.ask(
        new Question(
            new Message(
                CreateActions.what(facts.paths()) + ": " + DeleteActions.words(facts.measured()),
                Texts.count(facts.measured().bytes(), "byte")),
            facts.files().size() > 1 ? facts.files() : List.of(),
            false,
            List.of(folder.dismiss()),
            null));
  }

  // Archives.

  public void pack() {
    List<RemotePath> paths = folder.selectedPaths();
    if (paths.isEmpty()) {
      new CreateActions(folder).selectFirst("pack");
      return;
    }
    String stem = paths.size() == 1 ? paths.get(0).name() : folder.path().name();
    StringProperty name = new SimpleStringProperty(stem + ".tar.gz");
    folder.ask(
        Question.asking(
            new Message(
                WORDS.say("packOnTheServer", CreateActions.what(paths)),
                WORDS.say("theEndingSaysHow")),
            List.of(new Question.Input("strip-name", WORDS.say("intoTheArchive"), name, "")),
            new Question.Choice(WORDS.say("pack"), ticked -> packInto(paths, name.get().strip())),
            new Question.Choice(WORDS.say("cancel"), ticked -> folder.dismissQuestion())));
  }

  private void packInto(List<RemotePath> paths, String name) {
    if (!WireName.isSafe(WireName.fromText(name))) {
      return;
    }
    RemotePath archive = folder.path().child(WireName.fromText(name));
    new FolderTask(folder, WORDS.say("packing", CreateActions.what(paths)))
        .run(
            task -> {
              archives().pack(paths, archive, task.stop());
              return archive;
            },
            made -> desk.changed(List.of(made)));
  }

  /** Looks at the names in the selected archive, then asks how to unpack it. */
  public void unpack() {
    List<RemotePath> paths = folder.selectedPaths();
    if (paths.size() != 1 || ArchiveKind.of(paths.get(0).name()) == null) {
      folder.ask(
          Question.notice(
              new Message(WORDS.say("selectOneArchiveTo"), WORDS.say("itsNameEndsIn")),
              false,
              folder.dismiss()));
      return;
    }
    RemotePath archive = paths.get(0);
    new FolderTask(folder, WORDS.say("lookingInto", archive.name()))
        .run(task -> archives().look(archive, task.stop()), content -> ask(archive, content));
  }

  private void ask(RemotePath archive, Archives.Content content) {
    String names = String.join("   ", content.names().stream().limit(12).toList());
    String more =
        content.count() > 12 ? WORDS.say("andMore", Texts.count(content.count() - 12)) : "";
    if (!content.outside().isEmpty()) {
      folder.tellFailure(
          new Message(
              WORDS.say("isNotUnpackedNames", archive.name()),
              String.join("   ", content.outside().stream().limit(5).toList())));
      return;
    }
    folder.ask(
        Question.notice(
                new Message(
                    WORDS.say("unpackHereItHas", archive.name(), Texts.count(content.count())),
                    names + more),
                false,
                new Question.Choice(WORDS.say("unpack"), keep -> unpack(archive, keep)),
                new Question.Choice(WORDS.say("cancel"), ticked -> folder.dismissQuestion()))
            .withBox(WORDS.say("keepOwnersAndModes")));
  }

  private void unpack(RemotePath archive, boolean keepRights) {
    new FolderTask(folder, WORDS.say("unpacking", archive.name()))
        .run(
            task -> archives().unpack(archive, keepRights, task.stop()),
            made -> desk.changed(List.of(made)));
  }

  // From the web.

  public void fetch() {
    StringProperty address = new SimpleStringProperty("");
    StringProperty name = new SimpleStringProperty("");
    StringProperty sum = new SimpleStringProperty("");
    folder.ask(
        Question.asking(
            new Message(WORDS.say("fetchAWebAddress"), WORDS.say("theServerLoadsIt")),
            List.of(
                new Question.Input("strip-address", WORDS.say("address"), address, "https://"),
                new Question.Input(
                    "strip-name", WORDS.say("name"), name, WORDS.say("asInTheAddress")),
                new Question.Input(
                    "strip-sum", WORDS.say("sha256"), sum, WORDS.say("checkedIfGiven"))),
            new Question.Choice(
                WORDS.say("fetch"), ticked -> fetch(address.get(), name.get().strip(), sum.get())),
            new Question.Choice(WORDS.say("cancel"), ticked -> folder.dismissQuestion())));
  }

  private void fetch(String typed, String name, String sum) {
    URI address;
    RemotePath target;
    try {
      address = WebFetch.address(typed);
      String chosen = name.isEmpty() ? WebFetch.nameOf(address) : name;
      if (chosen.isEmpty()) {
        throw new IllegalArgumentException(WORDS.say("theAddressNamesNo"));
      }
      target = folder.path().child(WireName.fromText(chosen));
    } catch (IllegalArgumentException e) {
      folder.tellFailure(FailureWords.of(e));
      return;
    }
    new FolderTask(folder, WORDS.say("fetching", target.name()))
        .run(
            task ->
                new WebFetch(desk.files(), desk.commands(), changes())
                    .fetch(
                        address,
                        target,
                        sum,
                        bytes -> task.tell(WORDS.say("thereSoFar", Texts.size(bytes))),
                        task.stop()),
            digest -> {
              desk.changed(List.of(target));
              folder.ask(
                  Question.notice(
                      new Message(
                          WORDS.say("isThereWhole", target.name()), WORDS.say("sha256Is", digest)),
                      false,
                      folder.dismiss()));
            });
  }
}
