package zander.core.connect.keys;

import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import java.io.IOException;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Assumptions;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import zander.core.connect.keys.KeyFailure.Reason;

/**
 * Keys made here are read by the system's {@code ssh-keygen}, and its keys are read here.
 *
 * <p>Judged: keys that are made, and read | {@code ssh-keygen} | each kind and cipher
 */
class KeyMakerTest {
  private static final Path TOOL = Path.of("/usr/bin/ssh-keygen");

  @TempDir Path folder;

  private static String run(String... command) throws Exception {
    Assumptions.assumeTrue(Files.isExecutable(TOOL), "needs ssh-keygen");
    Process process = new ProcessBuilder(command).redirectErrorStream(true).start();
    String output = new String(process.getInputStream().readAllBytes(), UTF_8);
    assertThat(process.waitFor()).as(output).isZero();
    return output;
  }

  private static Reason refusal(Path file) {
    return catchThrowableOfType(KeyFailure.class, () -> KeyFile.read(file)).reason();
  }

  @Test
  void theSystemsToolReadsKeysMadeHere() throws Exception {
    for (KeyMaker.Kind kind : KeyMaker.Kind.values()) {
      for (String passphrase : new String[] {"", "otter under ïce"}) {
        Path file = folder.resolve(kind + "-" + passphrase.length());
        PublicKeyLine made = KeyMaker.make(kind, "warden desk", passphrase.toCharArray(), file);
        assertThat(run(TOOL.toString(), "-y", "-P", passphrase, "-f", file.toString()))
            .startsWith(made.key().type() + " " + made.key().base64());
        assertThat(run(TOOL.toString(), "-l", "-f", file + ".pub"))
            .contains(made.key().fingerprint())
            .contains("warden desk");
        assertThat(Files.getPosixFilePermissions(file)).hasSize(2);
        KeyFile read = KeyFile.read(file);
        assertThat(read.isLocked()).isEqualTo(!passphrase.isEmpty());
        assertThat(read.publicHalf()).contains(made.key());
        assertThat(KeyMaker.blob(read.open(passphrase.toCharArray()))).isEqualTo(made.key());
      }
    }
  }

  @Test
  void aWrongPassphraseIsTold() throws Exception {
    Path file = folder.resolve("key");
    KeyMaker.make(KeyMaker.Kind.ED25519, "", "otter".toCharArray(), file);
    for (String wrong : new String[] {"stoat", ""}) {
      assertThatThrownBy(() -> KeyFile.read(file).open(wrong.toCharArray()))
          .isInstanceOf(KeyFailure.class)
          .extracting("reason")
          .isEqualTo(Reason.WRONG_PASSPHRASE);
    }
  }

  @Test
  void readsEveryFormAndCipherOfTheSystemsTool() throws Exception {
    String[] forms = {"", "-m PEM", "-m PKCS8", "-Z aes256-cbc", "-Z aes256-gcm@openssh.com"};
    for (String type : new String[] {"ed25519", "ecdsa", "rsa"}) {
      for (String form : forms) {
        Path file = folder.resolve(type + form.replaceAll("[^a-z0-9A-Z]", ""));
        run(
            (TOOL + " -q -t " + type + " -N otter -C c -f " + file + " " + form)
                .strip()
                .split(" "));
        KeyFile key = KeyFile.read(file);
        assertThat(key.isLocked()).as(type + form).isTrue();
        PublicKeyLine open =
            PublicKeyLine.read(file.resolveSibling(file.getFileName() + ".pub")).get();
        assertThat(KeyMaker.blob(key.open("otter".toCharArray())))
            .as(type + form)
            .isEqualTo(open.key());
        assertThatThrownBy(() -> KeyFile.read(file).open("stoat".toCharArray()))
            .as(type + form)
            .isInstanceOf(KeyFailure.class)
            .extracting("reason")
            .isEqualTo(Reason.WRONG_PASSPHRASE);
      }
    }
  }

  @Test
  void nothingIsOverwritten() throws IOException {
    Path file = folder.resolve("key");
    Files.writeString(folder.resolve("key.pub"), "mine");
    assertThatThrownBy(() -> KeyMaker.make(KeyMaker.Kind.ED25519, "", new char[0], file))
        .isInstanceOf(FileAlreadyExistsException.class);
    assertThat(file).doesNotExist();
    assertThat(folder.resolve("key.pub")).hasContent("mine");
  }

  @Test
  void tellsWhatAFileIsInstead() throws IOException {
    Path file = folder.resolve("key");
    KeyMaker.make(KeyMaker.Kind.ED25519, "", new char[0], file);
    String whole = Files.readString(file);
    assertThat(refusal(folder.resolve("none"))).isEqualTo(Reason.MISSING);
    assertThat(refusal(folder)).isEqualTo(Reason.NOT_A_KEY);
    assertThat(refusal(folder.resolve("key.pub"))).isEqualTo(Reason.PUBLIC_HALF);
    Files.setPosixFilePermissions(
        file, java.nio.file.attribute.PosixFilePermissions.fromString("rw-r-----"));
    assertThat(refusal(file)).isEqualTo(Reason.OPEN_TO_OTHERS);
    KeyFile.closeToOthers(file);
    KeyFile.read(file);
    for (String bad :
        new String[] {
          "",
          "river",
          whole.substring(0, whole.length() / 2),
          whole.replace("b3BlbnNzaC1r", "b3BlbnNzaC1s")
        }) {
      Files.writeString(file, bad);
      assertThat(refusal(file)).as(bad).isEqualTo(Reason.NOT_A_KEY);
    }
  }

  @Test
  void hintsAtTheStrengthOfAPassphrase() {
    assertThat(KeyStrength.of("".toCharArray())).isEqualTo(KeyStrength.NONE);
    assertThat(KeyStrength.of("password1".toCharArray())).isEqualTo(KeyStrength.WEAK);
    assertThat(KeyStrength.of("weir under nine quiet stars".toCharArray()))
        .isEqualTo(KeyStrength.STRONG);
  }
}
