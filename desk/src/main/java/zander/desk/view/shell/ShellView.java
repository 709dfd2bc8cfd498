package zander.desk.view.shell;

import java.util.ArrayList;
import java.util.List;
import javafx.beans.binding.Bindings;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.Tooltip;
import javafx.scene.input.Clipboard;
import javafx.scene.input.ClipboardContent;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import org.kordamp.ikonli.feather.Feather;
import org.kordamp.ikonli.javafx.FontIcon;
import zander.desk.model.DeskModel;
import zander.desk.shell.ShellModel;
import zander.desk.shell.ShellsBelow;
import zander.desk.term.ShellColours;
import zander.desk.term.TerminalView;
import zander.desk.view.part.Parts;
import zander.desk.view.part.QuestionStrip;
import zander.desk.view.part.SheetView;
import zander.desk.view.part.TabStrip;
import zander.desk.view.part.Tables;
import zander.desk.words.Words;
import zander.desk.work.Settings;
import zander.desk.work.Subscriptions;

/**
 * A shell: a thin bar with its folder and what can be done with it, and the terminal. Below the
 * sheets the bar has a tab for each shell that is there.
 */
public final class ShellView extends VBox implements SheetView {
  private static final Words WORDS = Words.of(ShellView.class);

  private final DeskModel desk;
  private final ShellModel model;
  private final TerminalView terminal;
  private final ShellFindBar findBar;
  private final Subscriptions subscriptions = new Subscriptions();
  private final TabStrip tabs = new TabStrip("all-shells", WORDS.say("allShellsBelow"), 2);

  public ShellView(DeskModel desk, ShellModel model) {
    this.desk = desk;
    this.model = model;
    terminal =
        new TerminalView(model.terminal(), model::paste, model::follow, desk.background()::later);
    terminal.setId("terminal");
    findBar = new ShellFindBar(terminal, desk.background());
    terminal.onSize(points -> desk.settings().set(Settings.SHELL_TEXT, points));
    getStyleClass().add("shell");
    Label ended = Parts.label("", "shell-ended");
    ended.setWrapText(true);
    ended.textProperty().bind(model.endedProperty());
    Button again = Parts.button(WORDS.say("restartShell"), "shell-again", model::start, "on-dark");
    Button place =
        Parts.button(
            "",
            "shell-place",
            () -> model.belowProperty().set(!model.belowProperty().get()),
            "on-dark");
    place
        .textProperty()
        .bind(
            Bindings.when(model.belowProperty())
                .then(WORDS.say("wholeSheet"))
                .otherwise(WORDS.say("belowTheSheets")));
    Button shut =
        Parts.button(WORDS.say("close"), "shell-close", () -> desk.close(model), "on-dark");
    for (Button button : List.of(again, place, shut)) {
      button.setMinWidth(USE_PREF_SIZE);
    }
    model.endedProperty().addListener((observed, old, now) -> Parts.show(again, !now.isEmpty()));
    Parts.show(again, !model.endedProperty().get().isEmpty());
    HBox.setHgrow(tabs, Priority.ALWAYS);
    HBox bar = Parts.row("shell-bar", tabs, ended, again, place, shut);
    VBox.setVgrow(terminal, Priority.ALWAYS);
    getChildren().addAll(bar, findBar, new QuestionStrip(model.questionProperty()), terminal);
    Settings settings = desk.settings();
    terminal.size(settings.get(Settings.SHELL_TEXT));
    colours(settings.get(Settings.SHELL_COLOURS));
    subscriptions.on(settings.value(Settings.SHELL_TEXT), terminal::size);
    subscriptions.on(settings.value(Settings.SHELL_COLOURS), this::colours);
    subscriptions.on(model.signals().forClipboardProperty(), ShellView::toClipboard);
    subscriptions.on(model.signals().rangProperty(), rang -> heard());
    subscriptions.on(model.signals().titleProperty(), title -> showTabs());
    terminal.focusedProperty().addListener((observed, old, now) -> heard());
    subscriptions.on(
        model.questionProperty(),
        question -> {
          if (question == null) {
            terminal.requestFocus();
          }
        });
    subscriptions.on(desk.shells().shells(), this::showTabs);
    subscriptions.on(desk.shells().frontProperty(), front -> showTabs());
    showTabs();
  }

  /** Around the terminal as in it. */
  private void colours(Long number) {
    ShellColours chosen = ShellColours.of(number);
    terminal.colours(chosen);
    setStyle("-fx-background-color: " + chosen.ground() + ";");
  }

  /** Whoever types in it needs no mark that its bell rang. */
  private void heard() {
    if (terminal.isFocused()) {
      if (desk.shells().shells().contains(model)) {
        desk.shells().frontProperty().set(model);
      }
      model.signals().rangProperty().set(false);
    }
  }

  private static void toClipboard(String text) {
    if (!text.isEmpty()) {
      ClipboardContent content = new ClipboardContent();
      content.putString(text);
      Clipboard.getSystemClipboard().setContent(content);
    }
  }

  /** Opens the bar that finds text in it. */
  void find() {
    findBar.open();
  }

  ShellModel model() {
    return model;
  }

  private void showTabs() {
    ShellsBelow shells = desk.shells();
    List<ShellModel> named = shells.shells().contains(model) ? shells.shells() : List.of(model);
    List<TabStrip.Tab> made = new ArrayList<>();
    named.forEach(shell -> made.add(tab(shell, named.size() > 1)));
    tabs.show(made);
  }

  private TabStrip.Tab tab(ShellModel shell, boolean several) {
    String title = shell.titleProperty().get();
    String number = title.substring(title.lastIndexOf(' ') + 1);
    String words =
        several ? number + "  " + shell.folder().name() : title + "  " + shell.folder().text();
    Label name = Parts.label(words, "shell-title");
    Runnable choose = () -> desk.shells().frontProperty().set(shell);
    Button tab = Parts.button("", null, choose, "shell-tab");
    tab.setGraphic(name);
    FontIcon bell = new FontIcon(Feather.BELL);
    bell.setAccessibleText(WORDS.say("theBellRang"));
    name.graphicProperty()
        .bind(
            Bindings.when(shell.signals().rangProperty()).then((Node) bell).otherwise((Node) null));
    String program = shell.signals().titleProperty().get();
    if (!program.isEmpty()) {
      tab.setTooltip(new Tooltip(program));
    }
    tab.setAccessibleText(title + ", " + shell.folder().text());
    tab.setFocusTraversable(false);
    Tables.mark(tab, "current", several && shell == model);
    HBox all = Parts.row("tab-with-close", tab);
    if (several) {
      all.getChildren()
          .add(
              Parts.iconButton(
                  Feather.X, WORDS.say("closeNamed", title), () -> desk.close(shell), "tab-close"));
    }
    return new TabStrip.Tab(all, name, shell == model, choose);
  }

  @Override
  public void dispose() {
    subscriptions.end();
  }

  @Override
  public void takeFocus() {
    terminal.requestFocus();
  }
}
