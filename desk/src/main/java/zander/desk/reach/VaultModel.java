package zander.desk.reach;

import java.io.IOException;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CopyOnWriteArrayList;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.beans.property.ReadOnlyStringProperty;
import javafx.beans.property.ReadOnlyStringWrapper;
import javafx.collections.FXCollections;
import javafx.collections.ObservableList;
import org.jspecify.annotations.Nullable;
import zander.core.vault.Vault;
import zander.core.vault.VaultFailure;
import zander.core.work.SecretBytes;
import zander.desk.words.Phrases;
import zander.desk.words.Words;
import zander.desk.work.Background;

/**
 * The vault of secrets: not made, locked or open. Opened when a secret in it is first wanted, or by
 * hand; who says "not now" is not asked again until then.
 */
public final class VaultModel {
  private static final Words WORDS = Words.of(VaultModel.class);

  /** Where it stands. */
  public enum State {
    NONE,
    LOCKED,
    OPEN
  }

  private static final String NOT_THE_SAME = WORDS.say("theTwoPassphrasesAre");

  private final Path file;
  private final Background background;
  private final ReadOnlyObjectWrapper<State> state = new ReadOnlyObjectWrapper<>(State.NONE);
  private final ReadOnlyStringWrapper problem = new ReadOnlyStringWrapper("");
  private final ObservableList<String> names = FXCollections.observableArrayList();
  private volatile @Nullable Vault open;
  private volatile boolean there;
  private volatile boolean notNow;
  private final List<Opened> whenOpened = new CopyOnWriteArrayList<>();
  private final List<Runnable> whenLocked = new CopyOnWriteArrayList<>();

  /** One question at a time, whoever waits for it. */
  private final Object asking = new Object();

  /** Told when it is opened, on the thread that opened it. */
  public interface Opened {
    void opened(Vault vault) throws IOException;
  }

  public void whenOpened(Opened told) {
    whenOpened.add(told);
  }

  /** Told on the interface thread. */
  public void whenLocked(Runnable told) {
    whenLocked.add(told);
  }

  public VaultModel(Path file, Background background) {
    this.file = file;
    this.background = background;
    background.run(
        () -> Vault.exists(file),
        exists -> {
          there = exists;
          state.set(exists ? State.LOCKED : State.NONE);
        },
        failure -> problem.set(Phrases.of(failure)));
  }

  boolean isThere() {
    return there;
  }

  /** For threads that wait: the secret, after asking for the master passphrase if need be. */
  char @Nullable [] get(String name, Prompts prompts, Background from) {
    if (open == null && there && !notNow) {
      askAndOpen(WORDS.say("openTheVault"), WORDS.say("aSecretForThis"), prompts, from);
    }
    return getIfOpen(name);
  }

  /**
   * The same for something that only the vault has: who said "not now" is asked again.
   *
   * @param why is to be opened, in a sentence
   */
  public char @Nullable [] ask(String name, String why, Prompts prompts, Background from) {
    if (open == null && there) {
      askAndOpen(WORDS.say("openTheVault"), why, prompts, from);
    }
    return getIfOpen(name);
  }

  /** A copy for the caller to wipe; {@code null} while it is closed. */
  public char @Nullable [] getIfOpen(String name) {
    Vault vault = open;
    return vault == null ? null : vault.get(name);
  }

  /** For threads that wait: keeps a secret, making or opening the vault if need be. */
  void put(String name, char[] letters, Prompts prompts, Background from) {
    if (open == null) {
      askAndOpen(
          there ? WORDS.say("openTheVault") : WORDS.say("aMasterPassphraseFor"),
          there ? WORDS.say("theSecretIsPut") : WORDS.say("itSealsWhatYou"),
          prompts,
          from);
    }
    Vault vault = open;
    try {
      if (vault != null) {
        vault.put(name, letters);
        showNames();
      }
    } catch (IOException e) {
      background.show(() -> problem.set(Phrases.of(e)));
    }
  }

  private void askAndOpen(String headline, String detail, Prompts prompts, Background from) {
    synchronized (asking) {
      askOnce(headline, detail, prompts, from);
    }
  }

  private void askOnce(String headline, String detail, Prompts prompts, Background from) {
    String more = detail;
    for (int tries = 0; tries < 3 && open == null; tries++) {
      char[] master = ask(headline, more, !more.equals(detail), prompts, from);
      boolean same = true;
      if (master != null && !there) {
        // Nobody could ever open a vault whose passphrase has a typing mistake in it.
        char[] again = ask(WORDS.say("theSamePassphraseAgain"), detail, false, prompts, from);
        same = again != null && Arrays.equals(master, again);
        SecretBytes.wipe(again);
      }
      if (master == null) {
        notNow = true;
        return;
      }
      if (!same) {
        SecretBytes.wipe(master);
        more = NOT_THE_SAME;
        continue;
      }
      String trouble = tryOpen(master);
      if (trouble != null) {
        more = trouble;
      }
    }
  }

  private static char @Nullable [] ask(
      String headline, String detail, boolean wrong, Prompts prompts, Background from) {
    CompletableFuture<Prompts.Given> answer = new CompletableFuture<>();
    Prompts.Ask ask = new Prompts.Ask(headline, detail, wrong, false, KeepSecret.NOW);
    from.show(() -> prompts.secret(ask, answer));
    Prompts.Given given = answer.join();
    return given == null ? null : given.letters();
  }

  /** Opens or makes it; wipes the letters. */
  private synchronized @Nullable String tryOpen(char[] master) {
    try {
      if (master.length == 0) {
        return WORDS.say("theVaultNeedsA");
      }
      Vault opened = there ? Vault.open(file, master) : Vault.create(file, master);
      open = opened;
      there = true;
      notNow = false;
      background.show(
          () -> {
            state.set(State.OPEN);
            problem.set("");
          });
      tellOpened(opened);
      showNames();
      return null;
    } catch (VaultFailure e) {
      return switch (e.reason()) {
        case WRONG_PASSPHRASE -> WORDS.say("thatDoesNotOpen");
        case NEWER -> WORDS.say("theVaultWasWritten");
        default -> WORDS.say("theVaultsFileIs");
      };
    } catch (IOException e) {
      return Phrases.of(e);
    } finally {
      SecretBytes.wipe(master);
    }
  }

  private void tellOpened(Vault opened) {
    for (Opened told : whenOpened) {
      try {
        told.opened(opened);
      } catch (IOException e) {
        background.show(() -> problem.set(WORDS.say("whatIsKeptOn", Phrases.of(e))));
      }
    }
  }

  private void showNames() {
    Vault vault = open;
    List<String> now = vault == null ? List.of() : List.copyOf(vault.names());
    background.show(() -> names.setAll(now));
  }

  /** Makes it with letters from the window, given twice, which are wiped. */
  public void make(char[] master, char[] again) {
    boolean same = Arrays.equals(master, again);
    SecretBytes.wipe(again);
    if (same) {
      open(master);
    } else {
      SecretBytes.wipe(master);
      problem.set(NOT_THE_SAME);
    }
  }

  /** Opens it with letters from the window, which are wiped. */
  public void open(char[] master) {
    background.run(
        () -> tryOpen(master), trouble -> problem.set(trouble == null ? "" : trouble), e -> {});
  }

  /** Closes it and wipes what was in memory. */
  public void lock() {
    Vault vault = open;
    open = null;
    if (vault != null) {
      vault.close();
      names.clear();
      state.set(State.LOCKED);
      whenLocked.forEach(Runnable::run);
    }
  }

  /** Forgets one secret. */
  public void remove(String name) {
    Vault vault = open;
    if (vault == null) {
      return;
    }
    background.run(
        () -> {
          vault.remove(name);
          return name;
        },
        gone -> names.remove(gone),
        failure -> problem.set(Phrases.of(failure)));
  }

  public Path file() {
    return file;
  }

  public ReadOnlyObjectProperty<State> stateProperty() {
    return state.getReadOnlyProperty();
  }

  /** What is wrong; empty when all is well. */
  public ReadOnlyStringProperty problemProperty() {
    return problem.getReadOnlyProperty();
  }

  /** What is kept in it, by name, while it is open. */
  public ObservableList<String> names() {
    return names;
  }
}
