package zander.desk.view.file;

import java.util.List;
import javafx.geometry.Bounds;
import javafx.scene.Node;
import javafx.scene.control.ContextMenu;
import javafx.scene.control.MenuItem;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import org.fxmisc.richtext.CodeArea;
import org.jspecify.annotations.Nullable;
import zander.core.edit.TextLinks;
import zander.desk.file.FileLinks;

/**
 * Offers what the server has where a link is being typed: with each slash, and by Ctrl+Space. It
 * follows what is typed until one is taken or it is sent away.
 */
final class LinkMenu {
  private final CodeArea area;
  private final FileLinks links;
  private final ContextMenu menu = new ContextMenu();

  /** Whether it follows what is typed. */
  private boolean following;

  LinkMenu(CodeArea area, FileLinks links) {
    this.area = area;
    this.links = links;
    menu.setId("link-menu");
    menu.setAutoHide(true);
    area.addEventFilter(KeyEvent.KEY_PRESSED, this::pressed);
    area.addEventHandler(KeyEvent.KEY_TYPED, this::typed);
    area.focusedProperty().addListener((observed, old, now) -> end());
  }

  private void pressed(KeyEvent event) {
    if (event.getCode() == KeyCode.SPACE && event.isControlDown()) {
      event.consume();
      following = true;
      offer();
    } else if (event.getCode() == KeyCode.ESCAPE && following) {
      event.consume();
      end();
    } else if (event.getCode() == KeyCode.BACK_SPACE && following) {
      javafx.application.Platform.runLater(this::offer);
    }
  }

  private void typed(KeyEvent event) {
    if (event.getCharacter().equals("/")) {
      following = true;
    }
    if (following) {
      // Behind what the editor makes of the same key.
      javafx.application.Platform.runLater(this::offer);
    }
  }

  private void end() {
    following = false;
    menu.hide();
  }

  private TextLinks.@Nullable Link begun() {
    return links.begunAt(
        area.getParagraph(area.getCurrentParagraph()).getText(), area.getCaretColumn());
  }

  private void offer() {
    TextLinks.Link begun = begun();
    if (begun == null || !area.isFocused()) {
      end();
      return;
    }
    links.offer(
        begun.target(),
        offered -> {
          if (following && begun.equals(begun())) {
            show(begun, offered);
          }
        });
  }

  private void show(TextLinks.Link begun, List<String> offered) {
    boolean done = offered.size() == 1 && offered.get(0).equals(begun.target());
    Bounds caret = area.getCaretBounds().orElse(null);
    if (offered.isEmpty() || done || caret == null) {
      menu.hide();
      return;
    }
    menu.getItems().clear();
    for (String target : offered) {
      MenuItem item = new MenuItem(target);
      item.setMnemonicParsing(false);
      item.setOnAction(event -> take(begun, target));
      menu.getItems().add(item);
    }
    menu.show(area, caret.getMinX(), caret.getMaxY());
    // Enter takes the first; without one it would take none, and end no line either.
    Node first = menu.getSkin().getNode().lookup(".menu-item");
    if (first != null) {
      first.requestFocus();
    }
  }

  private void take(TextLinks.Link begun, String target) {
    int line = area.getCurrentParagraph();
    area.replaceText(line, begun.start(), line, begun.end(), target);
    area.requestFocus();
    if (target.endsWith("/")) {
      following = true;
      javafx.application.Platform.runLater(this::offer);
    } else {
      end();
    }
  }
}
