package zander.desk.find;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.concurrent.CancellationException;
import java.util.regex.PatternSyntaxException;
import javafx.beans.property.BooleanProperty;
import javafx.beans.property.ReadOnlyBooleanProperty;
import javafx.beans.property.ReadOnlyBooleanWrapper;
import javafx.beans.property.ReadOnlyStringProperty;
import javafx.beans.property.ReadOnlyStringWrapper;
import javafx.beans.property.SimpleBooleanProperty;
import javafx.beans.property.SimpleStringProperty;
import javafx.beans.property.StringProperty;
import javafx.collections.FXCollections;
import javafx.collections.ObservableList;
import org.jspecify.annotations.Nullable;
import zander.core.change.save.AtomicSave;
import zander.core.files.RemoteEntry;
import zander.core.files.RemotePath;
import zander.core.find.NameSearch;
import zander.core.find.ReplaceTask;
import zander.core.find.SearchMatch;
import zander.core.find.SearchText;
import zander.core.find.TextSearch;
import zander.core.listing.Narrowing;
import zander.core.work.Cancellation;
import zander.desk.sheet.OpenDesk;
import zander.desk.sheet.Sheet;
import zander.desk.sheet.Texts;
import zander.desk.words.Phrases;
import zander.desk.words.Words;
import zander.desk.work.FailureWords;
import zander.desk.work.Message;

/** Finds names and text below a folder; replaces what was found, each change seen first. */
public final class FindModel extends Sheet {
  private static final Words WORDS = Words.of(FindModel.class);

  private static final int MOST = 200_000;

  /**
   * One row of what was found.
   *
   * @param line 0 for a name
   * @param place the change that is proposed here; {@code null} while none is
   */
  public record Found(
      RemotePath path,
      int line,
      String text,
      int from,
      int to,
      @Nullable RemoteEntry entry,
      @Nullable Place place) {}

  /**
   * A change that is proposed.
   *
   * @param index of the file's places
   */
  public record Place(ReplaceTask.Proposal proposal, int index, BooleanProperty chosen) {
    public String after() {
      return proposal.places().get(index).after();
    }
  }

  private final OpenDesk desk;
  private final RemotePath folder;
  private final StringProperty text = new SimpleStringProperty("");
  private final StringProperty names = new SimpleStringProperty("");
  private final StringProperty replacement = new SimpleStringProperty("");
  private final BooleanProperty expression = new SimpleBooleanProperty(false);
  private final BooleanProperty matchCase = new SimpleBooleanProperty(false);
  private final ReadOnlyBooleanWrapper busy = new ReadOnlyBooleanWrapper(false);
  private final ReadOnlyBooleanWrapper proposing = new ReadOnlyBooleanWrapper(false);
  private final ReadOnlyStringWrapper outcome = new ReadOnlyStringWrapper("");
  private final ObservableList<Found> found = FXCollections.observableArrayList();
  private Cancellation stop = new Cancellation();

  public FindModel(OpenDesk desk, RemotePath folder) {
    this.desk = desk;
    this.folder = folder;
    setTitle(WORDS.say("findIn", folder.name()));
  }

  private SearchText wanted() {
    return new SearchText(text.get(), expression.get(), matchCase.get());
  }

  /** Begins anew; what was found before goes. */
  public void find() {
    stop.stop();
    Cancellation mine = new Cancellation();
    stop = mine;
    found.clear();
    proposing.set(false);
    dismissQuestion();
    Narrowing narrowing = Narrowing.parse(names.get(), System.currentTimeMillis() / 1000);
    if (narrowing.problem() != null) {
      outcome.set(Phrases.say(narrowing.problem()));
      return;
    }
    if (text.get().isEmpty() && narrowing.isEmpty()) {
      outcome.set(WORDS.say("sayWhatToFind"));
      return;
    }
    busy.set(true);
    outcome.set(WORDS.say("searching"));
    SearchText wanted = wanted();
    ArrivedRows<Found> arrived = new ArrivedRows<>(desk.background(), part -> show(part, mine));
    desk.background()
        .run(
            () ->
                wanted.text().isEmpty()
                    ? new NameSearch(desk.files(), desk.commands())
                        .run(folder, narrowing, part -> addNames(part, arrived), mine)
                    : new TextSearch(desk.files(), desk.commands())
                        .run(folder, wanted, narrowing, part -> addHits(part, arrived), mine),
            done -> ended(mine, done),
            failure -> failed(mine, failure));
  }

  private void addNames(List<RemoteEntry> part, ArrivedRows<Found> arrived) {
    arrived.add(
        part.stream()
            .map(entry -> new Found(entry.path(), 0, facts(entry), 0, 0, entry, null))
            .toList());
  }

  private static String facts(RemoteEntry entry) {
    String size =
        entry.attributes().isFolder() ? WORDS.say("folder") : Texts.size(entry.attributes().size());
    return size
        + "   "
        + entry.owner()
        + ":"
        + entry.group()
        + " "
        + entry.attributes().mode().shortOctal()
        + "   "
        + Texts.when(entry.attributes().modified(), java.time.Clock.systemDefaultZone());
  }

  private void addHits(List<SearchMatch> part, ArrivedRows<Found> arrived) {
    arrived.add(
        part.stream()
            .map(
                hit ->
                    new Found(hit.file(), hit.line(), hit.text(), hit.from(), hit.to(), null, null))
            .toList());
  }

  private void show(List<Found> part, Cancellation mine) {
    if (mine == stop) {
      found.addAll(part);
      outcome.set(WORDS.say("searchingSoFar", found.size()));
      if (found.size() > MOST) {
        mine.stop();
      }
    }
  }

  private void ended(Cancellation mine, NameSearch.Outcome done) {
    if (mine != stop) {
      return;
    }
    busy.set(false);
    outcome.set(
        summary()
            + (done.byServer() ? WORDS.say("searchedByTheServer") : WORDS.say("readOverTheLine"))
            + (done.unreadable() > 0
                ? WORDS.say("youMayNotLook", Texts.count(done.unreadable(), "place"))
                : ""));
  }

  private String summary() {
    long files = found.stream().map(Found::path).distinct().count();
    return text.get().isEmpty()
        ? Texts.count(found.size(), "name")
        : WORDS.say("in", Texts.count(found.size(), "line"), Texts.count(files, "file"));
  }

  private void failed(Cancellation mine, Throwable failure) {
    if (mine != stop) {
      return;
    }
    busy.set(false);
    if (failure instanceof CancellationException) {
      outcome.set(
          summary() + (found.size() > MOST ? WORDS.say("stoppedTooManyTo") : WORDS.say("stopped")));
    } else if (failure instanceof PatternSyntaxException wrong) {
      outcome.set(WORDS.say("thisIsNoRegular", wrong.getDescription()));
    } else {
      outcome.set("");
      tellFailure(FailureWords.of(failure));
      desk.checkLine();
    }
  }

  public void stop() {
    stop.stop();
  }

  @Override
  public void close() {
    stop.stop();
  }

  public void open(Found row) {
    if (row.entry() != null && row.entry().leadsToFolder()) {
      desk.goTo(row.path());
    } else {
      desk.openFile(row.path(), row.line());
    }
  }

  // Replacing.

  /** Shows each place that would be changed, in the files that were found. */
  public void propose() {
    if (busy.get() || text.get().isEmpty() || found.isEmpty()) {
      return;
    }
    Cancellation mine = new Cancellation();
    stop = mine;
    Set<RemotePath> files = new TreeSet<>(found.stream().map(Found::path).toList());
    SearchText wanted = wanted();
    String with = replacement.get();
    busy.set(true);
    outcome.set(WORDS.say("lookingAtEachPlace"));
    desk.background()
        .run(
            () -> {
              ReplaceTask replacing =
                  new ReplaceTask(new AtomicSave(desk.files(), desk.commands(), desk.journal()));
              List<Found> rows = new ArrayList<>();
              for (RemotePath file : files) {
                mine.throwIfStopped();
                ReplaceTask.Proposal proposal = replacing.propose(file, wanted, with);
                for (int i = 0; i < proposal.places().size(); i++) {
                  rows.add(row(proposal, i));
                }
              }
              return rows;
            },
            rows -> {
              if (mine == stop) {
                busy.set(false);
                found.setAll(rows);
                proposing.set(true);
                outcome.set(WORDS.say("chooseThoseToChange", summary().replace("line", "place")));
              }
            },
            failure -> failed(mine, failure));
  }

  private static Found row(ReplaceTask.Proposal proposal, int index) {
    ReplaceTask.Place place = proposal.places().get(index);
    return new Found(
        proposal.file(),
        place.line(),
        place.before(),
        0,
        0,
        null,
        new Place(proposal, index, new SimpleBooleanProperty(true)));
  }

  public void chooseAll(boolean chosen) {
    found.forEach(
        row -> {
          if (row.place() != null) {
            row.place().chosen().set(chosen);
          }
        });
  }

  /** Makes the chosen changes; a file that was changed meanwhile stays as it is and is told. */
  public void replace() {
    Map<ReplaceTask.Proposal, Set<Integer>> chosen = new LinkedHashMap<>();
    for (Found row : found) {
      if (row.place() != null && row.place().chosen().get()) {
        chosen
            .computeIfAbsent(row.place().proposal(), first -> new TreeSet<>())
            .add(row.place().index());
      }
    }
    if (busy.get() || chosen.isEmpty()) {
      return;
    }
    busy.set(true);
    outcome.set(WORDS.say("replacing"));
    long group = desk.journal().newGroup();
    desk.background()
        .run(
            () -> {
              ReplaceTask replacing =
                  new ReplaceTask(new AtomicSave(desk.files(), desk.commands(), desk.journal()));
              List<String> failed = new ArrayList<>();
              for (var one : chosen.entrySet()) {
                try {
                  replacing.apply(one.getKey(), one.getValue(), group);
                } catch (java.io.IOException e) {
                  failed.add(one.getKey().file() + ": " + FailureWords.of(e).headline());
                }
              }
              return failed;
            },
            failed -> replaced(chosen, failed),
            failure -> {
              busy.set(false);
              tellFailure(FailureWords.of(failure));
              desk.checkLine();
            });
  }

  private void replaced(Map<ReplaceTask.Proposal, Set<Integer>> chosen, List<String> failed) {
    busy.set(false);
    proposing.set(false);
    found.clear();
    int places = chosen.values().stream().mapToInt(Set::size).sum();
    desk.changed(chosen.keySet().stream().map(ReplaceTask.Proposal::file).toList());
    outcome.set(
        WORDS.say(
            "inChangedEachIn", Texts.count(places, "place"), Texts.count(chosen.size(), "file")));
    if (!failed.isEmpty()) {
      outcome.set("");
      tellFailure(
          new Message(
              WORDS.say("ofNotChanged", failed.size(), Texts.count(chosen.size(), "file")),
              String.join("\n", failed.stream().limit(6).toList())));
    }
  }

  // What the view sees.

  public RemotePath folder() {
    return folder;
  }

  /** A found path as seen from the folder. */
  public String shown(RemotePath path) {
    String whole = path.text();
    String base = folder.isRoot() ? "/" : folder.text() + "/";
    return whole.startsWith(base) ? whole.substring(base.length()) : whole;
  }

  public StringProperty textProperty() {
    return text;
  }

  public StringProperty namesProperty() {
    return names;
  }

  public StringProperty replacementProperty() {
    return replacement;
  }

  public BooleanProperty expressionProperty() {
    return expression;
  }

  public BooleanProperty matchCaseProperty() {
    return matchCase;
  }

  public ReadOnlyBooleanProperty busyProperty() {
    return busy.getReadOnlyProperty();
  }

  /** Whether the rows are changes that are proposed. */
  public ReadOnlyBooleanProperty proposingProperty() {
    return proposing.getReadOnlyProperty();
  }

  public ReadOnlyStringProperty outcomeProperty() {
    return outcome.getReadOnlyProperty();
  }

  public ObservableList<Found> found() {
    return found;
  }
}
