package zander.core.seal;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import java.io.IOException;
import java.math.BigInteger;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.KeyFactory;
import java.security.spec.NamedParameterSpec;
import java.security.spec.XECPrivateKeySpec;
import java.security.spec.XECPublicKeySpec;
import java.util.Arrays;
import javax.crypto.KeyAgreement;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import zander.core.seal.StillSealed.Reason;

class ContentSealTest {
  private static final byte[] CONTENT =
      "root:$y$made-up:20000:0:99999:7:::\n".getBytes(StandardCharsets.UTF_8);

  @TempDir Path folder;
  private final StandInVault vault = new StandInVault();

  private ContentSeal run() {
    return new ContentSeal(folder.resolve("kept.pub"), vault);
  }

  private static Reason refusal(ContentSeal seal, byte[] sealed, String about) {
    StillSealed refused =
        catchThrowableOfType(StillSealed.class, () -> seal.open(sealed, about, false));
    return refused == null ? null : refused.reason();
  }

  @Test
  void withoutAVaultItEndsWithItsRun() throws IOException {
    ContentSeal first = run();
    assertThat(first.lasts()).isFalse();
    byte[] sealed = first.seal(CONTENT, "a");
    assertThat(new String(sealed, StandardCharsets.ISO_8859_1)).doesNotContain("made-up");
    assertThat(first.open(sealed, "a", false)).isEqualTo(CONTENT);
    assertThat(first.isLost(sealed)).isFalse();
    ContentSeal next = run();
    assertThat(refusal(next, sealed, "a")).isEqualTo(Reason.KEY_GONE);
    assertThat(next.isLost(sealed)).isTrue();
  }

  @Test
  void withAVaultAnyRunOpensItAndNoneAsksToSeal() throws IOException {
    ContentSeal first = run();
    byte[] before = first.seal(CONTENT, "a");
    first.lastWith(SealKeys.publicOf(vault.secret));
    byte[] sealed = first.seal(CONTENT, "a");
    vault.open = false;
    assertThat(first.open(before, "a", true)).as("of this run").isEqualTo(CONTENT);
    assertThat(first.open(sealed, "a", true)).isEqualTo(CONTENT);
    ContentSeal next = run();
    assertThat(next.lasts()).isTrue();
    byte[] another = next.seal(CONTENT, "b");
    assertThat(vault.asked).isZero();
    assertThat(refusal(next, sealed, "a")).isEqualTo(Reason.VAULT_CLOSED);
    vault.open = true;
    assertThat(next.open(sealed, "a", false)).isEqualTo(CONTENT);
    assertThat(run().open(another, "b", false)).isEqualTo(CONTENT);
    assertThat(next.isLost(sealed)).isFalse();
  }

  @Test
  void aLockedVaultIsAskedForOnceTheKeyIsForgotten() throws IOException {
    ContentSeal seal = run();
    seal.lastWith(SealKeys.publicOf(vault.secret));
    byte[] sealed = seal.seal(CONTENT, "a");
    vault.open = false;
    seal.forget();
    assertThat(refusal(seal, sealed, "a")).isEqualTo(Reason.VAULT_CLOSED);
  }

  @Test
  void nothingIsSealedForAVaultThatIsGone() throws IOException {
    run().lastWith(SealKeys.publicOf(vault.secret));
    vault.there = false;
    assertThat(run().lasts()).isFalse();
    Files.write(folder.resolve("kept.pub"), new byte[5]);
    vault.there = true;
    assertThat(run().lasts()).isFalse();
  }

  @Test
  void anotherVaultsKeyDoesNotOpenIt() throws IOException {
    ContentSeal seal = run();
    seal.lastWith(SealKeys.publicOf(SealKeys.newPrivate()));
    byte[] sealed = seal.seal(CONTENT, "a");
    assertThat(refusal(run(), sealed, "a")).isEqualTo(Reason.KEY_GONE);
  }

  @Test
  void everyChangeIsSeen() throws IOException {
    ContentSeal seal = run();
    seal.lastWith(SealKeys.publicOf(vault.secret));
    byte[] sealed = seal.seal(CONTENT, "a");
    ContentSeal next = run();
    assertThat(refusal(next, sealed, "b")).as("given for another").isEqualTo(Reason.DAMAGED);
    for (int at = 0; at < sealed.length; at++) {
      byte[] bad = sealed.clone();
      bad[at] ^= 1;
      assertThat(refusal(next, bad, "a")).as("byte " + at).isNotNull();
      assertThat(refusal(next, Arrays.copyOf(sealed, at), "a")).as("cut at " + at).isNotNull();
    }
  }

  /**
   * Judged by Java's own X25519: the public key is what the private one makes of the base point.
   */
  @Test
  void publicKeysAreThoseOfTheStandard() throws Exception {
    NamedParameterSpec curve = NamedParameterSpec.X25519;
    KeyFactory factory = KeyFactory.getInstance("X25519");
    for (int round = 0; round < 50; round++) {
      byte[] made = SealKeys.newPrivate();
      KeyAgreement judge = KeyAgreement.getInstance("X25519");
      judge.init(factory.generatePrivate(new XECPrivateKeySpec(curve, made)));
      judge.doPhase(
          factory.generatePublic(new XECPublicKeySpec(curve, BigInteger.valueOf(9))), true);
      assertThat(SealKeys.publicOf(made)).isEqualTo(judge.generateSecret());
    }
  }
}
