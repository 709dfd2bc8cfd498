package zander.core.transfer.direct;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import zander.core.connect.command.ExecResult;
import zander.core.files.FileKind;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteBatch.Setting;
import zander.core.files.RemoteFailure;
import zander.core.phrase.TransferPhrase;
import zander.core.rights.Mode;
import zander.core.transfer.endpoint.DirectRoute.NotDirect;
import zander.core.transfer.endpoint.SmallFile;
import zander.core.transfer.server.ArrivingFile;
import zander.core.transfer.server.RemoteContext;

/**
 * Looks what another server has sent straight to a target, over the target's own line: a source may
 * have sent anything. Plain files of the size that was asked for are taken.
 */
final class ArrivedFiles {
  private static final int PLAIN_BITS = 0777;

  private ArrivedFiles() {}

  /** What is there is taken as it is; whether any of it arrived. */
  static boolean look(RemoteContext target, List<ArrivingFile> waiting, ExecResult result)
      throws IOException {
    List<RemoteAttributes> found =
        target.files().batch().look(waiting.stream().map(one -> one.part).toList());
    List<ArrivingFile> whole = new ArrayList<>();
    List<Mode> modes = new ArrayList<>();
    for (int i = 0; i < waiting.size(); i++) {
      RemoteAttributes is = found.get(i);
      ArrivingFile one = waiting.get(i);
      if (is != null
          && is.kind() == FileKind.FILE
          && is.size() == one.smallFile.item.node().size()
          && (result.exit() == 0 || isFinished(one.smallFile, is))) {
        one.smallFile.modified = is.modified();
        whole.add(one);
        modes.add(is.mode());
      } else {
        one.smallFile.failure = new NotDirect(TransferPhrase.NOT_DIRECTLY.of());
      }
    }
    giveModes(target, whole, modes);
    return !whole.isEmpty();
  }

  /**
   * @param modes as they arrived: the upper bits are nobody's wish when no mode is asked for
   */
  private static void giveModes(RemoteContext target, List<ArrivingFile> whole, List<Mode> modes)
      throws IOException {
    List<ArrivingFile> asked = new ArrayList<>();
    List<Setting> settings = new ArrayList<>();
    for (int i = 0; i < whole.size(); i++) {
      ArrivingFile one = whole.get(i);
      Mode wanted = one.smallFile.item.mode();
      Mode plain = new Mode(modes.get(i).bits() & PLAIN_BITS);
      if (wanted != null || !plain.equals(modes.get(i))) {
        asked.add(one);
        settings.add(new Setting(one.part, wanted == null ? plain : wanted, -1));
      }
    }
    List<RemoteFailure> refused = target.files().batch().set(settings);
    for (int i = 0; i < asked.size(); i++) {
      if (refused.get(i) != null) {
        asked.get(i).smallFile.failure = refused.get(i);
      }
    }
  }

  /**
   * Of a load that broke off: the next one was begun, and its time, which is set last, is right.
   */
  private static boolean isFinished(SmallFile smallFile, RemoteAttributes is) {
    return smallFile.told == is.size()
        && smallFile.item.modified() >= 0
        && is.modified() == smallFile.item.node().modified();
  }
}
