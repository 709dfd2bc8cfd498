package zander.core.transfer.local;

import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.google.common.jimfs.Configuration;
import com.google.common.jimfs.Jimfs;
import com.google.common.jimfs.PathNormalization;
import java.io.IOException;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.FileSystem;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import zander.core.files.FileKind;
import zander.core.files.WireName;
import zander.core.phrase.TransferPhrase;
import zander.core.rights.Mode;
import zander.core.transfer.endpoint.Endpoint;
import zander.core.transfer.endpoint.SmallFile;
import zander.core.transfer.endpoint.Target;
import zander.core.transfer.endpoint.TransferItem;
import zander.core.transfer.endpoint.TreeEntry;
import zander.core.work.Cancellation;

class LocalEndpointTest {
  @TempDir Path folder;
  private LocalEndpoint side;

  @BeforeEach
  void start() throws IOException {
    side = new LocalEndpoint(Files.createDirectory(folder.resolve("in")));
  }

  private static TransferItem item(String to, int mode) {
    TreeEntry node = new TreeEntry("x", FileKind.FILE, 3, 0, new Mode(mode), null, "");
    return new TransferItem("x", to, node, null, false, new Mode(mode), 0);
  }

  private static TransferItem link(String to, String target, boolean replaces) {
    TreeEntry node = new TreeEntry("x", FileKind.LINK, 0, 0, new Mode(0777), target, "");
    return new TransferItem("x", to, node, replaces ? node : null, false, null, -1);
  }

  private Path at(String name) {
    return folder.resolve("in").resolve(name);
  }

  @ParameterizedTest
  @ValueSource(strings = {"..", "../out", "a/../../out", "/etc/out", "a//b", ".", "nul\0"})
  void writesNothingOutsideItself(String path) throws IOException {
    Files.createDirectories(at("a"));
    assertThatThrownBy(() -> side.create(item(path, 0644), null))
        .isInstanceOf(Endpoint.NameNotPossible.class);
    assertThat(side.makeFolders(List.of(item(path, 0755))))
        .singleElement()
        .isInstanceOf(Endpoint.NameNotPossible.class);
    assertThatThrownBy(() -> side.makeLink(link(path, "x", false)))
        .isInstanceOf(Endpoint.NameNotPossible.class);
    assertThat(folder.resolve("out")).doesNotExist();
  }

  @Test
  void saysWhichNamesThisComputerCannotHold() {
    assertThatThrownBy(() -> side.create(item("\u00ff\u00fe", 0644), null))
        .isInstanceOfSatisfying(
            Endpoint.NameNotPossible.class,
            e -> assertThat(e.phrase()).isEqualTo(TransferPhrase.NAME_NOT_UTF8.of("\\xff\\xfe")));
  }

  @ParameterizedTest
  @ValueSource(ints = {0640, 0600, 0400, 0666, 04755, 0200})
  void aFileIsNeverOpenToMoreThanItWillBe(int bits) throws Exception {
    try (Target.Incoming incoming = side.create(item("secret.key", bits), null)) {
      incoming.write("abc".getBytes(UTF_8), 0, 3);
      try (var files = Files.list(folder.resolve("in"))) {
        assertThat(files.toList())
            .singleElement()
            .satisfies(
                part ->
                    assertThat((int) Files.getAttribute(part, "unix:mode") & 077 & ~bits).isZero());
      }
      assertThat(at("secret.key")).doesNotExist();
      incoming.arrive(1_600_000_000, null);
    }
    assertThat(at("secret.key")).hasContent("abc");
    assertThat(side.look("secret.key").mode())
        .as("no set-user-ID")
        .isEqualTo(new Mode(bits & 0777));
    assertThat(side.look("secret.key").modified()).isEqualTo(1_600_000_000);
  }

  @Test
  void whatDoesNotArriveLeavesNothing() throws Exception {
    Files.writeString(at("level.txt"), "old");
    try (Target.Incoming incoming = side.create(item("level.txt", 0644), null)) {
      incoming.write("half".getBytes(UTF_8), 0, 4);
    }
    assertThat(at("level.txt")).hasContent("old");
    Target.Incoming late = side.create(item("level.txt", 0644), null);
    assertThatThrownBy(() -> late.arrive(0, null)).isInstanceOf(FileAlreadyExistsException.class);
    late.close();
    try (var files = Files.list(folder.resolve("in"))) {
      assertThat(files).hasSize(1);
    }
  }

  /** Two names that are one file there: the second must not take the first one's place. */
  @ParameterizedTest
  @ValueSource(booleans = {true, false})
  void namesThatDifferInCaseAloneDoNotReplaceEachOther(boolean tellsCase) throws Exception {
    Configuration disk = Configuration.unix().toBuilder().setAttributeViews("posix").build();
    if (!tellsCase) {
      disk =
          disk.toBuilder().setNameCanonicalNormalization(PathNormalization.CASE_FOLD_ASCII).build();
    }
    try (FileSystem files = Jimfs.newFileSystem(disk)) {
      LocalEndpoint there = new LocalEndpoint(files.getPath("/work"));
      assertThat(there.makeFolders(List.of(item("site", 0755)))).containsOnlyNulls();
      List<SmallFile> load = new ArrayList<>();
      for (String name : List.of("site/readme", "site/README", "site/index")) {
        load.add(new SmallFile(item(name, 0644)));
        load.get(load.size() - 1).read(name.getBytes(UTF_8), 0);
      }
      there.deliver(load, () -> {}, new Cancellation());
      assertThat(Files.readString(files.getPath("/work/site/readme"))).isEqualTo("site/readme");
      assertThat(load.get(1).arrived).isEqualTo(tellsCase);
      assertThat(load.get(2).arrived).isTrue();
      if (!tellsCase) {
        assertThat(there.why(load.get(1).failure)).isEqualTo(TransferPhrase.TAKEN_HERE.of());
      }
    }
  }

  @Test
  void replacesLinksAndTakesTheLongestNames() throws Exception {
    side.makeLink(link("today", "a", false));
    side.makeLink(link("today", "nowhere ünit".replace("ü", WireName.fromText("ü")), true));
    assertThat(side.look("today").kind()).isEqualTo(FileKind.LINK);
    assertThat(WireName.toText(side.look("today").target())).isEqualTo("nowhere ünit");
    String longest = WireName.fromText("ü".repeat(127) + "x");
    try (Target.Incoming incoming = side.create(item(longest, 0600), null)) {
      incoming.arrive(0, null);
    }
    assertThat(side.look(longest)).isNotNull();
    assertThat(side.look("none")).isNull();
  }
}
