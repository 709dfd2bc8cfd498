package zander.desk.words;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.Reader;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Properties;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.regex.MatchResult;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import zander.core.phrase.Phrase;

/** Every text of the window is in a bundle, and said with the values that it has places for. */
class WordsTest {
  private static final Path SOURCES = Path.of("src/main/java");
  private static final Path BUNDLES = Path.of("src/main/resources/zander/desk/words");
  private static final Pattern PLACE = Pattern.compile("\\{(\\d)}");

  /** Two words in a row, or a sentence's beginning. */
  private static final Pattern PROSE =
      Pattern.compile("[A-Za-z]{2,} [a-z]{2,}|^[A-Z][a-z]+[.:]? |^[A-Z][a-z]{2,}$");

  /** Files with texts that nobody reads in the window, or that are not ours to translate. */
  private static final Set<String> NOT_OF_THE_WINDOW =
      Set.of(
          // Contents of the demo, and commands of servers.
          "DemoBook.java",
          "SuggestedRules.java",
          "RulesQuestions.java",
          // Names of the process, of fonts, of languages, of keys on the keyboard.
          "ZanderApp.java",
          "ColumnFit.java",
          "RowPainter.java",
          "Languages.java",
          "PairTyping.java",
          "TopBar.java",
          // What is written down, and must be read by every later version.
          "OutcomeWords.java",
          "VaultKey.java",
          "ServerPrompts.java",
          // What other programs say.
          "SignInWords.java",
          "PageWords.java",
          // Formats of times.
          "Texts.java");

  private static SaidWords sources;
  private static final Map<String, Map<String, String>> BUNDLE = new TreeMap<>();

  @BeforeAll
  static void readThem() throws IOException {
    sources = SaidWords.in(SOURCES);
    try (Stream<Path> files = Files.list(BUNDLES)) {
      for (Path file : files.sorted().toList()) {
        Properties texts = new Properties();
        try (Reader reader = Files.newBufferedReader(file)) {
          texts.load(reader);
        }
        Map<String, String> all = new TreeMap<>();
        texts.forEach((key, text) -> all.put((String) key, (String) text));
        BUNDLE.put(file.getFileName().toString().replace(".properties", ""), all);
      }
    }
  }

  @Test
  void whatIsSaidHasATextWithAPlaceForEachValue() {
    assertThat(sources.said).hasSizeGreaterThan(1000);
    for (SaidWords.Said said : sources.said) {
      if (said.values() < 0) {
        continue;
      }
      String own = said.key();
      String text =
          BUNDLE
              .getOrDefault(said.area(), Map.of())
              .getOrDefault(own, BUNDLE.get("common").get(own.substring(own.indexOf('.') + 1)));
      assertThat(text).as("%s in %s.properties", own, said.area()).isNotNull();
      assertThat(places(text)).as("places in %s: %s", own, text).hasSize(said.values());
    }
    for (String thing : sources.counted) {
      assertThat(BUNDLE.get("counted")).containsKeys(thing + ".one", thing + ".many");
    }
  }

  /** A text that nothing says would be translated for nothing. */
  @Test
  void everyTextIsSaid() {
    Set<String> said =
        sources.said.stream()
            .flatMap(one -> Stream.of(one.key(), one.key().substring(one.key().indexOf('.') + 1)))
            .collect(Collectors.toSet());
    Set<String> unsaid = new TreeSet<>();
    BUNDLE.forEach(
        (area, texts) -> {
          if (!area.equals("counted") && !area.equals("phrase")) {
            texts.keySet().stream().filter(key -> !said.contains(key)).forEach(unsaid::add);
          }
        });
    // The pages of the start are said by the names of an enum.
    unsaid.removeIf(key -> key.startsWith("ReachView."));
    assertThat(unsaid).isEmpty();
    assertThat(
            BUNDLE.get("counted").keySet().stream()
                .map(key -> key.substring(0, key.indexOf('.')))
                .collect(Collectors.toSet()))
        .isEqualTo(Set.copyOf(sources.counted));
  }

  @Test
  void whatCoreTellsHasATextWithAPlaceForEachValue() throws Exception {
    Map<String, Integer> told = new TreeMap<>();
    try (Stream<Path> files = Files.list(Path.of("../core/src/main/java/zander/core/phrase"))) {
      for (Path file : files.filter(file -> !file.endsWith("package-info.java")).toList()) {
        String name = file.getFileName().toString().replace(".java", "");
        Class<?> type = Class.forName(Phrase.class.getPackageName() + "." + name);
        if (type.isEnum()) {
          for (Object key : type.getEnumConstants()) {
            told.put(((Phrase.Key) key).id(), ((Phrase.Key) key).places());
          }
        }
      }
    }
    Map<String, Integer> texts = new TreeMap<>();
    BUNDLE.get("phrase").forEach((key, text) -> texts.put(key, places(text).size()));
    assertThat(told).hasSizeGreaterThan(300);
    assertThat(texts).isEqualTo(told);
  }

  @Test
  void noProseIsInTheCode() {
    List<SaidWords.Text> prose =
        sources.texts.stream()
            .filter(one -> !NOT_OF_THE_WINDOW.contains(one.file()))
            .filter(one -> PROSE.matcher(one.text()).find())
            .toList();
    assertThat(prose)
        .as("a text for people goes into a bundle; names of work and first times stay in the code")
        .allMatch(one -> WORK.contains(one.text()), "is a name of work");
  }

  /** Told only to whoever made a mistake in the code, or kept as the name of a first time. */
  private static final Set<String> WORK =
      Set.of(
          "reading drafts",
          "saved in steps",
          "look into",
          "counting what is kept",
          "removing what is kept",
          "reading the allowed commands",
          "nothing is wrong with it",
          "rights of ",
          "the coding of shells",
          "there is no key ",
          "reading what was chosen",
          "writing down what was chosen");

  @Test
  void valuesComeAsTheyAreIntoTheirPlaces() {
    assertThat(Words.fill("{1} of {0}, {file} isn't {a}", "$1 \\ {1}", 8022))
        .isEqualTo("8022 of $1 \\ {1}, {file} isn't {a}");
    assertThat(Words.counted(1, "1", "entry")).isEqualTo("1 entry");
    assertThat(Words.counted(0, "0", "entry")).isEqualTo("0 entries");
  }

  @Test
  void theAreaIsThePackageThatAModelSharesWithItsView() {
    assertThat(Words.area("zander.desk")).isEqualTo("window");
    assertThat(Words.area("zander.desk.view")).isEqualTo("window");
    assertThat(Words.area("zander.desk.view.file")).isEqualTo("file");
    assertThat(Words.area("zander.desk.file.own")).isEqualTo("file");
  }

  private static Set<String> places(String text) {
    return PLACE.matcher(text).results().map(MatchResult::group).collect(Collectors.toSet());
  }
}
