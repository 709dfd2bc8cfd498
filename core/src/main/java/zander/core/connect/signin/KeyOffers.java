package zander.core.connect.signin;

import static java.util.Objects.requireNonNull;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import zander.core.connect.keys.Agent;
import zander.core.connect.keys.Certificate;
import zander.core.connect.keys.KeyFailure;
import zander.core.connect.keys.KeyFile;
import zander.core.connect.keys.KeyMaker;
import zander.core.connect.report.SignInNote.Kind;
import zander.core.phrase.Phrase;
import zander.core.phrase.SignInPhrase;
import zander.core.trust.WireKey;

/**
 * Which keys to offer, in order: the chosen one, with its certificate before it; then, if allowed,
 * what else the agent holds.
 */
final class KeyOffers {
  /** Servers end the sign-in after six tries by default; some are left for a password. */
  private static final int MOST_OF_AGENT = 4;

  private final SignInAttempt attempt;
  private final @Nullable Agent agent;
  private final List<KeyOffer> offers = new ArrayList<>();

  private KeyOffers(SignInAttempt attempt, @Nullable Agent agent) {
    this.attempt = attempt;
    this.agent = agent;
  }

  /**
   * Reads the key file and asks the agent.
   *
   * @param agent {@code null} when none is running
   * @throws KeyFailure when the chosen key cannot be used and there is no other way
   */
  static List<KeyOffer> prepare(SignInMethods ways, SignInAttempt attempt, @Nullable Agent agent)
      throws IOException {
    KeyOffers offers = new KeyOffers(attempt, agent);
    List<Agent.Held> held = offers.held();
    if (ways.keyFile() != null) {
      offers.addChosen(ways, ways.keyFile(), held);
    }
    if (ways.agent()) {
      List<WireKey> chosen = offers.offers.stream().map(KeyOffer::key).toList();
      held.stream()
          .filter(one -> !chosen.contains(one.key()))
          .limit(ways.password() ? MOST_OF_AGENT : Long.MAX_VALUE)
          .forEach(
              one ->
                  offers.offers.add(
                      new KeyOffer(
                          one.key(),
                          SignInPhrase.AGENT_KEY.of(one.comment()),
                          offers.inAgent(one.key()))));
    }
    return offers.offers;
  }

  private KeyOffer.Signer inAgent(WireKey key) {
    return KeyOffer.inAgent(requireNonNull(agent, "it holds the key"), key);
  }

  private List<Agent.Held> held() {
    if (agent == null) {
      return List.of();
    }
    try {
      return agent.keys();
    } catch (IOException e) {
      attempt.note(Kind.REFUSED, SignInPhrase.ABOUT.of(SignInPhrase.THE_AGENT, Phrase.of(e)));
      return List.of();
    }
  }

  private void addChosen(SignInMethods ways, Path path, List<Agent.Held> held) throws IOException {
    try {
      KeyFile file = KeyFile.read(path);
      KeyOffer.InFile inFile = new KeyOffer.InFile(file, attempt.talk());
      WireKey open = file.publicHalf().orElse(null);
      if (open == null) {
        // Only the private half tells what the public one is.
        var pair = inFile.pair();
        if (pair == null) {
          throw attempt.giveUp();
        }
        open = KeyMaker.blob(pair);
      }
      WireKey plain = open;
      boolean inAgent = held.stream().anyMatch(one -> one.key().equals(plain));
      KeyOffer.Signer signer = inAgent ? inAgent(plain) : inFile;
      String called = path.getFileName().toString();
      Phrase name = inAgent ? SignInPhrase.IN_THE_AGENT.of(called) : Phrase.quoted(called);
      addCertificate(ways, path, plain, signer);
      offers.add(new KeyOffer(plain, name, signer));
    } catch (KeyFailure e) {
      if (!ways.password() && !ways.agent()) {
        throw e;
      }
      attempt.note(Kind.REFUSED, SignInPhrase.ABOUT.of(path.getFileName(), Phrase.of(e)));
    }
  }

  private void addCertificate(
      SignInMethods ways, Path path, WireKey plain, KeyOffer.Signer signer) {
    Path file =
        ways.certificate() != null ? ways.certificate() : Certificate.beside(path).orElse(null);
    if (file == null) {
      return;
    }
    try {
      Certificate certificate = Certificate.read(file, plain);
      offers.add(
          new KeyOffer(certificate.blob(), Phrase.quoted(file.getFileName().toString()), signer));
    } catch (KeyFailure e) {
      attempt.note(Kind.REFUSED, SignInPhrase.ABOUT.of(file.getFileName(), Phrase.of(e)));
    }
  }
}
