package zander.desk.view.transfer;

import java.util.ArrayList;
import java.util.List;
import java.util.function.UnaryOperator;
import javafx.beans.property.SimpleStringProperty;
import javafx.scene.control.CheckMenuItem;
import javafx.scene.control.ContextMenu;
import javafx.scene.control.MenuItem;
import javafx.scene.control.RadioMenuItem;
import javafx.scene.control.SeparatorMenuItem;
import zander.core.rights.Mode;
import zander.core.transfer.rules.ConflictRule;
import zander.core.transfer.rules.IgnorePatterns;
import zander.core.transfer.rules.TransferRules;
import zander.desk.model.DeskModel;
import zander.desk.sheet.Question;
import zander.desk.work.Message;

/** The rules of transfers as words on the waterline, and the menu that changes them. */
final class RulesMenu {
  private static final Mode FILES = new Mode(0644);
  private static final Mode FOLDERS = new Mode(0755);

  private static final int LONGEST_COMMAND = 32;

  private final DeskModel desk;

  RulesMenu(DeskModel desk) {
    this.desk = desk;
  }

  private TransferRules now() {
    return desk.transfers().rules().rulesProperty().get();
  }

  private void change(UnaryOperator<TransferRules> change) {
    desk.transfers().rules().change(change.apply(now()));
  }

  /** What happens to names that are taken, in a word or two. */
  static String exists(ConflictRule rule) {
    return switch (rule) {
      case ASK -> "ask";
      case REPLACE -> "replace";
      case SKIP -> "skip";
      case NEWER -> "only newer";
      case DIFFERENT -> "only different";
      case DIFFERENT_CONTENT -> "only other content";
      case KEEP_BOTH -> "keep both";
    };
  }

  /** The rules in force, in one line: the first always, the others where they are not usual. */
  static String words(TransferRules rules) {
    StringBuilder words = new StringBuilder("If it exists: " + exists(rules.whenExists()));
    if (!rules.keepTimes()) {
      words.append(" · times of now");
    }
    switch (rules.modes()) {
      case FIXED ->
          words
              .append(" · modes ")
              .append(rules.fileMode().octal())
              .append(" and ")
              .append(rules.folderMode().octal());
      case DEFAULT -> words.append(" · modes by umask");
      case KEPT -> words.append(" · rights as kept there");
      case FROM_SOURCE -> {}
    }
    if (!rules.owner().isEmpty() || !rules.group().isEmpty()) {
      words.append(" · for ").append(rules.owner()).append(':').append(rules.group());
    }
    switch (rules.links()) {
      case FOLLOWED -> words.append(" · links followed");
      case LEFT_OUT -> words.append(" · no links");
      case AS_LINKS -> {}
    }
    if (rules.leaveOut().count() > 0) {
      boolean usual = rules.leaveOut().text().equals(IgnorePatterns.USUAL);
      words.append(
          usual ? " · litter left out" : " · " + rules.leaveOut().count() + " patterns left out");
    }
    if (rules.check()) {
      words.append(" · checked");
    }
    return words.toString();
  }

  /** The same with what runs after sending up. */
  static String words(TransferRules rules, String command) {
    boolean cut = command.length() > LONGEST_COMMAND;
    String shown = cut ? command.substring(0, LONGEST_COMMAND).strip() + "…" : command;
    return words(rules) + (command.isEmpty() ? "" : " · then " + shown);
  }

  ContextMenu menu() {
    ContextMenu menu = new ContextMenu();
    List<MenuItem> items = new ArrayList<>();
    for (ConflictRule rule : ConflictRule.values()) {
      items.add(
          choice(
              "If it exists: " + exists(rule),
              now().whenExists() == rule,
              "rule-" + rule.name().toLowerCase(java.util.Locale.ROOT).replace('_', '-'),
              rules -> rules.whenExists(rule)));
    }
    items.add(new SeparatorMenuItem());
    items.add(tick("Keep times", now().keepTimes(), rules -> rules.keepTimes(!rules.keepTimes())));
    items.add(
        choice(
            "Modes as they are",
            now().modes() == TransferRules.Modes.FROM_SOURCE,
            null,
            rules -> rules.modes(TransferRules.Modes.FROM_SOURCE, null, null)));
    items.add(
        choice(
            "Modes 0644 for files, 0755 for folders",
            now().modes() == TransferRules.Modes.FIXED,
            null,
            rules -> rules.modes(TransferRules.Modes.FIXED, FILES, FOLDERS)));
    items.add(
        choice(
            "Modes by the other side's umask",
            now().modes() == TransferRules.Modes.DEFAULT,
            null,
            rules -> rules.modes(TransferRules.Modes.DEFAULT, null, null)));
    items.add(
        choice(
            "Rights as the folder on the server keeps them",
            now().modes() == TransferRules.Modes.KEPT,
            "rule-kept",
            rules -> rules.modes(TransferRules.Modes.KEPT, null, null)));
    MenuItem owner = new MenuItem("Owner and group on the server…");
    owner.setOnAction(event -> askOwner());
    items.add(owner);
    items.add(new SeparatorMenuItem());
    for (TransferRules.Links links : TransferRules.Links.values()) {
      String words =
          switch (links) {
            case AS_LINKS -> "Links as links";
            case FOLLOWED -> "Links followed";
            case LEFT_OUT -> "Links left out";
          };
      items.add(choice(words, now().links() == links, null, rules -> rules.links(links)));
    }
    items.add(
        tick(
            "Leave out litter and build results",
            now().leaveOut().text().startsWith(IgnorePatterns.USUAL),
            this::switchUsual));
    MenuItem patterns = new MenuItem("Patterns that are left out…");
    patterns.setOnAction(event -> askPatterns());
    items.add(patterns);
    items.add(new SeparatorMenuItem());
    items.add(tick("Check each by checksum", now().check(), rules -> rules.check(!rules.check())));
    MenuItem after = new MenuItem("After sending up, run…");
    after.setId("rule-after");
    after.setOnAction(event -> askCommand());
    items.add(after);
    menu.getItems().setAll(items);
    return menu;
  }

  private TransferRules switchUsual(TransferRules rules) {
    String text = rules.leaveOut().text();
    return rules.leaveOut(
        text.startsWith(IgnorePatterns.USUAL)
            ? new IgnorePatterns(text.substring(IgnorePatterns.USUAL.length()))
            : new IgnorePatterns(IgnorePatterns.USUAL + text));
  }

  private MenuItem choice(
      String words, boolean chosen, String id, UnaryOperator<TransferRules> change) {
    RadioMenuItem item = new RadioMenuItem(words);
    item.setId(id);
    item.setSelected(chosen);
    item.setOnAction(event -> change(change));
    return item;
  }

  private MenuItem tick(String words, boolean ticked, UnaryOperator<TransferRules> change) {
    CheckMenuItem item = new CheckMenuItem(words);
    item.setSelected(ticked);
    item.setOnAction(event -> change(change));
    return item;
  }

  private void ask(Question question) {
    desk.currentProperty().set(desk.folder());
    desk.folder().ask(question);
  }

  private void askOwner() {
    SimpleStringProperty user = new SimpleStringProperty(now().owner());
    SimpleStringProperty group = new SimpleStringProperty(now().group());
    ask(
        Question.asking(
            new Message(
                "Who owns what arrives on the server",
                "Given after the arrival, where this account may. Leave a field empty to change"
                    + " nothing."),
            List.of(
                new Question.Input("rule-owner", "Owner", user, "as it arrives"),
                new Question.Input("rule-group", "Group", group, "as it arrives")),
            new Question.Choice(
                "Apply",
                ticked -> {
                  change(rules -> rules.owner(user.get().strip(), group.get().strip()));
                  desk.folder().dismissQuestion();
                }),
            desk.folder().dismiss()));
  }

  private void askCommand() {
    SimpleStringProperty command =
        new SimpleStringProperty(desk.transfers().rules().commandProperty().get());
    ask(
        Question.asking(
            new Message(
                "What runs on the server after sending up",
                "In the folder it was sent to, once all has arrived; not when a file failed. Leave"
                    + " the field empty to run nothing."),
            List.of(
                new Question.Input("rule-command", "Command", command, "systemctl reload levelsd")),
            new Question.Choice(
                "Save",
                ticked -> {
                  desk.transfers().rules().changeCommand(command.get().strip());
                  desk.folder().dismissQuestion();
                }),
            desk.folder().dismiss()));
  }

  /** In one field, with commas between; the usual ones are switched in the menu. */
  private void askPatterns() {
    String text = now().leaveOut().text();
    boolean usual = text.startsWith(IgnorePatterns.USUAL);
    String own = usual ? text.substring(IgnorePatterns.USUAL.length()) : text;
    SimpleStringProperty patterns =
        new SimpleStringProperty(String.join(", ", own.lines().toList()));
    String listed =
        usual
            ? "Left out already: "
                + String.join(
                    ", ",
                    IgnorePatterns.USUAL.lines().filter(line -> !line.startsWith("#")).toList())
                + "."
            : "";
    ask(
        Question.asking(
            new Message(
                "What is not transferred",
                "Names as in a gitignore file, with commas between: *.log, /cache/, !keep.log. "
                    + listed),
            List.of(new Question.Input("rule-patterns", "Leave out", patterns, "*.log, /cache/")),
            new Question.Choice(
                "Apply",
                ticked -> {
                  String lines = patterns.get().replaceAll("\\s*,\\s*", "\n").strip();
                  change(
                      rules ->
                          rules.leaveOut(
                              new IgnorePatterns((usual ? IgnorePatterns.USUAL : "") + lines)));
                  desk.folder().dismissQuestion();
                }),
            desk.folder().dismiss()));
  }
}
