package zander.standin.shell;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import zander.standin.shell.ShellParser.Redirect;
import zander.standin.shell.ShellParser.Simple;
import zander.standin.shell.ShellParser.Step;
import zander.standin.shell.process.Call;
import zander.standin.shell.process.Command;
import zander.standin.shell.process.LineEditor;
import zander.standin.shell.process.UsageError;
import zander.standin.shell.process.Words;
import zander.standin.world.OpenFile;
import zander.standin.world.PosixError;
import zander.standin.world.World;

/** Runs command lines for one login. Pipelines run one command after the other. */
public final class Shell {
  private static final int INTERRUPTED = 130;

  private final Call.Session session;

  public Shell(Call.Session session) {
    this.session = session;
    session.commands = Commands::find;
  }

  /** Runs one command line and returns its exit status. */
  public int run(String line, InputStream in, OutputStream out, OutputStream errors) {
    try {
      int status = session.lastStatus;
      for (Step step : ShellParser.parse(line)) {
        boolean skip =
            (step.joinedBy().equals("&&") && status != 0)
                || (step.joinedBy().equals("||") && status == 0);
        if (skip || session.exiting) {
          continue;
        }
        status = runPipeline(step.pipeline(), in, out, errors);
        session.lastStatus = status;
      }
      return status;
    } catch (UsageError e) {
      print(errors, "sh: " + e.getMessage() + "\n");
      session.lastStatus = e.status();
      return e.status();
    }
  }

  /** Reads and runs lines from the terminal until the login ends. */
  public int interact() throws IOException {
    LineEditor editor = new LineEditor(session.terminal);
    OutputStream out = session.terminal.out();
    while (!session.exiting) {
      session.terminal.setForeground(null);
      Thread.interrupted();
      String line = editor.read(prompt());
      if (line == null) {
        break;
      }
      session.terminal.setForeground(Thread.currentThread());
      run(line, new TypedLines(session.terminal), out, out);
      if (Thread.interrupted()) {
        print(out, "^C\n");
      }
      out.flush();
    }
    return session.lastStatus;
  }

  private String prompt() {
    String home = session.account.home();
    String folder = session.folder;
    String shown =
        folder.equals(home) || folder.startsWith(home + "/")
            ? "~" + folder.substring(home.length())
            : folder;
    String name = session.caller.isRoot() ? "root" : session.account.name();
    return "\033[1;33m"
        + name
        + "@"
        + session.machine.name()
        + "\033[0m:\033[36m"
        + shown
        + "\033[0m"
        + (session.caller.isRoot() ? "# " : "$ ");
  }

  private int runPipeline(
      ShellParser.Pipeline pipeline, InputStream in, OutputStream out, OutputStream errors) {
    int status = 0;
    InputStream from = in;
    for (int i = 0; i < pipeline.commands().size(); i++) {
      boolean last = i == pipeline.commands().size() - 1;
      ByteArrayOutputStream pipe = new ByteArrayOutputStream();
      status = runSimple(pipeline.commands().get(i), from, last ? out : pipe, errors);
      from = new ByteArrayInputStream(pipe.toByteArray());
    }
    return pipeline.negated() ? (status == 0 ? 1 : 0) : status;
  }

  private int runSimple(Simple command, InputStream in, OutputStream out, OutputStream errors) {
    Words words = new Words(session, this::capture);
    List<String> arguments = new ArrayList<>();
    List<String> assignments = new ArrayList<>();
    for (String word : command.words()) {
      if (arguments.isEmpty() && word.matches("(?s)[A-Za-z_][A-Za-z0-9_]*=.*")) {
        assignments.add(word);
      } else {
        arguments.addAll(words.expandAll(List.of(word)));
      }
    }
    for (String assignment : assignments) {
      int equals = assignment.indexOf('=');
      session.variables.put(
          assignment.substring(0, equals), words.expandOne(assignment.substring(equals + 1)));
    }
    try (Streams streams = new Streams(in, out, errors)) {
      for (Redirect redirect : command.redirects()) {
        streams.apply(redirect, words);
      }
      return arguments.isEmpty() ? 0 : call(arguments, streams);
    } catch (PosixError e) {
      print(errors, "sh: " + e.getMessage() + "\n");
      return 1;
    } catch (IOException e) {
      return INTERRUPTED;
    }
  }

  private int call(List<String> arguments, Streams streams) throws IOException {
    Call call = new Call(session, arguments, streams.in, streams.out, streams.errors);
    String name = arguments.get(0);
    Command command = Commands.find(name);
    try {
      if (command == null) {
        print(streams.errors, "sh: " + name + ": not found\n");
        return 127;
      }
      return command.run(call);
    } catch (UsageError e) {
      call.complain(e.getMessage());
      return e.status();
    } catch (PosixError e) {
      return call.complain(e.getMessage());
    } finally {
      call.flush();
    }
  }

  private String capture(String line) {
    ByteArrayOutputStream output = new ByteArrayOutputStream();
    run(line, InputStream.nullInputStream(), output, OutputStream.nullOutputStream());
    return output.toString(StandardCharsets.ISO_8859_1);
  }

  private static void print(OutputStream out, String text) {
    try {
      out.write(text.getBytes(StandardCharsets.ISO_8859_1));
      out.flush();
    } catch (IOException e) {
      // Nobody listens any more.
    }
  }

  /** The three streams of a command, as its redirections leave them. */
  private final class Streams implements AutoCloseable {
    private InputStream in;
    private OutputStream out;
    private OutputStream errors;
    private final List<FileOutput> files = new ArrayList<>();

    Streams(InputStream in, OutputStream out, OutputStream errors) {
      this.in = in;
      this.out = out;
      this.errors = errors;
    }

    void apply(Redirect redirect, Words words) throws IOException {
      String operator = redirect.operator();
      switch (operator) {
        case "2>&1" -> errors = out;
        case "1>&2", ">&2" -> out = errors;
        case ">&1" -> {}
        default -> open(operator, words.expandOne(redirect.word()));
      }
    }

    private void open(String operator, String word) throws IOException {
      if (word.equals("/dev/null")) {
        if (operator.equals("<")) {
          in = InputStream.nullInputStream();
        } else if (operator.startsWith("2")) {
          errors = OutputStream.nullOutputStream();
        } else {
          out = OutputStream.nullOutputStream();
        }
        return;
      }
      World world = session.machine.world();
      String path = word.startsWith("/") ? word : Call.at(session.folder, word);
      if (operator.equals("<")) {
        OpenFile file = world.open(session.caller, path, World.Open.READ);
        in = new ByteArrayInputStream(file.read(0, (int) file.size()));
        return;
      }
      boolean append = operator.endsWith(">>");
      int mode = 0666 & ~session.umask;
      OpenFile file =
          world.open(
              session.caller,
              path,
              new World.Open(false, true, true, session.keepsFiles && !append, !append, mode));
      FileOutput output = new FileOutput(file);
      files.add(output);
      if (operator.startsWith("2")) {
        errors = output;
      } else {
        out = output;
      }
    }

    @Override
    public void close() throws IOException {
      for (FileOutput file : files) {
        file.close();
      }
    }
  }

  /** Appends to a file of the world. */
  private static final class FileOutput extends OutputStream {
    private final OpenFile file;

    FileOutput(OpenFile file) {
      this.file = file;
    }

    @Override
    public void write(int b) throws IOException {
      write(new byte[] {(byte) b}, 0, 1);
    }

    @Override
    public void write(byte[] bytes, int offset, int length) throws IOException {
      file.write(file.size(), bytes, offset, length);
    }
  }
}
