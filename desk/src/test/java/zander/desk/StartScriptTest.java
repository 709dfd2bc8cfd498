package zander.desk;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.nio.file.attribute.PosixFilePermissions;
import java.time.Instant;
import java.util.List;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The start script, with a Maven and a Java that only say what they were asked. */
class StartScriptTest {
  private static final Path SCRIPT = Path.of("..", "zander");

  @TempDir Path folder;
  private Path checkout;
  private Path programs;
  private Path asked;

  @BeforeEach
  void make() throws Exception {
    programs = Files.createDirectories(folder.resolve("programs"));
    asked = folder.resolve("asked");
    // Writes what the real one would: the classes of the modules of this checkout.
    program(
        "mvn",
        "echo \"$*\" >> "
            + asked
            + "; mkdir -p desk/target; echo \"$PWD/core/target/classes\" > desk/target/classpath.part");
    program("java", "echo \"$*\"");
    checkout = checkout("one");
  }

  private void program(String name, String body) throws Exception {
    Path file = programs.resolve(name);
    Files.writeString(file, "#!/bin/sh\n" + body + "\n");
    Files.setPosixFilePermissions(file, PosixFilePermissions.fromString("rwx------"));
  }

  private Path checkout(String name) throws Exception {
    Path made = folder.resolve(name);
    for (String module : List.of("core", "standin", "desk")) {
      Path source = Files.createDirectories(made.resolve(module + "/src/main/java"));
      Files.writeString(source.resolve("A.java"), "class A {}");
      Files.writeString(made.resolve(module + "/pom.xml"), "<project/>");
    }
    Files.writeString(made.resolve("pom.xml"), "<project/>");
    Files.copy(SCRIPT, made.resolve("zander"));
    return made;
  }

  private static Path classpath(Path where) {
    return where.resolve("desk/target/classpath.txt");
  }

  /** Where a window cannot be shown the script ends after the build, which is what counts here. */
  private void start(Path where) throws Exception {
    ProcessBuilder builder =
        new ProcessBuilder("/bin/sh", where.resolve("zander").toString(), "demo")
            .redirectErrorStream(true);
    builder.environment().put("PATH", programs + ":" + System.getenv("PATH"));
    builder.environment().put("DISPLAY", ":none");
    Process process = builder.start();
    process.getInputStream().readAllBytes();
    assertThat(process.waitFor(30, TimeUnit.SECONDS)).isTrue();
  }

  private int timesAsked() throws Exception {
    return Files.exists(asked) ? Files.readAllLines(asked).size() : 0;
  }

  @Test
  void asksMavenOnlyWhenSomethingChanged() throws Exception {
    start(checkout);
    assertThat(classpath(checkout)).hasContent(checkout.toRealPath() + "/core/target/classes");
    assertThat(timesAsked()).isEqualTo(1);
    assertThat(Files.readString(asked)).doesNotContain("install");
    start(checkout);
    assertThat(timesAsked()).isEqualTo(1);

    // Another checkout has its own build, whatever this one did.
    Path other = checkout("other");
    start(other);
    assertThat(classpath(other)).hasContent(other.toRealPath() + "/core/target/classes");
    assertThat(timesAsked()).isEqualTo(2);

    Files.setLastModifiedTime(
        checkout.resolve("core/src/main/java/A.java"),
        FileTime.from(Instant.now().plusSeconds(60)));
    start(checkout);
    assertThat(timesAsked()).isEqualTo(3);

    Path moved = Files.move(other, folder.resolve("moved"));
    start(moved);
    assertThat(classpath(moved)).hasContent(moved.toRealPath() + "/core/target/classes");
    assertThat(timesAsked()).isEqualTo(4);
  }
}
