package zander.desk.rights.tree;

import java.util.ArrayList;
import java.util.List;
import java.util.OptionalInt;
import javafx.beans.property.BooleanProperty;
import javafx.beans.property.SimpleBooleanProperty;
import javafx.beans.property.SimpleStringProperty;
import javafx.beans.property.StringProperty;
import zander.core.files.AccountNames;
import zander.core.rights.Mode;
import zander.core.rights.TreeRights;
import zander.desk.sheet.OpenDesk;
import zander.desk.words.Words;

/** What is asked of the rights of all that is in folders, as it is typed. Interface thread only. */
public final class TreeRequest implements RightsRequest {
  private static final Words WORDS = Words.of(TreeRequest.class);

  private final StringProperty owner = new SimpleStringProperty("");
  private final StringProperty group = new SimpleStringProperty("");
  private final BooleanProperty otherFileSystems = new SimpleBooleanProperty();
  private final KindRule files;
  private final KindRule folders = new KindRule(true, new Mode(0755));

  public TreeRequest() {
    files = new KindRule(false, new Mode(0644));
  }

  @Override
  public TreeRequest copyFor(OpenDesk desk) {
    TreeRequest copy = new TreeRequest();
    copy.owner.set(owner.get());
    copy.group.set(group.get());
    copy.otherFileSystems.set(otherFileSystems.get());
    copy.files.take(files);
    copy.folders.take(folders);
    return copy;
  }

  public StringProperty ownerProperty() {
    return owner;
  }

  public StringProperty groupProperty() {
    return group;
  }

  /** Whether what is mounted below is meant too. */
  public BooleanProperty otherFileSystemsProperty() {
    return otherFileSystems;
  }

  @Override
  public boolean isForOtherFileSystems() {
    return otherFileSystems.get();
  }

  @Override
  public boolean isTyped() {
    return true;
  }

  @Override
  public void onChange(Runnable changed) {
    for (KindRule rule : List.of(files, folders)) {
      rule.changesProperty().addListener((observed, old, now) -> changed.run());
    }
    owner.addListener((observed, old, now) -> changed.run());
    group.addListener((observed, old, now) -> changed.run());
    otherFileSystems.addListener((observed, old, now) -> changed.run());
  }

  @Override
  public String heading(String about) {
    return WORDS.say("rightsOfAndAll", about);
  }

  public KindRule files() {
    return files;
  }

  public KindRule folders() {
    return folders;
  }

  @Override
  public String problem(AccountNames names) {
    if (!owner.get().isBlank() && names.uidOf(owner.get().strip()).isEmpty()) {
      return WORDS.say("noAccountOnThis", owner.get().strip());
    }
    if (!group.get().isBlank() && names.gidOf(group.get().strip()).isEmpty()) {
      return WORDS.say("noGroupOnThis", group.get().strip());
    }
    for (KindRule rule : List.of(files, folders)) {
      if (!rule.problemProperty().get().isEmpty()) {
        return rule.problemProperty().get();
      }
    }
    return wish(names).isNothing() ? WORDS.say("sayWhatIsTo") : "";
  }

  @Override
  public TreeRights wish(AccountNames names) {
    return new TreeRights(
        owner.get().isBlank() ? OptionalInt.empty() : names.uidOf(owner.get().strip()),
        group.get().isBlank() ? OptionalInt.empty() : names.gidOf(group.get().strip()),
        files.rule(),
        folders.rule());
  }

  /** Owner deploy · group web · files 0644 · folders 2755. */
  @Override
  public String words() {
    List<String> words = new ArrayList<>();
    if (!owner.get().isBlank()) {
      words.add(WORDS.say("ownerSet", owner.get().strip()));
    }
    if (!group.get().isBlank()) {
      words.add(WORDS.say("groupSet", group.get().strip()));
    }
    words.add(files.words());
    words.add(folders.words());
    words.removeIf(String::isEmpty);
    String all = String.join(" · ", words);
    return all.isEmpty()
        ? ""
        : all.substring(0, 1).toUpperCase(java.util.Locale.ROOT) + all.substring(1);
  }
}
