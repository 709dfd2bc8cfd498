package zander.suite.term;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.Closeable;
import java.io.IOException;
import java.io.RandomAccessFile;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import zander.core.term.Terminal;

/**
 * What programs write for {@code xterm-256color}, shown by our terminal and by another.
 *
 * <p>Judged: the screens of vim, nano, less, htop, top, dialog, man, git log, ls, tmux and a
 * progress line as apt has it | {@code tmux} | 22 screens
 */
class ProgramsJudgeTest {
  private static final long PATIENCE = 60_000_000_000L;

  @TempDir Path folder;

  @BeforeEach
  void writeFiles() throws Exception {
    StringBuilder text = new StringBuilder("# Gauges of the river\n");
    for (int i = 1; i < 200; i++) {
      text.append("gauge ").append(i).append(" = ").append(i * 37 % 101).append(" cm  # 水位\n");
    }
    Files.writeString(folder.resolve("gauges.conf"), text);
    Files.writeString(
        folder.resolve("gauges.py"),
        "import re\n\ndef level(text):\n    \"\"\"Reads a gauge.\"\"\"\n"
            + "    found = re.match(r'(\\d+) cm', text)\n    return int(found[1])  # TODO é\n");
  }

  /** A program in a pane of tmux, and ours beside it, which is fed what the pane was. */
  private final class Side implements Closeable {
    private final TmuxJudge judge;
    private final Terminal ours = TerminalJudgeTest.terminal();
    private final RandomAccessFile written;
    private final byte[] buffer = new byte[8192];

    Side(String command) throws Exception {
      Path made = Files.createTempDirectory(folder, "side");
      Path stream = Files.createFile(made.resolve("stream"));
      Path script = made.resolve("run.sh");
      Files.writeString(script, "read go\ncd " + folder + "\nexec " + command + "\n");
      judge =
          new TmuxJudge(
              made, "sh " + script, "HOME=/nonexistent", "LESSHISTFILE=-", "LC_ALL=C.UTF-8");
      written = new RandomAccessFile(stream.toFile(), "r");
      judge.run("pipe-pane", "-o", "exec cat >> " + stream);
      judge.keys("Enter");
    }

    void keys(String... names) throws Exception {
      judge.keys(names);
    }

    /** Waits until the screen has a text, and ours is the same. */
    void looksTheSame(String text) throws Exception {
      long end = System.nanoTime() + PATIENCE;
      String difference;
      do {
        for (int count; (count = written.read(buffer)) > 0; ) {
          ours.feed(buffer, 0, count);
        }
        difference = difference(judge.look(), text);
      } while (!difference.isEmpty() && System.nanoTime() < end);
      assertThat(difference).isEmpty();
      keepForLooking();
    }

    private String difference(TmuxJudge.Seen theirs, String text) {
      List<String> other = rows(theirs.rows());
      if (other.stream().noneMatch(row -> row.replaceAll("\\{[^}]*}", "").contains(text))) {
        return "there is no " + text + " on " + String.join("\n", other);
      }
      return ours.look(
          screen -> {
            List<List<StyledChar>> all = new ArrayList<>();
            for (int y = 0; y < TmuxJudge.ROWS; y++) {
              all.add(StyledChar.of(screen.row(y)));
            }
            List<String> mine = rows(all);
            for (int y = 0; y < TmuxJudge.ROWS; y++) {
              if (!mine.get(y).equals(other.get(y))) {
                return "row " + y + "\n ours   " + mine.get(y) + "\n theirs " + other.get(y);
              }
            }
            String at = screen.cursorX() + "," + screen.cursorY();
            String place = Math.min(79, theirs.cursorX()) + "," + theirs.cursorY();
            return at.equals(place) ? "" : "cursor: ours " + at + ", theirs " + place;
          });
    }

    /** What was written for each screen, for somebody who wants to look at it. */
    private void keepForLooking() throws IOException {
      String to = System.getProperty("recordings", "");
      if (!to.isEmpty()) {
        written.seek(0);
        byte[] all = new byte[(int) written.length()];
        written.readFully(all);
        Files.write(Files.createTempFile(Path.of(to), "stream", ""), all);
      }
    }

    @Override
    public void close() throws IOException {
      judge.close();
      written.close();
    }
  }

  /** Grounds of cells at the end that nothing was written to are in no capture. */
  private static List<String> rows(List<List<StyledChar>> rows) {
    List<String> all = new ArrayList<>();
    for (List<StyledChar> row : rows) {
      int end = row.size();
      while (end > 0 && row.get(end - 1).codePoint() == ' ') {
        end--;
      }
      all.add(row.subList(0, end).stream().map(Object::toString).collect(Collectors.joining()));
    }
    return all;
  }

  @Test
  void vim() throws Exception {
    try (Side side = new Side("vim -u NONE -N --cmd 'syntax on' --cmd 'set nu hls' gauges.py")) {
      side.looksTheSame("import re");
      side.keys("/", "text", "Enter");
      side.looksTheSame("text");
      side.keys(":", "split gauges.conf", "Enter");
      side.looksTheSame("gauge 3 ");
      side.keys("C-f", "d", "d", "O", "Hello", "Escape");
      side.looksTheSame("Hello");
      side.keys(":", "q!", "Enter");
      side.looksTheSame("import re");
    }
  }

  @Test
  void nano() throws Exception {
    try (Side side = new Side("nano gauges.conf")) {
      side.looksTheSame("Gauges of the river");
      side.keys("PageDown", "PageDown", "C-k", "new line");
      side.looksTheSame("new line");
    }
  }

  @Test
  void less() throws Exception {
    try (Side side = new Side("less -R -N gauges.conf")) {
      side.looksTheSame("Gauges of the river");
      side.keys("Space", "k", "/", "gauge 7", "Enter");
      side.looksTheSame("gauge 7");
      side.keys("G", "b");
      side.looksTheSame("gauge 160");
    }
  }

  @Test
  void processLists() throws Exception {
    try (Side side = new Side("htop -d 30")) {
      side.looksTheSame("Load average");
      side.keys("F2");
      side.looksTheSame("Setup");
    }
    try (Side side = new Side("top -d 3")) {
      side.looksTheSame("Tasks:");
      side.keys("z", "x");
      side.looksTheSame("Tasks:");
    }
  }

  @Test
  void dialogs() throws Exception {
    String boxes = "--menu 'Which gauge?' 12 40 4 1 'Long Reach' 2 'Mill Weir' 3 'Old Bridge'";
    try (Side side = new Side("dialog --colors --title Riverwatch " + boxes)) {
      side.looksTheSame("Mill Weir");
      side.keys("Down", "Tab");
      side.looksTheSame("Cancel");
    }
  }

  @Test
  void colouredListings() throws Exception {
    Path file = Files.writeString(folder.resolve("list.sh"), "ls -l --color=always /etc /dev\n");
    try (Side side = new Side("sh -c 'sh " + file + "; echo end; exec sleep 1000'")) {
      side.looksTheSame("end");
    }
  }

  @Test
  void pagesOfTheManual() throws Exception {
    Path page = folder.resolve("gauge.1");
    Files.writeString(
        page,
        ".TH GAUGE 1\n.SH NAME\ngauge \\- says how high the river is\n.SH SYNOPSIS\n.B gauge\n"
            + "[\\fI\\-n station\\fR]\n.SH DESCRIPTION\nSays it in\n.I centimetres\nof water.\n");
    try (Side side = new Side("man -l " + page)) {
      side.looksTheSame("DESCRIPTION");
    }
  }

  @Test
  void tmuxInside() throws Exception {
    Path rules = folder.resolve("inner.conf");
    Files.writeString(
        rules,
        "set -g status-right ''\nset -g status-interval 0\n"
            + "set -g default-command 'cat gauges.py; exec sleep 1000'\n");
    String inner = "tmux -S " + folder.resolve("inner") + " -f " + rules + " new -x 80 -y 24 ";
    try (Side side = new Side("env -u TMUX " + inner + "'less gauges.conf'")) {
      side.looksTheSame("gauge 3 ");
      side.keys("C-b", "%");
      side.looksTheSame("import re");
      side.keys("C-b", "\"");
      side.looksTheSame("Reads a gauge");
      side.keys("C-b", ":");
      side.looksTheSame(":");
      side.keys("kill-server");
      side.looksTheSame("kill-server");
    } finally {
      // The one inside does not end with the one around it.
      String socket = folder.resolve("inner").toString();
      new ProcessBuilder("tmux", "-S", socket, "kill-server").start().waitFor();
    }
  }

  /** The line at the bottom that stays while packages go by above it, as apt draws it. */
  @Test
  void progressBelowTheText() throws Exception {
    String script =
        "printf '\\n\\0337\\033[0;23r\\0338\\033[1A';"
            + " for i in $(seq 60); do echo Unpacking gauge-$i;"
            + " printf '\\0337\\033[24;0f\\033[42m\\033[30mProgress: [%3d%%]\\033[49m\\033[39m"
            + " [####]\\0338' $i; done; printf '\\0337\\033[0;24r\\033[24;0f\\033[K\\0338'";
    Path file = Files.writeString(folder.resolve("progress.sh"), script + "; exec sleep 1000\n");
    try (Side side = new Side("sh " + file)) {
      side.looksTheSame("Unpacking gauge-60");
      String kept =
          side.ours.look(
              screen -> {
                StringBuilder text = new StringBuilder();
                for (int i = 0; i < screen.scrollback().count(); i++) {
                  text.append(screen.scrollback().row(i, 80).text()).append('\n');
                }
                return text.toString();
              });
      assertThat(kept).contains("gauge-1\n").contains("gauge-30\n");
    }
  }

  @Test
  void commits() throws Exception {
    String git = "git -c user.name=Warden -c user.email=warden@riverwatch.example ";
    String steps =
        "git init -q repo; cd repo; for i in 1 2 3; do echo $i > f; git add f; "
            + git
            + "commit -qm \"Raise gauge $i\"; done; "
            + "exec git -c color.ui=always -c core.pager='less -R' log --graph --stat";
    Path file = Files.writeString(folder.resolve("log.sh"), steps + "\n");
    try (Side side = new Side("sh " + file)) {
      side.looksTheSame("Raise gauge 3");
      side.keys("Space");
      side.looksTheSame("Raise gauge 1");
    }
  }
}
