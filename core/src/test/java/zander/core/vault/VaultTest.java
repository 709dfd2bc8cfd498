package zander.core.vault;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
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
}
