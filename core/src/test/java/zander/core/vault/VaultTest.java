package zander.core.vault;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class VaultTest {
  private static final char[] MASTER = "weir under nine stars".toCharArray();

  @TempDir Path folder;

  private VaultFailure.Reason refusal(Path file, char[] master) {
    return catchThrowableOfType(VaultFailure.class, () -> Vault.open(file, master)).reason();
  }

  @Test
  void keepsSecretsSealed() throws IOException {
    Path file = folder.resolve("vault");
    try (Vault vault = Vault.create(file, MASTER)) {
      vault.put("password warden@gate", "heron-at-dusk".toCharArray());
      vault.put("passphrase /k", "ötter →".toCharArray());
      vault.put("gone", "x".toCharArray());
      vault.remove("gone");
    }
    byte[] bytes = Files.readAllBytes(file);
    String text = new String(bytes, StandardCharsets.ISO_8859_1);
    assertThat(text).doesNotContain("heron").doesNotContain("warden").doesNotContain("weir");
    assertThat(Files.getPosixFilePermissions(file)).hasSize(2);
    try (Vault vault = Vault.open(file, MASTER)) {
      assertThat(vault.names()).containsExactly("passphrase /k", "password warden@gate");
      assertThat(vault.get("passphrase /k")).isEqualTo("ötter →".toCharArray());
      assertThat(vault.get("gone")).isNull();
    }
    assertThatThrownBy(() -> Vault.create(file, MASTER))
        .isInstanceOf(FileAlreadyExistsException.class);
  }

  @Test
  void everyWriteLooksDifferent() throws IOException {
    Path file = folder.resolve("vault");
    try (Vault vault = Vault.create(file, MASTER)) {
      vault.put("a", "same".toCharArray());
      byte[] before = Files.readAllBytes(file);
      vault.put("a", "same".toCharArray());
      byte[] after = Files.readAllBytes(file);
      assertThat(Arrays.copyOfRange(after, 60, after.length))
          .isNotEqualTo(Arrays.copyOfRange(before, 60, before.length));
    }
  }

  @Test
  void tellsAWrongPassphraseFromDamage() throws IOException {
    Path file = folder.resolve("vault");
    try (Vault vault = Vault.create(file, MASTER)) {
      vault.put("a", "b".toCharArray());
    }
    assertThat(refusal(file, "weir".toCharArray())).isEqualTo(VaultFailure.Reason.WRONG_PASSPHRASE);
    byte[] whole = Files.readAllBytes(file);
    // A changed bit anywhere behind the parameters is seen: salt, nonce, content, seal.
    for (int at = 24; at < whole.length; at += 9) {
      byte[] bad = whole.clone();
      bad[at] ^= 1;
      Files.write(file, bad);
      assertThat(refusal(file, MASTER)).isEqualTo(VaultFailure.Reason.WRONG_PASSPHRASE);
    }
    Files.write(file, Arrays.copyOf(whole, 30));
    assertThat(refusal(file, MASTER)).isEqualTo(VaultFailure.Reason.DAMAGED);
    byte[] newer = whole.clone();
    newer[15] = 9;
    Files.write(file, newer);
    assertThat(refusal(file, MASTER)).isEqualTo(VaultFailure.Reason.NEWER);
    Files.writeString(file, "");
    assertThat(refusal(file, MASTER)).isEqualTo(VaultFailure.Reason.DAMAGED);
  }

  @Test
  void twoProgramsLoseNothingOfEachOther() throws Exception {
    Path file = folder.resolve("vault");
    try (Vault one = Vault.create(file, MASTER);
        Vault other = Vault.open(file, MASTER)) {
      one.put("a", "1".toCharArray());
      other.put("b", "2".toCharArray());
      one.put("c", "3".toCharArray());
      other.remove("a");
      assertThat(other.names()).containsExactly("b", "c");
      List<Thread> writers = new ArrayList<>();
      for (Vault vault : List.of(one, other)) {
        Thread writer =
            new Thread(
                () -> {
                  for (int i = 0; i < 20; i++) {
                    try {
                      vault.put((vault == one ? "one " : "other ") + i, "x".toCharArray());
                    } catch (IOException e) {
                      throw new UncheckedIOException(e);
                    }
                  }
                });
        writer.start();
        writers.add(writer);
      }
      for (Thread writer : writers) {
        writer.join();
      }
    }
    try (Vault vault = Vault.open(file, MASTER)) {
      assertThat(vault.names()).hasSize(42);
    }
  }

  @Test
  void writesNothingOverAVaultOfAnotherPassphrase() throws IOException {
    Path file = folder.resolve("vault");
    try (Vault vault = Vault.create(file, MASTER)) {
      Files.delete(file);
      Vault.create(file, "another".toCharArray()).close();
      byte[] theirs = Files.readAllBytes(file);
      assertThatThrownBy(() -> vault.put("a", "b".toCharArray())).isInstanceOf(VaultFailure.class);
      assertThat(Files.readAllBytes(file)).isEqualTo(theirs);
    }
  }

  /** Cut anywhere, the file is told as damaged, or not to be opened; nothing else is thrown. */
  @Test
  void everyCutIsTold() throws IOException {
    Path file = folder.resolve("vault");
    try (Vault vault = Vault.create(file, MASTER)) {
      vault.put("a", "b".toCharArray());
    }
    byte[] whole = Files.readAllBytes(file);
    for (int length = 0; length < whole.length; length += length < 70 ? 1 : 5) {
      Files.write(file, Arrays.copyOf(whole, length));
      assertThat(refusal(file, MASTER))
          .isIn(VaultFailure.Reason.DAMAGED, VaultFailure.Reason.WRONG_PASSPHRASE);
    }
  }

  /** A file that was made with other parameters keeps them when it is written again. */
  @Test
  void keepsTheParametersThatTheKeyWasMadeWith() throws IOException {
    Path file = folder.resolve("vault");
    Vault.create(file, MASTER, 8 * 1024, 1).close();
    try (Vault vault = Vault.open(file, MASTER)) {
      vault.put("b", "2".toCharArray());
    }
    try (Vault vault = Vault.open(file, MASTER)) {
      assertThat(vault.get("b")).isEqualTo("2".toCharArray());
    }
  }
}
