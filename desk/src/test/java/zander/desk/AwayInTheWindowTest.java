package zander.desk;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.Test;
import zander.core.transfer.progress.Progress;
import zander.desk.shell.ShellModel;
import zander.standin.demo.DemoKeys;
import zander.standin.world.Caller;

/** Lines that break and come back, as a person sees them. */
class AwayInTheWindowTest extends ReachInTheWindowFixture {
  @Test
  void aKeptPasswordBringsTheLineBackAndOneThatIsNotKeptIsAskedFor() {
    openLabUploads("desk");
    until("the desk is open", () -> window.desk() != null);
    window.demo().server("lab-box").dropAll();
    until("it is away", () -> window.desk().line().awayProperty().get());
    until("it is back by itself", () -> !window.desk().line().awayProperty().get());
    int seen = window.demo().server("lab-box").passwordsSeen();
    closeDesk();
    window.openServer("lab-uploads");
    until("it is asked for again", () -> window.shownOrNull("#secret") != null);
    assertThat(window.demo().server("lab-box").passwordsSeen()).isEqualTo(seen);
    window.press("#keep-now");
    window.fill("#secret", PASSWORD);
    window.push(KeyCode.ENTER);
    until("the desk is open", () -> window.desk() != null);
    window.demo().server("lab-box").dropAll();
    untilShown("needs you");
    assertThat(window.shownOrNull("#secret")).isNull();
    window.press("#connect-again");
    until("it is asked for", () -> window.shownOrNull("#secret") != null);
    window.fill("#secret", PASSWORD);
    window.push(KeyCode.ENTER);
    until("it is back", () -> !window.desk().line().awayProperty().get());
  }

  @Test
  void aTransferGoesOnAndAShellOffersToStartAgain() throws Exception {
    Path many = Files.createDirectories(window.demo().siteFolder().resolve("many"));
    List<String> expected = new ArrayList<>();
    for (int i = 0; i < 200; i++) {
      expected.add("f" + i);
      Files.writeString(many.resolve("f" + i), "x".repeat(i * 7));
    }
    window.openLevelsWeb();
    ShellModel shell = window.openShell();
    until("it prompts", () -> shell.terminal().screenText().contains("$"));
    window.demo().server("levels-web").faults().setDelay(Duration.ofMillis(4));
    window.choose("#local-table", "many");
    window.push(KeyCode.CONTROL, KeyCode.UP);
    var transfers = window.desk().transfers();
    for (int cut = 1; cut <= 3; cut++) {
      int after = cut * 40;
      until("some are up", () -> filesUp() > after);
      window.demo().server("levels-web").dropAll();
      until("it is away", () -> window.desk().line().awayProperty().get());
      until("it is back", () -> !window.desk().line().awayProperty().get());
    }
    until("it is over", () -> transfers.current().isOver());
    Progress progress = transfers.current().progress();
    assertThat(progress.problems()).isEmpty();
    assertThat(progress.phase()).isEqualTo(Progress.Phase.DONE);
    List<String> there = window.world("levels-web").list(Caller.ROOT, "/srv/levels/site/many");
    assertThat(there).containsExactlyInAnyOrderElementsOf(expected);
    for (int i = 0; i < 200; i++) {
      assertThat(window.stat("/srv/levels/site/many/f" + i).size()).isEqualTo(i * 7L);
    }
    assertThat(shell.endedProperty().get()).contains("gone");
    window.press("#shell-again");
    until("it prompts again", () -> shell.endedProperty().get().isEmpty());
    window.clickOn(window.shown("#terminal"));
    window.write("pwd").push(KeyCode.ENTER);
    until(
        "it is in its folder", () -> shell.terminal().screenText().contains("\n/srv/levels/site"));
  }

  private long filesUp() {
    var current = window.desk().transfers().current();
    return current == null ? 0 : current.progress().files();
  }

  @Test
  void aHostKeyThatChangesWhileAwayStopsTheLine() {
    window.openLevelsWeb();
    window.demo().server("levels-web").setHostKey(DemoKeys.pair("somebody else"));
    window.demo().server("levels-web").dropAll();
    untilShown("has changed");
    assertThat(window.desk().line().tryingProperty().get()).isFalse();
  }
}
