package zander.desk.view.page;

import java.net.URISyntaxException;
import java.util.List;
import java.util.function.Supplier;
import zander.core.page.PageOrigin;
import zander.desk.file.FileModel;
import zander.desk.model.DeskModel;
import zander.desk.sheet.Action;
import zander.desk.words.Words;

/** What can be done with the page of the file in front, by name and by key. */
public final class PageActions {
  private static final Words WORDS = Words.of(PageActions.class);

  private final DeskModel desk;
  private final PagesBeside pages;
  private final Supplier<Double> width;

  /**
   * @param width of the place for a file and its page, in pixels
   */
  public PageActions(DeskModel desk, PagesBeside pages, Supplier<Double> width) {
    this.desk = desk;
    this.pages = pages;
    this.width = width;
  }

  public List<Action> all() {
    return List.of(
        new Action(WORDS.say("pageBeside"), "Ctrl+Shift+B", this::showOrHide, this::whyNotShown),
        new Action(
            WORDS.say("reloadThePage"),
            "F9",
            () -> pages.reload(desk.currentProperty().get()),
            () -> pages.isOpen(desk.currentProperty().get()) ? "" : WORDS.say("noPageIsOpen")));
  }

  private void showOrHide() {
    if (whyNotShown().isEmpty()) {
      pages.showOrHide((FileModel) desk.currentProperty().get(), width.get());
    }
  }

  private String whyNotShown() {
    if (!(desk.currentProperty().get() instanceof FileModel file)) {
      return WORDS.say("noFileIsIn");
    }
    String address = desk.publicAddress(file.path());
    try {
      PageOrigin.of(address == null ? "" : address);
      return "";
    } catch (URISyntaxException e) {
      return WORDS.say("noAddress");
    }
  }
}
