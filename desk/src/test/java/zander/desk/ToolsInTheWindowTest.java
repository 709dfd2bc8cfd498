package zander.desk;

import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;

import com.sun.net.httpserver.HttpServer;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.file.Path;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import zander.desk.file.FileModel;
import zander.desk.find.FindModel;
import zander.standin.world.Caller;

/** Finding and replacing, archives, facts and fetching from the web, with keys and mouse. */
class ToolsInTheWindowTest {
  private static final String SITE = "/srv/levels/site";

  @TempDir Path folder;
  private Window window;

  @BeforeEach
  void open() throws Exception {
    window = new Window(folder);
  }

  @AfterEach
  void close() throws Exception {
    window.close();
  }

  @Test
  void findsTextOpensItsLineAndReplacesTheChosen() throws Exception {
    window.openLevelsWeb();
    window.push(KeyCode.CONTROL, KeyCode.F);
    window.until("the sheet is shown", () -> window.shownOrNull("#find-text") != null);
    FindModel find = (FindModel) window.desk().currentProperty().get();
    window.put("#find-names", "station-00*.html");
    window.put("#find-text", "station");
    window.press("#find-now");
    window.until("it is found", () -> find.outcomeProperty().get().contains("by the server"));
    int lines = find.found().size();
    assertThat(lines).isGreaterThanOrEqualTo(9);
    FindModel.Found first = find.found().get(0);
    Window.inWindow(
        () -> {
          find.open(first);
          return null;
        });
    window.until("it is open", () -> window.desk().currentProperty().get() instanceof FileModel);
    FileModel file = (FileModel) window.desk().currentProperty().get();
    assertThat(file.path()).isEqualTo(first.path());
    assertThat(file.goal().lineProperty().get()).isEqualTo(first.line());
    Window.inWindow(
        () -> {
          window.desk().currentProperty().set(find);
          return null;
        });
    // Owned by deploy: warden may not keep the owner, so these are told and stay as they are.
    window.put("#find-replacement", "gauge");
    window.press("#find-propose");
    window.until("each is shown", () -> find.proposingProperty().get());
    window.press("#choose-none");
    window.press("#find-replace");
    assertThat(find.proposingProperty().get()).as("nothing was chosen").isTrue();

    window.put("#find-names", "contact.html");
    window.put("#find-text", "Riverwatch");
    window.press("#find-now");
    window.until("it is found", () -> !find.found().isEmpty() && !find.busyProperty().get());
    window.put("#find-replacement", "Riverwatch North");
    window.press("#find-propose");
    window.until("each is shown", () -> find.proposingProperty().get());
    int places = find.found().size();
    Window.inWindow(
        () -> {
          find.found().get(0).place().chosen().set(false);
          return null;
        });
    window.press("#find-replace");
    window.until("it is done", () -> find.outcomeProperty().get().contains("changed"));
    String now = window.content(SITE + "/contact.html");
    assertThat(now.split("Riverwatch North", -1)).hasSize(places);
    assertThat(now).contains("Riverwatch");
  }

  @Test
  void packsLooksUnpacksAndTellsFacts() throws Exception {
    window.openLevelsWeb();
    window.choose("#server-table", "uploads", "robots.txt");
    window.push(KeyCode.ALT, KeyCode.P);
    window.answer("pack", "pictures.tar.gz");
    window.until("it is packed", () -> window.rows().contains("pictures.tar.gz"));
    window.choose("#server-table", "pictures.tar.gz");
    window.push(KeyCode.ALT, KeyCode.U);
    window.press("#choice-unpack");
    window.until("it is unpacked", () -> window.rows().contains("pictures"));
    assertThat(window.content(SITE + "/pictures/robots.txt"))
        .isEqualTo(window.content(SITE + "/robots.txt"));
    window.choose("#server-table", "robots.txt");
    window.push(KeyCode.ALT, KeyCode.ENTER);
    window.until(
        "the facts are told",
        () -> {
          var asked = window.desk().folder().questionProperty().get();
          return asked != null && asked.facts().size() == 2;
        });
    var fact = window.desk().folder().questionProperty().get().facts().get(1);
    assertThat(fact.coming()).startsWith("text, UTF-8, LF").contains("bytes");
    assertThat(fact.there()).matches("[0-9a-f]{64}");
  }

  @Test
  void fetchesFromTheWebAndChecksTheSum() throws Exception {
    HttpServer web =
        HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
    byte[] content = "level,2.48\n".repeat(1000).getBytes(UTF_8);
    web.createContext(
        "/levels.csv",
        exchange -> {
          exchange.sendResponseHeaders(200, content.length);
          exchange.getResponseBody().write(content);
          exchange.close();
        });
    web.start();
    try {
      String address = "http://127.0.0.1:" + web.getAddress().getPort() + "/levels.csv";
      window.openLevelsWeb();
      window.push(KeyCode.ALT, KeyCode.W);
      window.until("it is asked", () -> window.shownOrNull("#strip-address") != null);
      window.put("#strip-address", address);
      window.put("#strip-sum", "0".repeat(64));
      window.press("#choice-fetch");
      window.until(
          "the wrong sum is told",
          () -> {
            var asked = window.desk().folder().questionProperty().get();
            return asked != null && asked.said().detail().contains("not the one given");
          });
      assertThat(window.exists(SITE + "/levels.csv")).isFalse();
      window.push(KeyCode.ALT, KeyCode.W);
      window.until("it is asked", () -> window.shownOrNull("#strip-address") != null);
      window.put("#strip-address", address);
      window.press("#choice-fetch");
      window.until("it is there", () -> window.rows().contains("levels.csv"));
      assertThat(window.stat(SITE + "/levels.csv").size()).isEqualTo(content.length);
      for (String name : window.world("levels-web").list(Caller.ROOT, SITE)) {
        assertThat(name).doesNotContain(".zander-");
      }
    } finally {
      web.stop(0);
    }
  }
}
