package zander.core.transfer.tar;

import java.io.ByteArrayInputStream;
import java.io.IOException;

/** Opens the reader of a server's tar streams to the fuzzing of the suite. */
public final class TarFuzz {
  private TarFuzz() {}

  /** Reads all that is in a stream, which is compressed when its first byte says so. */
  public static void read(byte[] input) {
    boolean compressed = input.length > 0 && input[0] == 0x1f;
    TarStreamReader reader = new TarStreamReader(new ByteArrayInputStream(input), compressed);
    try {
      while (true) {
        reader.read((name, content, modified) -> {});
      }
    } catch (IOException e) {
      // What is no archive ends so, and so does one that is.
    }
  }
}
