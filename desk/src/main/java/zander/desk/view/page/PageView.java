package zander.desk.view.page;

import java.util.List;
import javafx.beans.property.BooleanProperty;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.CheckMenuItem;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.RadioMenuItem;
import javafx.scene.control.SeparatorMenuItem;
import javafx.scene.control.TextField;
import javafx.scene.control.ToggleGroup;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import javafx.scene.web.WebView;
import org.kordamp.ikonli.feather.Feather;
import zander.core.page.PageRoutes.Way;
import zander.desk.page.PageModel;
import zander.desk.view.part.Parts;
import zander.desk.words.Words;
import zander.desk.work.Message;

/** The page that a file makes, beside the file or below it. */
final class PageView extends VBox {
  private static final Words WORDS = Words.of(PageView.class);

  /** Of a phone, a tablet held upright, a small and a usual screen, in pixels. */
  private static final List<Integer> WIDTHS = List.of(390, 768, 1024, 1440);

  /** In a narrower place the name of the site makes room, in pixels. */
  private static final double SITE_FROM = 700;

  private final PageModel model;
  private final WebView web = new WebView();
  private final TextField address = new TextField();
  private final Label tag = Parts.label("", "tag");
  private final Label took = Parts.label("", "quiet", "figures");
  private final Label headline = Parts.label("", "page-problem");
  private final Label detail = Parts.label("", "quiet");
  private final VBox problem = new VBox(headline, detail);
  private final StackPane ground = new StackPane(web);

  /**
   * @param below whether it is below its file
   * @param close takes it away
   */
  PageView(PageModel model, BooleanProperty below, Runnable close) {
    this.model = model;
    getStyleClass().addAll("sheet", "page-beside");
    setMinSize(0, 0);
    address.setId("page-address");
    address.getStyleClass().add("mono");
    address.setAccessibleText(WORDS.say("address"));
    address.setOnAction(event -> model.go(address.getText()));
    Parts.hint(address, "");
    Label site = Parts.label(model.site(), "quiet", "mono");
    site.setMinWidth(USE_PREF_SIZE);
    model.addressProperty().addListener((observed, old, now) -> showAddress(now));
    showAddress(model.addressProperty().get());
    HBox.setHgrow(address, Priority.ALWAYS);
    tag.setId("page-state");
    tag.setMinWidth(USE_PREF_SIZE);
    took.setMinWidth(USE_PREF_SIZE);
    Button reload = Parts.button(WORDS.say("reload"), "page-reload", model::reload);
    Parts.hint(reload, WORDS.say("reloadHint"));
    reload.setMinWidth(USE_PREF_SIZE);
    Button away = Parts.iconButton(Feather.X, WORDS.say("closeThePage"), close, "tab-close");
    away.setMinWidth(USE_PREF_SIZE);
    problem.getStyleClass().add("page-said");
    problem.setId("page-said");
    for (Label line : List.of(headline, detail)) {
      line.setWrapText(true);
      line.setMinHeight(USE_PREF_SIZE);
    }
    Label elsewhere = Parts.label("", "quiet");
    elsewhere.setId("page-elsewhere");
    elsewhere.textProperty().bind(model.elsewhereProperty());
    elsewhere.visibleProperty().bind(model.elsewhereProperty().isNotEmpty());
    elsewhere.managedProperty().bind(elsewhere.visibleProperty());
    HBox foot = Parts.row("page-foot", elsewhere);
    foot.visibleProperty().bind(elsewhere.visibleProperty());
    foot.managedProperty().bind(elsewhere.visibleProperty());
    web.setId("page");
    web.setContextMenuEnabled(false);
    web.setMinSize(0, 0);
    // A page that takes the keyboard when it comes would take it from the text.
    web.setFocusTraversable(false);
    web.getEngine().setCreatePopupHandler(features -> null);
    web.getEngine()
        .locationProperty()
        .addListener((observed, old, now) -> model.wentTo(now == null ? "" : now));
    ground.getStyleClass().add("page-ground");
    ground.setAlignment(Pos.TOP_CENTER);
    ground.setMinSize(0, 0);
    VBox.setVgrow(ground, Priority.ALWAYS);
    HBox bar = Parts.row("sheet-bar", site, address, tag, took, reload, menu(below), away);
    site.managedProperty().bind(bar.widthProperty().greaterThanOrEqualTo(SITE_FROM));
    site.visibleProperty().bind(site.managedProperty());
    getChildren().addAll(bar, problem, ground, foot);
    model.stateProperty().addListener((observed, old, now) -> tell(now));
    tell(model.stateProperty().get());
    model.shownProperty().addListener((observed, old, now) -> show(now));
  }

  /** The site's name has a place of its own: all that is shown is of it. */
  private void showAddress(String now) {
    address.setText(now.substring(model.site().length()));
    address.getTooltip().setText(now);
  }

  private MenuButton menu(BooleanProperty below) {
    MenuButton menu = new MenuButton(WORDS.say("view"));
    menu.setId("page-view");
    menu.setMinWidth(USE_PREF_SIZE);
    CheckMenuItem place = new CheckMenuItem(WORDS.say("below"));
    place.selectedProperty().bindBidirectional(below);
    menu.getItems().addAll(place, new SeparatorMenuItem());
    ToggleGroup widths = new ToggleGroup();
    menu.getItems().add(width(WORDS.say("wholeWidth"), 0, widths));
    for (int width : WIDTHS) {
      menu.getItems().add(width(WORDS.say("width", width), width, widths));
    }
    menu.getItems().add(new SeparatorMenuItem());
    ToggleGroup ways = new ToggleGroup();
    menu.getItems().add(way(WORDS.say("wayEITHER"), Way.EITHER, ways));
    menu.getItems().add(way(WORDS.say("wayFROM_HERE"), Way.FROM_HERE, ways));
    menu.getItems().add(way(WORDS.say("wayTHROUGH_SERVER"), Way.THROUGH_SERVER, ways));
    menu.getItems().add(way(WORDS.say("wayON_SERVER"), Way.ON_SERVER, ways));
    MenuItem browser = new MenuItem(WORDS.say("openInBrowser"));
    browser.setOnAction(event -> model.openInBrowser());
    menu.getItems().addAll(new SeparatorMenuItem(), browser);
    return menu;
  }

  /**
   * @param pixels 0 for all that there is
   */
  private RadioMenuItem width(String words, int pixels, ToggleGroup group) {
    RadioMenuItem item = new RadioMenuItem(words);
    item.setToggleGroup(group);
    item.setSelected(pixels == 0);
    item.setOnAction(event -> web.setMaxWidth(pixels == 0 ? Double.MAX_VALUE : pixels));
    return item;
  }

  private RadioMenuItem way(String words, Way way, ToggleGroup group) {
    RadioMenuItem item = new RadioMenuItem(words);
    item.setToggleGroup(group);
    item.setSelected(model.wayProperty().get() == way);
    item.setOnAction(event -> model.wayProperty().set(way));
    return item;
  }

  private void show(PageModel.Shown page) {
    if (page == null) {
      return;
    }
    if (web.getEngine().getUserDataDirectory() == null) {
      // Its own choice would be the person's home, where what pages keep would stay.
      web.getEngine().setUserDataDirectory(page.folder().toFile());
    }
    if (page.address().equals(web.getEngine().getLocation())) {
      // With all that belongs to it, such as a style sheet that was saved.
      web.getEngine().reload();
    } else {
      web.getEngine().load(page.address());
    }
  }

  private void tell(PageModel.State state) {
    boolean loading = state.kind() == PageModel.State.Kind.LOADING;
    tag.setText(loading ? WORDS.say("loading") : state.tag());
    tag.getStyleClass().removeAll("good", "look", "danger");
    tag.getStyleClass()
        .add(
            switch (state.kind()) {
              case LOADING -> "look";
              case GOOD -> "good";
              case ERROR, FAILED -> "danger";
            });
    took.setText(state.took());
    Message said = state.said();
    headline.setText(said == null ? "" : said.headline());
    detail.setText(said == null ? "" : said.detail());
    Parts.show(headline, said != null && state.kind() == PageModel.State.Kind.FAILED);
    Parts.show(problem, said != null);
    web.setVisible(state.kind() != PageModel.State.Kind.FAILED);
  }

  /** Nothing is loaded any more. */
  void end() {
    web.getEngine().load(null);
    model.close();
  }
}
