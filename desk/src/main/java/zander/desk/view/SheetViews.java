package zander.desk.view;

import static java.util.Objects.requireNonNull;

import java.util.HashMap;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import zander.desk.compare.CompareModel;
import zander.desk.file.FileModel;
import zander.desk.file.own.BytesModel;
import zander.desk.find.FindModel;
import zander.desk.folder.FolderModel;
import zander.desk.history.JournalModel;
import zander.desk.history.RecoveryModel;
import zander.desk.model.DeskModel;
import zander.desk.reading.ReadingModel;
import zander.desk.rights.FindingsModel;
import zander.desk.rights.tree.TreeRightsModel;
import zander.desk.sheet.Sheet;
import zander.desk.shell.ShellModel;
import zander.desk.transfer.CheckModel;
import zander.desk.transfer.PlanModel;
import zander.desk.transfer.TransferListModel;
import zander.desk.view.compare.CompareView;
import zander.desk.view.file.BytesView;
import zander.desk.view.file.FileView;
import zander.desk.view.file.ReadingView;
import zander.desk.view.find.FindView;
import zander.desk.view.folder.FolderView;
import zander.desk.view.history.JournalView;
import zander.desk.view.history.RecoveryView;
import zander.desk.view.part.SheetView;
import zander.desk.view.rights.FindingsView;
import zander.desk.view.rights.TreeRightsView;
import zander.desk.view.shell.ShellView;
import zander.desk.view.transfer.CheckView;
import zander.desk.view.transfer.PlanView;
import zander.desk.view.transfer.TransferListView;

/** The one place that says which view shows which sheet. */
final class SheetViews {
  private final Map<Class<?>, Function<Sheet, SheetView>> makers = new HashMap<>();

  SheetViews(DeskModel desk) {
    shows(FolderModel.class, folder -> new FolderView(desk));
    shows(FindModel.class, FindView::new);
    shows(JournalModel.class, JournalView::new);
    shows(RecoveryModel.class, RecoveryView::new);
    shows(TransferListModel.class, list -> new TransferListView(desk, list));
    shows(PlanModel.class, PlanView::new);
    shows(CheckModel.class, CheckView::new);
    shows(TreeRightsModel.class, sheet -> new TreeRightsView(sheet, desk.local()::folder));
    shows(FindingsModel.class, FindingsView::new);
    shows(FileModel.class, file -> new FileView(file, desk.fileSheets(), desk::goTo));
    shows(BytesModel.class, BytesView::new);
    shows(CompareModel.class, CompareView::new);
    shows(ReadingModel.class, ReadingView::new);
    shows(ShellModel.class, shell -> new ShellView(desk, shell));
  }

  <S extends Sheet> void shows(Class<S> type, Function<S, ? extends SheetView> maker) {
    makers.put(type, sheet -> maker.apply(type.cast(sheet)));
  }

  /** The kinds of sheets that have a view. */
  Set<Class<?>> kinds() {
    return makers.keySet();
  }

  SheetView make(Sheet sheet) {
    Class<?> kind = sheet.getClass();
    return requireNonNull(makers.get(kind), () -> kind + " has no view").apply(sheet);
  }
}
