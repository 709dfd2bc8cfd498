package zander.desk.view.transfer;

import static java.util.Objects.requireNonNull;

import java.util.ArrayList;
import java.util.List;
import java.util.function.UnaryOperator;
import javafx.beans.property.SimpleStringProperty;
import javafx.scene.control.CheckMenuItem;
import javafx.scene.control.ContextMenu;
import javafx.scene.control.MenuItem;
import javafx.scene.control.RadioMenuItem;
import javafx.scene.control.SeparatorMenuItem;
import org.jspecify.annotations.Nullable;
import zander.core.rights.Mode;
import zander.core.transfer.rules.ConflictRule;
import zander.core.transfer.rules.IgnorePatterns;
import zander.core.transfer.rules.TransferRules;
import zander.desk.model.DeskModel;
import zander.desk.sheet.Question;
import zander.desk.words.Words;
import zander.desk.work.Message;

/** The rules of transfers as words on the waterline, and the menu that changes them. */
final class RulesMenu {
  private static final Words WORDS = Words.of(RulesMenu.class);

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
      case ASK -> WORDS.say("ask");
      case REPLACE -> WORDS.say("replace");
      case SKIP -> WORDS.say("skip");
      case NEWER -> WORDS.say("onlyNewer");
      case DIFFERENT -> WORDS.say("onlyDifferent");
      case DIFFERENT_CONTENT -> WORDS.say("onlyOtherContent");
      case KEEP_BOTH -> WORDS.say("keepBoth");
    };
  }

  /** The rules in force, in one line: the first always, the others where they are not usual. */
  static String words(TransferRules rules) {
    StringBuilder words = new StringBuilder(WORDS.say("ifItExists", exists(rules.whenExists())));
    if (!rules.keepTimes()) {
      words.append(WORDS.say("timesOfNow"));
    }
    switch (rules.modes()) {
      case FIXED ->
          words
              .append(WORDS.say("modes"))
              .append(requireNonNull(rules.fileMode()).octal())
              .append(WORDS.say("and"))
              .append(requireNonNull(rules.folderMode()).octal());
      case DEFAULT -> words.append(WORDS.say("modesByUmask"));
      case KEPT -> words.append(WORDS.say("rightsAsKeptThere"));
      case FROM_SOURCE -> {}
    }
    if (!rules.owner().isEmpty() || !rules.group().isEmpty()) {
      words.append(WORDS.say("for")).append(rules.owner()).append(':').append(rules.group());
    }
    switch (rules.links()) {
      case FOLLOWED -> words.append(WORDS.say("linksFollowed"));
      case LEFT_OUT -> words.append(WORDS.say("noLinks"));
      case AS_LINKS -> {}
    }
    if (rules.leaveOut().count() > 0) {
      boolean usual = rules.leaveOut().text().equals(IgnorePatterns.USUAL);
      words.append(
          usual
              ? WORDS.say("litterLeftOut")
              : WORDS.say("patternsLeftOut", rules.leaveOut().count()));
    }
    if (rules.check()) {
      words.append(WORDS.say("checked"));
    }
    return words.toString();
  }

  /** The same with what runs after sending up. */
  static String words(TransferRules rules, String command) {
    boolean cut = command.length() > LONGEST_COMMAND;
    String shown = cut ? command.substring(0, LONGEST_COMMAND).strip() + "…" : command;
    return words(rules) + (command.isEmpty() ? "" : WORDS.say("then", shown));
  }

  ContextMenu menu() {
    ContextMenu menu = new ContextMenu();
    List<MenuItem> items = new ArrayList<>();
    for (ConflictRule rule : ConflictRule.values()) {
      items.add(
          choice(
              WORDS.say("ifItExists", exists(rule)),
              now().whenExists() == rule,
              "rule-" + rule.name().toLowerCase(java.util.Locale.ROOT).replace('_', '-'),
              rules -> rules.whenExists(rule)));
    }
    items.add(new SeparatorMenuItem());
    items.add(
        tick(
            WORDS.say("keepTimes"),
            now().keepTimes(),
            rules -> rules.keepTimes(!rules.keepTimes())));
    items.add(
        choice(
            WORDS.say("modesAsTheyAre"),
            now().modes() == TransferRules.Modes.FROM_SOURCE,
            null,
            rules -> rules.modes(TransferRules.Modes.FROM_SOURCE, null, null)));
    items.add(
        choice(
            WORDS.say("modes0644ForFiles"),
            now().modes() == TransferRules.Modes.FIXED,
            null,
            rules -> rules.modes(TransferRules.Modes.FIXED, FILES, FOLDERS)));
    items.add(
        choice(
            WORDS.say("modesByTheOther"),
            now().modes() == TransferRules.Modes.DEFAULT,
            null,
            rules -> rules.modes(TransferRules.Modes.DEFAULT, null, null)));
    items.add(
        choice(
            WORDS.say("rightsAsTheFolder"),
            now().modes() == TransferRules.Modes.KEPT,
            "rule-kept",
            rules -> rules.modes(TransferRules.Modes.KEPT, null, null)));
    MenuItem owner = new MenuItem(WORDS.say("ownerAndGroupOn"));
    owner.setOnAction(event -> askOwner());
    items.add(owner);
    items.add(new SeparatorMenuItem());
    for (TransferRules.Links links : TransferRules.Links.values()) {
      String words =
          switch (links) {
            case AS_LINKS -> WORDS.say("linksAsLinks");
            case FOLLOWED -> WORDS.say("followLinks");
            case LEFT_OUT -> WORDS.say("linksLeftOut");
          };
      items.add(choice(words, now().links() == links, null, rules -> rules.links(links)));
    }
    items.add(
        tick(
            WORDS.say("leaveOutLitterAnd"),
            now().leaveOut().text().startsWith(IgnorePatterns.USUAL),
            this::switchUsual));
    MenuItem patterns = new MenuItem(WORDS.say("patternsThatAreLeft"));
    patterns.setOnAction(event -> askPatterns());
    items.add(patterns);
    items.add(new SeparatorMenuItem());
    items.add(
        tick(
            WORDS.say("checkEachByChecksum"), now().check(), rules -> rules.check(!rules.check())));
    MenuItem after = new MenuItem(WORDS.say("afterSendingUpRun"));
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
      String words, boolean chosen, @Nullable String id, UnaryOperator<TransferRules> change) {
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
            new Message(WORDS.say("whoOwnsWhatArrives"), WORDS.say("givenAfterTheArrival")),
            List.of(
                new Question.Input(
                    "rule-owner", WORDS.say("owner"), user, WORDS.say("asItArrives")),
                new Question.Input(
                    "rule-group", WORDS.say("group"), group, WORDS.say("asItArrives"))),
            new Question.Choice(
                WORDS.say("apply"),
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
            new Message(WORDS.say("whatRunsOnThe"), WORDS.say("inTheFolderIt")),
            List.of(
                new Question.Input(
                    "rule-command",
                    WORDS.say("command"),
                    command,
                    WORDS.say("systemctlReloadLevelsd"))),
            new Question.Choice(
                WORDS.say("save"),
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
            ? WORDS.say(
                "leftOutAlready",
                String.join(
                    ", ",
                    IgnorePatterns.USUAL.lines().filter(line -> !line.startsWith("#")).toList()))
            : "";
    ask(
        Question.asking(
            new Message(WORDS.say("whatIsNotTransferred"), WORDS.say("namesAsInA", listed)),
            List.of(
                new Question.Input(
                    "rule-patterns", WORDS.say("leaveOut"), patterns, "*.log, /cache/")),
            new Question.Choice(
                WORDS.say("apply"),
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
