package zander.desk.model;

import java.nio.file.Path;
import java.util.concurrent.CompletableFuture;
import java.util.function.Consumer;
import zander.core.trust.WireKey;
import zander.core.connect.ServerAddress;
import zander.core.connect.SignInStep;
import zander.core.connect.SignInTalk;
import zander.desk.work.Background;

/** Brings the questions of a sign-in to the window and its answers back to the waiting thread. */
public final class ServerTalk implements SignInTalk {
  private final Background background;
  private final Prompts prompts;
  private final Consumer<SignInStep> onStep;

  ServerTalk(Background background, Prompts prompts, Consumer<SignInStep> onStep) {
    this.background = background;
    this.prompts = prompts;
    this.onStep = onStep;
  }

  /** The two questions that may stand over everything else: a host key and a secret. */
  public interface Prompts {
    void hostKey(ServerAddress address, WireKey shown, CompletableFuture<Boolean> answer);

    /**
     * @param answer completed with the secret, which the asker wipes, or {@code null}
     */
    void secret(String headline, String detail, CompletableFuture<char[]> answer);
  }

  @Override
  public boolean isHostKeyRight(ServerAddress address, WireKey shown) {
    CompletableFuture<Boolean> answer = new CompletableFuture<>();
    background.show(() -> prompts.hostKey(address, shown, answer));
    return answer.join();
  }

  @Override
  public char[] passphrase(Path keyFile, int tries) {
    return secret("Passphrase of the key " + keyFile.getFileName(), tries);
  }

  @Override
  public char[] password(ServerAddress address, int tries) {
    return secret("Password of " + address, tries);
  }

  private char[] secret(String headline, int tries) {
    String detail =
        tries == 0
            ? "It is used once and not kept."
            : tries == 1 ? "That was not right. One wrong try so far." : tries + " wrong tries.";
    CompletableFuture<char[]> answer = new CompletableFuture<>();
    background.show(() -> prompts.secret(headline, detail, answer));
    return answer.join();
  }

  @Override
  public void reached(SignInStep step) {
    background.show(() -> onStep.accept(step));
  }
}
