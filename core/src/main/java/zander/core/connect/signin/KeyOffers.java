package zander.core.connect.signin;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
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
  private final Agent agent;
  private final List<KeyOffer> offers = new ArrayList<>();

  private KeyOffers(SignInAttempt attempt, Agent agent) {
    this.attempt = attempt;
    this.agent = agent;
  }

  /**
   * Reads the key file and asks the agent.
   *
   * @param agent {@code null} when none is running
   * @throws KeyFailure when the chosen key cannot be used and there is no other way
   */
  static List<KeyOffer> prepare(SignInMethods ways, SignInAttempt attempt, Agent agent)
      throws IOException {
    KeyOffers offers = new KeyOffers(attempt, agent);
    List<Agent.Held> held = offers.held();
    if (ways.keyFile() != null) {
      offers.addChosen(ways, held);
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
                          KeyOffer.inAgent(agent, one.key()))));
    }
    return offers.offers;
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

  private void addChosen(SignInMethods ways, List<Agent.Held> held) throws IOException {
    Path path = ways.keyFile();
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
      KeyOffer.Signer signer = inAgent ? KeyOffer.inAgent(agent, plain) : inFile;
      String called = path.getFileName().toString();
      Phrase name = inAgent ? SignInPhrase.IN_THE_AGENT.of(called) : Phrase.quoted(called);
      addCertificate(ways, plain, signer);
      offers.add(new KeyOffer(plain, name, signer));
    } catch (KeyFailure e) {
      if (!ways.password() && !ways.agent()) {
        throw e;
      }
      attempt.note(Kind.REFUSED, SignInPhrase.ABOUT.of(path.getFileName(), Phrase.of(e)));
    }
  }

  private void addCertificate(SignInMethods ways, WireKey plain, KeyOffer.Signer signer) {
    Path file =
        ways.certificate() != null
            ? ways.certificate()
            : Certificate.beside(ways.keyFile()).orElse(null);
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
