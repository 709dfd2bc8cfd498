package zander.desk.folder.action;

import java.util.function.Consumer;
import zander.desk.folder.FolderModel;
import zander.desk.sheet.OpenDesk;

/** Goes on as root with the very step that an account was refused, in the same folder. */
public final class AsRoot {
  private AsRoot() {}

  /**
   * What is offered in the strip.
   *
   * @param step does it in the folder sheet of the desk that acts as root
   */
  public static Runnable goOn(FolderModel folder, Consumer<FolderModel> step) {
    return () -> folder.desk().actAsRoot(folder.path(), root -> step.accept(folderOf(root)));
  }

  private static FolderModel folderOf(OpenDesk desk) {
    return desk.openSheets().of(FolderModel.class).get(0);
  }
}
