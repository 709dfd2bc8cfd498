package zander.desk;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.zip.GZIPInputStream;

/** Looks for a secret in every file below a folder, as it is, in UTF-16, and unpacked. */
final class SecretSearch {
  private SecretSearch() {}

  static List<Path> filesWith(Path folder, String secret) throws IOException {
    List<Path> found = new ArrayList<>();
    List<Path> files;
    try (var all = Files.walk(folder)) {
      files = all.filter(Files::isRegularFile).toList();
    }
    for (Path file : files) {
      byte[] bytes = Files.readAllBytes(file);
      if (holds(bytes, secret) || holds(unpacked(file), secret)) {
        found.add(file);
      }
    }
    return found;
  }

  private static byte[] unpacked(Path file) {
    try (GZIPInputStream in = new GZIPInputStream(Files.newInputStream(file))) {
      return in.readAllBytes();
    } catch (IOException e) {
      return new byte[0];
    }
  }

  private static boolean holds(byte[] bytes, String secret) {
    String text = new String(bytes, StandardCharsets.ISO_8859_1);
    return text.contains(secret)
        || text.contains(
            new String(secret.getBytes(StandardCharsets.UTF_16BE), StandardCharsets.ISO_8859_1));
  }
}
