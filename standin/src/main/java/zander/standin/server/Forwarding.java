package zander.standin.server;

import java.net.InetAddress;
import java.util.function.ToIntFunction;
import org.apache.sshd.client.future.OpenFuture;
import org.apache.sshd.common.channel.Channel;
import org.apache.sshd.common.session.Session;
import org.apache.sshd.common.util.buffer.Buffer;
import org.apache.sshd.common.util.buffer.ByteArrayBuffer;
import org.apache.sshd.common.util.net.SshdSocketAddress;
import org.apache.sshd.server.forward.ForwardingFilter;
import org.apache.sshd.server.forward.RejectAllForwardingFilter;
import org.apache.sshd.server.forward.TcpForwardingFilter;
import org.apache.sshd.server.forward.TcpipServerChannel;

/**
 * What a jump host does: lines on to other made-up servers by their made-up names, nowhere else.
 */
final class Forwarding extends TcpipServerChannel.TcpipFactory {
  private volatile ToIntFunction<String> names = name -> -1;

  Forwarding() {
    super(TcpForwardingFilter.Type.Direct);
  }

  void setNames(ToIntFunction<String> portOf) {
    names = portOf;
  }

  /** Allows lines to where a made-up name led; {@link Line} leads every other name nowhere. */
  ForwardingFilter filter() {
    return new RejectAllForwardingFilter() {
      @Override
      public boolean canConnect(Type type, SshdSocketAddress address, Session session) {
        return type == Type.Direct && address.getPort() > 0;
      }
    };
  }

  @Override
  public Channel createChannel(Session session) {
    return new Line();
  }

  private final class Line extends TcpipServerChannel {
    Line() {
      super(TcpForwardingFilter.Type.Direct, null);
    }

    @Override
    protected OpenFuture doInit(Buffer request) {
      String host = request.getString();
      request.getInt();
      Buffer changed = new ByteArrayBuffer();
      changed.putString(InetAddress.getLoopbackAddress().getHostAddress());
      changed.putInt(Math.max(0, names.applyAsInt(host)));
      changed.putString(request.getString());
      changed.putInt(request.getInt());
      return super.doInit(changed);
    }
  }
}
