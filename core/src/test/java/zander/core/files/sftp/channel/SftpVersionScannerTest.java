package zander.core.files.sftp.channel;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.nio.charset.StandardCharsets;
import java.util.Random;
import org.junit.jupiter.api.Test;

class SftpVersionScannerTest {
  private static final byte[] PACKET = {0, 0, 0, 5, 2, 0, 0, 0, 3};

  /** Whatever is printed before it, and however it is cut, the packet is found where it is. */
  @Test
  void findsThePacketBehindAnyText() {
    Random random = new Random(14);
    for (int round = 0; round < 2000; round++) {
      String text =
          random
              .ints(random.nextInt(300), 0x20, 0x2fff)
              .mapToObj(Character::toString)
              .reduce("", String::concat);
      ByteArrayOutputStream all = new ByteArrayOutputStream();
      all.writeBytes(text.getBytes(StandardCharsets.UTF_8));
      all.writeBytes(PACKET);
      byte[] more = new byte[random.nextInt(20)];
      random.nextBytes(more);
      all.writeBytes(more);
      byte[] whole = all.toByteArray();
      SftpVersionScanner search = new SftpVersionScanner();
      ByteArrayOutputStream found = new ByteArrayOutputStream();
      int at = 0;
      while (at < whole.length) {
        int count = Math.min(whole.length - at, 1 + random.nextInt(40));
        byte[] begun = search.take(whole, at, count);
        at += count;
        if (begun != null) {
          found.writeBytes(begun);
          found.write(whole, at, whole.length - at);
          break;
        }
      }
      byte[] expected = new byte[PACKET.length + more.length];
      System.arraycopy(PACKET, 0, expected, 0, PACKET.length);
      System.arraycopy(more, 0, expected, PACKET.length, more.length);
      assertThat(found.toByteArray()).isEqualTo(expected);
      assertThat(search.isTooMuch()).isFalse();
    }
  }

  @Test
  void textWithoutEndIsTooMuch() {
    SftpVersionScanner search = new SftpVersionScanner();
    byte[] line = "Welcome to levels-web!\n".getBytes(StandardCharsets.US_ASCII);
    int taken = 0;
    while (!search.isTooMuch()) {
      assertThat(search.take(line, 0, line.length)).isNull();
      taken += line.length;
      assertThat(taken).isLessThan(1 << 20);
    }
    assertThat(search.printed()).startsWith("Welcome to levels-web!");
  }
}
