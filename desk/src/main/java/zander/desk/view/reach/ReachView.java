package zander.desk.view.reach;

import static java.util.Objects.requireNonNull;

import java.util.EnumMap;
import java.util.Locale;
import java.util.Map;
import java.util.function.Supplier;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import zander.desk.model.AppModel;
import zander.desk.view.part.Parts;
import zander.desk.words.Words;

/** The start: pages for servers, keys, the vault, and what is kept on this computer. */
public final class ReachView extends BorderPane {
  private static final Words WORDS = Words.of(ReachView.class);

  private final ServersPage servers;
  private final HBox tabs = new HBox();
  private final Map<Page, Supplier<Node>> pages = new EnumMap<>(Page.class);
  private final Map<Page, Node> made = new EnumMap<>(Page.class);
  private Page current = Page.SERVERS;

  /** What the start shows, in the order of its tabs. */
  public enum Page {
    SERVERS,
    KEYS,
    VAULT,
    KEPT;

    private String id() {
      return name().toLowerCase(Locale.ROOT);
    }
  }

  public ReachView(AppModel model) {
    getStyleClass().add("reach");
    tabs.getStyleClass().add("sheet-tabs");
    servers = new ServersPage(model);
    pages.put(Page.SERVERS, () -> servers);
    pages.put(Page.KEYS, () -> new KeysPage(model));
    pages.put(Page.VAULT, () -> new VaultPage(model.vault()));
    pages.put(Page.KEPT, () -> new KeptPage(model.kept(), model.vault()));
    setTop(tabs);
    model
        .signInProperty()
        .addListener((observed, old, now) -> show(now == null ? current : Page.SERVERS));
    show(Page.SERVERS);
  }

  /** Brings a page to the front. */
  public void show(Page shown) {
    current = shown;
    tabs.getChildren().clear();
    for (Page page : pages.keySet()) {
      Button tab =
          Parts.button(WORDS.say(page.id()), "page-" + page.id(), () -> show(page), "sheet-tab");
      if (page == shown) {
        tab.getStyleClass().add("current");
      }
      tabs.getChildren().add(tab);
    }
    Node page = made.computeIfAbsent(shown, first -> requireNonNull(pages.get(first)).get());
    BorderPane.setAlignment(page, Pos.TOP_LEFT);
    setCenter(page);
  }

  public void focusFirst() {
    show(Page.SERVERS);
    servers.focusSearch();
  }
}
