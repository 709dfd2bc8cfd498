package zander.desk.view.reach;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.function.Supplier;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import zander.desk.model.AppModel;
import zander.desk.view.part.Parts;

/** The start: pages for servers, keys, the vault, and what is kept on this computer. */
public final class ReachView extends BorderPane {
  private final ServersPage servers;
  private final HBox tabs = new HBox();
  private final Map<String, Supplier<Node>> pages = new LinkedHashMap<>();
  private final Map<String, Node> made = new LinkedHashMap<>();
  private String current = "Servers";

  public ReachView(AppModel model) {
    getStyleClass().add("reach");
    tabs.getStyleClass().add("sheet-tabs");
    servers = new ServersPage(model);
    pages.put("Servers", () -> servers);
    pages.put("Keys", () -> new KeysPage(model));
    pages.put("Vault", () -> new VaultPage(model.vault()));
    pages.put("Kept here", () -> new KeptPage(model.kept(), model.vault()));
    setTop(tabs);
    model
        .signInProperty()
        .addListener((observed, old, now) -> show(now == null ? current : "Servers"));
    show("Servers");
  }

  /** Brings a page to the front: Servers, Keys, Vault or Kept here. */
  public void show(String name) {
    current = name;
    tabs.getChildren().clear();
    for (String page : pages.keySet()) {
      Button tab =
          Parts.button(
              page,
              "page-" + page.toLowerCase(java.util.Locale.ROOT).replace(' ', '-'),
              () -> show(page),
              "sheet-tab");
      if (page.equals(name)) {
        tab.getStyleClass().add("current");
      }
      tabs.getChildren().add(tab);
    }
    Node page = made.computeIfAbsent(name, first -> pages.get(first).get());
    BorderPane.setAlignment(page, Pos.TOP_LEFT);
    setCenter(page);
  }

  public void focusFirst() {
    show("Servers");
    servers.focusSearch();
  }
}
