package zander.core.connect.signin;

import static java.util.Objects.requireNonNull;

import java.io.IOException;
import java.security.PublicKey;
import java.util.ArrayList;
import java.util.List;
import org.apache.sshd.common.NamedFactory;
import org.apache.sshd.common.config.keys.OpenSshCertificate;
import org.apache.sshd.common.session.Session;
import org.apache.sshd.common.signature.Signature;
import org.apache.sshd.common.util.buffer.ByteArrayBuffer;
import org.jspecify.annotations.Nullable;
import zander.core.connect.address.ServerAddress;
import zander.core.connect.channel.AlgorithmOrder;
import zander.core.connect.report.ConnectFailure;
import zander.core.connect.report.ConnectFailure.Reason;
import zander.core.connect.report.SignInNote.Kind;
import zander.core.connect.report.SignInStep;
import zander.core.phrase.Phrase;
import zander.core.phrase.SignInPhrase;
import zander.core.trust.KnownHosts;
import zander.core.trust.WireKey;

/** Decides whether a server is the one it should be: by its key, or by who vouches for it. */
public final class HostTrust {
  private static final String CERTIFICATE = "-cert-v01@openssh.com";

  private final KnownHosts knownHosts;
  private volatile @Nullable WireKey shown;

  public HostTrust(KnownHosts knownHosts) {
    this.knownHosts = knownHosts;
  }

  KnownHosts knownHosts() {
    return knownHosts;
  }

  /** The key the server showed; {@code null} before. */
  public @Nullable WireKey shown() {
    return shown;
  }

  Phrase file(IOException e) {
    return SignInPhrase.ABOUT.of(knownHosts.file(), Phrase.of(e));
  }

  /**
   * Asks first for the kinds of host keys that are known. Certificates are asked for only where an
   * authority is known for the host: of no use otherwise, they would hide the plain key.
   */
  public void order(Session session, ServerAddress address) throws IOException {
    List<String> names = new ArrayList<>();
    for (String type : knownHosts.typesFor(address.knownHostsName())) {
      // One RSA key signs under several algorithm names (RFC 8332).
      names.addAll(
          type.equals("ssh-rsa") ? List.of("rsa-sha2-512", "rsa-sha2-256") : List.of(type));
    }
    boolean vouched = knownHosts.hasAuthority(address.knownHostsName());
    List<NamedFactory<Signature>> all =
        session.getSignatureFactories().stream()
            .filter(factory -> vouched || !factory.getName().endsWith(CERTIFICATE))
            .toList();
    session.setSignatureFactories(AlgorithmOrder.preferring(names, all));
  }

  /** {@code null} when the key is right; else why not. */
  @Nullable ConnectFailure judge(PublicKey key, SignInAttempt attempt) throws IOException {
    ServerAddress address = attempt.address();
    String host = address.knownHostsName();
    PublicKey plain = key;
    if (key instanceof OpenSshCertificate certificate) {
      // The library has verified the signature, the time and the host's name in it.
      WireKey authority = wire(certificate.getCaPubKey());
      plain = certificate.getCertPubKey();
      if (knownHosts.isAuthority(host, authority)
          && knownHosts.find(host, wire(plain)).standing() != KnownHosts.Standing.REVOKED) {
        shown = wire(plain);
        attempt.note(Kind.FOUND, SignInPhrase.VOUCHED_FOR.of(shown, authority));
        return null;
      }
    }
    WireKey found = wire(plain);
    shown = found;
    attempt.note(Kind.FOUND, found.toString());
    KnownHosts.Finding finding = knownHosts.find(host, found);
    switch (finding.standing()) {
      case KNOWN:
        return null;
      case FIRST_CONTACT:
        if (attempt.asking(() -> attempt.talk().isHostKeyRight(address, found))) {
          knownHosts.remember(host, found);
          return null;
        }
        return refuse(Reason.HOST_KEY_DECLINED, address, finding);
      case CHANGED:
        return refuse(Reason.HOST_KEY_CHANGED, address, finding);
      default:
        return refuse(Reason.HOST_KEY_REVOKED, address, finding);
    }
  }

  private ConnectFailure refuse(Reason reason, ServerAddress address, KnownHosts.Finding finding) {
    WireKey showing = requireNonNull(shown);
    return new ConnectFailure(
        SignInStep.HOST_KEY,
        reason,
        address,
        Phrase.quoted(showing.toString()),
        null,
        new ConnectFailure.HostKeys(showing, finding.known()));
  }

  static WireKey wire(PublicKey key) {
    ByteArrayBuffer buffer = new ByteArrayBuffer();
    buffer.putRawPublicKey(key);
    return WireKey.ofBlob(buffer.getCompactData());
  }
}
