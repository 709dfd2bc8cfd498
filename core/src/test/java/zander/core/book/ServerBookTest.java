package zander.core.book;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import zander.core.connect.address.ServerAddress;
import zander.core.connect.channel.WayUp;
import zander.core.connect.signin.Hop;
import zander.core.phrase.InputPhrase;

class ServerBookTest {
  @TempDir Path folder;
  private Path path;
  private BookFile file;

  @BeforeEach
  void start() {
    path = folder.resolve("zander/servers.json");
    file = new BookFile(path);
  }

  private static ServerEntry entry(String name) {
    return ServerEntry.of(
        name, new ServerAddress("warden", name + ".example", 22), SignIn.byKey(".ssh/warden"));
  }

  @Test
  void keepsEverythingAnEntryHas() throws IOException {
    ServerEntry full =
        new ServerEntry(
            "levels-web",
            "public",
            Mark.LIVE,
            "warden",
            "levels.example",
            2222,
            List.of("gate", "deploy@inner.example"),
            new SignIn(".ssh/warden", ".ssh/warden-cert.pub", true, true),
            "/srv/levels/site",
            "riverwatch/site",
            "the public site",
            List.of(MarkedFolder.of("Site", "/srv/levels", "site", "https://levels.example/")),
            "web",
            Map.of("root", WayUp.SU, "web", WayUp.SUDO),
            "nc -x relay levels.example 2222");
    file.change(book -> book.with(full).with(entry("gate")));
    assertThat(file.read().problem()).isNull();
    assertThat(file.read().book().servers()).containsExactly(full, entry("gate"));
    assertThat(path).content().contains("\"name\" : \"levels-web\"").doesNotContain("null");
  }

  @Test
  void tellsWhereADamagedFileIsDamaged() throws IOException {
    Files.createDirectories(path.getParent());
    Files.writeString(path, "{\n  \"servers\": [\n    {\"name\": \"gate\",\n");
    assertThat(file.read().problem()).isEqualTo(InputPhrase.BOOK_DAMAGED_AT_LINE.of(4, 1));
    Files.writeString(path, "{\"servers\": [{\"name\": \"gate\", \"port\": \"x\"}]}");
    assertThat(file.read().problem()).isEqualTo(InputPhrase.BOOK_DAMAGED_IN.of("servers[0].port"));
  }

  /** A file that a person, or another version, wrote: what is missing is as usual. */
  @Test
  void readsWhatIsMissingAsUsualAndKeepsWhatItDoesNotKnow() throws IOException {
    Files.createDirectories(path.getParent());
    Files.writeString(
        path,
        """
        {"version": 2, "theme": "dusk", "servers": [
          {"name": "levels-web", "account": "warden", "host": "levels.example",
           "mark": "ABROAD", "pager": "river", "ways": {"root": "LADDER", "web": "DOAS"}, "signIn": {"smartcard": 3},
           "folders": [{"name": "Site", "path": "/srv/levels", "colour": "green"}]}]}
        """);
    ServerEntry entry = file.read().book().servers().get(0);
    assertThat(entry.port()).isEqualTo(22);
    assertThat(entry.mark()).isEqualTo(Mark.NONE);
    assertThat(entry.ways()).isEqualTo(Map.of("web", WayUp.DOAS));
    assertThat(entry.signIn()).isEqualTo(new SignIn(null, null, true, true));
    file.change(book -> book.with(entry("gate")));
    assertThat(path)
        .content()
        .contains("\"theme\" : \"dusk\"", "\"pager\" : \"river\"", "\"smartcard\" : 3", "green");
    assertThat(file.read().book().servers()).hasSize(2).contains(entry);
  }

  @Test
  void removesWithAWayBack() throws IOException {
    file.change(book -> book.with(entry("gate")).with(entry("lab-box")));
    file.change(book -> book.without("gate"));
    ServerBook book = file.read().book();
    assertThat(book.named("gate")).isEmpty();
    assertThat(book.removed()).containsExactly(entry("gate"));
    file.change(now -> now.putBack(entry("gate")));
    assertThat(file.read().book().named("gate")).contains(entry("gate"));
    assertThat(file.read().book().removed()).isEmpty();
  }

  @Test
  void namesStayUniqueAndJumpsFollowThem() {
    ServerBook book =
        ServerBook.of(List.of(entry("gate"), entry("store").withJump(List.of("gate"))));
    assertThat(book.with(entry("gate")).servers()).extracting(ServerEntry::name).contains("gate 2");
    assertThat(book.with("gate", entry("door")).named("store").orElseThrow().jump())
        .containsExactly("door");
    assertThatThrownBy(() -> book.with("gate", entry("store"))).hasMessageContaining("store");
  }

  @Test
  void findsByAnyWord() {
    ServerEntry store = entry("readings-store").withGroup("inner").withMark(Mark.LIVE);
    assertThat(store.fits("inner live")).isTrue();
    assertThat(store.fits("warden@read")).isTrue();
    assertThat(store.fits("inner trial")).isFalse();
  }

  @Test
  void aBookCutInHalfOrNewerIsKeptAside() throws IOException {
    file.change(book -> book.with(entry("gate")));
    String whole = Files.readString(path);
    for (String bad :
        List.of(
            whole.substring(0, whole.length() / 2),
            whole.replace("\"version\" : 2", "\"version\" : 9"),
            "[]",
            "")) {
      Files.writeString(path, bad);
      assertThat(file.read().problem()).isNotNull();
      assertThat(path).content().isEqualTo(bad);
      file.change(book -> book.with(entry("lab-box")));
      assertThat(file.read().book().servers()).containsExactly(entry("lab-box"));
      try (Stream<Path> all = Files.list(path.getParent())) {
        assertThat(all.filter(one -> one.toString().contains(".kept-")))
            .anyMatch(one -> bad.equals(read(one)));
      }
    }
  }

  private static String read(Path path) {
    try {
      return Files.readString(path);
    } catch (IOException e) {
      throw new IllegalStateException(e);
    }
  }

  @Test
  void readsVersion1() throws IOException {
    Files.createDirectories(path.getParent());
    Files.writeString(
        path,
        "{\"version\":1,\"servers\":[{\"name\":\"gate\",\"account\":\"warden\",\"host\":\"g.example\","
            + "\"port\":22,\"keyFile\":\".ssh/k\",\"password\":true,\"mark\":\"NONE\"}]}");
    ServerEntry gate = file.read().book().named("gate").orElseThrow();
    assertThat(gate.signIn()).isEqualTo(new SignIn(".ssh/k", null, false, true));
  }

  @Test
  void routesGoThroughEveryJumpHost() {
    ServerBook book =
        ServerBook.of(
            List.of(
                entry("gate").withJump(List.of("deploy@outer.example:2200")),
                entry("store").withJump(List.of("gate")),
                entry("a").withJump(List.of("b")),
                entry("b").withJump(List.of("a"))));
    JumpRoutes routes = new JumpRoutes(name -> book.named(name).orElse(null), folder);
    assertThat(routes.to(book.named("store").orElseThrow()))
        .extracting(Hop::address)
        .extracting(ServerAddress::toString)
        .containsExactly(
            "deploy@outer.example:2200", "warden@gate.example", "warden@store.example");
    assertThat(routes.to(book.named("store").orElseThrow()).get(2).ways().keyFile())
        .isEqualTo(folder.resolve(".ssh/warden"));
    assertThatThrownBy(() -> routes.to(book.named("a").orElseThrow()))
        .hasMessageContaining("JUMPS_IN_A_CIRCLE");
    assertThatThrownBy(() -> routes.to(entry("x").withJump(List.of("nowhere"))))
        .hasMessageContaining("nowhere");
  }
}
