package zander.standin.server;

import java.io.ByteArrayOutputStream;
import java.io.DataOutputStream;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import zander.standin.world.Stat;

/** Builds and takes apart the packets of SFTP version 3. Strings are bytes, one char a byte. */
final class Packet {
  private final ByteBuffer in;

  Packet(byte[] body) {
    in = ByteBuffer.wrap(body);
  }

  boolean hasMore() {
    return in.hasRemaining();
  }

  int readByte() {
    return in.get() & 0xff;
  }

  int readInt() {
    return in.getInt();
  }

  long readLong() {
    return in.getLong();
  }

  byte[] readBytes() {
    byte[] bytes = new byte[in.getInt()];
    in.get(bytes);
    return bytes;
  }

  String readString() {
    return new String(readBytes(), StandardCharsets.ISO_8859_1);
  }

  /** A packet being built. */
  static final class Builder {
    private final ByteArrayOutputStream bytes = new ByteArrayOutputStream();
    private final DataOutputStream out = new DataOutputStream(bytes);

    Builder putByte(int value) throws IOException {
      out.writeByte(value);
      return this;
    }

    Builder putInt(int value) throws IOException {
      out.writeInt(value);
      return this;
    }

    Builder putLong(long value) throws IOException {
      out.writeLong(value);
      return this;
    }

    Builder putBytes(byte[] value) throws IOException {
      out.writeInt(value.length);
      out.write(value);
      return this;
    }

    Builder putString(String value) throws IOException {
      return putBytes(value.getBytes(StandardCharsets.ISO_8859_1));
    }

    Builder putStat(Stat stat) throws IOException {
      return putInt(0xf)
          .putLong(stat.size())
          .putInt(stat.uid())
          .putInt(stat.gid())
          .putInt(stat.fullMode())
          .putInt((int) stat.accessed())
          .putInt((int) stat.modified());
    }

    byte[] bytes() {
      return bytes.toByteArray();
    }
  }
}
