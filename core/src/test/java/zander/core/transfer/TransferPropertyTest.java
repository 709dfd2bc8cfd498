package zander.core.transfer;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Stream;
import net.jqwik.api.Arbitraries;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;
import zander.core.transfer.local.LocalEndpoint;
import zander.core.transfer.progress.Progress;
import zander.core.transfer.rules.ConflictRule;
import zander.core.work.Cancellation;

/** Any tree arrives as it was; carried again it changes nothing; kept beside it loses nothing. */
class TransferPropertyTest {
  @Property(tries = 60, seed = "1")
  void anyTreeArrivesAsItWas(@ForAll("trees") Map<String, String> tree) throws IOException {
    Path folder = Files.createTempDirectory("zander-transfer");
    try {
      Path source = make(folder.resolve("source/tree"), tree);
      Path target = Files.createDirectories(folder.resolve("target"));
      LocalEndpoint from = new LocalEndpoint(source.getParent());
      LocalEndpoint to = new LocalEndpoint(target);
      Progress first = transfer(from, to, ConflictRule.REPLACE);
      assertThat(first.problems()).isEmpty();
      assertThat(first.files()).isEqualTo(first.filesInAll()).isEqualTo(tree.size());
      assertThat(first.bytes()).isEqualTo(first.bytesInAll());
      assertThat(contents(target.resolve("tree"))).isEqualTo(contents(source));

      Progress again = transfer(from, to, ConflictRule.SKIP);
      assertThat(again.skipped()).isEqualTo(tree.size());
      assertThat(again.bytesInAll()).isZero();
      assertThat(contents(target.resolve("tree"))).isEqualTo(contents(source));

      transfer(from, to, ConflictRule.KEEP_BOTH);
      Map<String, String> both = contents(target.resolve("tree"));
      assertThat(both).hasSize(2 * tree.size()).containsAllEntriesOf(contents(source));
    } finally {
      remove(folder);
    }
  }

  /** Numbered names are there, and coming, too: nothing takes the place of another. */
  @Property(tries = 150, seed = "1")
  void keptBesideNothingMeetsWhatIsComing(
      @ForAll("numbered") Set<String> coming, @ForAll("numbered") Set<String> there)
      throws IOException {
    Path folder = Files.createTempDirectory("zander-transfer");
    try {
      Path source = make(folder.resolve("source/tree"), each(coming, "comes "));
      Path target = make(folder.resolve("target/tree"), each(there, "is "));
      Progress done =
          transfer(
              new LocalEndpoint(source.getParent()),
              new LocalEndpoint(target.getParent()),
              ConflictRule.KEEP_BOTH);
      assertThat(done.problems()).isEmpty();
      Map<String, String> both = contents(target);
      assertThat(both).containsAllEntriesOf(each(there, "is "));
      assertThat(both.values())
          .containsAll(each(coming, "comes ").values())
          .hasSize(coming.size() + there.size());
    } finally {
      remove(folder);
    }
  }

  private static Map<String, String> each(Set<String> names, String content) {
    Map<String, String> tree = new TreeMap<>();
    names.forEach(name -> tree.put(name, content + name));
    return tree;
  }

  @Provide
  Arbitrary<Set<String>> numbered() {
    return Arbitraries.of("a.txt", "a-2.txt", "a-3.txt", "a-2-2.txt", "a-2", "a").set();
  }

  private static Progress transfer(LocalEndpoint from, LocalEndpoint to, ConflictRule rule) {
    return new Transfer(from, to, rule, question -> null, new Cancellation()).run(List.of("tree"));
  }

  /** Paths of up to three names, no file where a folder is needed. */
  @Provide
  Arbitrary<Map<String, String>> trees() {
    Arbitrary<String> name =
        Arbitraries.strings()
            .withChars("abcXYZ .-'\"$\\\n~→üß")
            .ofMinLength(1)
            .ofMaxLength(20)
            .filter(text -> !text.matches("\\.{1,2}"));
    Arbitrary<String> path =
        name.list().ofMinSize(1).ofMaxSize(3).map(names -> String.join("/d-", names));
    Arbitrary<String> content = Arbitraries.strings().ascii().ofMaxLength(300);
    return Arbitraries.maps(path, content).ofMaxSize(12).map(TransferPropertyTest::consistent);
  }

  private static Map<String, String> consistent(Map<String, String> wild) {
    Map<String, String> tree = new TreeMap<>();
    for (Map.Entry<String, String> entry : new TreeMap<>(wild).entrySet()) {
      boolean clash =
          tree.keySet().stream()
              .anyMatch(
                  there ->
                      entry.getKey().startsWith(there + "/")
                          || there.startsWith(entry.getKey() + "/"));
      if (!clash) {
        tree.put(entry.getKey(), entry.getValue());
      }
    }
    return tree;
  }

  private static Path make(Path root, Map<String, String> tree) throws IOException {
    Files.createDirectories(root);
    for (Map.Entry<String, String> entry : tree.entrySet()) {
      Path file = root.resolve(entry.getKey());
      Files.createDirectories(file.getParent());
      Files.writeString(file, entry.getValue(), StandardCharsets.UTF_8);
    }
    return root;
  }

  private static Map<String, String> contents(Path root) throws IOException {
    Map<String, String> contents = new TreeMap<>();
    try (Stream<Path> files = Files.walk(root).filter(Files::isRegularFile)) {
      for (Path file : (Iterable<Path>) files::iterator) {
        contents.put(root.relativize(file).toString(), Files.readString(file));
      }
    }
    return contents;
  }

  private static void remove(Path folder) throws IOException {
    List<Path> paths = new ArrayList<>();
    try (Stream<Path> all = Files.walk(folder)) {
      all.forEach(paths::add);
    }
    for (int i = paths.size() - 1; i >= 0; i--) {
      Files.delete(paths.get(i));
    }
  }
}
