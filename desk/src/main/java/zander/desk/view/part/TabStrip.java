package zander.desk.view.part;

import java.util.ArrayList;
import java.util.List;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.OverrunStyle;
import javafx.scene.control.Tooltip;
import javafx.scene.input.ScrollEvent;
import javafx.scene.layout.Pane;
import javafx.scene.layout.Region;
import javafx.scene.shape.Rectangle;
import zander.desk.sheet.TabNames;

/**
 * A row of tabs that takes the place it is given: first the names of the widest shrink, as far as
 * they can still be told apart, then the row scrolls. While not all is to be read, a list has all.
 */
public final class TabStrip extends Region {
  /** What is left of a name at least, in pixels: some eight letters. */
  private static final double LEAST_NAME = 62;

  private static final double LIST_WIDTH = 58;
  private static final double STEP = 60;

  /**
   * One tab.
   *
   * @param node all of it
   * @param name the label in it that may shrink
   * @param current whether it is in front, and so never out of sight
   */
  public record Tab(Region node, Label name, boolean current, Runnable choose) {}

  private final Pane row = new Pane();
  private final Rectangle window = new Rectangle();
  private final MenuButton list = new MenuButton();
  private final double gap;
  private List<Tab> tabs = List.of();
  private double scrolled;
  private double whole;
  private double lastRoom;
  private boolean toCurrent;

  /**
   * @param what the list is called for those who hear it
   */
  public TabStrip(String id, String what, double gap) {
    this.gap = gap;
    list.setId(id);
    list.getStyleClass().add("tab-list");
    list.setAccessibleText(what);
    list.setTooltip(new Tooltip(what));
    list.setFocusTraversable(false);
    getStyleClass().add("tab-strip");
    row.setClip(window);
    getChildren().addAll(row, list);
    setMinWidth(LIST_WIDTH + LEAST_NAME);
    addEventHandler(ScrollEvent.SCROLL, this::wheel);
  }

  public void show(List<Tab> now) {
    tabs = List.copyOf(now);
    List<Node> nodes = new ArrayList<>();
    list.getItems().clear();
    for (Tab tab : tabs) {
      nodes.add(tab.node());
      tab.name().setMinWidth(0);
      MenuItem item = new MenuItem(tab.name().getText());
      item.setMnemonicParsing(false);
      item.setOnAction(event -> tab.choose().run());
      list.getItems().add(item);
    }
    list.setText(String.valueOf(tabs.size()));
    keepAndAdd(nodes);
    toCurrent = true;
    requestLayout();
  }

  /** What stays is not taken out and put in again, which would style it anew. */
  private void keepAndAdd(List<Node> nodes) {
    row.getChildren().retainAll(nodes);
    for (int i = 0; i < nodes.size(); i++) {
      Node node = nodes.get(i);
      if (i >= row.getChildren().size() || row.getChildren().get(i) != node) {
        row.getChildren().remove(node);
        row.getChildren().add(i, node);
      }
    }
  }

  private void wheel(ScrollEvent event) {
    double by = event.getDeltaY() == 0 ? event.getDeltaX() : event.getDeltaY();
    scrolled -= Math.signum(by) * STEP;
    requestLayout();
    event.consume();
  }

  /** What a tab takes besides its name. */
  private static double beside(Tab tab) {
    double name =
        Math.min(
            tab.name().prefWidth(-1),
            tab.name().getMaxWidth() < 0 ? Double.MAX_VALUE : tab.name().getMaxWidth());
    return tab.node().prefWidth(-1) - name;
  }

  @Override
  protected double computePrefWidth(double height) {
    double sum = 0;
    for (Tab tab : tabs) {
      sum += beside(tab) + tab.name().prefWidth(-1) + gap;
    }
    return snapSizeX(sum);
  }

  @Override
  protected double computePrefHeight(double width) {
    return tabs.stream().mapToDouble(tab -> tab.node().prefHeight(-1)).max().orElse(0);
  }

  @Override
  protected void layoutChildren() {
    double room = getWidth();
    toCurrent |= room != lastRoom;
    lastRoom = room;
    boolean fits = computePrefWidth(-1) <= room + 0.5;
    list.setVisible(!fits);
    double width = fits ? room : room - LIST_WIDTH;
    double widest = fits ? Double.MAX_VALUE : widestName(width);
    List<String> names = tabs.stream().map(tab -> tab.name().getText()).toList();
    double at = 0;
    for (int i = 0; i < tabs.size(); i++) {
      Tab tab = tabs.get(i);
      double name = Math.min(tab.name().prefWidth(-1), widest);
      double all = snapSizeX(beside(tab) + name);
      cut(tab, names, i, name);
      tab.node().resize(all, getHeight());
      tab.node().setUserData(at);
      at += all + gap;
    }
    whole = at;
    scroll(width);
    tabs.forEach(tab -> tab.node().relocate((double) tab.node().getUserData() - scrolled, 0));
    row.resizeRelocate(0, 0, width, getHeight());
    window.setWidth(width);
    window.setHeight(getHeight());
    double height = list.prefHeight(-1);
    list.resizeRelocate(Math.min(width, whole), (getHeight() - height) / 2, LIST_WIDTH, height);
  }

  private static void cut(Tab tab, List<String> names, int which, double width) {
    boolean whole = tab.name().prefWidth(-1) <= width;
    double most = whole ? USE_COMPUTED_SIZE : width;
    if (tab.name().getMaxWidth() != most) {
      tab.name().setMaxWidth(most);
    }
    OverrunStyle style =
        switch (TabNames.cut(names, which, letters(tab, width))) {
          case END -> OverrunStyle.ELLIPSIS;
          case START -> OverrunStyle.LEADING_ELLIPSIS;
          case MIDDLE -> OverrunStyle.CENTER_ELLIPSIS;
        };
    tab.name().setTextOverrun(style);
    if (whole != (tab.name().getTooltip() == null)) {
      tab.name().setTooltip(whole ? null : new Tooltip(tab.name().getText()));
    }
  }

  private static int letters(Tab tab, double width) {
    int length = tab.name().getText().length();
    // The dots take the place of three letters, where the names are compared with one.
    return length == 0 ? 0 : (int) (width * length / tab.name().prefWidth(-1)) - 2;
  }

  /** So wide that all fits, if that leaves enough of each; only those that are wider shrink. */
  private double widestName(double room) {
    double left = room;
    List<Double> names = new ArrayList<>();
    for (Tab tab : tabs) {
      left -= beside(tab) + gap;
      names.add(tab.name().prefWidth(-1));
    }
    names.sort(null);
    for (int i = 0; i < names.size(); i++) {
      double each = left / (names.size() - i);
      if (names.get(i) > each) {
        return Math.max(LEAST_NAME, Math.floor(each));
      }
      left -= names.get(i);
    }
    return Double.MAX_VALUE;
  }

  private void scroll(double width) {
    if (toCurrent) {
      toCurrent = false;
      for (Tab tab : tabs) {
        double at = (double) tab.node().getUserData();
        if (tab.current()) {
          scrolled = Math.min(at, Math.max(scrolled, at + tab.node().getWidth() - width));
        }
      }
    }
    scrolled = Math.max(0, Math.min(scrolled, whole - gap - width));
  }
}
