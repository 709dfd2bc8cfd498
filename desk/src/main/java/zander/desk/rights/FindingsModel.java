package zander.desk.rights;

import static java.util.Objects.requireNonNull;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.OptionalInt;
import java.util.Set;
import java.util.concurrent.CancellationException;
import java.util.stream.Collectors;
import javafx.beans.property.ReadOnlyBooleanProperty;
import javafx.beans.property.ReadOnlyBooleanWrapper;
import javafx.beans.property.ReadOnlyStringProperty;
import javafx.beans.property.ReadOnlyStringWrapper;
import javafx.collections.FXCollections;
import javafx.collections.ObservableList;
import org.jspecify.annotations.Nullable;
import zander.core.change.rights.look.FindingKind;
import zander.core.change.rights.look.TreeFindings;
import zander.core.change.rights.look.TreeFindings.Finding;
import zander.core.change.rights.look.TreeFindings.Found;
import zander.core.change.rights.look.TreeFindings.Report;
import zander.core.files.AccountNames;
import zander.core.files.RemotePath;
import zander.core.files.WireName;
import zander.core.rights.AccessList.Asker;
import zander.core.rights.ModeRule;
import zander.core.rights.SymbolicMode;
import zander.core.rights.TreeRights;
import zander.core.work.Cancellation;
import zander.desk.rights.tree.FoundRequest;
import zander.desk.rights.tree.RightsRequest;
import zander.desk.rights.tree.TreeRequest;
import zander.desk.rights.tree.TreeRightsModel;
import zander.desk.sheet.OpenDesk;
import zander.desk.sheet.Sheet;
import zander.desk.sheet.Texts;
import zander.desk.words.Words;
import zander.desk.work.FailureWords;

/** Rights below a folder that are wider than they should be. Interface thread only. */
public final class FindingsModel extends Sheet {
  private static final Words WORDS = Words.of(FindingsModel.class);

  private static final String FOR_OTHERS = "o-w";

  private final OpenDesk desk;
  private final RemotePath folder;
  private final ObservableList<FindingKind> kinds = FXCollections.observableArrayList();
  private final ObservableList<Finding> shown = FXCollections.observableArrayList();
  private final ReadOnlyStringWrapper status = new ReadOnlyStringWrapper("");
  private final ReadOnlyBooleanWrapper running = new ReadOnlyBooleanWrapper();
  private String account;
  private @Nullable Report report;
  private Cancellation stop = new Cancellation();

  public FindingsModel(OpenDesk desk, RemotePath folder) {
    this.desk = desk;
    this.folder = folder;
    this.account =
        desk.serviceAccount().isEmpty() ? desk.whoAmI().account() : desk.serviceAccount();
    setTitle(WORDS.say("rightsToLookAt", folder.name()));
    look();
  }

  private AccountNames names() {
    return desk.files().names();
  }

  /** Looks anew; nothing is changed. */
  public void look() {
    stop.stop();
    stop = new Cancellation();
    Cancellation mine = stop;
    Asker asker = AccessCures.asker(names(), account);
    kinds.clear();
    shown.clear();
    report = null;
    running.set(true);
    status.set(WORDS.say("looking"));
    desk.background()
        .run(
            () ->
                new TreeFindings(desk.files(), desk.commands())
                    .look(folder, asker, seen -> tell(mine, seen), mine),
            found -> {
              if (mine == stop) {
                take(found);
              }
            },
            failure -> {
              if (mine == stop) {
                boolean stopped = failure instanceof CancellationException;
                status.set(stopped ? WORDS.say("stoppedBeforeTheEnd") : "");
                running.set(false);
                if (!stopped) {
                  tellFailure(FailureWords.of(failure));
                  desk.checkLine();
                }
              }
            });
  }

  private void tell(Cancellation mine, long seen) {
    desk.background()
        .show(
            () -> {
              if (mine == stop && running.get()) {
                status.set(WORDS.say("lookedAt", Texts.count(seen, "entry")));
              }
            });
  }

  private void take(Report found) {
    report = found;
    kinds.setAll(Arrays.stream(FindingKind.values()).filter(found.found()::containsKey).toList());
    String unread =
        found.unreadable() == 0
            ? ""
            : WORDS.say("couldNotBeLooked", Texts.count(found.unreadable(), "folder"));
    status.set(WORDS.say("lookedAtByOwner", Texts.count(found.looked(), "entry"), unread));
    running.set(false);
  }

  /** Asks what another account can write. */
  public void ask(String who) {
    if (who != null && !who.equals(account)) {
      account = who;
      look();
    }
  }

  public String account() {
    return account;
  }

  /** The accounts that may be asked about: the likely ones first. */
  public List<String> accounts() {
    Set<String> all = new LinkedHashSet<>(List.of(account, desk.whoAmI().account()));
    all.addAll(names().accounts());
    return new ArrayList<>(all);
  }

  /** Shows what was found of a kind. */
  public void show(FindingKind kind) {
    Found found = report == null ? null : report.found().get(kind);
    shown.setAll(found == null ? List.of() : found.first());
  }

  /** Whether a look came to its end. */
  public boolean isLooked() {
    return report != null;
  }

  public long count(FindingKind kind) {
    return report == null ? 0 : of(kind).count();
  }

  public String words(FindingKind kind) {
    return switch (kind) {
      case ANYONE_WRITES -> WORDS.say("everyoneCanWrite");
      case SECRET_READABLE -> WORDS.say("lookLikeSecretsAnd");
      case OWNED_BY_NOBODY -> WORDS.say("belongToANumber");
      case RUNS_AS_OWNER -> WORDS.say("programsThatRunAs");
      case ACCOUNT_WRITES -> WORDS.say("canWrite", account);
    };
  }

  /** How grave it is that there are such. */
  public boolean isGrave(FindingKind kind) {
    return kind == FindingKind.ANYONE_WRITES || kind == FindingKind.SECRET_READABLE;
  }

  public String example(FindingKind kind) {
    return report == null ? "" : below(of(kind).first().get(0));
  }

  /** The path from the folder on. */
  public String below(Finding one) {
    String wire = one.path().wire();
    int from = folder.isRoot() ? 1 : folder.wire().length() + 1;
    return from >= wire.length() ? one.path().name() : WireName.toText(wire.substring(from));
  }

  public String owner(Finding one) {
    return names().user(one.rights().uid()) + ":" + names().group(one.rights().gid());
  }

  public String mode(Finding one) {
    return one.rights().mode().letters() + " " + one.rights().mode().shortOctal();
  }

  /** Whether a press leads to a preview that mends all of a kind. */
  public boolean mayMend(FindingKind kind) {
    return kind != FindingKind.ACCOUNT_WRITES;
  }

  /** Shows what would change if those of a kind were as they should be; nothing is set by that. */
  public void mend(FindingKind kind) {
    switch (kind) {
      case ANYONE_WRITES -> {
        TreeRequest request = new TreeRequest();
        request.files().typeSymbolic(FOR_OTHERS);
        request.folders().typeSymbolic(FOR_OTHERS);
        show(request);
      }
      case SECRET_READABLE ->
          showFound(kind, "o=", WORDS.say("secretsThatEveryoneCan", first(kind)));
      case RUNS_AS_OWNER ->
          showFound(kind, "ug-s", WORDS.say("programsThatRunAsTheir", first(kind)));
      case OWNED_BY_NOBODY -> showOwner();
      case ACCOUNT_WRITES -> throw new IllegalArgumentException("nothing is wrong with it");
    }
  }

  private void show(RightsRequest request) {
    TreeRightsModel sheet = new TreeRightsModel(desk, List.of(folder), request);
    desk.openSheets().show(sheet);
    sheet.look();
  }

  private void showFound(FindingKind kind, String change, String words) {
    ModeRule rule = new ModeRule.Symbolic(SymbolicMode.parse(change), ModeRule.USUAL_UMASK);
    TreeRights wanted = new TreeRights(OptionalInt.empty(), OptionalInt.empty(), rule, null);
    show(new FoundRequest(paths(kind), wanted, words));
  }

  /** They get the owner and the group of the folder that was looked through. */
  private void showOwner() {
    Set<String> paths = paths(FindingKind.OWNED_BY_NOBODY);
    String words = WORDS.say("whatBelongsToNobody", first(FindingKind.OWNED_BY_NOBODY));
    desk.background()
        .run(
            () -> desk.files().look(folder),
            is -> {
              TreeRights wanted =
                  new TreeRights(OptionalInt.of(is.uid()), OptionalInt.of(is.gid()), null, null);
              String owner = names().user(is.uid()) + ":" + names().group(is.gid());
              show(new FoundRequest(paths, wanted, words + owner));
            },
            failure -> {
              tellFailure(FailureWords.of(failure));
              desk.checkLine();
            });
  }

  /** What the last look found of a kind; each has an answer. */
  private Found of(FindingKind kind) {
    return requireNonNull(requireNonNull(report, "it was looked").found().get(kind));
  }

  /** Only the first are kept by name, and so only these are mended in one go. */
  private String first(FindingKind kind) {
    Found found = of(kind);
    int kept = found.first().size();
    return kept == found.count()
        ? ""
        : WORDS.say("theFirstOf", Texts.count(kept), Texts.count(found.count()));
  }

  private Set<String> paths(FindingKind kind) {
    return of(kind).first().stream().map(one -> one.path().wire()).collect(Collectors.toSet());
  }

  /** Shows the folder that one is in. */
  public void goTo(Finding one) {
    desk.goTo(one.path().parent());
  }

  public void stop() {
    stop.stop();
  }

  public ObservableList<FindingKind> kinds() {
    return kinds;
  }

  public ObservableList<Finding> shown() {
    return shown;
  }

  public ReadOnlyStringProperty statusProperty() {
    return status.getReadOnlyProperty();
  }

  public ReadOnlyBooleanProperty runningProperty() {
    return running.getReadOnlyProperty();
  }

  @Override
  public void close() {
    stop.stop();
  }
}
