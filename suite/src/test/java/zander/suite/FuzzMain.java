package zander.suite;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.stream.Stream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import java.util.zip.ZipOutputStream;

/**
 * What {@code fuzz/run} starts: a coverage-guided fuzzer calls the one method; and the corpus goes
 * from the project into a folder and back.
 */
public final class FuzzMain {
  private static FuzzTarget target;
  private static Path folder;

  private FuzzMain() {}

  /** Called by the fuzzer, once for each input. */
  public static void fuzzerTestOneInput(byte[] input) throws IOException {
    if (target == null) {
      target = FuzzTarget.valueOf(System.getenv("FUZZ_TARGET"));
      folder = Files.createTempDirectory("fuzz");
    }
    target.take(input, folder);
  }

  /**
   * {@code unpack} or {@code pack}, the target's name, and the folder that the fuzzer keeps its
   * inputs in. Packing takes the smallest of what is there.
   */
  public static void main(String[] words) throws IOException {
    FuzzTarget chosen = FuzzTarget.valueOf(words[1].toUpperCase(Locale.ROOT));
    Path inputs = Files.createDirectories(Path.of(words[2]));
    if (words[0].equals("unpack")) {
      int number = 0;
      for (byte[] input : inputs(chosen, Files.createTempDirectory("fuzz"))) {
        Files.write(inputs.resolve("kept-" + number++), input);
      }
    } else {
      pack(chosen, inputs);
    }
  }

  /** The corpus of a target and what it begins with. */
  static List<byte[]> inputs(FuzzTarget target, Path folder) throws IOException {
    List<byte[]> inputs = new ArrayList<>(target.byteSeeds(folder));
    if (Files.exists(target.corpus())) {
      try (InputStream file = Files.newInputStream(target.corpus());
          ZipInputStream zip = new ZipInputStream(file)) {
        while (zip.getNextEntry() != null) {
          inputs.add(zip.readAllBytes());
        }
      }
    }
    return inputs;
  }

  private static void pack(FuzzTarget target, Path inputs) throws IOException {
    List<Path> files;
    try (Stream<Path> all = Files.list(inputs)) {
      files =
          all.filter(file -> file.toFile().length() <= 64 << 10)
              .sorted(
                  Comparator.comparing((Path file) -> file.toFile().length()).thenComparing(p -> p))
              .toList();
    }
    try (OutputStream file = Files.newOutputStream(target.corpus());
        ZipOutputStream zip = new ZipOutputStream(file)) {
      int number = 0;
      for (Path one : files) {
        ZipEntry entry = new ZipEntry(Integer.toString(number++));
        entry.setTime(0);
        zip.putNextEntry(entry);
        Files.copy(one, zip);
      }
    }
  }
}
