package zander.desk.history;

import java.util.List;
import java.util.Objects;
import java.util.concurrent.CancellationException;
import java.util.stream.Stream;
import javafx.beans.property.ReadOnlyBooleanProperty;
import javafx.beans.property.ReadOnlyBooleanWrapper;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.beans.property.SimpleStringProperty;
import javafx.beans.property.StringProperty;
import javafx.collections.FXCollections;
import javafx.collections.ObservableList;
import zander.core.change.HeldThings;
import zander.core.change.PutBack;
import zander.core.change.PutBack.Verdict;
import zander.core.edit.LineDifference;
import zander.core.files.RemotePath;
import zander.core.journal.ChangeKind;
import zander.core.journal.FileJournal;
import zander.core.journal.Journal;
import zander.core.journal.JournalEntry;
import zander.core.journal.JournalRules;
import zander.core.seal.StillSealed;
import zander.core.work.Cancellation;
import zander.desk.sheet.OpenDesk;
import zander.desk.sheet.Question;
import zander.desk.sheet.Sheet;
import zander.desk.sheet.Texts;
import zander.desk.words.Words;
import zander.desk.work.FailureWords;
import zander.desk.work.Message;

/** The journal of a desk's server as a sheet: searched, looked into, put back. */
public final class JournalModel extends Sheet {
  private static final Words WORDS = Words.of(JournalModel.class);

  private final OpenDesk desk;
  private final JournalSearch finder;
  private final ReadOnlyObjectWrapper<JournalSearch.Found> found =
      new ReadOnlyObjectWrapper<>(JournalSearch.Found.NONE);
  private final StringProperty search = new SimpleStringProperty("");
  private final ObservableList<JournalEntry> entries = FXCollections.observableArrayList();
  private final ReadOnlyObjectWrapper<JournalEntry> selected = new ReadOnlyObjectWrapper<>();
  private final ReadOnlyObjectWrapper<List<LineDifference.Line>> difference =
      new ReadOnlyObjectWrapper<>(List.of());
  private final ReadOnlyBooleanWrapper sealed = new ReadOnlyBooleanWrapper();

  public JournalModel(OpenDesk desk) {
    this.desk = desk;
    this.finder = new JournalSearch(desk.background(), desk.journal());
    setTitle(WORDS.say("journal"));
    search.addListener((observed, old, now) -> refresh());
    refresh();
  }

  private PutBack putBack() {
    return new PutBack(desk.files(), desk.commands(), desk.journal(), desk.home());
  }

  /** Reads what is there now; kept up with after every change of this desk. */
  public void refresh() {
    finder.find(search.get(), desk.files().names(), this::take);
  }

  private void take(JournalSearch.Found now) {
    JournalEntry before = selected.get();
    found.set(now);
    entries.setAll(now.shown());
    if (before != null) {
      entries.stream()
          .filter(entry -> entry.id() == before.id())
          .findFirst()
          .ifPresent(selected::set);
    }
  }

  public String what(JournalEntry entry) {
    return EntryWords.what(entry, desk.files().names());
  }

  /** Its path, and how many more it stands for. */
  public String where(JournalEntry entry) {
    int more = found.get().behind(entry).size() - 1;
    return entry.path().text() + (more > 0 ? WORDS.say("andMore", Texts.count(more)) : "");
  }

  /**
   * Where an entry stands.
   *
   * @param words empty for one that is done and in force
   */
  public record State(String words, boolean putBack) {}

  public State state(JournalEntry entry) {
    boolean putBack = isPutBack(entry);
    return new State(EntryWords.state(entry, putBack), putBack);
  }

  private boolean isPutBack(JournalEntry entry) {
    return found.get().putBack().contains(entry.id());
  }

  public void select(JournalEntry entry) {
    selected.set(entry);
    difference.set(List.of());
    sealed.set(false);
    if (entry == null || entry.contentId() == null) {
      return;
    }
    desk.background()
        .run(
            () -> new EntryDifference(desk).of(entry),
            lines -> {
              if (Objects.equals(selected.get(), entry)) {
                difference.set(lines);
              }
            },
            failure ->
                sealed.set(
                    Objects.equals(selected.get(), entry)
                        && failure instanceof StillSealed kept
                        && kept.reason() == StillSealed.Reason.VAULT_CLOSED));
  }

  /** Asks for the vault, to show what the selected entry changed. */
  public void openVault() {
    JournalEntry entry = selected.get();
    desk.background()
        .run(
            () -> desk.journal().contentBefore(entry),
            content -> select(entry),
            failure -> ask(notice(FailureWords.of(failure), true, this)));
  }

  /** Whether what the selected entry changed is sealed and cannot be shown. */
  public ReadOnlyBooleanProperty sealedProperty() {
    return sealed.getReadOnlyProperty();
  }

  // Putting back.

  /** Whether the entry is one that could be put back, as far as can be told without looking. */
  public static boolean mayPutBack(JournalEntry entry, Journal journal) {
    return mayPutBack(entry) && !journal.isPutBack(entry);
  }

  private static boolean mayPutBack(JournalEntry entry) {
    return entry != null && entry.isDone() && entry.kind() != ChangeKind.PURGE;
  }

  /** The same of the one selected. */
  public boolean maySelectedGoBack() {
    return mayPutBack(selected.get()) && !isPutBack(selected.get());
  }

  public void putBack(JournalEntry entry) {
    List<JournalEntry> all = found.get().behind(entry);
    if (all.size() == 1) {
      putBack(entry, false, this);
      return;
    }
    ask(
        Question.notice(
            new Message(
                entry.kind() == ChangeKind.SAVE
                    ? WORDS.say("putBackTheFiles", Texts.count(all.size(), "file"))
                    : WORDS.say("putBackTheRights", Texts.count(all.size(), "entry")),
                WORDS.say("entriesChangedSinceAre")),
            true,
            new Question.Choice(WORDS.say("putBackAll"), ticked -> putBackAll(all)),
            new Question.Choice(WORDS.say("cancel"), ticked -> dismissQuestion())));
  }

  /**
   * Puts an entry back; what stands against it is asked or told in a sheet.
   *
   * @param told the sheet the person is looking at
   */
  public void putBack(JournalEntry entry, boolean evenIfChanged, Sheet told) {
    desk.background()
        .run(
            () -> putBack().run(entry, evenIfChanged),
            verdict -> ended(entry, verdict, told),
            failure -> {
              told.ask(notice(FailureWords.of(failure), true, told));
              desk.checkLine();
              refresh();
            });
  }

  private void ended(JournalEntry entry, Verdict verdict, Sheet told) {
    String name = entry.path().name();
    if (verdict == Verdict.READY) {
      told.dismissQuestion();
      desk.changed(touched(List.of(entry)));
      refresh();
    } else if (verdict == Verdict.CHANGED_SINCE) {
      told.ask(
          Question.notice(
              new Message(WORDS.say("wasChangedSince", name), EntryWords.verdict(verdict, entry)),
              true,
              new Question.Choice(WORDS.say("putBackAnyway"), ticked -> putBack(entry, true, told)),
              new Question.Choice(WORDS.say("cancel"), ticked -> told.dismissQuestion())));
    } else {
      told.ask(
          notice(
              new Message(WORDS.say("cannotBePutBack", name), EntryWords.verdict(verdict, entry)),
              true,
              told));
    }
  }

  private static List<RemotePath> touched(List<JournalEntry> entries) {
    return entries.stream()
        .flatMap(entry -> Stream.of(entry.path(), entry.to()))
        .filter(Objects::nonNull)
        .distinct()
        .toList();
  }

  private static Question notice(Message said, boolean danger, Sheet on) {
    return Question.notice(
        said, danger, new Question.Choice(WORDS.say("close"), ticked -> on.dismissQuestion()));
  }

  /** Asks whether to put back all that was done since the selected entry, it included. */
  public void putBackSince() {
    JournalEntry from = selected.get();
    if (from == null) {
      ask(
          notice(
              new Message(WORDS.say("selectTheFirstEntry"), WORDS.say("itAndAllAfter")),
              false,
              this));
      return;
    }
    desk.background()
        .run(
            () -> putBack().since(from.at()),
            all -> askSince(from, all),
            failure -> ask(notice(FailureWords.of(failure), true, this)));
  }

  private void askSince(JournalEntry from, List<JournalEntry> all) {
    ask(
        Question.notice(
            new Message(
                WORDS.say(
                    "putBackAllSince",
                    Texts.count(all.size(), "change"),
                    Texts.exactly(from.at() / 1000)),
                WORDS.say("theNewestFirstOne")),
            true,
            new Question.Choice(WORDS.say("putBackAll"), ticked -> putBackAll(all)),
            new Question.Choice(WORDS.say("cancel"), ticked -> dismissQuestion())));
  }

  private void putBackAll(List<JournalEntry> all) {
    Cancellation stop = new Cancellation();
    StringProperty live = new SimpleStringProperty("");
    String of = WORDS.say("of", Texts.count(all.size(), "change"));
    ask(
        Question.notice(
                new Message(WORDS.say("puttingBack"), ""),
                false,
                new Question.Choice(WORDS.say("stop"), ticked -> stop.stop()))
            .live(live));
    desk.background()
        .run(
            () ->
                putBack()
                    .runAll(all, done -> desk.background().show(() -> live.set(done + of)), stop),
            outcomes -> {
              desk.changed(touched(all));
              refresh();
              tell(outcomes);
            },
            failure -> {
              boolean stopped = failure instanceof CancellationException;
              Message said =
                  stopped
                      ? new Message(WORDS.say("stopped"), WORDS.say("whatWasPutBack"))
                      : FailureWords.of(failure);
              desk.changed(touched(all));
              ask(notice(said, !stopped, this));
              desk.checkLine();
              refresh();
            });
  }

  private void tell(List<PutBack.Outcome> outcomes) {
    List<String> left =
        outcomes.stream()
            .filter(one -> !one.isDone())
            .map(
                one ->
                    one.entry().path()
                        + ": "
                        + (one.failure() != null
                            ? FailureWords.of(one.failure()).headline()
                            : EntryWords.verdict(one.verdict(), one.entry())))
            .toList();
    ask(
        notice(
            new Message(
                WORDS.say(
                    "wasPutBack",
                    Texts.count(outcomes.size() - left.size(), "change"),
                    left.isEmpty() ? "" : WORDS.say("not", left.size())),
                String.join("\n", left.stream().limit(6).toList())),
            !left.isEmpty(),
            this));
  }

  // Rules.

  /** Shows the rules that bound the journal and the holding folders, to be changed. */
  public void askRules() {
    JournalRules journal = desk.settings().now().journal();
    HeldThings.Rules held = desk.settings().now().held();
    StringProperty journalDays = new SimpleStringProperty("" + journal.days());
    StringProperty journalMegabytes = new SimpleStringProperty("" + journal.bytes() / 1_000_000);
    StringProperty heldDays = new SimpleStringProperty("" + held.days());
    StringProperty heldMegabytes = new SimpleStringProperty("" + held.bytes() / 1_000_000);
    ask(
        Question.asking(
            new Message(WORDS.say("howLongThingsAre"), WORDS.say("theJournalAndThe")),
            List.of(
                new Question.Input("rule-days", WORDS.say("journalDays"), journalDays, ""),
                new Question.Input("rule-bytes", WORDS.say("oldVersionsMb"), journalMegabytes, ""),
                new Question.Input("rule-held-days", WORDS.say("heldDays"), heldDays, ""),
                new Question.Input("rule-held-bytes", WORDS.say("heldMb"), heldMegabytes, "")),
            new Question.Choice(
                WORDS.say("save"),
                ticked -> keepTo(journalDays, journalMegabytes, heldDays, heldMegabytes)),
            new Question.Choice(WORDS.say("cancel"), ticked -> dismissQuestion())));
  }

  private void keepTo(
      StringProperty days,
      StringProperty bytes,
      StringProperty heldDays,
      StringProperty heldBytes) {
    JournalRules rules;
    HeldThings.Rules held;
    try {
      rules = new JournalRules(number(days), number(bytes) * 1_000_000L);
      held = new HeldThings.Rules(number(heldDays), number(heldBytes) * 1_000_000L);
    } catch (IllegalArgumentException e) {
      ask(
          notice(
              new Message(WORDS.say("enterDaysAndMegabytes"), WORDS.say("nothingWasChanged")),
              true,
              this));
      return;
    }
    dismissQuestion();
    desk.settings().change(values -> values.with(held, rules));
    desk.background()
        .run(
            () -> {
              if (desk.journal() instanceof FileJournal journal) {
                journal.keepTo(rules);
              }
              return rules;
            },
            kept -> refresh(),
            failure -> ask(notice(FailureWords.of(failure), true, this)));
  }

  private static int number(StringProperty text) {
    return Integer.parseInt(text.get().strip());
  }

  // What the view sees.

  public StringProperty searchProperty() {
    return search;
  }

  public ObservableList<JournalEntry> entries() {
    return entries;
  }

  /** How many entries fit what is searched for, listed or not. */
  public int allCount() {
    return found.get().all();
  }

  public ReadOnlyObjectProperty<JournalEntry> selectedProperty() {
    return selected.getReadOnlyProperty();
  }

  /** The difference that the selected save made; empty for what is no text. */
  public ReadOnlyObjectProperty<List<LineDifference.Line>> differenceProperty() {
    return difference.getReadOnlyProperty();
  }
}
