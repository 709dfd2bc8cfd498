package zander.core.transfer.remote;

import java.io.IOException;
import org.jspecify.annotations.Nullable;
import zander.core.transfer.direct.DirectTransfer;
import zander.core.transfer.endpoint.DirectRoute;
import zander.core.transfer.endpoint.Target;
import zander.core.transfer.endpoint.TransferItem;
import zander.core.transfer.server.RemoteContext;

/** The route into a folder of a server: {@link DirectTransfer} writes, and this puts in place. */
final class RemoteDirectRoute implements DirectRoute {
  private final DirectTransfer transfer;
  private final RemoteContext context;
  private final RemoteFolders folders;
  private final RemoteDigests digests;

  RemoteDirectRoute(
      DirectTransfer transfer,
      RemoteContext context,
      RemoteFolders folders,
      RemoteDigests digests) {
    this.transfer = transfer;
    this.context = context;
    this.folders = folders;
    this.digests = digests;
  }

  @Override
  public boolean takes(TransferItem item) {
    return transfer.takes(item);
  }

  @Override
  public Arrival create(TransferItem item, Target.@Nullable Part part) throws IOException {
    return new RemoteFileWriter(context, folders, digests, item, part, transfer);
  }

  @Override
  public void giveUp() {
    transfer.giveUp();
  }

  @Override
  public void end() {
    transfer.end();
  }
}
