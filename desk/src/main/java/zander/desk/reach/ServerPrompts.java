package zander.desk.reach;

import static java.util.Objects.requireNonNull;

import java.nio.file.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.atomic.AtomicReference;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;
import zander.core.connect.address.ServerAddress;
import zander.core.connect.channel.Elevation;
import zander.core.connect.channel.WayUp;
import zander.core.connect.report.SignInNote;
import zander.core.connect.signin.SignInPrompt;
import zander.core.trust.WireKey;
import zander.core.work.SecretBytes;
import zander.desk.words.Words;
import zander.desk.work.Background;

/**
 * Brings the questions of a sign-in to the window and its answers back to the waiting thread. A
 * secret that is kept, for the desk or in the vault, is tried once; a wrong one is never tried
 * again. Unattended, nobody is asked: what is not kept is not there.
 */
public final class ServerPrompts implements SignInPrompt {
  private static final Words WORDS = Words.of(ServerPrompts.class);

  private final Background background;
  private final Prompts prompts;
  private final Secrets secrets;
  private final VaultModel vault;
  private final AtomicReference<KeepSecret> lastKeep;
  private final Consumer<SignInNote> onNote;
  private final AllowedCommands allowed;
  private final Map<String, char[]> forVault = new HashMap<>();
  private volatile boolean unattended;
  private volatile boolean wasAlone;

  /**
   * @param lastKeep how long the last secret was kept, which is offered for the next
   */
  ServerPrompts(
      Background background,
      Prompts prompts,
      Secrets secrets,
      VaultModel vault,
      AtomicReference<KeepSecret> lastKeep,
      Consumer<SignInNote> onNote,
      AllowedCommands allowed) {
    this.background = background;
    this.prompts = prompts;
    this.secrets = secrets;
    this.vault = vault;
    this.lastKeep = lastKeep;
    this.onNote = onNote;
    this.allowed = allowed;
  }

  /** From now on, or no longer, nobody is there to be asked. */
  void setUnattended(boolean alone) {
    unattended = alone;
  }

  /** Whether something was not answered because nobody was there. */
  boolean missedSomebody() {
    return wasAlone;
  }

  private <T> @Nullable T alone() {
    wasAlone = true;
    return null;
  }

  @Override
  public boolean isHostKeyRight(ServerAddress address, WireKey shown) {
    if (unattended) {
      wasAlone = true;
      return false;
    }
    CompletableFuture<Boolean> answer = new CompletableFuture<>();
    background.show(() -> prompts.hostKey(address, shown, answer));
    return answer.join();
  }

  @Override
  public boolean mayRun(ServerAddress address, String command) {
    if (allowed.has(command)) {
      return true;
    }
    if (unattended) {
      wasAlone = true;
      return false;
    }
    CompletableFuture<Boolean> answer = new CompletableFuture<>();
    background.show(() -> prompts.command(address, command, answer));
    boolean may = answer.join();
    if (may) {
      allowed.add(command);
    }
    return may;
  }

  @Override
  public char @Nullable [] passphrase(Path keyFile, int wrong) {
    return secret(
        "passphrase " + keyFile, WORDS.say("passphraseOfTheKey", keyFile.getFileName()), wrong);
  }

  @Override
  public char @Nullable [] password(ServerAddress address, int wrong) {
    return secret("password " + address, WORDS.say("passwordOf", address), wrong);
  }

  /** For threads that wait: what the server asks of whoever acts as another account there. */
  Elevation.PasswordPrompt acting(ServerAddress address, String account, WayUp way) {
    String host = address.host();
    boolean theirs = way == WayUp.SU;
    String name =
        theirs
            ? "password of " + account + " " + address
            : "password for acting as others " + address;
    String headline =
        theirs
            ? WORDS.say("passwordOfOn", account, host)
            : WORDS.say("yourPasswordOnTo", host, account);
    return new Elevation.PasswordPrompt() {
      @Override
      public char @Nullable [] password(int wrong) {
        return secret(name, headline, wrong);
      }

      @Override
      public char @Nullable [] answer(String question) {
        Challenge asked =
            new Challenge(
                address, WORDS.say("toActAs", account), "", List.of(new Prompt(question, false)));
        List<char[]> given = answers(asked, 0);
        return given == null ? null : given.get(0);
      }
    };
  }

  private char @Nullable [] secret(String name, String headline, int wrong) {
    if (wrong == 0) {
      char[] kept = secrets.get(name);
      if (kept == null && !unattended) {
        kept = vault.get(name, prompts, background);
      } else if (kept == null) {
        kept = vault.getIfOpen(name);
      }
      if (kept != null) {
        return kept;
      }
    } else {
      secrets.forget(name);
      SecretBytes.wipe(forVault.remove(name));
    }
    return unattended ? alone() : asked(name, headline, wrong);
  }

  private char @Nullable [] asked(String name, String headline, int wrong) {
    KeepSecret last = requireNonNull(lastKeep.get());
    KeepSecret preset = last == KeepSecret.VAULT && !vault.isThere() ? KeepSecret.NOW : last;
    CompletableFuture<Prompts.Given> answer = new CompletableFuture<>();
    background.show(
        () ->
            prompts.secret(
                new Prompts.Ask(headline, counted(wrong), wrong > 0, true, preset), answer));
    Prompts.Given given = answer.join();
    if (given == null) {
      return null;
    }
    lastKeep.set(given.keep());
    if (given.keep() != KeepSecret.NOW) {
      secrets.hold(name, given.letters());
    }
    if (given.keep() == KeepSecret.VAULT) {
      forVault.put(name, given.letters().clone());
    }
    return given.letters();
  }

  private static String counted(int wrong) {
    return wrong == 0
        ? ""
        : wrong == 1 ? WORDS.say("thatWasNotRight") : WORDS.say("wrongTriesSoFar", wrong);
  }

  @Override
  public @Nullable List<char[]> answers(Challenge challenge, int wrong) {
    if (unattended) {
      return alone();
    }
    CompletableFuture<List<char[]>> answer = new CompletableFuture<>();
    background.show(() -> prompts.questions(challenge, counted(wrong), answer));
    return answer.join();
  }

  @Override
  public void noted(SignInNote note) {
    background.show(() -> onNote.accept(note));
  }

  /** After a sign-in: what was right and is meant for the vault goes there. Waits. */
  void signedIn() {
    forVault.forEach((name, letters) -> vault.put(name, letters, prompts, background));
    forVault.values().forEach(SecretBytes::wipe);
    forVault.clear();
  }
}
