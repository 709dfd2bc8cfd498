package zander.desk.view.page;

import java.net.URISyntaxException;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import javafx.beans.property.BooleanProperty;
import javafx.beans.property.SimpleBooleanProperty;
import javafx.geometry.Orientation;
import javafx.scene.Node;
import javafx.scene.control.SplitPane;
import zander.desk.file.FileModel;
import zander.desk.page.PageModel;
import zander.desk.sheet.OpenDesk;
import zander.desk.sheet.Sheet;

/** Which files of a desk have their page beside them. */
public final class PagesBeside {
  /** Where a file and a page beside each other have room, in pixels. */
  private static final double WIDE = 1000;

  private final OpenDesk desk;
  private final Runnable changed;
  private final Map<Sheet, Open> open = new HashMap<>();

  /** One page, its view, and both in one. */
  private record Open(PageModel page, PageView view, SplitPane both, Runnable end) {}

  /**
   * @param changed run when a page came or went
   */
  public PagesBeside(OpenDesk desk, Runnable changed) {
    this.desk = desk;
    this.changed = changed;
  }

  /** What is shown for a sheet: its view, or that and the page. */
  public Node with(Sheet sheet, Node view) {
    Open one = open.get(sheet);
    if (one == null) {
      return view;
    }
    if (one.both.getItems().isEmpty()) {
      one.both.getItems().setAll(view, one.view);
      one.both.setDividerPositions(0.5);
    }
    return one.both;
  }

  public boolean isOpen(Sheet sheet) {
    return open.containsKey(sheet);
  }

  /** Asks for the page of a file again. */
  public void reload(Sheet sheet) {
    Open one = open.get(sheet);
    if (one != null) {
      one.page.reload();
    }
  }

  /**
   * Shows the page of a file beside it, or takes it away.
   *
   * @param width of the place for both, in pixels
   */
  public void showOrHide(FileModel file, double width) {
    if (isOpen(file)) {
      closed(file);
      return;
    }
    String address = desk.publicAddress(file.path());
    if (address == null) {
      return;
    }
    try {
      PageModel page = new PageModel(desk, address);
      BooleanProperty below = new SimpleBooleanProperty(width < WIDE);
      SplitPane both = new SplitPane();
      both.getStyleClass().add("page-pair");
      below.addListener((observed, old, now) -> place(both, now));
      place(both, below.get());
      javafx.beans.value.ChangeListener<Object> saved = (observed, old, now) -> page.reload();
      file.versionProperty().addListener(saved);
      PageView view = new PageView(page, below, () -> closed(file));
      open.put(
          file, new Open(page, view, both, () -> file.versionProperty().removeListener(saved)));
      changed.run();
      page.reload();
    } catch (URISyntaxException e) {
      // The action is not offered for such an address.
    }
  }

  private static void place(SplitPane both, boolean below) {
    both.setOrientation(below ? Orientation.VERTICAL : Orientation.HORIZONTAL);
    both.setDividerPositions(0.5);
  }

  /** The desk is closed. */
  public void end() {
    open.values()
        .forEach(
            one -> {
              one.end.run();
              one.view.end();
            });
    open.clear();
  }

  /** A sheet is gone, or its page is not wanted any more. */
  public void closed(Sheet sheet) {
    Open one = open.remove(sheet);
    if (one != null) {
      one.end.run();
      one.view.end();
      one.both.getItems().setAll(List.of());
      changed.run();
    }
  }
}
